/** Ways out of a state: asked in order, drawn by weight, taken otherwise; at every step or at intervals. */
import { describe, expect, test } from '@jest/globals';
import { dummy, eventsOf, fought, unit } from '../../testing/builders';

interface Way {
  to: string;
  when?: object;
  after?: number;
  weight?: number;
}

const state = (id: string, leaves: Way[], decides?: { min: number; max: number }) => ({
  id,
  name: id,
  does: 'hold',
  leaves,
  ...(decides && { decides }),
});

const above = (value: number) => ({ subject: 'clock', is: 'above', value });
const always = { subject: 'chance', value: 1 };
const never = { subject: 'chance', value: 0 };

/** Every state that a lone unit enters after its first, with when, in s. */
function entered(states: object[], { limit = 20, seed = 1, step = 0.05 } = {}): { time: number; to: string }[] {
  const enemy = unit({ id: 'mite', states, startsIn: 'a', movement: { walk: 0, run: 0 } });
  const { log } = fought({ party: [dummy('warden', 1e6)], enemies: [{ unit: enemy, x: 15, y: 0 }], limit }, seed, step);
  return eventsOf(log, 'state')
    .filter(({ actor }) => actor === 1)
    .map(({ time, what }) => ({ time, to: (states[what] as { id: string }).id }));
}

/** Σ (seen − expected)² ÷ expected. */
const chiSquare = (seen: number[], shares: number[]) => {
  const all = seen.reduce((sum, n) => sum + n, 0);
  return seen.reduce((sum, n, i) => sum + (n - all * shares[i]) ** 2 / (all * shares[i]), 0);
};

describe('a state that decides each half second', () => {
  const ways: Way[] = [
    { to: 'a', weight: 5 },
    { to: 'b', weight: 3 },
    { to: 'c', weight: 2 },
  ];
  const half = { min: 0.5, max: 0.5 };
  const three = ['a', 'b', 'c'].map((id) => state(id, ways, half));

  test('does so at 0.5, 1, 1.5 …, at any step, and may stay by its own weight', () => {
    for (const step of [0.1, 0.05, 0.01]) {
      const times = entered(three, { step }).map(({ time }) => time);
      expect(times).toHaveLength(39); // at 20 s it is over
      times.forEach((time, i) => expect(time).toBeCloseTo(0.5 * (i + 1), 9));
    }
  });

  test('draws 5 : 3 : 2 over ten thousand seconds', () => {
    const found = [1, 2, 3].flatMap((seed) => entered(three, { limit: 3400, seed }));
    expect(found.length).toBeGreaterThan(20_000);
    const counts = ['a', 'b', 'c'].map((id) => found.filter(({ to }) => to === id).length);
    // Two degrees of freedom: 13.8 is exceeded once in a thousand.
    expect(chiSquare(counts, [0.5, 0.3, 0.2])).toBeLessThan(13.8);
    // What came last says nothing of what comes next.
    const after = (last: string) => found.filter((_, i) => i > 0 && found[i - 1].to === last);
    for (const last of ['a', 'b', 'c']) {
      const next = ['a', 'b', 'c'].map((id) => after(last).filter(({ to }) => to === id).length);
      expect(chiSquare(next, [0.5, 0.3, 0.2])).toBeLessThan(13.8);
    }
  });

  test('takes no way without weight into the draw, nor one whose condition does not hold, nor one whose time has not come', () => {
    const only: Way[] = [
      { to: 'b', weight: 0 },
      { to: 'c', weight: 9, when: never },
      { to: 'd', weight: 9, after: 3 },
      { to: 'e', weight: 1, when: above(1) },
    ];
    const states = [state('a', only, half), ...['b', 'c', 'd', 'e'].map((id) => state(id, []))];
    for (let seed = 1; seed <= 20; seed++) expect(entered(states, { seed })).toEqual([{ time: 1.5, to: 'e' }]);
  });
});

test('an interval is drawn anew each time, between its two ends', () => {
  const times = entered([state('a', [{ to: 'a', weight: 1 }], { min: 0.4, max: 1.2 })], { limit: 2000, step: 0.01 }).map(
    ({ time }) => time,
  );
  const gaps = times.map((time, i) => time - (i ? times[i - 1] : 0));
  expect(Math.min(...gaps)).toBeGreaterThanOrEqual(0.4 - 1e-9);
  expect(Math.max(...gaps)).toBeLessThanOrEqual(1.2 + 0.01 + 1e-9);
  // Even between them, up to the step that each waits for: mean 0.8 + 0.005; its error is 0.23 ÷ √2500.
  expect(gaps.reduce((sum, gap) => sum + gap, 0) / gaps.length).toBeCloseTo(0.805, 1);
  expect(gaps.filter((gap) => gap < 0.6).length / gaps.length).toBeCloseTo(0.25, 1);
});

