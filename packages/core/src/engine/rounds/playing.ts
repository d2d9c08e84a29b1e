/**
 * How whoever plays a unit takes a turn: in a share of them, its skill, it looks over all that it can reach and takes the
 * act that promises most, one turn ahead: harm done, no more than the foe has left; and where that fells it, the harm that the
 * foe would have done in its next turn. It ends its turn where its style wants. In the others it goes by its own priorities.
 */
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import { startAttack } from '../harm/attack';
import { runInstants } from '../instant';
import { holds } from '../mind/conditions';
import { setTarget } from '../mind/wanted';
import { PHASE } from '../numbers';
import type { CompiledAttack } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import type { Mover } from './board';
import { type CellSet, both, findCell, hasCell, isEmpty } from './cell-sets';
import { best, walk, waysOf } from './moving';
import { moverOf } from './places';
import { promised } from '../mind/promise';
import { inRangeOf, readyStrikes } from './reach';
import { seesFrom } from './sight';

interface Act {
  number: number;
  attack: CompiledAttack;
  foe: number;
  worth: number;
}

/** @returns what the way cost that it went; −1: nobody plays it, or it takes no such turn now */
export function playBest(fight: Fight, unit: number, allowance: number): number {
  const { plays, actions } = fight.kinds[unit].turns!;
  if (plays === null || plays.best <= 0 || !fight.alerted[unit] || fight.owedAttack[unit] >= 0) return -1;
  if (fight.chance(unit, PURPOSE.skill) >= plays.best) return -1;
  let left = allowance;
  for (let done = 0; done < actions && isFree(fight, unit); done++) {
    const act = bestAct(fight, unit, left);
    if (act === null) break;
    left -= goThere(fight, unit, left, act, plays.ends);
    if (fight.target[unit] !== act.foe) setTarget(fight, unit, act.foe);
    startAttack(fight, unit, act.number, act.foe, act.attack);
    runInstants(fight, fight.now);
  }
  if (left === allowance && fight.board && isFree(fight, unit) && plays.ends !== 'still') left -= comeBetter(fight, unit, left, plays.ends);
  // With nothing to strike it does as its state says.
  return left === allowance && fight.phase[unit] === PHASE.idle && fight.attackedAt[unit] !== fight.now ? -1 : allowance - left;
}

const isFree = (fight: Fight, unit: number) =>
  !fight.over && fight.isAlive[unit] === 1 && fight.phase[unit] === PHASE.idle && fight.now >= fight.staggeredUntil[unit];

/** What it can begin in this turn, on whom, that promises most; of equals what its priorities name first. */
function bestAct(fight: Fight, unit: number, allowance: number): Act | null {
  const kind = fight.kinds[unit];
  const ready = new Set(readyStrikes(fight, unit, holds));
  const foes = fight.living[1 - fight.side[unit]];
  if (fight.board) waysOf(fight.board).there.from(moverOf(fight, unit), fight.onCell[unit], allowance);
  let found: Act | null = null;
  for (const { attacks } of kind.choice) {
    for (const number of attacks) {
      const attack = kind.attacks[number];
      if (!ready.has(attack) || attack.targets !== 'foes') continue;
      for (const foe of foes) {
        if (kind.targeting.allowed !== null && !kind.targeting.allowed[fight.kinds[foe].type]) continue;
        const worth = promised(fight, unit, attack, foe);
        if (worth <= 0 || (found && worth <= found.worth)) continue;
        if (canCome(fight, unit, attack, foe)) found = { number, attack, foe, worth };
      }
    }
  }
  return found;
}

/** Whether it can come to a cell to strike from; without a board its own place counts. */
function canCome(fight: Fight, unit: number, attack: CompiledAttack, foe: number): boolean {
  const { board } = fight;
  if (!board) return inRange(fight.gap(unit, foe), attack.rangeMin, attack.rangeMax);
  const mover = moverOf(fight, unit);
  const cells = cellsInRange(fight, mover, attack, foe);
  return attack.needsLine ? findCell(cells, seesFrom(fight, mover, foe)) >= 0 : !isEmpty(cells);
}

/** Cells that it can come to in whose range a foe is. */
function cellsInRange(fight: Fight, mover: Mover, { rangeMin, rangeMax }: CompiledAttack, foe: number): CellSet {
  const { there, cells } = waysOf(fight.board!);
  const size = fight.sizeOf(foe);
  return both(there.stands, inRangeOf(fight.board!.cells, fight.onCell[foe], size, mover.size, rangeMin, rangeMax), cells);
}

/** To the cell that its style likes best among those that serve. @returns what the way cost */
function goThere(fight: Fight, unit: number, allowance: number, { attack, foe }: Act, ends: Ends): number {
  const { board } = fight;
  if (!board) return 0;
  const mover = moverOf(fight, unit);
  waysOf(board).there.from(mover, fight.onCell[unit], allowance);
  const cells = cellsInRange(fight, mover, attack, foe);
  return walk(fight, mover, best(fight, mover, cells, worthOf(fight, unit, ends), attack.needsLine ? seesFrom(fight, mover, foe) : null));
}

/** With nothing to strike, to where its style likes it better than where it stands. */
function comeBetter(fight: Fight, unit: number, allowance: number, ends: Ends): number {
  if (ends === 'state') return 0;
  const mover = moverOf(fight, unit);
  const { there } = waysOf(fight.board!);
  there.from(mover, fight.onCell[unit], allowance);
  return walk(fight, mover, best(fight, mover, there.stands, worthOf(fight, unit, ends)));
}

type Ends = 'state' | 'careful' | 'forward' | 'still';

/** What a style holds of a cell: the lower, the better. */
function worthOf(fight: Fight, unit: number, ends: Ends): (cell: number) => number {
  const { cells } = fight.board!;
  const size = fight.sizeOf(unit);
  const foes = fight.living[1 - fight.side[unit]].map((foe) => {
    const kind = fight.kinds[foe];
    const reach = kind.attacks.reduce(
      (most, { rangeMax, traits }) => (traits.strikes && traits.chosen ? Math.max(most, rangeMax) : most),
      0,
    );
    return { at: fight.onCell[foe], size: fight.sizeOf(foe), comes: kind.turns!.moves + reach };
  });
  if (ends === 'careful') {
    const threatened = foes.map((foe) => cells.band(foe.at, foe.size, size, 0, Math.floor(foe.comes)));
    return (cell) => threatened.reduce((sum, band) => sum + Number(hasCell(band, cell)), 0);
  }
  if (ends === 'forward') return (cell) => foes.reduce((least, foe) => Math.min(least, cells.gap(cell, size, foe.at, foe.size)), Infinity);
  return () => 0;
}
