import { expect, test } from '@jest/globals';
import { compiled, dummy, unit } from '../testing/builders';
import { turnTables } from '../testing/rounds';
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

/** A pen of four walls about a place, a metre thick. */
const pen = (x: number, inner: number) =>
  [
    [x - inner - 1, x - inner, -inner - 1, inner + 1],
    [x + inner, x + inner + 1, -inner - 1, inner + 1],
    [x - inner, x + inner, inner, inner + 1],
    [x - inner, x + inner, -inner - 1, -inner],
  ].map(([left, right, low, high], i) => ({
    id: `w${i}`,
    name: `w${i}`,
    height: 3,
    corners: [
      { x: left, y: low },
      { x: right, y: low },
      { x: right, y: high },
      { x: left, y: high },
    ],
  }));

test('who makes no way for ten seconds towards the first of the party is stuck, and who comes through is not', () => {
  const clipper = unit({
    id: 'clipper',
    movement: { run: 4, walk: 4 },
    senses: { sight: 40, lose: 60, needsLine: false },
    attacks: [{ id: 'bite', range: { min: 0, max: 1 }, beat: { cooldown: 1 }, effects: { damage: { amount: 1 } } }],
    states: [{ id: 'go', name: 'Go', does: 'approach' }],
  });
  const sketch = { party: [dummy('warden', 1e6)], enemies: [{ unit: clipper, x: 10 }], limit: 15, width: 40, depth: 30 };
  expect(rules({ ...sketch, arena: { walls: pen(10, 0.6) } })).toContain('stuck');
  expect(rules(sketch)).not.toContain('stuck');
});

test('a fight in which nobody was hurt is a problem before any other, and says why', () => {
  const stands = (more: object, beat: object = {}) =>
    unit({
      id: 'stander',
      senses: { sight: 10 },
      attacks: [{ id: 'bite', range: { min: 0, max: 1 }, beat: { cooldown: 1, ...beat }, effects: { damage: { amount: 2 } }, ...more }],
      states: [{ id: 'stand', name: 'Stand', does: 'hold' }],
    });
  const told = (enemy: ReturnType<typeof unit>, x: number, alerted = true) => {
    const [first, ...others] = simulatedWarnings(
      examine(
        'fight',
        compiled({ party: [dummy('warden', 1000)], enemies: [{ unit: enemy, x, group: { alerted } }], limit: 5, width: 60 }),
        1,
        3,
      ),
    );
    expect(others.map(({ rule }) => rule)).not.toContain('nobodyHurt');
    return first?.rule === 'nobodyHurt' ? first.message : undefined;
  };
  const said = (why: string) => `the party was not hurt in any of 3 runs: ${why}`;
  expect(told(stands({}), 25, false)).toBe(said('no enemy ever noticed anybody'));
  expect(told(stands({}), 6)).toBe(said('no attack was begun; most of the time goes to: out of range'));
  expect(told(stands({ effects: { damage: { amount: 0 } } }), 1)).toBe(said('18 attacks were begun, and none of them took anything'));
  expect(told(stands({}), 1)).toBeUndefined();
  // Once is not nobody: half of all hits count, in three runs some do.
  expect(told(stands({ aim: { near: 0.5, far: 0.5 } }), 1)).toBeUndefined();
});

test('helpers that are raised faster than they fall, and an enemy that nobody comes into reach of, are told in turns', () => {
  const strike = (amount: number, rounds = {}) => ({ id: 'strike', effects: { damage: { amount } }, rounds });
  const found = (price: number, reach: number) =>
    simulatedWarnings(
      examine(
        'fight',
        turnTables({
          party: [unit({ id: 'ours', side: 'party', health: { max: 5000 }, attacks: [strike(4)], rounds: { moves: 0 } })],
          partyAt: { x: 0, y: 0, facing: 0 },
          enemies: [
            {
              unit: unit({
                id: 'raiser',
                health: { max: 400 },
                energy: { max: 260, start: 260 },
                rounds: { moves: 0 },
                states: [{ id: 'hold', name: 'hold', does: 'hold' }],
                attacks: [
                  {
                    id: 'call',
                    delivery: 'summon',
                    energy: price,
                    summon: { unit: 'helper', count: 1, cap: 20 },
                    effects: {},
                    rounds: { around: 3 },
                  },
                  { ...strike(1, { to: reach }), name: 'strike' },
                ],
              }),
              x: 6,
              y: 0,
            },
          ],
          others: [
            unit({
              id: 'helper',
              health: { max: 20 },
              rounds: { moves: 1 },
              attacks: [strike(1)],
              states: [{ id: 'come', name: 'come', does: 'approach' }],
            }),
          ],
          width: 15,
          depth: 15,
          encounter: { rounds: { ground: 'squares', limit: 25 } },
        }),
        1,
        3,
      ),
    );
  const told = (price: number, reach: number, rule: string) =>
    found(price, reach).find((one) => one.rule === rule && !one.path.startsWith('/units/ours'))?.message;
  expect(told(10, 8, 'outpaced')).toMatch(/^helper are called or raised faster than they fall: \d+\.\d a fight, and \d\.\d fall$/);
  expect(told(200, 8, 'outpaced')).toBeUndefined();
  expect(told(300, 1, 'neverStruck')).toBe('no raiser ever struck at the party: in none of its turns was anybody in reach');
  expect(told(300, 8, 'neverStruck')).toBeUndefined();
});
