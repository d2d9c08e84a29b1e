/** Movements of attacks and answers: lunges, charges, leaps, steps. Instants and places are worked out by hand. */
import { describe, expect, test } from '@jest/globals';
import { DASH_END, VERDICT } from '../../record/log';
import { sentenceOf } from '../../trace/sentences';
import { trace } from '../../trace/trace';
import { compiled, dummy, eventsOf, type FightSketch, unit } from '../../testing/builders';
import { run } from '../run';

type Loose = Record<string, unknown>;
const STEPS = [0.1, 0.05, 0.01];

/** At (x, 0) facing the party at the origin; radii are 0.4, so that the gap is x − 0.8. */
const charger = (attack: Loose, more: Loose = {}) =>
  unit({
    id: 'mulcher',
    movement: { walk: 0, run: 0 },
    attacks: [
      {
        id: 'ram',
        range: { min: 0, max: 50 },
        beat: { windup: 1, recovery: 0.2, cooldown: 600 },
        effects: { damage: { amount: 10 } },
        ...attack,
      },
    ],
    ...more,
  });
const still = (id: string, more: Loose = {}) => dummy(id, 1000, { movement: { walk: 0, run: 0 }, ...more });

interface Told {
  hits: { time: number; other: number }[];
  dash: { time: number; metres: number } | undefined;
  dashed: { time: number; metres: number; why: number } | undefined;
  at: (time: number, who: number) => { x: number; y: number };
  log: Parameters<typeof eventsOf>[0];
}

function charged(sketch: Partial<FightSketch> & Pick<FightSketch, 'enemies'>, step = 0.05, seed = 1): Told {
  const seen: { time: number; x: number[]; y: number[] }[] = [];
  const { log } = run(compiled({ party: [still('warden')], limit: 3, ...sketch }, step), seed, (fight, time) =>
    seen.push({ time: time / 1e6, x: [...fight.x.slice(0, fight.count)], y: [...fight.y.slice(0, fight.count)] }),
  );
  const [dash] = eventsOf(log, 'dash');
  const [dashed] = eventsOf(log, 'dashed');
  return {
    hits: eventsOf(log, 'hit').map(({ time, other }) => ({ time, other })),
    dash: dash && { time: dash.time, metres: dash.a },
    dashed: dashed && { time: dashed.time, metres: dashed.a, why: dashed.b },
    at: (time, who) => {
      const one = seen.find((each) => Math.abs(each.time - time) < 1e-9)!;
      return { x: one.x[who], y: one.y[who] };
    },
    log,
  };
}

const box = (id: string, x: number, y: number, w: number, d: number, height = 3) => ({
  id,
  name: id,
  height,
  corners: [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + d },
    { x, y: y + d },
  ],
});
const ground = (walls: Loose[]): Partial<FightSketch> => ({ arena: { walls }, width: 60, depth: 40 });

