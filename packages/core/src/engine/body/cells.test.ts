import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { evenly } from '../../testing/evenly';
import { Cells } from './cells';
import { Crowd, closePairs } from './crowd';

const MOST = 120;
/** Many in few places as well as few in many; even over the ground. */
const points = (min: number) =>
  fc.constantFrom(3, 8, 15, 30, 60, 400).chain((extent) => {
    const place = evenly(-extent, extent);
    return fc.array(fc.record({ x: place, y: place, radius: fc.constantFrom(0, 0.2, 0.45, 0.9, 1.5) }), {
      minLength: min,
      maxLength: MOST,
    });
  });

test('places in the order of their cells, each in the cell that it lies in, and cells no narrower than asked for', () => {
  const cells = new Cells(MOST);
  fc.assert(
    fc.property(points(1), evenly(0.3, 30), (at, width) => {
      const [x, y] = [Float64Array.from(at, (one) => one.x), Float64Array.from(at, (one) => one.y)];
      cells.sort(x, y, at.length, width);
      const { order, cell, from, columns, rows } = cells;
      const places = [...order.slice(0, at.length)];
      expect([...places].sort((a, b) => a - b)).toEqual(at.map((_, i) => i));
      for (let k = 0; k < at.length; k++) {
        expect(cell[k]).toBeLessThan(columns * rows);
        expect(from[cell[k]] <= k && k < from[cell[k] + 1]).toBe(true);
        if (k > 0) expect(cell[k - 1] < cell[k] || (cell[k - 1] === cell[k] && order[k - 1] < order[k])).toBe(true);
        for (let l = 0; l < at.length; l++) {
          const apart = [Math.floor(cell[k] / columns) - Math.floor(cell[l] / columns), (cell[k] % columns) - (cell[l] % columns)];
          const far = apart.some((by) => Math.abs(by) > 1);
          if (far) expect(Math.hypot(x[order[k]] - x[order[l]], y[order[k]] - y[order[l]])).toBeGreaterThan(width * (1 - 1e-12));
        }
      }
    }),
    { numRuns: 100 },
  );
});

test('those who are near each other are the same by cells as among all, in order of their places', () => {
  fc.assert(
    fc.property(points(1), (at) => {
      const crowd = new Crowd(MOST);
      crowd.x.set(at.map((one) => one.x));
      crowd.y.set(at.map((one) => one.y));
      crowd.radius.set(at.map((one) => one.radius));
      const { first, second, count } = closePairs(crowd, at.length);
      const expected: number[][] = [];
      for (let i = 0; i < at.length; i++)
        for (let j = i + 1; j < at.length; j++) {
          const touch = at[i].radius && at[j].radius ? at[i].radius + at[j].radius : 0;
          if ((at[j].x - at[i].x) ** 2 + (at[j].y - at[i].y) ** 2 < 1.08 ** 2 * touch ** 2) expected.push([i, j]);
        }
      expect(Array.from({ length: count }, (_, p) => [first[p], second[p]])).toEqual(expected);
    }),
    { numRuns: 500 },
  );
});

test('a few are watched: who has come near since is seen, however they moved', () => {
  const moves = fc.array(fc.integer({ min: -900, max: 900 }), { minLength: 2 * MOST, maxLength: 2 * MOST });
  fc.assert(
    fc.property(points(40), fc.array(moves, { minLength: 1, maxLength: 6 }), (at, steps) => {
      const few = at.slice(0, 40);
      const crowds = [new Crowd(MOST), new Crowd(MOST)];
      for (const crowd of crowds) {
        crowd.x.set(few.map((one) => one.x));
        crowd.y.set(few.map((one) => one.y));
        crowd.radius.set(few.map((one) => one.radius));
      }
      for (const by of steps) {
        const [kept, anew] = crowds.map((crowd) => {
          for (let i = 0; i < few.length; i++) {
            crowd.x[i] += by[2 * i] / 1000;
            crowd.y[i] += by[2 * i + 1] / 1000;
          }
          if (crowd === crowds[1]) crowd.clear();
          const { first, second, count } = closePairs(crowd, few.length);
          return Array.from({ length: count }, (_, p) => [first[p], second[p]]);
        });
        expect(kept).toEqual(anew);
      }
    }),
    { numRuns: 200 },
  );
});
