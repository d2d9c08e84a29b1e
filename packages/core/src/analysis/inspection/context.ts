/** What the rules of inspection are handed: a unit through a lens, whom it will meet, and the way to say what is wrong. */
import { type Condition, subjectOf } from '../../model/condition';
import { traitsOf } from '../../model/delivery';
import { type Lens, effectiveUnit } from '../../model/effective';
import { pointerOf } from '../../model/pointer';
import type { Project } from '../../model/project';
import type { State } from '../../model/state';
import type { Attack } from '../../model/attack';
import type { Unit } from '../../model/unit';
import { unitHeads } from '../../model/variants';
import type { InspectionRule } from '../rules';
import type { Fix, Severity, Warning } from '../warning';
import type { FieldTweak } from '../../model/tweak';

export interface Finding {
  /** Steps within the unit. */
  at: (string | number)[];
  message: string;
  mend: string;
  severity?: Severity;
  /** Steps within the unit, to what brought it about; absent: the place itself. */
  causes?: (string | number)[][];
  /** Mends, the likeliest first; of another unit where one is named. */
  fixes?: { name: string; unit?: string; set: { path: string; value: unknown }[] }[];
}

export interface Inspected {
  project: Project;
  unit: Unit;
  /** Everybody on the other side, through the same lens. */
  foes: readonly Unit[];
  attacks: readonly Attack[];
  warn: (rule: InspectionRule, finding: Finding) => void;
}

/** A unit made ready for inspection, and the list its warnings go to. */
export function inspected(project: Project, id: string, lens: Lens): Inspected & { found: Warning[] } {
  const { unit } = effectiveUnit(project, id, lens);
  const foes = unitHeads(project)
    .filter(({ side }) => side !== unit.side)
    .map((head) => effectiveUnit(project, head.id, lens).unit);
  const found: Warning[] = [];
  const warn: Inspected['warn'] = (rule, { at, message, mend, severity = 'problem', causes, fixes }) => {
    const here = (steps: (string | number)[]) => pointerOf('units', id, ...steps);
    found.push({
      rule,
      severity,
      path: here(at),
      message,
      mend,
      ...(causes && { causes: causes.map(here) }),
      ...(fixes && { fixes: fixes.map((fix): Fix => ({ unit: id, ...fix })) }),
    });
  };
  return { project, unit, foes, attacks: usedAttacks(unit), warn, found };
}

/** Attacks that a unit may come to begin: chosen, following another, begun on entering a state. */
export function usedAttacks(unit: Unit): Attack[] {
  const used = new Set(unit.choice.priorities.flatMap(({ entries }) => entries.map(({ attack }) => attack)));
  for (const { onEnter } of unit.states) if (onEnter?.attack) used.add(onEnter.attack);
  for (let more = true; more;) {
    more = false;
    for (const { id, next } of unit.attacks)
      if (next && used.has(id) && !used.has(next.attack)) {
        used.add(next.attack);
        more = true;
      }
  }
  return unit.attacks.filter(({ id }) => used.has(id));
}

/** The farthest at which a unit can strike a foe from a state; undefined where it strikes nobody from it. */
export function reachFrom(unit: Unit, state: State | undefined): number | undefined {
  return strikesFrom(unit, state)[0]?.range.max;
}

/** Attacks with which a unit can strike a foe from a state, the farthest reaching first. */
export function strikesFrom(unit: Unit, state: State | undefined): Attack[] {
  const may = (id: string) => !state || state.attacks === 'all' || (state.attacks === 'some' && state.only?.includes(id));
  return usedAttacks(unit)
    .filter(({ id, targets, delivery }) => targets === 'foes' && traitsOf(delivery).needsTarget && may(id))
    .sort((a, b) => b.range.max - a.range.max);
}

/** A condition that can hold at no instant: a share above 1, a distance below 0. */
export function impossible(condition: Condition): boolean {
  const { subject, is, value = 0, parts = [] } = condition;
  if (subject === 'all') return parts.some(impossible) || contradicts(parts);
  if (subject === 'any') return parts.every(impossible);
  if (subject === 'chance') return value === 0;
  if (is === 'below') return value <= 0;
  if (is === 'above') return value >= (subjectOf(subject).most ?? Infinity);
  return false;
}

/** Above 5 and below 4 of the same thing. */
function contradicts(parts: readonly Condition[]): boolean {
  return parts.some(
    (low) =>
      low.is === 'above' &&
      parts.some(
        (high) =>
          high.is === 'below' &&
          high.subject === low.subject &&
          high.of === low.of &&
          high.within === low.within &&
          (high.value ?? 0) <= (low.value ?? 0),
      ),
  );
}

/** "2.4" */
export function amount(value: number): string {
  return String(Number(value.toFixed(2))).replace('-', '−');
}

/** A factor of one, a sum of nothing. */
export const idle = ({ op, value }: FieldTweak): boolean => (op === '×' && value === 1) || (op === '+' && value === 0);
