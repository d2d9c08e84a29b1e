/** Targets by what an attack that is ready would take from them, in seconds and in turns. */
import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, eventsOf, unit } from '../../testing/builders';
import { turnTables } from '../../testing/rounds';
import { Runner } from '../run';

/** Ten a strike, with as long a reach as both need; the stout one stands nearer. */
const sketch = (by: string, stout = {}, frail = {}): FightSketch => ({
  party: [
    unit({
      id: 'ours',
      side: 'party',
      health: { max: 1000 },
      targeting: { criteria: [{ by, weight: 1 }], reconsider: 0, commitment: 0 },
      attacks: [{ id: 'strike', delivery: 'hitscan', range: { min: 0, max: 20 }, effects: { damage: { amount: 10 } }, rounds: { to: 20 } }],
      rounds: {},
    }),
  ],
  enemies: [
    { unit: unit({ id: 'stout', health: { max: 40 }, attacks: [], rounds: {}, ...stout }), x: 2 },
    { unit: unit({ id: 'frail', health: { max: 10 }, attacks: [], rounds: {}, ...frail }), x: 5 },
  ],
  limit: 1,
  encounter: { rounds: { ground: 'none', limit: 1 } },
});

const CLOCKS: [string, (given: FightSketch) => ReturnType<typeof compiled>][] = [
  ['in seconds', compiled],
  ['in turns', turnTables],
];

describe.each(CLOCKS)('%s', (_name, tables) => {
  const first = (...given: Parameters<typeof sketch>) => {
    const run = new Runner(tables(sketch(...given))).run(1);
    const [start] = eventsOf(run.log, 'start');
    return start.other;
  };

  test('whom it would fell before whom it would not, armour and all', () => {
    expect(first('nearest')).toBe(1);
    expect(first('falls')).toBe(2);
    // Eight past armour of two: ten are not felled, and then nobody is; the first of those as good is taken.
    expect(first('falls', {}, { armour: { flat: 2 } })).toBe(1);
  });

  test('who loses most to it, no more than it has left', () => {
    expect(first('mostHarm', { armour: { flat: 3 } })).toBe(2);
    expect(first('mostHarm', {}, { health: { max: 9 } })).toBe(1);
  });
});
