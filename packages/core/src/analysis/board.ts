/**
 * What a board shows of a project: rows of enemies, encounters or waves, columns of tiers, skills or player counts; the band
 * that speaks of each cell, and what its runs say.
 */
import type { Clock } from '../record/clock';
import { type RankBy, RANKED_BY_DOSE } from './ranking';
import type { Verdict } from '../measures/enough';
import type { Statistic, GoalSubject } from '../measures/measure';
import { type BandMeasure, GOAL_MEASURES, columnOf, isTold } from '../measures/list';
import type { Sample } from '../measures/sample';
import { type Estimate, estimate } from '../measures/verdict';
import type { Band } from '../model/brief';
import { clocksIn } from '../model/clocks';
import type { Turn } from '../model/turn';
import type { Project } from '../model/project';
import { type UnitHead, unitHeads } from '../model/variants';
import { type Scenario, scenarioKey } from './scenario';
import { type Goal, type JudgedGoal, clockOfScenario, goalsOf, judgeGoals } from './cells';

/** What has been run of a cell, as it is now, else as it was before an edit. */
export interface CellRuns {
  runs: number;
  /** One a run, by column of the sample. */
  values: Readonly<Record<string, readonly number[]>>;
  stale?: { runs: number; values: Readonly<Record<string, readonly number[]>> };
}

export type ReadCells = ReadonlyMap<string, CellRuns>;

export interface BoardRow {
  subject: GoalSubject;
  /** Of the enemy, the encounter, or the wave's encounter. */
  id: string;
  wave?: string;
  name: string;
  head?: UnitHead;
  /** What its fight goes by. */
  clock: Clock;
}

/** What the columns are; the lens holds the rest. */
export const BOARD_AXES = ['tiers', 'skills', 'players'] as const;
export type BoardAxis = (typeof BOARD_AXES)[number];

export interface BoardColumn {
  key: string;
  name: string;
  /** Of a tier, in the declared order. */
  number?: number;
  at: Pick<Scenario, 'tier' | 'skill' | 'players'>;
}

export interface BoardLens {
  tier?: string;
  skill?: string;
  style?: string;
  players?: number;
  /** Numbers turned to other values, as if they were written. */
  turned?: readonly Turn[];
}

/** What the fights of a board go by, its enemies' duels and its encounters; where it has none, seconds. */
export function clocksOfBoard(project: Project): Clock[] {
  const duels = unitHeads(project).filter(({ side }) => side === 'enemy');
  const byUnit = clocksIn(project);
  const clocks = new Set([
    ...duels.map(({ id }) => clockOfScenario(project, { kind: 'duel', id }, byUnit)),
    ...project.encounters.map(({ clock }) => clock),
  ]);
  return clocks.size ? [...clocks] : ['continuous'];
}

/** Columns of an axis; a project that has none of it gets one, as it is written. */
export function columnsOf(project: Project, axis: BoardAxis): BoardColumn[] {
  if (axis === 'players') {
    const most = Math.max(1, ...project.encounters.map(({ party }) => party.length));
    const counts = Array.from({ length: Math.min(4, most) }, (_, i) => i + 1);
    return [
      { key: '', name: 'as written', at: {} },
      ...counts.map((players) => ({ key: String(players), name: players === 1 ? '1 player' : `${players} players`, at: { players } })),
    ];
  }
  const list = project[axis];
  if (!list.length) return [{ key: '', name: 'as written', at: {} }];
  return list.map(({ id, name }, i) => ({
    key: id,
    name,
    ...(axis === 'tiers' && { number: i + 1 }),
    at: axis === 'tiers' ? { tier: id } : { skill: id },
  }));
}

/** Enemies, then encounters, then waves, as far as the measure is of them; a duel has one player, whatever the encounter has. */
export function rowsOf(project: Project, measure: BandMeasure, axis: BoardAxis): BoardRow[] {
  const { of } = GOAL_MEASURES[measure];
  const byUnit = clocksIn(project);
  const enemies = (axis === 'players' ? [] : unitHeads(project))
    .filter(({ side }) => side === 'enemy')
    .map((head) => ({ head, clock: clockOfScenario(project, { kind: 'duel', id: head.id }, byUnit) }))
    .filter(({ clock }) => isTold(measure, clock));
  const encounters = project.encounters.filter(({ clock }) => isTold(measure, clock));
  return [
    ...(of.includes('enemy')
      ? enemies.map(({ head, clock }): BoardRow => ({ subject: 'enemy', id: head.id, name: head.name, head, clock }))
      : []),
    ...(of.includes('encounter') ? encounters.map(({ id, name, clock }): BoardRow => ({ subject: 'encounter', id, name, clock })) : []),
    ...(of.includes('wave')
      ? encounters.flatMap(({ id, name, waves, clock }) =>
          waves.map((wave): BoardRow => ({ subject: 'wave', id, wave: wave.id, name: `${name}: ${wave.name}`, clock })),
        )
      : []),
  ];
}

