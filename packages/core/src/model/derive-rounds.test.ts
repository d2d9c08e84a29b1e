import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compile } from '../engine/compile';
import { Runner } from '../engine/run';
import { EVENT, type EventLog } from '../record/log';
import { arbitraryWildFight } from '../testing/arbitrary-wild';
import { demoProject } from '../testing/demo';
import { fieldsIn } from '../testing/fields-in';
import { unitInRounds } from './in-rounds';
import { encounterWithRounds, withRounds } from './derive-rounds';
import { type FightSketch, dummy, project, sketched, unit } from '../testing/builders';
import { Encounter } from './encounter';
import { Project } from './project';
import { projectWithRounds } from './turning-rounds';
import { broken, filled } from './validate';
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
  expect(attack).toMatchObject({ rounds: { cooldown: 1, windup: 0, hits: 12, perTarget: 'every' } });
  const ticking = { ...quick, effects: { overTime: { amount: 2, every: 0.5, for: 9 } } };
  const [other] = withRounds(made({ id: 'one', attacks: [ticking] }), { round: 6, cell: 1 }).attacks;
  expect(other.effects.overTime).toMatchObject({ amount: 2, rounds: { amount: 24, every: 1, for: 2 } });
});

describe('the harm of a round is that of its seconds', () => {
  /** Dealt by one to another beside it who only stands there, in ten rounds of 6 s and in 60 s. */
  const dealt = (attack: object) => {
    const striker = { id: 'theirs', attacks: [{ id: 'a', range: { min: 0, max: 2 }, needsLine: false, ...attack }] };
    const sketch: FightSketch = { party: [dummy('ours', 1e6)], enemies: [{ unit: unit(striker), x: 1 }], limit: 60, width: 20, depth: 20 };
    const sum = ({ log }: { log: EventLog }) =>
      Array.from({ length: log.length }, (_, i) => ([EVENT.hit, EVENT.tick].includes(log.kind[i] as never) ? log.a[i] : 0)).reduce(
        (a, b) => a + b,
        0,
      );
    const seconds = project(sketch);
    const turned = projectWithRounds(seconds, 'fight', { round: 6, cell: 1 });
    const fought = (document: Project) => sum(new Runner(compile(document, { encounter: 'fight' })).run(1));
    return [fought(seconds), fought(turned)];
  };
  test.each([
    ['struck once a use', { beat: { cooldown: 0.5 }, effects: { damage: { amount: 5 } } }],
    ['at every hit', { beat: { active: 0.3, every: 0.1, cooldown: 1 }, hits: { perTarget: 'every' }, effects: { damage: { amount: 5 } } }],
    ['several hits, once a use', { beat: { active: 0.3, every: 0.1, cooldown: 1 }, effects: { damage: { amount: 5 } } }],
    [
      'a volley',
      { delivery: 'projectile', projectile: { count: 3, speed: 200 }, beat: { cooldown: 2 }, effects: { damage: { amount: 5 } } },
    ],
    ['one use a round', { beat: { cooldown: 6 }, effects: { damage: { amount: 5 } } }],
    ['ticks', { beat: { cooldown: 60 }, effects: { overTime: { amount: 2, every: 0.5, for: 30 } } }],
  ])('%s', (_, attack) => {
    const [seconds, turned] = dealt(attack);
    expect(seconds).toBeGreaterThan(50);
    // The last use or tick may fall to either side of the end.
    expect(Math.abs(turned / seconds - 1)).toBeLessThanOrEqual(0.1);
  });
});

/** A document without anything that is said in turns. */
function inSeconds(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inSeconds);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, one]) =>
      key === 'rounds' || key === 'clock' || one === undefined ? [] : [[key, inSeconds(one)]],
    ),
  );
}

test('what is said in seconds and metres stays as it is, of the demo and of generated fights', () => {
  const demo = demoProject();
  for (const { id } of demo.encounters) expect(inSeconds(projectWithRounds(demo, id, { round: 3, cell: 1.5 }))).toEqual(inSeconds(demo));
  fc.assert(
    fc.property(arbitraryWildFight, fc.constantFrom(0.5, 2, 6), fc.constantFrom(0.5, 1, 3), (sketch, round, cell) => {
      const given = filled(Project, sketched(sketch) as never) as unknown as Project;
      for (const one of given.units) expect(inSeconds(withRounds(one, { round, cell }))).toEqual(inSeconds(one));
      for (const one of given.encounters) expect(inSeconds(encounterWithRounds(one, { round, cell }))).toEqual(inSeconds(one));
    }),
    { numRuns: 40 },
  );
});

test.each([
  ['units', Unit, withRounds, (demo: Project) => demo.units],
  ['encounters', Encounter, encounterWithRounds, (demo: Project) => demo.encounters],
] as [string, typeof Unit, typeof withRounds, (demo: Project) => Unit[]][])(
  '%s: whatever number is the least or the most that it may be, what is derived is what the document may say',
  (_, type, derive, all) => {
    const known = new Set<string>();
    for (const one of all(demoProject())) {
      const given = JSON.parse(JSON.stringify(one)) as Record<string, unknown>;
      for (const { kind, at } of fieldsIn(type, given, known)) {
        if (kind?.kind !== 'number') continue;
        for (const value of [kind.info.min, kind.info.max]) {
          const made = structuredClone(given);
          at.slice(0, -1).reduce<any>((inside, step) => inside[step], made)[at.at(-1)!] = value;
          for (const scale of [
            { round: 0.5, cell: 0.5 },
            { round: 60, cell: 10 },
          ]) {
            const derived = JSON.parse(JSON.stringify(derive(filled(type, made as never) as unknown as Unit, scale)));
            const wrong = broken(type, derived, []).filter(({ path }) => path.includes('rounds'));
            expect([at.join('/'), value, scale, wrong.map(({ message }) => message)]).toEqual([at.join('/'), value, scale, []]);
          }
        }
      }
    }
  },
);

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
