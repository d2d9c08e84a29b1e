/** What pacing shows side by side: an encounter at every tier, or at every skill; its rulers, and points to begin a curve with. */
import {
  type Brief,
  type Scenario,
  type CurveName,
  type CurvePoint,
  type Encounter,
  type Project,
  type Turn,
  scenarioKey,
  roundUp,
} from '@insidia/core';
import type { CellCurve } from '../../server/useCurves';

export interface Strip {
  id?: string;
  name: string;
  /** Of a tier. */
  number?: number;
  cell: Scenario;
  key: string;
}

export type Axis = 'tiers' | 'skills';

export function stripsOf(project: Project, encounter: string, by: Axis, view: { tier?: string; skill?: string; turned?: Turn[] }): Strip[] {
  const list = project[by];
  const all: { id?: string; name: string }[] = list.length ? list : [{ name: 'as written' }];
  return all.map(({ id, name }, i) => {
    const tier = by === 'tiers' ? id : view.tier;
    const skill = by === 'skills' ? id : view.skill;
    const lens = { ...(tier && { tier }), ...(skill && { skill }), ...(view.turned && { turned: view.turned }) };
    const cell: Scenario = { kind: 'encounter', id: encounter, ...lens };
    return { id, name, cell, key: scenarioKey(cell), ...(by === 'tiers' && id && { number: i + 1 }) };
  });
}

export function replayQuery({ cell }: Strip, at: number): string {
  const query = new URLSearchParams({ seed: '1', at: at.toFixed(2) });
  if (cell.tier) query.set('tier', cell.tier);
  if (cell.skill) query.set('skill', cell.skill);
  return query.toString();
}

/** How far the rulers go: as long as half of the runs of some strip last, as high as nine in ten reach or as is intended. */
export function rulers(
  encounter: Encounter,
  curves: ReadonlyMap<string, CellCurve> | null,
  of: CurveName,
  brief: Brief | undefined,
): { until: number; top: number } {
  let until = 0;
  let top = of === 'health' ? 1 : 0;
  for (const { curve } of curves?.values() ?? []) {
    curve?.median.forEach((value, bin) => {
      if (value === undefined) return;
      until = Math.max(until, curve.times[bin]);
      top = Math.max(top, curve.p90[bin] ?? 0);
    });
  }
  for (const { encounter: own, points, tolerance } of brief?.curves ?? [])
    if (own === encounter.id && of === 'pressure')
      for (const { at, value } of points) {
        until = Math.max(until, at);
        top = Math.max(top, value + tolerance);
      }
  return { until: until || encounter.limit, top: roundUp(top || (of === 'pressure' ? 0.05 : 1)) };
}

/** Seven points on the present median, evenly over as long as half of the runs last: something to begin with. */
export function pointsFrom({ times, median }: { times: number[]; median: (number | undefined)[] }): CurvePoint[] {
  const known = median.flatMap((value, bin) => (value === undefined ? [] : [{ at: times[bin], value }]));
  const count = Math.min(7, known.length);
  return Array.from({ length: count }, (_, i) => known[Math.round((i * (known.length - 1)) / Math.max(1, count - 1))]).map(
    ({ at, value }) => ({
      at: Number(at.toFixed(1)),
      value: Number(value.toFixed(4)),
    }),
  );
}
