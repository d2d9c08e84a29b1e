/**
 * Where an area that is marked goes down in turns: of the cells in range of whoever sends it, with a line to them where that is
 * asked for, the one about which it strikes most foes, less the friends that it would strike too; of equals the one nearest to
 * its target, then the one with the least turn from where the unit faces.
 */
import { inRange } from '../body/reach';
import type { Fight } from '../fight';
import type { CompiledAttack } from '../unit-tables';
import { facingOf, middleOfBody, moverOf } from './places';

export function bestPlace(fight: Fight, unit: number, target: number, attack: CompiledAttack): { x: number; y: number } {
  const board = fight.board!;
  const { cells } = board;
  const own = moverOf(fight, unit);
  const from = fight.onCell[unit];
  const facing = facingOf(fight, fight.fx[unit], fight.fy[unit]);
  const bodies = [fight.living[1 - fight.side[unit]], attack.friendly ? fight.living[fight.side[unit] as 0 | 1] : []].flatMap((units, i) =>
    units.filter((other) => other !== unit).map((other) => ({ at: fight.onCell[other], size: fight.sizeOf(other), sign: 1 - 2 * i })),
  );
  const aimed = { at: fight.onCell[target], size: fight.sizeOf(target) };
  let found = fight.onCell[target];
  let most = -Infinity;
  let nearest = Infinity;
  for (let cell = 0; cell < cells.count; cell++) {
    if (board.blocked[own.ground][cell] || !inRange(cells.gap(from, own.size, cell, 1), attack.rangeMin, attack.rangeMax)) continue;
    let sum = 0;
    for (const { at, size, sign } of bodies) if (cells.gap(cell, 1, at, size) <= attack.areaRadius) sum += sign;
    if (sum < most) continue;
    const apart = cells.gap(cell, 1, aimed.at, aimed.size);
    if (sum === most && apart > nearest) continue;
    if (attack.needsLine && !isOpenTo(fight, unit, cell)) continue;
    const turns = sum === most && apart === nearest;
    if (turns && cells.compareTurns(facing, cells.bearing(from, own.size, cell, 1), cells.bearing(from, own.size, found, 1)) >= 0) continue;
    found = cell;
    most = sum;
    nearest = apart;
  }
  return middleOfBody(fight, found, 1);
}

/** Whether no wall is higher than the line from a muzzle to the ground of a cell. */
function isOpenTo({ ground, x, y, kinds, compiled }: Fight, unit: number, cell: number): boolean {
  if (ground.walls.length === 0) return true;
  const board = compiled.rounds!.board!;
  return !ground.blocked(x[unit], y[unit], kinds[unit].muzzle, board.x[cell], board.y[cell], 0);
}
