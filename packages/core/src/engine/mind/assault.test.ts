/** Things that stand at points: whose they are, who is sent to strike them, what their end brings about. By hand. */
import { describe, expect, test } from '@jest/globals';
import { InvalidDocument } from '../../model/problem';
import { compiled, dummy, eventsOf, type FightSketch, fought, project, unit } from '../../testing/builders';
import { run } from '../run';

type Loose = Record<string, unknown>;
const STEPS = [0.1, 0.05, 0.01];
const point = (id: string, x: number, health?: number) => ({ id, name: id, x, y: 0, radius: 0.5, ...(health && { health }) });

/** Bites for 10 each 0.8 s from beside the thing, which it is sent to; then it hunts. */
const raider = (more: Loose = {}, state: Loose = {}) =>
  unit({
    id: 'clipper',
    health: { max: 1e6 },
    movement: { walk: 0, run: 0 },
    attacks: [{ id: 'bite', range: { min: 0, max: 2 }, beat: { windup: 0, cooldown: 0.8 }, effects: { damage: { amount: 10 } } }],
    states: [
      {
        id: 'raid',
        name: 'Raid',
        does: 'goTo',
        to: 'vault',
        strikes: 'it',
        onTheWay: 'ignore',
        leaves: [{ to: 'hunt', when: { subject: 'pointDestroyed', of: 'vault', is: 'yes' } }],
        ...state,
      },
      { id: 'hunt', name: 'Hunt', does: 'approach' },
    ],
    ...more,
  });
const sketch = (more: Partial<FightSketch> = {}): FightSketch => ({
  party: [dummy('warden', 1e6)],
  partyAt: { x: -20, y: 0 },
  enemies: [{ unit: raider(), x: 11.5 }],
  arena: { points: [point('vault', 10, 100), point('gate', 0)] },
  limit: 20,
  ...more,
});
const struck = (log: Parameters<typeof eventsOf>[0], thing: number) => eventsOf(log, 'hit').filter(({ other }) => other === thing);

test.each(STEPS)('a thing of 100 struck for 10 each 0.8 s is destroyed at 7.2 s, and the hunt begins at the next step: %s s', (step) => {
  const { log } = fought(sketch(), 1, step);
  expect(struck(log, 1).map(({ time }) => time)).toEqual([0, 0.8, 1.6, 2.4, 3.2, 4, 4.8, 5.6, 6.4, 7.2]);
  expect(eventsOf(log, 'death')).toMatchObject([{ actor: 1, time: 7.2 }]);
  const [hunt] = eventsOf(log, 'state');
  // 7.2 s is a step at each of these: what falls at it is seen by it.
  expect(hunt.time).toBe(7.2);
});

describe('who is sent to strike a thing', () => {
  /** A warden beside it who pokes each second; whom the raider strikes. */
  const whom = (strikes: string, pokes = true) => {
    const warden = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e6 },
      movement: { walk: 0, run: 0 },
      attacks: pokes
        ? [
            {
              id: 'poke',
              range: { min: 0, max: 5 },
              beat: { windup: 0, cooldown: 1, initialDelay: { min: 4, max: 4 } },
              effects: { damage: { amount: 1 } },
            },
          ]
        : [],
    });
    const { log } = fought(
      sketch({ party: [warden], partyAt: { x: 13, y: 0 }, enemies: [{ unit: raider({}, { strikes }), x: 11.5 }], limit: 6 }),
    );
    const at = (from: number, to: number) =>
      new Set(
        eventsOf(log, 'start')
          .filter(({ actor, time }) => actor === 2 && time >= from && time < to)
          .map(({ other }) => other),
      );
    return [at(0, 4), at(4.5, 6)];
  };

  test('strikes it alone, whoever stands by', () => expect(whom('it')).toEqual([new Set([1]), new Set([1])]));
  test('or foes that are in reach first', () => expect(whom('both')).toEqual([new Set([0]), new Set([0])]));
  test('or whoever hurts it, once it does', () => expect(whom('hinders')).toEqual([new Set([1]), new Set([0])]));
  test('and nobody but it where nobody hurts it', () => expect(whom('hinders', false)).toEqual([new Set([1]), new Set([1])]));
  test('or passes it by', () => expect(whom('no')).toEqual([new Set(), new Set()]));

  test('comes to it from afar and stops where its bite reaches', () => {
    const tables = compiled(sketch({ enemies: [{ unit: raider({ movement: { walk: 4, run: 4 } }), x: 30 }], limit: 8 }));
    let gap = 0;
    run(tables, 1, (fight) => (gap = fight.gap(1, 2)));
    expect(gap).toBeCloseTo(1.8, 6); // 0.9 × its reach
  });
});

