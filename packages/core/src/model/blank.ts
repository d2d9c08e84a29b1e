/** New parts of a document as their classes' defaults have them. */
import { type Attack, Attack as AttackClass } from './attack';
import { type Delivery, traitsOf } from './delivery';
import { type Constructor, classFields } from './field';
import { fieldAt } from './field-at';
import { type Does, PatrolPoint, State } from './state';
import { Unit } from './unit';
import { applies, isNeeded } from './walk';

/** Plain data with a class's defaults; what has none is absent. */
export function blank<T extends object>(type: new () => T): T {
  return JSON.parse(JSON.stringify(new type())) as T;
}

/** What an absent group or list item at a place of a class begins as; undefined where no group is. */
export function blankAt(root: Constructor, steps: readonly string[]): object | undefined {
  const field = fieldAt(root, steps);
  return field?.kind === 'group' ? blank(field.type()) : undefined;
}

export function blankUnit(id: string, name: string, side: Unit['side']): Unit {
  return { ...blank(Unit), id, name, side };
}

/** An attack with what its delivery needs. @param summoned the unit that a summon begins with */
export function blankAttack(id: string, name: string, delivery: Delivery, summoned = ''): Attack {
  const attack: Attack = { ...blank(AttackClass), id, name, delivery };
  return deliveredBy(attack, delivery, summoned);
}

/** An attack turned to another delivery: what that needs is added, what does not apply to it goes. */
export function deliveredBy(attack: Attack, delivery: Delivery, summoned = ''): Attack {
  const next = fittingFields(AttackClass, { ...attack, delivery });
  if (next.summon) next.summon = { ...next.summon, unit: next.summon.unit ?? summoned, cap: next.summon.cap ?? 3 };
  const { aids, needsTarget } = traitsOf(delivery);
  if (!(aids && needsTarget)) next.targets = 'foes';
  else if (next.targets === 'foes') next.targets = 'friends';
  return next;
}

/**
 * A unit one of whose attacks is delivered otherwise: one that nobody chooses any more is not among those to choose from.
 * @param summoned the unit that a summoning raises at first
 */
export function withDelivery(unit: Unit, id: string, delivery: Delivery, summoned?: string): Unit {
  const attacks = unit.attacks.map((one) => (one.id === id ? deliveredBy(one, delivery, summoned) : one));
  if (traitsOf(delivery).chosen) return { ...unit, attacks };
  const priorities = unit.choice.priorities
    .map((priority) => ({ ...priority, entries: priority.entries.filter(({ attack }) => attack !== id) }))
    .filter(({ entries }, p) => entries.length > 0 || !unit.choice.priorities[p].entries.length);
  return { ...unit, attacks, choice: { ...unit.choice, priorities } };
}

/** Groups that apply now and are needed are added; optional fields that have nothing to say any more go. */
function fittingFields<T extends object>(type: new () => T, object: T): T {
  const next = { ...object } as Record<string, unknown>;
  const { said, optional, groups } = classFields(type)!;
  for (const [field, info] of said) {
    const { when } = info;
    if (!when || !optional.has(field)) continue;
    const group = groups.get(field);
    if (!applies(when, next)) delete next[field];
    else if (group && isNeeded(info, next)) next[field] ??= blank(group());
  }
  return next as T;
}

export function blankState(id: string, name: string, does: Does): State {
  return doing({ ...blank(State), id, name, does }, does, '');
}

/** A state turned to another conduct: what that needs is added. @param to where it goes, for those that go somewhere */
export function doing(state: State, does: Does, to: string): State {
  const { near, far } = state;
  const next = fittingFields(State, { ...state, does });
  // A point is no friend, nor the other way round.
  if (state.does !== does) delete next.to;
  if (does === 'band' || does === 'strafe')
    Object.assign(next, { near: near ?? Math.min(4, far ?? 4), far: far ?? Math.max(8, near ?? 8) });
  if (next.patrol && !next.patrol.points.length) next.patrol = { ...next.patrol, points: [{ ...blank(PatrolPoint), id: 'a' }] };
  if (does === 'goTo') next.to ??= to;
  return next;
}
