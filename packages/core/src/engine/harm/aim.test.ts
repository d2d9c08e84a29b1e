import { expect, test } from '@jest/globals';
import type { Fight } from '../fight';
import type { CompiledAttack } from '../unit-tables';
import { aimOf } from './shots';

/** The way a shot takes to a target at (4, 0) that goes north. */
function aim(shotSpeed: number, north: number, lead = 1): number[] {
  const at = { 0: { x: 0, y: 0 }, 1: { x: 4, y: 0 } } as Record<number, { x: number; y: number }>;
  const fight = { now: 0, xAt: (unit: number) => at[unit].x, yAt: (unit: number) => at[unit].y, vx: [0, 0], vy: [0, north] };
  return aimOf(fight as unknown as Fight, 0, 1, { shotSpeed, lead } as CompiledAttack);
}

test('a shot is aimed where its target will be: (4, 3 t) at 5 m/s is met after a second', () => {
  expect(aim(5, 3)).toEqual([4, 3]);
  expect(aim(5, 3, 0)).toEqual([4, 0]);
  // As slow as it is: at 0.5 m/s after eight seconds, of one that goes 0.3 m/s after ten.
  const [x, y] = aim(0.5, 0.3);
  expect([x, y]).toEqual([4, expect.closeTo(3, 9)]);
});

test('one that can not be caught is aimed at where it is', () => {
  expect(aim(3, 3)).toEqual([4, 0]);
  expect(aim(2, 9)).toEqual([4, 0]);
});