describe.each(STEPS)('a charge, at a step of %s s', (step) => {
  const dash = { distance: 6, speed: 12, upToTarget: false, after: 0.1, hurts: 'way', stops: true };

  test('of 6 m at 12 m/s in the wind-up meets a standing body 4.2 m away after 0.35 s, and stops at it', () => {
    const { hits, dashed, at } = charged({ enemies: [{ unit: charger({ dash }), x: 5 }] }, step);
    expect(hits).toEqual([{ time: 0.45, other: 0 }]);
    expect(dashed).toMatchObject({ time: 0.45, why: DASH_END.body });
    expect(dashed!.metres).toBeCloseTo(4.2, 5);
    expect(at(0.5, 1).x).toBeCloseTo(0.8, 5);
  });

  test('meets one that flees where it catches it', () => {
    const fleeing = dummy('warden', 1000, { movement: { walk: 4, run: 4 }, states: [{ id: 's', name: 's', does: 'flee' }] });
    // The gap of 4.2 m has grown by 0.4 when it sets out, and closes by 8 m/s: at 0.1 + 4.6 ÷ 8 s.
    const { hits } = charged({ party: [fleeing], enemies: [{ unit: charger({ dash: { ...dash, distance: 20 } }), x: 5 }] }, step);
    expect(hits).toHaveLength(1);
    expect(hits[0].time).toBeCloseTo(0.675, 5);
  });

  test('that passes strikes each body on its way once, as many as one use may strike, and goes its whole way', () => {
    const row = (limit?: number) => ({
      party: [still('a'), still('b'), still('c')],
      partyAt: { x: 0, y: 0, facing: 90 },
      enemies: [{ unit: charger({ dash: { ...dash, distance: 10, stops: false }, hits: { ...(limit && { limit }) } }), x: 6 }],
    });
    // They stand in a row along x: side by side across the way that they face, 1.2 m from one another.
    const { hits, dashed, at } = charged(row(3), step);
    expect(hits.map(({ other }) => other).sort()).toEqual([0, 1, 2]);
    const places = hits.map(({ other }) => at(0, other).x);
    hits.forEach(({ time }, i) => expect(time).toBeCloseTo(0.1 + (6 - places[i] - 0.8) / 12, 5));
    expect([dashed!.time, dashed!.why]).toEqual([0.933334, DASH_END.done]); // 0.1 + 10 ÷ 12, rounded up to a µs
    expect(dashed!.metres).toBeCloseTo(10, 9);
    expect(charged(row(), step).hits).toHaveLength(1);
  });

  test('up to its target touches it and goes no farther', () => {
    const { hits, dashed } = charged({ enemies: [{ unit: charger({ dash: { ...dash, upToTarget: true, stops: false } }), x: 5 }] }, step);
    expect(hits).toEqual([{ time: 0.45, other: 0 }]);
    expect(dashed!.metres).toBeCloseTo(4.2, 9);
  });
});

