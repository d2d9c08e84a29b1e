/** What two numbers do together beyond what each does alone: whether they can be turned one after the other. */
import type { Scenario } from '../analysis/scenario';
import { type PairedEffect, type Ran, interactionOf, isSeen } from '../analysis/effect';
import { type Objective, cellsOf } from './goal';
import type { Nudge } from './dial';
import { turnedCell } from './moves';

/** Numbers of a table whose pairs are asked about at once: six pairs. */
export const PAIRED = 4;

export interface Together {
  first: Nudge;
  second: Nudge;
  /** One for each objective; undefined where it has not been run. `before` is what the sum of both would come to, `after` what they do. */
  effects: (PairedEffect | undefined)[];
}

/** Every two of some numbers. */
export const pairsOf = (turned: readonly Nudge[]): [Nudge, Nudge][] =>
  turned.flatMap((first, i) => turned.slice(i + 1).map((second): [Nudge, Nudge] => [first, second]));

const bothTurned = (cell: Scenario, [first, second]: readonly [Nudge, Nudge]): Scenario =>
  turnedCell(turnedCell(cell, first.dial, first.to), second.dial, second.to);

/** The cells that they need besides those of the table: both turned at once. */
export const cellsOfPairs = (objectives: readonly Objective[], pairs: readonly [Nudge, Nudge][]): Scenario[] =>
  cellsOf(objectives).flatMap((cell) => pairs.map((pair) => bothTurned(cell, pair)));

/** @param ran what is known of an objective's column in a cell; undefined: not run */
export function togetherOf(
  objectives: readonly Objective[],
  pairs: readonly [Nudge, Nudge][],
  ran: (cell: Scenario, objective: Objective) => Ran | undefined,
): Together[] {
  return pairs.map((pair) => {
    const [first, second] = pair;
    const effects = objectives.map((objective) => {
      const { cell, statistic } = objective;
      const [base, one, other, both] = [
        cell,
        turnedCell(cell, first.dial, first.to),
        turnedCell(cell, second.dial, second.to),
        bothTurned(cell, pair),
      ].map((each) => ran(each, objective));
      return base && one && other && both ? interactionOf(base, one, other, both, statistic) : undefined;
    });
    return { first, second, effects };
  });
}

/** Those of which something is seen, the clearest of any objective first: by their size over the half of their interval. */
export function seenTogether(all: readonly Together[]): Together[] {
  const clarity = (effect: PairedEffect | undefined) =>
    effect && isSeen(effect) ? Math.abs(effect.difference) / (effect.high - effect.low) : 0;
  const most = ({ effects }: Together) => Math.max(0, ...effects.map(clarity));
  return all.filter((one) => most(one) > 0).sort((a, b) => most(b) - most(a));
}