describe('an encounter says what stands', () => {
  const points = [point('vault', 10, 100), point('lamp', 4, 50), point('gate', 0)];
  const standing = (ends: Loose) =>
    eventsOf(fought(sketch({ arena: { points }, encounter: { ends }, limit: 0.2 })).log, 'spawn').length - 2;

  test('every point with health, until it names those that do', () => {
    expect(standing({})).toBe(2);
    expect(standing({ defend: ['vault'] })).toBe(2);
    expect(standing({ defend: ['vault'], also: [] })).toBe(1);
    expect(standing({ defend: ['vault'], also: ['lamp'] })).toBe(2);
    expect(standing({ also: [] })).toBe(0);
  });

  test.each(STEPS)('the fight is won with the last of the enemies’ things, whoever else lives: a step of %s s', (step) => {
    const breaker = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e6 },
      movement: { walk: 0, run: 0 },
      targeting: { criteria: [{ by: 'role', of: 'point', weight: 1 }] },
      attacks: [
        {
          id: 'bolt',
          delivery: 'hitscan',
          range: { min: 0, max: 99 },
          beat: { windup: 0, cooldown: 0.5 },
          effects: { damage: { amount: 25 } },
        },
      ],
    });
    const { log, outcome, length } = fought(
      sketch({
        party: [breaker],
        arena: { points },
        enemies: [{ unit: raider({ temper: { manner: 'passive' } }), x: 40 }],
        encounter: { ends: { cleared: true, destroy: ['vault', 'lamp'], also: [] } },
      }),
      1,
      step,
    );
    // 150 hp by 25 each half second, one after the other: two for the lamp, four for the vault, the sixth bolt at 2.5 s.
    expect(struck(log, 1).length + struck(log, 2).length).toBe(6);
    expect([outcome, length]).toEqual(['cleared', 2_500_000]);
  });

  test('they are no enemies to be cleared, and take no room under the cap', () => {
    const seedling = unit({ id: 'clipper', health: { max: 10 }, attacks: [] });
    const reaper = unit({
      id: 'warden',
      side: 'party',
      health: { max: 1e6 },
      attacks: [
        { id: 'strike', delivery: 'hitscan', range: { min: 0, max: 99 }, beat: { cooldown: 0.5 }, effects: { damage: { amount: 10 } } },
      ],
      targeting: { never: { units: [], roles: ['point'] } },
    });
    const { log, outcome } = fought(
      sketch({
        party: [reaper],
        enemies: [{ unit: seedling, count: 3, x: 5 }],
        encounter: { ends: { destroy: ['vault'] }, alive: { most: 1, full: 'wait' } },
      }),
    );
    expect(eventsOf(log, 'spawn')).toHaveLength(1 + 1 + 3);
    expect(outcome).toBe('cleared');
  });

  test('conditions ask for its share of health, and whether it is destroyed; of what does not stand nothing is so', () => {
    const events = (subject: Loose, name: string) => ({ id: name, name, when: subject, then: [{ does: 'raise', of: name }] });
    const { log } = fought(
      sketch({
        encounter: {
          events: [
            events({ subject: 'pointHealthShare', of: 'vault', is: 'below', value: 0.55 }, 'half'),
            events({ subject: 'pointDestroyed', of: 'vault', is: 'yes' }, 'gone'),
            events({ subject: 'pointHealthShare', of: 'vault', is: 'below', value: 0.05 }, 'nothing-left'),
            events({ subject: 'pointHealthShare', of: 'gate', is: 'below', value: 1 }, 'never'),
          ],
        },
      }),
    );
    const raised = Object.fromEntries(eventsOf(log, 'flag').map(({ time, what }) => [what, time]));
    // Half is gone with the fifth bite at 3.2 s, heard by the step of that instant; it is destroyed at 7.2 s.
    expect(Object.values(raised).sort((a, b) => a - b)).toEqual([3.2, 7.2, 7.2]);
  });

  test.each([
    ['a point without health', { destroy: ['gate'] }, 'must be a point of the arena that has health'],
    ['a point on both sides', { defend: ['vault'], destroy: ['vault'] }, 'must not stand on both sides'],
    ['a point that is not there', { destroy: ['nowhere'] }, 'must be a point of the arena'],
  ])('refused: %s', (_, ends, why) => {
    expect(() => project(sketch({ arena: { points }, encounter: { ends } }))).toThrow(InvalidDocument);
    expect(() => project(sketch({ arena: { points }, encounter: { ends } }))).toThrow(why);
  });
});
