/** Bands of a brief in words, and what a choice in their form makes of them. */
import {
  type Band,
  BAND_MEASURES,
  type BandMeasure,
  type Goal,
  GOAL_MEASURES,
  idFor,
  type JudgedGoal,
  type Project,
  scenarioKey,
  type Statistic,
  SUBJECT_OF,
  unitHeads,
  duelClocks,
  isTold,
} from '@insidia/core';

export interface Offer {
  id: string;
  name: string;
}

/** Whom a band speaks of as one word: "role swarm", "encounter evening-shift", "wave evening-shift two". */
export function aboutOf({ scope, of, encounter }: Pick<Band, 'scope' | 'of' | 'encounter'>): string {
  if (scope === 'wave') return `wave ${encounter} ${of}`;
  return of === undefined ? scope : `${scope} ${of}`;
}

/** All whom a measure can be of. */
export function aboutOffers(project: Project, measure: BandMeasure): Offer[] {
  const { of } = GOAL_MEASURES[measure];
  const enemies = unitHeads(project).filter(({ side }) => side === 'enemy');
  const roles = [...new Set(enemies.map(({ role }) => role))].filter(Boolean);
  return [
    ...(of.includes('enemy')
      ? [
          { id: 'enemies', name: 'every enemy' },
          ...roles.map((role) => ({ id: `role ${role}`, name: `role ${role}` })),
          ...enemies.map(({ id, name }) => ({ id: `unit ${id}`, name })),
        ]
      : []),
    ...(of.includes('encounter')
      ? [{ id: 'encounters', name: 'every encounter' }, ...project.encounters.map(({ id, name }) => ({ id: `encounter ${id}`, name }))]
      : []),
    ...(of.includes('wave')
      ? project.encounters.flatMap(({ id, name, waves }) =>
          waves.map((wave) => ({ id: `wave ${id} ${wave.id}`, name: `${wave.name}, ${name}` })),
        )
      : []),
  ];
}

/** A band that speaks of somebody else; the encounter it is measured in is kept where that makes sense. */
export function withAbout(band: Band, about: string): Band {
  const [, scope, rest] = /^(\S+)(?: (.*))?$/.exec(about) ?? [];
  const { of: _, encounter, ...plain } = band;
  const next: Band = { ...plain, scope: scope as Band['scope'] };
  if (scope === 'wave') {
    const [within, wave] = (rest ?? '').split(' ');
    return { ...next, encounter: within, of: wave };
  }
  if (rest !== undefined) next.of = rest;
  if (encounter !== undefined && SUBJECT_OF[next.scope] === 'enemy' && SUBJECT_OF[band.scope] === 'enemy') next.encounter = encounter;
  return next;
}

/** A band of another measure: its statistic fits, and it speaks of somebody the measure is of. */
export function withMeasure(project: Project, band: Band, measure: BandMeasure): Band {
  const { usual, share, of } = GOAL_MEASURES[measure];
  const next: Band = { ...band, measure };
  if (share || band.statistic === 'share') next.statistic = usual;
  return of.includes(SUBJECT_OF[band.scope]) ? next : withAbout(next, aboutOffers(project, measure)[0]?.id ?? 'enemies');
}

/** Measures that mean something where a band is measured: in a duel, in its encounter; of every encounter, in any of them. */
export function measuresFor(project: Project, { scope, of, encounter }: Pick<Band, 'scope' | 'of' | 'encounter'>): BandMeasure[] {
  const fight = project.encounters.find(({ id }) => id === (scope === 'encounter' ? of : encounter));
  const clocks = fight ? [fight.clock] : scope === 'encounters' ? project.encounters.map(({ clock }) => clock) : duelClocks(project);
  return BAND_MEASURES.filter((measure) => (clocks.length ? clocks : duelClocks(project)).some((clock) => isTold(measure, clock)));
}

/** Statistics that a measure can be told by. */
export function statisticsOf(measure: BandMeasure): Statistic[] {
  return GOAL_MEASURES[measure].share ? ['share'] : ['median', 'mean', 'p10', 'p90'];
}

/** Measures in the order of the brief, those with bands first. */
export function measuresIn(bands: readonly Band[]): { measure: BandMeasure; count: number }[] {
  return BAND_MEASURES.map((measure) => ({ measure, count: bands.filter((band) => band.measure === measure).length })).filter(
    ({ count }) => count > 0,
  );
}

/** The goals with copies of some at their end, each of an id of its own; for a tier, where one is named. */
export function bandsCopied(bands: readonly Band[], which: readonly Band[], tier?: string): { bands: Band[]; copies: Band[] } {
  const copies: Band[] = [];
  for (const band of which) {
    const taken = [...bands, ...copies].map(({ id }) => id);
    copies.push({ ...structuredClone(band), id: idFor(band.id.replace(/-\d+$/, ''), taken), ...(tier !== undefined && { tier }) });
  }
  return { bands: [...bands, ...copies], copies };
}

/** What is marked once one more is, or is not any more; with another, all between the two. @param listed in the order they stand in */
export function markedWith(
  listed: readonly Pick<Band, 'id'>[],
  marked: ReadonlySet<string>,
  { id, on, from }: { id: string; on: boolean; from?: string },
): Set<string> {
  const ids = listed.map((band) => band.id);
  const [a, b] = [ids.indexOf(from ?? id), ids.indexOf(id)].sort((x, y) => x - y);
  const next = new Set(marked);
  for (const each of a < 0 ? [id] : ids.slice(a, b + 1))
    if (on) next.add(each);
    else next.delete(each);
  return next;
}

/** What is to be read to judge goals: their cells, each with the columns that are asked of it. */
export function askedOf(goals: readonly Goal[]): { cell: string; columns: string[] }[] {
  const columns = new Map<string, Set<string>>();
  for (const { cell, column } of goals) columns.set(scenarioKey(cell), (columns.get(scenarioKey(cell)) ?? new Set()).add(column));
  return [...columns].map(([cell, names]) => ({ cell, columns: [...names] }));
}

/** The goal after the present one, round and round, of those that are missed in some cell; undefined: none is. @param bands in their order */
export function nextMissed(
  bands: readonly Pick<Band, 'id'>[],
  judged: readonly Pick<JudgedGoal, 'band' | 'judgement' | 'verdict'>[],
  now: string | null,
): string | undefined {
  const missed = new Set(judged.filter(({ judgement, verdict }) => judgement && verdict.startsWith('missed')).map(({ band }) => band.id));
  const ids = bands.map(({ id }) => id);
  const from = ids.indexOf(now ?? '') + 1;
  return [...ids.slice(from), ...ids.slice(0, from)].find((id) => missed.has(id));
}