describe('what a movement does', () => {
  const lunge = { distance: 3, speed: 10 };

  test('a lunge brings its hits nearer: they fall at their instants, from where it has got to', () => {
    const { hits, dash, dashed, at } = charged({ enemies: [{ unit: charger({ dash: lunge }), x: 5 }] });
    expect(dash).toEqual({ time: 0, metres: 3 });
    expect(dashed).toEqual({ time: 0.3, metres: 3, why: DASH_END.done });
    expect(at(0.5, 1).x).toBeCloseTo(2, 9);
    expect(hits).toEqual([{ time: 1, other: 0 }]);
  });

  test('begins in the active part as well', () => {
    const { dash } = charged({
      enemies: [
        { unit: charger({ dash: { ...lunge, during: 'active', after: 0.25 }, beat: { windup: 1, active: 0.5, cooldown: 9 } }), x: 5 },
      ],
    });
    expect(dash!.time).toBe(1.25);
  });

  test('a leap strikes where it ends, when it ends: a circle about itself', () => {
    const leap = {
      delivery: 'area',
      beat: { windup: 1.5, cooldown: 600 },
      area: { about: 'self', radius: 2 },
      dash: { distance: 20, speed: 8, hurts: 'end', after: 0.2 },
    };
    // 9.2 m at 8 m/s: it lands beside the first after 1.15 s, 1.2 m from the edge of the second and too far from the third.
    const { hits, at } = charged({
      party: [still('a'), still('b'), still('c')],
      partyAt: { x: 0, y: 0, facing: 0 },
      enemies: [{ unit: charger(leap, { targeting: { criteria: [{ by: 'unit', of: 'b', weight: 1 }] } }), x: 10 }],
    });
    expect(at(1.4, 3).x).toBeCloseTo(0.8, 6);
    expect(hits.every(({ time }) => time === 1.35)).toBe(true);
    expect(hits.map(({ other }) => other)).toContain(1);
  });

  test.each([
    ['away', { x: 8, y: 0 }],
    ['ahead', { x: 2, y: 0 }],
  ])('goes %s', (way, place) => {
    const { at } = charged({ enemies: [{ unit: charger({ dash: { ...lunge, way } }), x: 5 }] });
    expect(at(0.5, 1).x).toBeCloseTo(place.x, 9);
    expect(at(0.5, 1).y).toBeCloseTo(place.y, 9);
  });

  test('goes sideways, left and right alike; to the clear side where one is closed', () => {
    const side = (seed: number, more: Partial<FightSketch> = {}) => {
      const { at } = charged({ enemies: [{ unit: charger({ dash: { ...lunge, way: 'sideways' } }), x: 5 }], ...more }, 0.05, seed);
      expect(at(0.5, 1).x).toBeCloseTo(5, 9);
      return Math.round(at(0.5, 1).y);
    };
    const sides = Array.from({ length: 40 }, (_, i) => side(i + 1));
    expect(new Set(sides)).toEqual(new Set([3, -3]));
    expect(Math.abs(sides.filter((y) => y > 0).length - 20)).toBeLessThan(13);
    for (const seed of [1, 2, 3, 4, 5]) expect(side(seed, ground([box('w', 3, 1, 4, 1)]))).toBe(-3);
  });

  test('stops at a wall at the touch, and reels where it is told to', () => {
    const walls = ground([box('w', 1, -3, 1, 6)]);
    const ram = (more: Loose) =>
      charged({
        ...walls,
        partyAt: { x: -5, y: 0 },
        enemies: [{ unit: charger({ needsLine: false, dash: { distance: 9, speed: 6, hurts: 'way', ...more } }), x: 5 }],
      });
    // The wall's face is at x = 2: its edge has 2.6 m to go.
    const { dashed, hits, log } = ram({});
    expect(dashed!.why).toBe(DASH_END.wall);
    expect(dashed!.metres).toBeCloseTo(2.6, 6);
    expect(dashed!.time).toBeCloseTo(2.6 / 6, 5);
    expect([hits, eventsOf(log, 'stagger')]).toEqual([[], []]);
    const reeling = ram({ reels: 0.7 }).log;
    expect(eventsOf(reeling, 'stagger')).toMatchObject([{ actor: 1, other: 1, a: 700_000 }]);
    expect(eventsOf(reeling, 'interrupted')).toHaveLength(1);
  });

  test('leaps over walls up to a height, and does not end in one', () => {
    const over = (height: number, distance: number) =>
      charged({
        ...ground([box('low', 1, -3, 1, 6, 0.9)]),
        partyAt: { x: -9, y: 0 },
        enemies: [{ unit: charger({ needsLine: false, dash: { distance, speed: 10, over: height, upToTarget: false } }), x: 5 }],
      }).dashed!;
    expect(over(0, 8).metres).toBeCloseTo(2.6, 6);
    expect(over(0.8, 8).metres).toBeCloseTo(2.6, 6);
    expect(over(1, 8)).toMatchObject({ why: DASH_END.done, metres: 8 });
    // 4 m would end in the middle of it: back to where there is room before it.
    expect(over(1, 4).metres).toBeLessThan(2.61);
    expect(over(1, 4).metres).toBeGreaterThan(2.5);
  });

  test.each([
    ['a stagger', { stagger: { for: 1 } }],
    ['a knockback', { knockback: { distance: 2 } }],
    ['death', { damage: { amount: 1e6 } }],
  ])('is cut short by %s', (_, effects) => {
    const guard = still('warden', {
      attacks: [
        { id: 'poke', name: 'poke', delivery: 'hitscan', range: { min: 0, max: 99 }, beat: { windup: 0.5, cooldown: 99 }, effects },
      ],
      choice: { priorities: [{ entries: [{ attack: 'poke' }] }] },
    });
    const { dashed, hits, log } = charged({
      party: [guard],
      enemies: [{ unit: charger({ dash: { distance: 30, speed: 10, hurts: 'end' } }), x: 30 }],
    });
    expect(dashed).toMatchObject({ time: 0.5, why: DASH_END.cut });
    expect(dashed!.metres).toBeCloseTo(5, 9);
    expect(hits.filter(({ other }) => other === 0)).toEqual([]);
    expect(eventsOf(log, 'dash')).toHaveLength(1);
  });

  test('is slower for who is slowed when it sets out; who reels does not', () => {
    const slow = (effects: Loose) => {
      const guard = still('warden', {
        attacks: [
          { id: 'poke', name: 'poke', delivery: 'hitscan', range: { min: 0, max: 99 }, beat: { windup: 0.2, cooldown: 99 }, effects },
        ],
        choice: { priorities: [{ entries: [{ attack: 'poke' }] }] },
      });
      const steady = { interruptible: { stagger: false } };
      return charged({ party: [guard], enemies: [{ unit: charger({ ...steady, dash: { distance: 3, speed: 10, after: 0.5 } }), x: 9 }] });
    };
    expect(slow({ slow: { share: 0.5, for: 9 } }).dashed!.time).toBeCloseTo(1.1, 9);
    expect(slow({ stagger: { for: 0.5 } }).dash).toBeUndefined();
  });

  test('ends with its attack at the latest', () => {
    const beat = { windup: 0.2, recovery: 0.1, cooldown: 600 };
    const { dashed, hits } = charged({ enemies: [{ unit: charger({ beat, dash: { distance: 9, speed: 10, hurts: 'end' } }), x: 12 }] });
    expect(dashed).toMatchObject({ time: 0.3, why: DASH_END.cut });
    expect(dashed!.metres).toBeCloseTo(3, 9);
    expect(hits).toEqual([]);
  });

  test('is told in a trace, in words', () => {
    const sketch: FightSketch = { party: [still('warden')], enemies: [{ unit: charger({ dash: lunge }), x: 5 }], limit: 3 };
    const told = trace(compiled(sketch), 1, { reasons: false })
      .events.filter(({ event }) => event === 'dash' || event === 'dashed')
      .map(sentenceOf);
    expect(told).toEqual(['0.00 s: mulcher sets out with ram: 3 m at 10 m/s.', '0.30 s: mulcher has gone 3 m with ram.']);
  });
});

