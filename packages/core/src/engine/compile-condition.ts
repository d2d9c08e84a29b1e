import { type Condition, SUBJECT_NAMES, type SubjectInfo, subjectOf, TARGET_DOES } from '../model/condition';
import { microseconds } from '../record/time';
import type { Names } from './tables';
import type { CompiledCondition } from './unit-tables';

/** The number of a name in a list; a name that is not there yet is added. */
export function numberIn(list: string[], name: string): number {
  const known = list.indexOf(name);
  return known >= 0 ? known : list.push(name) - 1;
}

/** What a condition's names are looked up in. */
export interface ConditionScope {
  names: Names;
  /** Ids of the asking unit's attacks. */
  attacks: readonly string[];
  /** Counts the chances of the asking unit. */
  nodes: { count: number };
}

/** @throws nothing: what a valid document says can always be compiled; a name that means nothing here is never true */
export function compileCondition(condition: Condition, scope: ConditionScope): CompiledCondition {
  const info = subjectOf(condition.subject);
  return {
    subject: SUBJECT_NAMES.indexOf(condition.subject),
    above: condition.is === 'above',
    yes: condition.is !== 'no',
    value: info.unit === 's' && info.asked === 'number' ? microseconds(condition.value ?? 0) : (condition.value ?? 0),
    of: condition.of === undefined ? -1 : NUMBERS[info.of ?? 'unit'](condition.of, scope),
    within: info.within === 's' ? microseconds(condition.within ?? 0) : (condition.within ?? 0),
    node: info.asked === 'chance' ? scope.nodes.count++ : 0,
    parts: (condition.parts ?? []).map((part) => compileCondition(part, scope)),
  };
}

type Named = NonNullable<SubjectInfo['of']>;

/** The number of what a condition names: −1 for an attack, a wave or a doing that is not there. */
const NUMBERS: Record<Named, (name: string, scope: ConditionScope) => number> = {
  attack: (name, { attacks }) => attacks.indexOf(name),
  role: (name, { names }) => numberIn(names.roles, name),
  doing: (name) => (TARGET_DOES as readonly string[]).indexOf(name),
  wave: (name, { names }) => names.waves.indexOf(name),
  flag: (name, { names }) => numberIn(names.flags, name),
  point: (name, { names }) => names.types.indexOf(`point:${name}`),
  counter: (name, { names }) => names.counters.indexOf(name),
  unit: (name, { names }) => numberIn(names.types, name),
};
