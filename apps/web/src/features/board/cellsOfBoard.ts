/** What a board shows of a project: its rows, its cells, the bands that speak of each, and what the runs say. */
import {
  type Band,
  type BandMeasure,
  type Cell,
  type Estimate,
  GOAL_MEASURES,
  type JudgedGoal,
  type Project,
  type Statistic,
  type UnitHead,
  type Verdict,
  cellKey,
  columnOf,
  estimate,
  goalsOf,
  judgeGoals,
  unitHeads,
} from '@insidia/core';
import type { CellRead } from '../../store/api';
import { sampleIn } from '../../store/useCells';

export interface Row {
  kind: Cell['kind'];
  id: string;
  name: string;
  head?: UnitHead;
}

/** Enemies, then encounters, as far as the measure is of them. */
export function rowsOf(project: Project, measure: BandMeasure): Row[] {
  const { of } = GOAL_MEASURES[measure];
  const enemies = unitHeads(project).filter(({ side }) => side === 'enemy');
  return [
    ...(of.includes('enemy') ? enemies.map((head): Row => ({ kind: 'duel', id: head.id, name: head.name, head })) : []),
    ...(of.includes('encounter') ? project.encounters.map(({ id, name }): Row => ({ kind: 'encounter', id, name })) : []),
  ];
}

export interface Lens {
  skill?: string;
  style?: string;
}

/** Tiers as the board's columns; a project without any has one, as it is written. */
export function tiersOf(project: Project): { id?: string; name: string }[] {
  return project.tiers.length ? project.tiers : [{ name: 'as written' }];
}

export function cellAt({ kind, id }: Row, tier: string | undefined, { skill, style }: Lens): Cell {
  return { kind, id, ...(tier && { tier }), ...(skill && { skill }), ...(style && { style }) };
}

export function columnAt(row: Row, measure: BandMeasure): string {
  return columnOf(measure, row.kind === 'duel' ? 'enemy' : 'encounter', row.id);
}

/** Every cell of the board at a lens, and the columns of it that the measure or the brief asks for. */
export function askedOf(project: Project, measure: BandMeasure, lens: Lens): { cell: string; columns: string[] }[] {
  const asked = new Map<string, Set<string>>();
  const add = (cell: Cell, column: string) => {
    const key = cellKey(cell);
    if (!asked.has(key)) asked.set(key, new Set());
    asked.get(key)?.add(column);
  };
  for (const row of rowsOf(project, measure)) for (const { id } of tiersOf(project)) add(cellAt(row, id, lens), columnAt(row, measure));
  for (const goal of boardGoals(project, lens)) add(goal.cell, goal.column);
  // The ranking needs the dose of every encounter.
  for (const { id, name } of project.encounters)
    for (const tier of tiersOf(project)) add(cellAt({ kind: 'encounter', id, name }, tier.id, lens), 'dose');
  return [...asked].map(([cell, columns]) => ({ cell, columns: [...columns] }));
}

/** All that the brief wants at the board's skill and style. */
export function boardGoals(project: Project, { skill, style }: Lens) {
  return goalsOf(project, { skills: [skill], style });
}

/** Every cell that a board at this lens can show, whatever the measure. */
export function everyCell(project: Project, lens: Lens): string[] {
  const rows: Row[] = [...rowsOf(project, 'timeToKill'), ...rowsOf(project, 'lulls')];
  return rows.flatMap((row) => tiersOf(project).map(({ id }) => cellKey(cellAt(row, id, lens))));
}

export interface Shown {
  key: string;
  cell: Cell;
  values: readonly number[];
  runs: number;
  stale: boolean;
  read?: CellRead;
  estimate: Estimate;
  statistic: Statistic;
  band?: Band;
  verdict?: Verdict;
  goal?: JudgedGoal;
  /** Across play styles, where that is asked for: the same statistic by style, as far as it has been run. */
  styles?: { id: string; name: string; value: number }[];
}

/** Goals of the board judged together, with what has been read. */
export function judgedOf(project: Project, lens: Lens, read: ReadonlyMap<string, CellRead>): JudgedGoal[] {
  return judgeGoals(boardGoals(project, lens), sampleIn(read));
}

/** One cell of the board for a measure. */
export function shownAt(
  row: Row,
  tier: string | undefined,
  lens: Lens,
  measure: BandMeasure,
  judged: readonly JudgedGoal[],
  read: ReadonlyMap<string, CellRead> | null,
): Shown {
  const cell = cellAt(row, tier, lens);
  const key = cellKey(cell);
  const found = read?.get(key);
  const column = columnAt(row, measure);
  const stale = !found?.runs && found?.stale !== undefined;
  const values = (stale ? found?.stale?.values[column] : found?.values[column]) ?? [];
  const goal = judged.find((one) => one.column === column && one.band.measure === measure && cellKey(one.cell) === key);
  const statistic = goal?.band.statistic ?? GOAL_MEASURES[measure].usual;
  return {
    key,
    cell,
    values,
    runs: stale ? (found?.stale?.runs ?? 0) : (found?.runs ?? 0),
    stale,
    read: found,
    estimate: goal?.judgement?.estimate ?? estimate(values, statistic),
    statistic,
    ...(goal && { band: goal.band, goal, ...(goal.judgement && { verdict: goal.verdict }) }),
  };
}

/** The same cell by play style. */
export function acrossStyles(
  project: Project,
  row: Row,
  tier: string | undefined,
  { skill }: Lens,
  measure: BandMeasure,
  shown: Shown,
  read: ReadonlyMap<string, CellRead> | null,
): Shown {
  const column = columnAt(row, measure);
  const styles = project.styles.flatMap(({ id, name }) => {
    const values = read?.get(cellKey(cellAt(row, tier, { skill, style: id })))?.values[column];
    return values?.length ? [{ id, name, value: estimate(values, shown.statistic).value }] : [];
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
