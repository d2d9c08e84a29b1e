/** What moves it: what turning each dial a little does to each objective, from paired runs. One table, whoever ran the fights. */
import type { Project } from '../model/project';
import { type Scenario, scenarioKey } from '../analysis/scenario';
import type { Turn } from '../model/turn';
import { type Dial, type Nudge, nudged, turnTo, writtenAt } from './dial';
import { type PairedEffect, type Ran, effectOf } from '../analysis/effect';
import { type Objective, cellsOf } from './goal';

/** What dials can be turned, and what can't: it leads nowhere, or has nowhere to go. */
export function nudges(project: Project, dials: readonly Dial[]): { turned: Nudge[]; stuck: Dial[] } {
  const turned: Nudge[] = [];
  const stuck: Dial[] = [];
  for (const dial of dials) {
    const [from, to] = [writtenAt(project, dial), nudged(project, dial)];
    if (from === undefined || to === undefined) stuck.push(dial);
    else turned.push({ dial, from, to });
  }
  return { turned, stuck };
}

/** A cell with one dial turned. */
export const turnedCell = (cell: Scenario, dial: Dial, value: Turn['value']): Scenario => ({
  ...cell,
  turned: [...(cell.turned ?? []), turnTo(dial, value)],
});

/** Every cell that the table needs: what is written, and each dial turned, in each cell that an objective is of. */
export function cellsOfMoves(objectives: readonly Objective[], turned: readonly Nudge[]): Scenario[] {
  return cellsOf(objectives).flatMap((cell) => [cell, ...turned.map(({ dial, to }) => turnedCell(cell, dial, to))]);
}

export interface Moves extends Nudge {
  /** One for each objective; undefined where it has not been run. */
  effects: (PairedEffect | undefined)[];
}

/** @param ran what is known of an objective's column in a cell; undefined: not run */
export function movesOf(
  objectives: readonly Objective[],
  turned: readonly Nudge[],
  ran: (cell: Scenario, objective: Objective) => Ran | undefined,
): Moves[] {
  const base = objectives.map((objective) => ran(objective.cell, objective));
  return turned.map((nudge) => ({
    ...nudge,
    effects: objectives.map((objective, i) => {
      const [before, after] = [base[i], ran(turnedCell(objective.cell, nudge.dial, nudge.to), objective)];
      return before && after ? effectOf(before, after, objective.statistic) : undefined;
    }),
  }));
}

/** How large an effect is beside what else there is: for ordering rows by one objective. Exactly none comes last, what can't speak after it. */
export function strength(effect: PairedEffect | undefined): number {
  if (!effect || effect.says === 'mute') return -1;
  return effect.says === 'never' ? 0 : Math.abs(effect.difference);
}

/** Rows by what they do to one objective, the strongest first. */
export const byStrength = (moved: readonly Moves[], objective: number): Moves[] =>
  [...moved].sort((a, b) => strength(b.effects[objective]) - strength(a.effects[objective]));

/** Which cells a table of runs asks for, by key. */
export const keysOfMoves = (objectives: readonly Objective[], turned: readonly Nudge[]): string[] =>
  cellsOfMoves(objectives, turned).map(scenarioKey);
