/** What the address says beside the path: the lens, what is being edited, and the duel of the readout. */
import {
  CLOCKS,
  type Clock,
  type Company,
  DUEL_DEFAULTS,
  DUEL_MOST,
  type DuelFrom,
  type Project,
  type Turn,
  companyOf,
  dialOfTurn,
  turnsOf,
  unitHeads,
} from '@insidia/core';
import { useMemo } from 'react';
import { useQuery } from './query';

export interface View {
  tier?: string;
  skill?: string;
  /** What typing changes: the base, or the lens's tier. */
  edit: 'base' | 'tier';
  /** The other side of the duel: a unit, or the whole party. */
  against?: string;
  /** An arena to duel in; absent: open ground. */
  arena?: string;
  copies: number;
  /** m, or cells; absent: the usual */
  distance?: number;
  /** Of the duel; absent: as the fights of its enemy go. */
  clock?: Clock;
  /** Who stands with the enemy. */
  with: Company[];
  from: DuelFrom;
  /** m, of a wall between them; absent: none */
  wall?: number;
  /** Numbers looked at as if they were turned; nothing of it is written. */
  turned?: Turn[];
}

/** Stands for every party member together. */
export const WHOLE_PARTY = 'party';

/** Values of the address that the project does not know, or that are out of range, count as absent. */
export function viewOf(search: URLSearchParams, project: Project | null): View {
  const known = (list: { id: string }[] | undefined, id: string | null) =>
    list?.some((item) => item.id === id) ? (id as string) : undefined;
  const number = <T>(name: string, low: number, high: number, otherwise: T): number | T => {
    const value = Number(search.get(name) ?? NaN);
    return value >= low && value <= high ? value : otherwise;
  };
  const tier = known(project?.tiers, search.get('tier'));
  return {
    tier,
    skill: known(project?.skills, search.get('skill')),
    edit: tier && search.get('edit') === 'tier' ? 'tier' : 'base',
    against: search.get('against') === WHOLE_PARTY ? WHOLE_PARTY : known(project ? unitHeads(project) : undefined, search.get('against')),
    arena: known(project?.arenas, search.get('arena')),
    copies: Math.floor(number('copies', 1, 12, DUEL_DEFAULTS.copies)),
    distance: number('distance', 0, 200, undefined),
    clock: clockIn(search),
    with: companyIn(search, project),
    ...placementIn(search, project),
    ...turnedIn(search, project),
  };
}

/** Seconds or turns, where the address says which. */
export const clockIn = (search: URLSearchParams): Clock | undefined => CLOCKS.find((clock) => clock === search.get('clock'));

/** What is turned, as far as it leads anywhere. */
function turnedIn(search: URLSearchParams, project: Project | null): Pick<View, 'turned'> {
  const text = search.get('turned');
  if (text === null || !project) return {};
  try {
    const turned = turnsOf(text).filter((turn) => dialOfTurn(project, turn) !== undefined);
    return turned.length ? { turned } : {};
  } catch {
    return {}; // an address may hold anything
  }
}

/** Who stands with an enemy, as far as the project knows them. */
export function companyIn(search: URLSearchParams, project: Project | null): Company[] {
  const heads = project ? unitHeads(project) : [];
  return companyOf(search.get('with') ?? '')
    .filter(({ unit, count }) => heads.some(({ id }) => id === unit) && Number.isInteger(count) && count >= 1 && count <= DUEL_MOST.copies)
    .slice(0, DUEL_MOST.kinds);
}

/** From where they come, and over which wall: a spawn point of an arena that is there, a wall on open ground alone. */
export function placementIn(search: URLSearchParams, project: Project | null): Pick<View, 'from' | 'wall'> {
  const arena = project?.arenas.find(({ id }) => id === search.get('arena'));
  const asked = search.get('from') ?? '';
  const point = arena?.spawnPoints.find(({ id }) => `point:${id}` === asked);
  const from = point ? (`point:${point.id}` as const) : asked === 'behind' ? 'behind' : 'ahead';
  const wall = Number(search.get('wall') ?? NaN);
  return { from, ...(!arena && wall >= 0.1 && wall <= 20 && { wall }) };
}

export function useView(project: Project | null): [View, (change: Partial<Record<keyof View, string | number | undefined>>) => void] {
  const [query, change] = useQuery();
  return [useMemo(() => viewOf(query, project), [query, project]), change];
}
