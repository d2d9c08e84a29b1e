/** What the address of a replay says: which fight, which run, beside which other. Pure. */
import {
  type Arena,
  Arena as ArenaClass,
  blank,
  clockOfScenario,
  DUEL_DEFAULTS,
  duelScenario,
  type Project,
  type Replay,
  type Scenario,
  turnsWords,
  scenarioOptions,
  type Turn,
  turnsOf,
  UNIT_WIDTH,
} from '@insidia/core';
import { clockIn, companyIn, placementIn } from '../../app/view';

/** A seed or a unit's number; undefined where it is none. */
export function wholeOf(text: string | null): number | undefined {
  const value = text === null || text.trim() === '' ? NaN : Number(text);
  return Number.isInteger(value) && value >= 0 && value < 2 ** 31 ? value : undefined;
}

/** A duel as the address says it; undefined where it names nobody. */
export function duelOf(query: URLSearchParams, project: Project, lens: Pick<Scenario, 'tier' | 'skill'>): Scenario | undefined {
  const enemy = query.get('enemy');
  const against = (query.get('members') ?? '').split(',').filter(Boolean);
  if (!enemy || !against.length) return undefined;
  const arena = project.arenas.find(({ id }) => id === query.get('arena'))?.id;
  const copies = wholeOf(query.get('copies')) ?? DUEL_DEFAULTS.copies;
  const far = query.get('distance')?.trim() ? Number(query.get('distance')) : NaN;
  const distance = Number.isNaN(far) ? undefined : far;
  return duelScenario(project, lens, {
    enemy,
    against,
    copies,
    company: companyIn(query, project),
    distance,
    arena,
    clock: clockIn(query),
    ...placementIn(query, project),
  });
}

/** Numbers that are turned in the run; none where the address says none that can be read. */
export function turnedOf(query: URLSearchParams): Turn[] {
  try {
    return turnsOf(query.get('turned') ?? '[]');
  } catch {
    return [];
  }
}

/** "with Clipper, Health 24 hp; …" */
export function turnedWords(project: Project, turned: readonly Turn[]): string {
  const words = turnsWords(project, turned);
  return words && `with ${words}`;
}

/** What stands beside a run: another seed, another tier, the document before the last edit. */
export type Beside = { kind: 'seed'; seed: number } | { kind: 'tier'; tier: string } | { kind: 'before' };

/** @param vs as the address has it: `seed:3`, `tier:bloom`, `before` */
export function besideOf(vs: string | null): Beside | undefined {
  if (vs === 'before') return { kind: 'before' };
  if (vs?.startsWith('tier:')) return { kind: 'tier', tier: vs.slice(5) };
  const seed = vs?.startsWith('seed:') ? wholeOf(vs.slice(5)) : undefined;
  return seed === undefined ? undefined : { kind: 'seed', seed };
}

/** "seed 3", "at Bloom", "before the last edit". */
export function besideWords(beside: Beside, project: Project): string {
  switch (beside.kind) {
    case 'seed':
      return `seed ${beside.seed}`;
    case 'tier':
      return `at ${project.tiers.find(({ id }) => id === beside.tier)?.name ?? beside.tier}`;
    case 'before':
      return 'before the last edit';
  }
}

/** What a run may be compared with: the next seed, the seed it is compared with, other tiers, the document before. */
export function comparisons(project: Project, scenario: Scenario, seed: number, vs: string | null, hasBefore: boolean) {
  const wanted = [
    `seed:${seed + 1}`,
    ...(vs?.startsWith('seed:') ? [vs] : []),
    ...project.tiers.filter(({ id }) => id !== scenario.tier).map(({ id }) => `tier:${id}`),
    ...(hasBefore ? ['before'] : []),
  ];
  return [
    { id: 'none', name: 'compare …' },
    ...[...new Set(wanted)].flatMap((id) => {
      const beside = besideOf(id);
      return beside ? [{ id, name: besideWords(beside, project) }] : [];
    }),
  ];
}

/** Where it takes place: the encounter's arena, the duel's, or open ground as far as anybody went. */
export function arenaOf(project: Project, scenario: Scenario | undefined, replay: Replay | undefined): Arena | undefined {
  if (!scenario) return undefined;
  const { kind, id: of, duel } = scenario;
  // A duel in turns has a board of its own, whose cells say how large it is.
  if (kind === 'duel' && !duel?.arena && clockOfScenario(project, scenario) === 'rounds') return scenarioOptions(project, scenario).arena;
  const id = kind === 'encounter' ? project.encounters.find((one) => one.id === of)?.arena : duel?.arena;
  const found = project.arenas.find((one) => one.id === id);
  if (found) return found;
  if (!replay) return undefined;
  const walls = duel?.wall === undefined ? [] : scenarioOptions(project, scenario).arena!.walls;
  let far = 10;
  for (let i = 0; i < replay.unitData.length; i += UNIT_WIDTH)
    far = Math.max(far, Math.abs(replay.unitData[i]) + 2, Math.abs(replay.unitData[i + 1]) + 2);
  return { ...blank(ArenaClass), id: 'open', name: 'open ground', width: 2 * far, depth: 2 * far, walls };
}