export function cellAt({ subject, id }: Pick<BoardRow, 'subject' | 'id'>, column: BoardColumn, lens: BoardLens): Scenario {
  const { tier, skill, style, players, turned } = { ...lens, ...column.at };
  return {
    kind: subject === 'enemy' ? 'duel' : 'encounter',
    id,
    ...(tier && { tier }),
    ...(skill && { skill }),
    ...(style && { style }),
    ...(players && subject !== 'enemy' && { players }),
    ...(turned?.length && { turned }),
  };
}

export function columnAt({ subject, id, wave }: BoardRow, measure: BandMeasure): string {
  return columnOf(measure, subject, wave ?? id);
}

/** All that the brief wants at the board's columns and lens. What is meant for the party as it is written is not asked of another number of players. */
function goalsAt(project: Project, axis: BoardAxis, lens: BoardLens): Goal[] {
  const { tier, skill, style, players, turned } = lens;
  if (axis === 'players') return goalsOf(project, { tiers: [tier], skills: [skill], style, turned });
  if (axis === 'skills') return goalsOf(project, { tiers: [tier], style, players, turned });
  return goalsOf(project, { skills: [skill], style, players, turned });
}

/**
 * Where none of the brief's goals speaks of what a lens shows: the tier and the skill through which most of them do; undefined
 * where that is no other.
 */
export function lensOfGoals(project: Project, axis: BoardAxis, lens: BoardLens): Pick<BoardLens, 'tier' | 'skill'> | undefined {
  const seen = (through: BoardLens) => new Set(goalsAt(project, axis, through).map(({ band }) => band)).size;
  if (seen(lens) > 0) return undefined;
  const others = new Map<string, Pick<BoardLens, 'tier' | 'skill'>>();
  for (const { tier, skill } of project.brief?.bands ?? []) {
    const own = { ...(axis !== 'tiers' && tier && { tier }), ...(axis !== 'skills' && skill && { skill }) };
    others.set(JSON.stringify(own), own);
  }
  const found = [...others.values()].map((own) => ({ own, goals: seen({ ...lens, ...own }) })).sort((a, b) => b.goals - a.goals);
  return found[0]?.goals ? found[0].own : undefined;
}

/**
 * Every cell of the board, and the columns of its sample that the measure, the brief and the ranking ask for.
 * @param ranking what the tiers of encounters are ranked by
 */
export function askedOf(
  project: Project,
  measure: BandMeasure,
  axis: BoardAxis,
  lens: BoardLens,
  ranking: readonly RankBy[] = RANKED_BY_DOSE,
): { cell: string; columns: string[] }[] {
  const asked = new Map<string, Set<string>>();
  const add = (cell: Scenario, ...columns: string[]) => {
    const key = scenarioKey(cell);
    if (!asked.has(key)) asked.set(key, new Set());
    for (const column of columns) asked.get(key)?.add(column);
  };
  for (const row of rowsOf(project, measure, axis))
    for (const column of columnsOf(project, axis)) add(cellAt(row, column, lens), columnAt(row, measure), 'won');
  for (const { cell, column } of goalsAt(project, axis, lens)) add(cell, column);
  if (axis === 'tiers')
    for (const { id } of project.encounters)
      for (const column of columnsOf(project, axis))
        add(cellAt({ subject: 'encounter', id }, column, lens), ...ranking.map((one) => columnOf(one.measure, 'encounter')));
  return [...asked].map(([cell, columns]) => ({ cell, columns: [...columns] }));
}

/** Every cell that a board of these columns can show, whatever the measure. */
export function everyCell(project: Project, axis: BoardAxis, lens: BoardLens): string[] {
  const rows = [...rowsOf(project, 'timeToKill', axis), ...rowsOf(project, 'lulls', axis)];
  return rows.flatMap((row) => columnsOf(project, axis).map((column) => scenarioKey(cellAt(row, column, lens))));
}

export interface Shown {
  /** Tells it from others of the board; waves of one encounter share a cell. */
  key: string;
  cell: Scenario;
  /** What its fight goes by. */
  clock: Clock;
  values: readonly number[];
  runs: number;
  stale: boolean;
  estimate: Estimate;
  statistic: Statistic;
  band?: Band;
  verdict?: Verdict;
  goal?: JudgedGoal;
  /** Across play styles, where that is asked for: the same statistic by style, as far as it has been run. */
  styles?: { id: string; name: string; value: number }[];
}

