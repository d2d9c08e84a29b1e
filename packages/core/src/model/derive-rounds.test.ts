import { expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { unitInRounds } from './in-rounds';
import { withRounds } from './derive-rounds';
import { unit } from '../testing/builders';
import { filled } from './validate';
import { Unit } from './unit';

const made = (sketch: Parameters<typeof unit>[0]) => filled(Unit, unit(sketch) as never) as unknown as Unit;
const SCALE = { round: 2, cell: 1.5 };

test('by hand: durations are whole turns, distances whole cells, what grows back is that of a round', () => {
  const { rounds, attacks, states } = withRounds(
    made({
      id: 'one',
      health: { max: 100, regen: 1.5, regenDelay: 5 },
      movement: { walk: 1.5, run: 3 },
      body: { radius: 0.8 },
      attacks: [
        {
          id: 'a',
          range: { min: 1, max: 4 },
          beat: { windup: 1, active: 0.5, every: 0.2, recovery: 3, cooldown: 7 },
          effects: { damage: { amount: 5 }, slow: { share: 0.5, for: 3 }, stagger: { for: 0.2 }, knockback: { distance: 2 } },
        },
      ],
      states: [
        {
          id: 's',
          name: 's',
          does: 'band',
          pace: 'walk',
          near: 3,
          far: 6,
          leaves: [{ to: 's', after: 0.4, when: { subject: 'distance', is: 'below', value: 4 } }],
        },
      ],
    }),
    SCALE,
  );
  expect(rounds).toMatchObject({ size: 1, moves: 4, regen: 3, regenDelay: 3, order: 50, actions: 1 });
  // 1 s of 2 is half a turn: one; 7 s are three and a half: four. Three hits in one use.
  expect(attacks[0]).toMatchObject({ rounds: { from: 0, to: 3, windup: 1, recovery: 2, cooldown: 4, hits: 3 } });
  expect(attacks[0].effects).toMatchObject({
    slow: { rounds: { for: 2 } },
    stagger: { rounds: { for: 1 } },
    knockback: { rounds: { cells: 1 } },
  });
  expect(states[0]).toMatchObject({
    rounds: { moves: 2, near: 2, far: 4 },
    leaves: [{ rounds: { after: 1 }, when: { rounds: { value: 3 } } }],
  });
});

test('an attack that comes several times in a round is one use with as many hits: harm a round stays', () => {
  const quick = { id: 'a', beat: { windup: 0.1, active: 0, recovery: 0.1, cooldown: 0.5 }, effects: { damage: { amount: 5 } } };
  const [attack] = withRounds(made({ id: 'one', attacks: [quick] }), { round: 6, cell: 1 }).attacks;
  expect(attack).toMatchObject({ rounds: { cooldown: 1, windup: 0, hits: 12 } });
  const ticking = { ...quick, effects: { overTime: { amount: 2, every: 0.5, for: 9 } } };
  const [other] = withRounds(made({ id: 'one', attacks: [ticking] }), { round: 6, cell: 1 }).attacks;
  expect(other.effects.overTime).toMatchObject({ amount: 24, rounds: { every: 1, for: 2 } });
});

test('every unit of the demo comes out within the limits, keeps what it says in seconds, and can be read in turns', () => {
  for (const one of demoProject().units) {
    for (const scale of [SCALE, { round: 6, cell: 1 }, { round: 0.5, cell: 3 }]) {
      const derived = withRounds(one, scale);
      expect({ ...derived.health, beats: derived.attacks.map(({ beat }) => beat) }).toEqual({
        ...one.health,
        beats: one.attacks.map(({ beat }) => beat),
      });
      const read = unitInRounds(derived);
      for (const attack of read.attacks) {
        for (const value of [attack.range.min, attack.range.max, attack.beat.windup, attack.beat.cooldown])
          expect(Number.isInteger(value)).toBe(true);
        expect(attack.range.min).toBeLessThanOrEqual(attack.range.max);
      }
    }
  }
});
