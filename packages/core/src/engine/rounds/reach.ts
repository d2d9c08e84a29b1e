/** Whether somebody can be struck in this turn: from some cell that the unit can come to and stay on, with some attack that is usable now. */
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import { holds } from '../mind/conditions';
import { readyHurdle } from '../mind/hurdles';
import { allowanceOf, clearAt, waysOf } from './moving';
import { moverOf } from './places';

export function canStrike(fight: Fight, unit: number): boolean {
  const usable = usableAttacks(fight, unit);
  const foes = fight.living[1 - fight.side[unit]];
  if (usable.length === 0) return false;
  const { board } = fight;
  if (!board) return foes.some((foe) => usable.some(({ rangeMin, rangeMax }) => inRange(fight.gap(unit, foe), rangeMin, rangeMax)));
  const mover = moverOf(fight, unit);
  const { there } = waysOf(board);
  there.from(mover, fight.onCell[unit], allowanceOf(fight, unit));
  const bodies = foes.map((foe) => ({ foe, at: fight.onCell[foe], size: moverOf(fight, foe).size }));
  return there.reached.some((cell) => {
    if (!board.isFree(mover, cell)) return false;
    return bodies.some(({ foe, at, size }) => {
      const gap = board.cells.gap(cell, mover.size, at, size);
      return usable.some(
        ({ rangeMin, rangeMax, needsLine }) =>
          inRange(gap, rangeMin, rangeMax) && (!needsLine || gap <= 1 || clearAt(fight, mover, cell, foe)),
      );
    });
  });
}

function usableAttacks(fight: Fight, unit: number) {
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
