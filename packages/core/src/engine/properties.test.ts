import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { arbitraryFight } from '../testing/arbitraries';
import { casesOf } from '../testing/cases';
import { type FightSketch, compiledTrusted as compiled, eventsOf } from '../testing/builders';
import { run } from './run';

/** More, and others, on demand: INSIDIA_CASES=20000 INSIDIA_SEED=7 npx jest properties */
const cases = { numRuns: casesOf(1000) };
const few = { numRuns: Math.ceil(cases.numRuns / 4) };
const fightAndSeed = [arbitraryFight, fc.integer({ min: 0, max: 1e6 })] as const;

type Loose = Record<string, unknown>;
/** Every number at these names, anywhere in a sketch, times a factor. */
function scaled(value: unknown, names: Set<string>, factor: number, inside = false): unknown {
  if (Array.isArray(value)) return value.map((item) => scaled(item, names, factor, inside));
  if (typeof value === 'number') return inside ? value * factor : value;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value as Loose).map(([key, v]) => [key, scaled(v, names, factor, names.has(key) || (inside && key !== 'id'))]),
  );
}

const times = (sketch: FightSketch, seed: number) => {
  const { log, length, outcome } = run(compiled(sketch), seed);
  return {
    outcome,
    length,
    events: Array.from({ length: log.length }, (_, i) => [log.time[i], log.kind[i], log.actor[i], log.other[i], log.what[i]].join()),
  };
};

describe('for every plain fight', () => {
  test('9: direct damage under a window w is at most the largest hit × (1 + ⌊T / w⌋)', () => {
    fc.assert(
      fc.property(...fightAndSeed, (sketch, seed) => {
        const window = 0.3;
        const party = sketch.party.map((member) => ({ ...member, invulnerability: { duration: window, scope: 'any' } }));
        const { log } = run(compiled({ ...sketch, party }), seed);
        for (let member = 0; member < party.length; member++) {
          const hits = eventsOf(log, 'hit').filter(({ other }) => other === member);
          if (!hits.length) continue;
          const largest = Math.max(...hits.map(({ c }) => c));
          const span = Math.round((hits[hits.length - 1].time - hits[0].time) * 1e6);
          const total = hits.reduce((sum, { c }) => sum + c, 0);
          expect(total).toBeLessThanOrEqual(largest * (1 + Math.floor(span / 300_000)) * (1 + 1e-9));
        }
      }),
      few,
    );
  });

  test('18: all hit points × 4: the same fight at the same times', () => {
    const hitPoints = new Set(['max', 'regen', 'flat', 'minimumDamage', 'amount', 'spread']);
    fc.assert(
      fc.property(...fightAndSeed, (sketch, seed) => {
        const more = (unit: Loose): Loose => ({
          ...unit,
          health: scaled(unit.health, hitPoints, 4),
          armour: scaled(unit.armour, hitPoints, 4),
          ...(unit.shield ? { shield: scaled(unit.shield, hitPoints, 4) } : {}),
          attacks: (unit.attacks as Loose[]).map((attack) => ({ ...attack, effects: scaled(attack.effects, hitPoints, 4) })),
        });
        const big = {
          ...sketch,
          party: sketch.party.map(more),
          enemies: sketch.enemies.map((enemy) => ({ ...enemy, unit: more(enemy.unit) })),
        };
        expect(times(big, seed)).toEqual(times(sketch, seed));
      }),
      few,
    );
  });

  test('18: everything with metres in it × 2, arena included: the same fight at the same times', () => {
    const metres = new Set(['radius', 'run', 'walk', 'acceleration', 'sight', 'lose', 'speed', 'near', 'far', 'range', 'body']);
    fc.assert(
      fc.property(...fightAndSeed, (sketch, seed) => {
        const longer = (unit: Loose): Loose => {
          const grown = scaled(
            { ...unit, attacks: (unit.attacks as Loose[]).map(({ aim: _, ...attack }) => attack), states: undefined },
            metres,
            2,
          ) as Loose;
          const aims = (unit.attacks as Loose[]).map(({ aim }) => aim);
          const states = (unit.states as { leaves?: { when: { subject: string; value: number } }[] }[]).map((state) => ({
            ...(scaled({ ...state, leaves: undefined }, metres, 2) as Loose),
            leaves:
              state.leaves?.map((leave) => ({
                ...leave,
                when: { ...leave.when, value: leave.when.value * (leave.when.subject === 'distance' ? 2 : 1) },
              })) ?? [],
          }));
          return { ...grown, states, attacks: (grown.attacks as Loose[]).map((attack, i) => ({ ...attack, aim: aims[i] })) };
        };
        const big: FightSketch = {
          ...sketch,
          width: 60,
          depth: 60,
          party: sketch.party.map((member) => bodied(longer(member))),
          enemies: sketch.enemies.map((enemy) => ({
            ...enemy,
            unit: bodied(longer(enemy.unit)),
            x: 2 * (enemy.x as number),
            y: 2 * (enemy.y as number),
            scatter: 2 * (enemy.scatter as number),
          })),
        };
        const small = {
          ...sketch,
          party: sketch.party.map(near),
          enemies: sketch.enemies.map((enemy) => ({ ...enemy, unit: near(enemy.unit) })),
        };
        // Two members stand half a metre apart, whatever the scale: the property speaks of one.
        const one = (s: FightSketch) => ({ ...s, party: s.party.slice(0, 1) });
        expect(times(one(big), seed)).toEqual(times(one(small), seed));
      }),
      few,
    );
  });
});

const bodied = (unit: Loose): Loose => ({
  ...unit,
  body: { radius: (unit.body as { radius: number }).radius, height: 4, eyeHeight: 3, muzzleHeight: 2 },
});
const near = (unit: Loose): Loose => ({
  ...unit,
  body: { radius: (unit.body as { radius: number }).radius, height: 2, eyeHeight: 1.5, muzzleHeight: 1 },
});
