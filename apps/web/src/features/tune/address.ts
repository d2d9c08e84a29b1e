/** What Tune asks, as its address says it: whose fight, which numbers, and which of them is looked along. Pure. */
import {
  type Dial,
  LIMITS,
  type Nudge,
  type Project,
  type QuestionGoal,
  type Scenario,
  dialOfText,
  dialText,
  goalOfText,
  goalText,
  isOfNumber,
  pointerSteps,
  scenarioKey,
  scenarioOf,
  standsAt,
  unitHeads,
} from '@insidia/core';

/** Copies of an enemy whose duel is asked about: alone it is often won by one side always, and then nothing moves it. */
export const CROWD = 6;
/** Numbers of a question. */
const MOST_DIALS = LIMITS.questionDials;

export interface Lens {
  tier?: string;
  skill?: string;
}

/** Fights that can be asked about: every encounter, and a crowd of each enemy. */
export function fightsOf(project: Project): { key: string; name: string; note: string; kind: Scenario['kind'] }[] {
  const crowds = unitHeads(project).filter(({ side }) => side === 'enemy');
  return [
    ...project.encounters.map(({ id, name, waves }) => ({
      key: scenarioKey({ kind: 'encounter', id }),
      name,
      note: `${waves.length} ${waves.length === 1 ? 'wave' : 'waves'}`,
      kind: 'encounter' as const,
    })),
    ...(project.units.some(({ side }) => side === 'party') ? crowds : []).map(({ id, name, role }) => ({
      key: scenarioKey({ kind: 'duel', id, ...(role !== 'boss' && { duel: { copies: CROWD } }) }),
      name: role === 'boss' ? name : `${CROWD} × ${name}`,
      note: role,
      kind: 'duel' as const,
    })),
  ];
}

/** The fight of the address, through the lens; the first there is where it names none that is there. */
export function cellOf(project: Project, query: URLSearchParams, { tier, skill }: Lens): Scenario | undefined {
  const asked = query.get('fight');
  const key = asked !== null && isThere(project, asked) ? asked : fightsOf(project)[0]?.key;
  return key === undefined ? undefined : { ...fightOf(key), ...(tier && { tier }), ...(skill && { skill }) };
}

/** A fight is named without what is turned in it: whatever else an address holds is left. */
const fightOf = (key: string): Scenario => scenarioOf(key.split('|').slice(0, 7).join('|'));

function isThere(project: Project, key: string): boolean {
  const { kind, id } = fightOf(key);
  return kind === 'encounter'
    ? project.encounters.some((one) => one.id === id)
    : unitHeads(project).some((one) => one.id === id && one.side === 'enemy');
}

/** The fight without the lens: what the address says. */
export const fightKey = (cell: Scenario): string => scenarioKey({ kind: cell.kind, id: cell.id, ...(cell.duel && { duel: cell.duel }) });

/** Dials of the address, one a space. */
export function dialsOf(project: Project, query: URLSearchParams): Dial[] {
  const found = new Map<string, Dial>();
  for (const text of (query.get('dials') ?? '').split(' ').slice(0, MOST_DIALS)) {
    const dial = text === '' ? undefined : dialOfText(project, text);
    if (dial) found.set(dial.id, dial);
  }
  return [...found.values()];
}

/** Back into the address. */
export const dialsText = (project: Project, dials: readonly Dial[]): string | undefined =>
  dials.length ? dials.map((dial) => dialText(project, dial)).join(' ') : undefined;

/** Goals of the address' own, one a space; none: what the brief wants. */
export function goalsIn(project: Project, query: URLSearchParams): QuestionGoal[] {
  return (query.get('goals') ?? '')
    .split(' ')
    .slice(0, LIMITS.questionGoals)
    .flatMap((text) => {
      try {
        return text === '' ? [] : [goalOfText(project, text)];
      } catch {
        return []; // an address may hold anything
      }
    });
}

export const goalsText = (goals: readonly QuestionGoal[]): string | undefined => (goals.length ? goals.map(goalText).join(' ') : undefined);

/** With one more, once; at its place where it is there. */
export const withDial = (dials: readonly Dial[], dial: Dial): Dial[] =>
  dials.some(({ id }) => id === dial.id) ? [...dials] : [...dials, dial];

/** The address of Tune for a fight, with dials or without. */
export function tuneSearch(cell: Scenario, dials = ''): string {
  const query = new URLSearchParams({ fight: fightKey(cell), ...(dials && { dials }) });
  if (cell.tier) query.set('tier', cell.tier);
  if (cell.skill) query.set('skill', cell.skill);
  return query.toString();
}

/**
 * The address of Tune for one number of the document: of an encounter in its own fight, of an enemy in a crowd of it, of anybody
 * else in the first fight there is.
 */
export function turnSearch(project: Project, pointer: string, { tier, skill }: Lens): string {
  const [list, id] = pointerSteps(pointer);
  const boss = unitHeads(project).find((one) => one.id === id);
  const cell: Scenario | undefined =
    list === 'encounters'
      ? { kind: 'encounter', id }
      : boss?.side === 'enemy'
        ? { kind: 'duel', id, ...(boss.role !== 'boss' && { duel: { copies: CROWD } }) }
        : undefined;
  const first = fightsOf(project)[0];
  const lens = { ...(tier && { tier }), ...(skill && { skill }) };
  const path = list === 'variants' ? pointer.replace('/variants/', '/units/') : pointer;
  if (cell) return tuneSearch({ ...cell, ...lens }, path);
  return first ? tuneSearch({ ...scenarioOf(first.key), ...lens }, path) : '';
}

/**
 * The point that is looked at: where the chosen number is put, and the other one of a map. Without a word of it the chosen one is
 * turned as in the table; of a point of a map the first may stand as it is written.
 */
export function pointOf(query: URLSearchParams, chosen: Nudge | undefined, others: readonly Nudge[]): Nudge[] {
  if (!chosen) return [];
  if (!isOfNumber(chosen)) return [chosen];
  const value = (name: string) => (query.get(name) === null ? undefined : Number(query.get(name)));
  const second = others.filter(isOfNumber).find(({ dial }) => dial.id === query.get('with') && dial.id !== chosen.dial.id);
  const [at, and] = [value('at'), second && value('and')];
  const first = { ...chosen, to: at ?? (and === undefined ? chosen.to : chosen.from) };
  return second && and !== undefined ? [first, { ...second, to: and }] : [first];
}

/** A range that takes in what is written: its ends the other way about, or outside the field, are no range. */
export function ranged(project: Project, dial: Dial, change: Partial<Pick<Dial, 'low' | 'high'>>): Dial {
  const next = { ...dial, ...change };
  const now = standsAt(project, dial) ?? next.low;
  return { ...next, low: Math.min(next.low, now), high: Math.max(next.high, now) };
}
