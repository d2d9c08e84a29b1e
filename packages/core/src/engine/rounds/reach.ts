/**
 * Whether somebody can be struck in this turn: from some cell that the unit can come to and stay on, with some attack that is
 * usable now. Without a board, from where it stands.
 */
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import { readyHurdle } from '../mind/ready';
import { clearFrom } from '../mind/senses';
import type { CompiledAttack, CompiledCondition } from '../unit-tables';
import { type CellSet, both, findCell, isEmpty } from './cell-sets';
import type { Cells } from './cells';
import { allowanceOf, waysOf } from './moving';
import { moverOf, wholeCells, wholeFrom } from './places';
import { seesFrom } from './sight';

/** @param holds whether an attack's own condition holds */
export function canStrike(fight: Fight, unit: number, holds: Holds): boolean {
  const usable = readyStrikes(fight, unit, holds);
  if (usable.length === 0) return false;
  return strikesFromSomewhere(fight, unit, fight.living[1 - fight.side[unit]], usable);
}

/** Whether one of some foes can be struck with one of some attacks, from a cell that the unit can come to in one turn. */
export function strikesFromSomewhere(fight: Fight, unit: number, foes: readonly number[], usable: readonly CompiledAttack[]): boolean {
  if (foes.some((foe) => strikesFromHere(fight, unit, foe, usable))) return true;
  const { board } = fight;
  if (!board) return false;
  const allowance = allowanceOf(fight, unit);
  const mover = moverOf(fight, unit);
  const farthest = usable.reduce((most, { rangeMax }) => Math.max(most, rangeMax), 0);
  const from = fight.onCell[unit];
  // Each step costs 1 at least: whoever is farther than steps and reach together need not be looked at.
  const near = foes.filter((foe) => board.cells.gap(from, mover.size, fight.onCell[foe], fight.sizeOf(foe)) <= farthest + allowance);
  if (near.length === 0) return false;
  const { there, cells } = waysOf(board);
  there.from(mover, from, allowance);
  return near.some((foe) =>
    usable.some(({ rangeMin, rangeMax, needsLine }) => {
      const range = inRangeOf(board.cells, fight.onCell[foe], fight.sizeOf(foe), mover.size, rangeMin, rangeMax);
      const stands = both(there.stands, range, cells);
      return needsLine ? findCell(stands, seesFrom(fight, mover, foe)) >= 0 : !isEmpty(stands);
    }),
  );
}

/** Where a body of a size is in the range of what it strikes another body with. */
export const inRangeOf = (cells: Cells, at: number, sizeAt: number, size: number, least: number, most: number): CellSet =>
  cells.band(at, sizeAt, size, wholeFrom(least), wholeCells(most));

type Holds = (fight: Fight, unit: number, condition: CompiledCondition) => boolean;

function strikesFromHere(fight: Fight, unit: number, foe: number, usable: readonly CompiledAttack[]): boolean {
  const gap = fight.gap(unit, foe);
  return usable.some(
    ({ rangeMin, rangeMax, needsLine }) =>
      inRange(gap, rangeMin, rangeMax) && (!needsLine || clearFrom(fight, unit, fight.kinds[unit].muzzle, foe)),
  );
}

/** Its attacks on foes that it may use now, wherever these are. */
export function readyStrikes(fight: Fight, unit: number, holds: Holds): CompiledAttack[] {
  const { attacks, states } = fight.kinds[unit];
  const { only, mayAttack } = states[fight.state[unit]];
  return attacks.filter(
    (attack, number) =>
      mayAttack &&
      attack.traits.chosen &&
      attack.traits.strikes &&
      (only === null || only[number]) &&
      readyHurdle(fight, unit, number, attack) === 0 &&
      (attack.condition === null || holds(fight, unit, attack.condition)),
  );
}
