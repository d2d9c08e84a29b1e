/** The beat of an attack in turns, held against the engine. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { roundOf } from '../record/time';
import { eventsOf, unit } from '../testing/builders';
import { foughtInTurns } from '../testing/rounds';
import { turnBeat } from './turn-beat';

test('by hand: two turns of wind-up, one of recovery, a cooldown of five', () => {
  const beat = (more: object, actions = 1) => turnBeat({ rounds: { windup: 0, recovery: 0, cooldown: 1, ...more } as never }, actions);
  expect(beat({ windup: 2, recovery: 1, cooldown: 5 })).toEqual({ strikes: 3, free: 4, next: 6 });
  expect(beat({})).toEqual({ strikes: 1, free: 2, next: 2 });
  expect(beat({ cooldown: 0 }, 2)).toEqual({ strikes: 1, free: 1, next: 1 });
});

test('it strikes and is begun again in the turns in which the engine does', () => {
  fc.assert(
    fc.property(
      fc.record({ windup: fc.nat(4), recovery: fc.nat(4), cooldown: fc.nat(6) }),
      fc.integer({ min: 1, max: 2 }),
      (rounds, actions) => {
        const attack = { id: 'a', effects: { damage: { amount: 1 } }, rounds };
        const { log } = foughtInTurns({
          party: [unit({ id: 'ours', side: 'party', health: { max: 1e6 }, attacks: [], rounds: {} })],
          enemies: [{ unit: unit({ id: 'theirs', attacks: [attack], rounds: { actions } }), x: 1 }],
          encounter: { rounds: { ground: 'none', limit: 20, first: 'ours' } },
        });
        const [begun, again] = eventsOf(log, 'start').map(({ time }) => roundOf(time * 1e6) + 1);
        const [struck] = eventsOf(log, 'hit').map(({ time }) => roundOf(time * 1e6) + 1);
        const beat = turnBeat({ rounds: rounds as never }, actions);
        expect([struck - begun + 1, again - begun + 1]).toEqual([beat.strikes, beat.next]);
      },
    ),
    { numRuns: 200 },
  );
});
