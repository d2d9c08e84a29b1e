/** How whoever plays a unit takes its turns. */
import { describe, expect, test } from '@jest/globals';
import { type FightSketch, eventsOf, unit } from '../../testing/builders';
import { turnTables } from '../../testing/rounds';
import { Runner } from '../run';

const shot = (amount: number, to = 1, more = {}) => ({
  id: 'shot',
  effects: { damage: { amount } },
  rounds: { to },
  needsLine: false,
  ...more,
});

describe('which act', () => {
  /** The first stands nearer and is its target; the second can be felled at once and strikes hard. */
  const sketch = (best: number, limit = 1): FightSketch => ({
    party: [unit({ id: 'ours', side: 'party', health: { max: 1e6 }, attacks: [shot(10)], rounds: { plays: { best } } })],
    enemies: [
      { unit: unit({ id: 'stout', health: { max: 1e6 }, attacks: [shot(1)], rounds: {} }), x: 1 },
      { unit: unit({ id: 'frail', health: { max: 8 }, attacks: [shot(20)], rounds: {} }), x: 3 },
    ],
    encounter: { rounds: { ground: 'none', limit } },
  });
  const first = (best: number) => eventsOf(new Runner(turnTables(sketch(best))).run(1).log, 'start')[0].other;

  test('what promises most: a foe that falls counts for what it would have done', () => {
    // 10 of the stout one; 8 and the 20 of its next turn of the frail one.
    expect([first(0), first(1)]).toEqual([1, 2]);
  });

  test('so often as its skill says', () => {
    // Whether the first act of a run is the best: in 2,000 runs 0.7 of them, within four standard errors.
    const runner = new Runner(turnTables(sketch(0.7)));
    let best = 0;
    for (let seed = 1; seed <= 2000; seed++) if (eventsOf(runner.run(seed).log, 'start')[0].other === 2) best++;
    expect(Math.abs(best / 2000 - 0.7)).toBeLessThan(4 * Math.sqrt((0.7 * 0.3) / 2000));
  });

  test('of its own targeting nobody is taken that it never takes', () => {
    const given = sketch(1);
    const [ours] = given.party;
    const barred = { ...given, party: [{ ...ours, targeting: { never: { units: ['frail'], roles: [] } } }] };
    expect(eventsOf(new Runner(turnTables(barred as FightSketch)).run(1).log, 'start')[0].other).toBe(1);
  });
});

describe('where it ends its turn', () => {
  /** It shoots five cells far and goes four; the foe goes two and strikes its neighbour, so within three cells it can strike next. */
  const ends = (style: string, x = 3): number => {
    let gap = -1;
    const sketch: FightSketch = {
      party: [
        unit({
          id: 'ours',
          side: 'party',
          health: { max: 1000 },
          attacks: [shot(1, 5)],
          rounds: { moves: 4, plays: { best: 1, ends: style } },
        }),
      ],
      partyAt: { x: 0, y: 0, facing: 0 },
      enemies: [
        {
          unit: unit({
            id: 'foe',
            health: { max: 1e6 },
            attacks: [shot(1)],
            rounds: { moves: 2 },
            states: [{ id: 'h', name: 'h', does: 'hold' }],
          }),
          x,
          y: 0,
        },
      ],
      width: 15,
      depth: 15,
      encounter: { rounds: { ground: 'squares', limit: 1 } },
    };
    new Runner(turnTables(sketch)).run(1, (fight, time) => {
      if (gap < 0 && time > 0) gap = fight.gap(0, 1);
    });
    return gap;
  };

  test('careful: out of what can strike it next, and still within its own reach', () => {
    expect(ends('careful')).toBe(4);
  });
  test('forward: beside its foe; still: where it stands, for it reaches from there; as its state says: the cheapest', () => {
    expect([ends('forward'), ends('still'), ends('state')]).toEqual([1, 3, 3]);
  });
  test('whoever has to come nearer does, as far as it must', () => {
    expect([ends('still', 7), ends('careful', 7)]).toEqual([5, 5]);
  });
});
