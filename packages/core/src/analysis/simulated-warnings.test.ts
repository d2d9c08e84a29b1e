import { expect, test } from '@jest/globals';
import { compiled, dummy, unit } from '../testing/builders';
import { examine, simulatedWarnings } from './simulated-warnings';

const rules = (sketch: Parameters<typeof compiled>[0]) =>
  simulatedWarnings(examine('fight', compiled(sketch), 1, 2)).map(({ rule }) => rule);

/** Two stand together and burst about themselves, beside one of the party. */
const bursting = (amount: number, friendlyFire: boolean) => ({
  party: [dummy('warden', 100)],
  enemies: [
    {
      unit: unit({
        id: 'cask',
        health: { max: 50 },
        attacks: [
          {
            id: 'burst',
            delivery: 'area',
            range: { min: 0, max: 5 },
            area: { about: 'self', radius: 4 },
            hits: { friendlyFire },
            beat: { cooldown: 1 },
            effects: { damage: { amount } },
          },
        ],
      }),
      count: 3,
      x: 2,
      scatter: 0.5,
    },
  ],
  limit: 2,
});

test('who does most of its harm to its friends is warned of, however little it is', () => {
  expect(rules(bursting(5, true))).toContain('friendsHurt');
  expect(rules(bursting(0.01, true))).toContain('friendsHurt');
  expect(rules(bursting(5, false))).not.toContain('friendsHurt');
  expect(rules(bursting(0, true))).not.toContain('friendsHurt');
});