test('when nothing holds it decides again an interval later, not at the next step', () => {
  const states = [state('a', [{ to: 'b', when: above(1.02) }], { min: 0.5, max: 0.5 }), state('b', [])];
  expect(entered(states)).toEqual([{ time: 1.5, to: 'b' }]);
  // Without an interval at the first step at which it holds.
  expect(entered([{ ...states[0], decides: undefined }, states[1]])).toEqual([{ time: expect.closeTo(1.05, 9), to: 'b' }]);
});

describe('of several ways', () => {
  test('those asked in order come before any draw, and the first of them before the second', () => {
    const ways: Way[] = [
      { to: 'd', weight: 100 },
      { to: 'b', when: above(1.02) },
      { to: 'c', when: above(1.02) },
    ];
    const states = [state('a', ways, { min: 1.5, max: 1.5 }), ...['b', 'c', 'd'].map((id) => state(id, []))];
    for (let seed = 1; seed <= 10; seed++) expect(entered(states, { seed })).toEqual([{ time: 1.5, to: 'b' }]);
  });

  test('otherwise is taken when nothing else is, wherever it stands, once its time has come', () => {
    const rests = [
      state('a', [
        { to: 'b', after: 2 },
        { to: 'c', when: above(1.02) },
      ]),
      state('b', []),
      state('c', []),
    ];
    expect(entered(rests)).toEqual([{ time: expect.closeTo(1.05, 9), to: 'c' }]);
    const bored = [
      state('a', [
        { to: 'b', after: 2 },
        { to: 'c', when: never },
      ]),
      state('b', []),
      state('c', []),
    ];
    for (const step of [0.1, 0.05, 0.01]) expect(entered(bored, { step })).toEqual([{ time: 2, to: 'b' }]);
    const drawn = [state('a', [{ to: 'b' }, { to: 'c', weight: 1, when: always }]), state('b', []), state('c', [])];
    expect(entered(drawn)).toEqual([{ time: 0, to: 'c' }]);
  });
});

describe('a chance', () => {
  const chance = { subject: 'chance', value: 0.3 };

  test('is drawn once on entering a state that decides at every step', () => {
    const states = [state('a', [{ to: 'b', when: chance }]), state('b', [])];
    const left = Array.from({ length: 400 }, (_, seed) => entered(states, { seed, limit: 2 })).filter(({ length }) => length > 0);
    // 120 of 400 are expected, give or take 9; all of them at the first step.
    expect(left.length).toBeGreaterThan(85);
    expect(left.length).toBeLessThan(155);
    for (const [{ time }] of left) expect(time).toBe(0);
  });

  test('is drawn at each decision of one that decides at intervals: after so many of them that three in ten end it', () => {
    const states = [state('a', [{ to: 'b', when: chance }], { min: 0.5, max: 0.5 }), state('b', [{ to: 'a', after: 0.5 }])];
    const found = entered(states, { limit: 3400 });
    const waits: number[] = [];
    for (let i = 1; i < found.length; i++) if (found[i].to === 'b') waits.push(Math.round((found[i].time - found[i - 1].time) / 0.5));
    expect(waits.length).toBeGreaterThan(1000);
    // Geometric: 1, 2, 3, 4 or more decisions with 0.3, 0.21, 0.147, 0.343; three degrees of freedom, 16.3 once in a thousand.
    const counts = [1, 2, 3].map((n) => waits.filter((wait) => wait === n).length);
    expect(chiSquare([...counts, waits.filter((wait) => wait > 3).length], [0.3, 0.21, 0.147, 0.343])).toBeLessThan(16.3);
  });
});

test('left, right or stand each two seconds are plain states: it stands a third of the time, and goes either way as often', () => {
  const ways: Way[] = ['left', 'right', 'stand'].map((to) => ({ to, weight: 1 }));
  const two = { min: 2, max: 2 };
  const states = ['left', 'right', 'stand'].map((id) => ({
    ...state(id, ways, two),
    does: id === 'stand' ? 'hold' : 'strafe',
    near: 5,
    far: 9,
  }));
  const enemy = unit({ id: 'mite', states, startsIn: 'stand', movement: { walk: 2, run: 2 } });
  const { log } = fought({ party: [dummy('warden', 1e6)], enemies: [{ unit: enemy, x: 7, y: 0 }], limit: 3000 });
  const seen = eventsOf(log, 'state').filter(({ actor }) => actor === 1);
  expect(seen).toHaveLength(1499);
  expect(
    chiSquare(
      [0, 1, 2].map((n) => seen.filter(({ what }) => what === n).length),
      [1 / 3, 1 / 3, 1 / 3],
    ),
  ).toBeLessThan(13.8);
});