describe('a sidestep of 2 m in 0.15 s', () => {
  const stepper = (more: Loose = {}) =>
    unit({
      id: 'warden',
      side: 'party',
      health: { max: 1000 },
      movement: { walk: 0, run: 0 },
      attacks: [],
      player: {
        attention: { mean: 0.1, spread: 0 },
        answers: [{ id: 'side', kind: 'dodge', window: 0.15, distance: 2, protects: false, ...more }],
      },
    });
  const line = { delivery: 'hitscan', beat: { windup: 0.6, cooldown: 600, tracking: 'fixed' } };
  const circle = (radius: number) => ({
    delivery: 'area',
    area: { about: 'mark', radius },
    beat: { windup: 0.6, cooldown: 600, tracking: 'fixed' },
  });
  const met = (attack: Loose, more: Loose = {}, step = 0.05) =>
    charged({ party: [stepper(more)], enemies: [{ unit: charger(attack), x: 8 }], limit: 2 }, step);
  const verdicts = ({ log }: Told) => eventsOf(log, 'answer').map(({ b }) => b);

  test.each(STEPS)('escapes a line: it has gone its 2 m across by then, at a step of %s s', (step) => {
    const told = met(line, {}, step);
    expect(told.hits).toEqual([]);
    expect(verdicts(told)).toEqual([VERDICT.tried]);
    expect(Math.abs(told.at(0.3, 0).y)).toBeCloseTo(2, 9);
    expect(told.at(0.3, 0).x).toBeCloseTo(0, 9);
  });

  test('and not an area of 3 m; one of 1.5 m it does', () => {
    const large = met(circle(3));
    expect(large.hits).toHaveLength(1);
    expect(verdicts(large)).toEqual([VERDICT.none]);
    const small = met(circle(1.5));
    expect(small.hits).toEqual([]);
    expect(verdicts(small)).toEqual([VERDICT.tried]);
  });

  test('steps back out of reach, or has no time for it', () => {
    const swing = { delivery: 'melee', range: { min: 0, max: 8 }, beat: { windup: 0.6, cooldown: 600 } };
    const back = met(swing, { way: 'away' });
    expect(back.hits).toEqual([]);
    expect(back.at(0.3, 0).x).toBeCloseTo(-2, 9);
    const late = met({ ...swing, beat: { windup: 0.2, cooldown: 600 } }, { way: 'away' });
    expect(late.hits).toHaveLength(1);
    expect(verdicts(late)).toEqual([VERDICT.tooLate]);
  });

  test('out of the way of a charge, to the side', () => {
    const charge = { dash: { distance: 12, speed: 10, after: 0.5, hurts: 'way', upToTarget: false } };
    const told = met(charge, {});
    expect(told.hits).toEqual([]);
    expect(verdicts(told)).toEqual([VERDICT.tried]);
  });
});
