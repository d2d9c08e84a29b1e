/** New parts of a document as their classes' defaults have them. */
import { type Constructor, fieldAt } from './field';
import type { Delivery } from './delivery';
import type { Attack } from './attack';
import { Area, Attack as AttackClass, Projectile, Summoning } from './attack';
import type { Does } from './state';
import { Patrol, PatrolPoint, State } from './state';
import { Unit } from './unit';

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
  const next: Attack = { ...attack, delivery };
  if (delivery === 'projectile') next.projectile ??= blank(Projectile);
  else delete next.projectile;
  if (delivery === 'area') next.area ??= blank(Area);
  else delete next.area;
  if (delivery === 'summon') next.summon ??= { ...blank(Summoning), unit: summoned, cap: 3 };
  else delete next.summon;
  if (delivery === 'support') {
    if (next.targets === 'foes') next.targets = 'friends';
  } else next.targets = 'foes';
  return next;
}

export function blankState(id: string, name: string, does: Does): State {
  return doing({ ...blank(State), id, name, does }, does, '');
}

/** A state turned to another conduct: what that needs is added. @param to where it goes, for those that go somewhere */
export function doing(state: State, does: Does, to: string): State {
  const next: State = { ...state, does };
  if (does === 'band' || does === 'strafe') {
    next.near ??= 4;
    next.far ??= 8;
  } else if (does !== 'follow') {
    delete next.near;
    delete next.far;
  }
  if (does !== 'approach') delete next.stopAt;
  if (does === 'patrol') next.patrol ??= { ...blank(Patrol), points: [{ ...blank(PatrolPoint), id: 'a' }] };
  else delete next.patrol;
  if (does === 'goTo' || does === 'follow') next.to ??= to;
  else delete next.to;
  return next;
}