/** What has been read as samples to judge by; what is stale counts as not run. */
export function samplesIn(read: ReadCells): (cell: Scenario) => Sample | undefined {
  return (cell) => {
    const found = read.get(scenarioKey(cell));
    if (!found?.runs) return undefined;
    const columns = Object.fromEntries(Object.entries(found.values).map(([name, values]) => [name, Float64Array.from(values)]));
    return { firstSeed: 1, runs: found.runs, digests: [], columns };
  };
}

/** Goals of the board judged together, with what has been read. */
export function judgedOf(project: Project, axis: BoardAxis, lens: BoardLens, read: ReadCells): JudgedGoal[] {
  return judgeGoals(goalsAt(project, axis, lens), samplesIn(read));
}

const placeOf = (cell: string, column: string, measure: BandMeasure) => `${measure} ${column} ${cell}`;

/** Goals by where they are measured: a board of hundreds of cells asks for each. */
export function goalsByPlace(judged: readonly JudgedGoal[]): ReadonlyMap<string, JudgedGoal> {
  const places = new Map<string, JudgedGoal>();
  for (const goal of judged) {
    const place = placeOf(scenarioKey(goal.cell), goal.column, goal.band.measure);
    if (!places.has(place)) places.set(place, goal);
  }
  return places;
}

/** One cell of the board for a measure. */
export function shownAt(
  row: BoardRow,
  column: BoardColumn,
  lens: BoardLens,
  measure: BandMeasure,
  goals: ReadonlyMap<string, JudgedGoal>,
  read: ReadCells | null,
): Shown {
  const cell = cellAt(row, column, lens);
  const key = scenarioKey(cell);
  const found = read?.get(key);
  const name = columnAt(row, measure);
  const stale = !found?.runs && found?.stale !== undefined;
  const values = (stale ? found?.stale?.values[name] : found?.values[name]) ?? [];
  const goal = goals.get(placeOf(key, name, measure));
  const statistic = goal?.band.statistic ?? GOAL_MEASURES[measure].usual;
  return {
    key: row.wave === undefined ? key : `${key} ${row.wave}`,
    cell,
    clock: row.clock,
    values,
    runs: stale ? (found?.stale?.runs ?? 0) : (found?.runs ?? 0),
    stale,
    estimate: goal?.judgement?.estimate ?? estimate(values, statistic),
    statistic,
    ...(goal && { band: goal.band, goal, ...(goal.judgement && { verdict: goal.verdict }) }),
  };
}

/** The same cell by play style. */
export function acrossStyles(
  project: Project,
  row: BoardRow,
  column: BoardColumn,
  lens: BoardLens,
  measure: BandMeasure,
  shown: Shown,
  read: ReadCells | null,
): Shown {
  const name = columnAt(row, measure);
  const styles = project.styles.flatMap((style) => {
    const values = read?.get(scenarioKey(cellAt(row, column, { ...lens, style: style.id })))?.values[name];
    return values?.length ? [{ id: style.id, name: style.name, value: estimate(values, shown.statistic).value }] : [];
  });
  return { ...shown, styles };
}

/** How many goals of each measure are met, missed, undecided or not run. */
export function countsOf(judged: readonly JudgedGoal[]): Map<BandMeasure, Record<Verdict, number>> {
  const counts = new Map<BandMeasure, Record<Verdict, number>>();
  for (const { band, verdict } of judged) {
    const own = counts.get(band.measure) ?? { met: 0, missedLow: 0, missedHigh: 0, undecided: 0 };
    own[verdict]++;
    counts.set(band.measure, own);
  }
  return counts;
}

export interface RankedRow {
  row: BoardRow;
  shown: Shown;
  /** Its interval and that of the one above it do not touch; undefined for the first. */
  apart?: boolean;
}

/**
 * The rows of one column from the most to the least of a measure: the order in which they measure. Two neighbours whose 95 %
 * intervals touch are not told apart. What has not been run is left out.
 */
export function rankedRows(rows: readonly BoardRow[], cells: readonly (readonly Shown[])[], column: number): RankedRow[] {
  return rows
    .map((row, r) => ({ row, shown: cells[r][column] }))
    .filter(({ shown }) => shown.values.length > 0 && !Number.isNaN(shown.estimate.value))
    .sort((a, b) => (a.shown.estimate.value === b.shown.estimate.value ? 0 : b.shown.estimate.value - a.shown.estimate.value))
    .map((one, i, all) => (i === 0 ? one : { ...one, apart: one.shown.estimate.high < all[i - 1].shown.estimate.low }));
}
