/** Bands of a brief in words, and what a choice in their form makes of them. */
import {
  BAND_MEASURES,
  type Band,
  type BandMeasure,
  GOAL_MEASURES,
  type Project,
  SUBJECT_OF,
  type Statistic,
  unitHeads,
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
