import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Clearance } from './clearance';
import { KeptWays } from './kept-ways';
import { DistanceField, Passages, UNREACHED, downhill } from './ways';

const box = (left: number, right: number, bottom: number, top: number) => ({
  xs: [left, right, right, left],
  ys: [bottom, bottom, top, top],
});
/** A hall of 20 × 12 m with walls. */
const hall = (...shapes: ReturnType<typeof box>[]) => new Clearance(10, 6, 0.5, shapes as never);

describe('a distance field', () => {
  const wall = fc
    .record({
      x: fc.integer({ min: -8, max: 8 }),
      y: fc.integer({ min: -5, max: 5 }),
      w: fc.integer({ min: 1, max: 8 }),
      d: fc.integer({ min: 1, max: 8 }),
    })
    .map(({ x, y, w, d }) => box(x, x + w / 2, y, y + d / 2));

  test('worked out as far as it is asked leads the same way as the whole of it, whatever was asked before', () => {
    fc.assert(
      fc.property(
        fc.array(wall, { maxLength: 6 }),
        fc.nat(959),
        fc.array(fc.nat(959), { minLength: 1, maxLength: 6 }),
        fc.boolean(),
        (walls, goal, asked, block) => {
          const clearance = hall(...walls);
          const passages = new Passages(clearance, 0.5);
          const size = block ? 2 : 1;
          const whole = new DistanceField(passages, goal, size);
          const part = new DistanceField(passages, goal, size);
          // A cell in a wall is never reached: asked of it, everything is worked out.
          const all = whole.from(clearance.cellAt(99, 99)).slice();
          const blocked = Array.from(clearance.room).findIndex((room) => room === 0);
          const final = blocked >= 0 ? whole.from(blocked) : all;
          for (const cell of asked) {
            const cost = part.from(cell);
            const exact = new DistanceField(passages, goal, size).from(cell);
            expect(cost[cell]).toBe(exact[cell]);
            if (blocked >= 0) expect(cost[cell]).toBe(final[cell]);
            for (let at = cell; cost[at] > 0 && cost[at] < UNREACHED;) {
              const next = downhill(clearance, cost, at);
              expect(next).toBe(downhill(clearance, exact, at));
              if (blocked >= 0) expect(next).toBe(downhill(clearance, final, at));
              if (next === at) break;
              at = next;
            }
          }
        },
      ),
      { numRuns: 200 },
    );
  });

  test('costs 5 a straight step and 7 a slanted one in the open; nothing beyond a closed wall is reached', () => {
    const middle = hall().cellAt(0.1, 0.1);
    const open = new DistanceField(new Passages(hall(), 0), middle, 1);
    const slanted = middle + 2 * hall().columns + 2;
    expect([open.from(middle + 3)[middle + 3], open.from(slanted)[slanted]]).toEqual([15, 14]);
    const split = hall(box(-0.5, 0.5, -6, 6));
    const field = new DistanceField(new Passages(split, 0.5), split.cellAt(-5, 0), 1);
    expect(field.from(split.cellAt(5, 0))[split.cellAt(5, 0)]).toBe(UNREACHED);
    expect(field.from(split.cellAt(-8, 0))[split.cellAt(-8, 0)]).toBeLessThan(UNREACHED);
  });
});

describe('what is kept', () => {
  const ask = (kept: KeptWays, key: string, goal = 0) => {
    const ways = kept.of(key, () => hall());
    return kept.field(ways, 1, 0.5, goal, 1);
  };

  test('is found again by its ground, its width, its goal and size; another has its own', () => {
    const kept = new KeptWays(1e6);
    const first = ask(kept, 'a');
    expect(ask(kept, 'a')).toBe(first);
    expect(ask(kept, 'a', 1)).not.toBe(first);
    expect(ask(kept, 'b')).not.toBe(first);
    const ways = kept.of('a', () => hall());
    expect(kept.field(ways, 2, 1, 0, 1)).not.toBe(first);
    expect(kept.field(ways, 1, 0.5, 0, 2)).not.toBe(first);
    // 960 cells: eight bytes of room, two of passages for each width, two of each field.
    expect(kept.size).toEqual({ bytes: 960 * (8 + 2 * 2 + 2 * 4) + 960 * (8 + 2 + 2), grounds: 2 });
  });

  test('stays within its cap: what was used longest ago goes, of the only one its fields', () => {
    const each = 960 * (8 + 2 + 2);
    const kept = new KeptWays(2 * each);
    const [a, b] = [ask(kept, 'a'), ask(kept, 'b')];
    ask(kept, 'a');
    ask(kept, 'c');
    expect(kept.size).toEqual({ bytes: 2 * each, grounds: 2 });
    expect([ask(kept, 'a') === a, ask(kept, 'b') === b]).toEqual([true, false]);
    const small = new KeptWays(each);
    for (let goal = 0; goal < 30; goal++) ask(small, 'a', goal);
    expect(small.size.bytes).toBeLessThanOrEqual(each);
    expect(small.size.grounds).toBe(1);
  });
});
