import { describe, expect, test } from '@jest/globals';
import { type FightSketch, dummy, eventsOf, fought, unit } from '../../testing/builders';
import type { Loose } from '../../testing/duels';

const mite = { ...dummy('mite', 1e6), side: 'enemy' };
const boss = { ...dummy('boss', 30), side: 'enemy' };
/** Fells the boss and touches nobody else: a hit of 10 each second from when it sees it. */
const hunter = unit({
  id: 'hunter',
  side: 'party',
  health: { max: 1e6 },
  targeting: { only: { units: ['boss'] } },
  attacks: [
    {
      id: 'dart',
      delivery: 'hitscan',
      range: { min: 0, max: 50 },
      beat: { windup: 0.1, cooldown: 1 },
      effects: { damage: { amount: 10 } },
    },
  ],
});
const group = (enemy: string, count: number, spacing = 0) => ({
  id: `${enemy}s`,
  enemy,
  count: { min: count, max: count },
  at: ['p0'],
  spacing,
  alerted: true,
});
/** The boss comes at 1.5 s and holds back whatever does not hold itself. */
const sketch = (...waves: Loose[]): FightSketch => ({
  party: [hunter],
  enemies: [{ unit: boss, x: 6, scatter: 3 }],
  others: [mite],
  wave: { start: 'clock', at: 1.5, holdsBack: true },
  waves: waves.map((wave, i) => ({ id: `w${i + 2}`, name: `Wave ${i + 2}`, ...wave })),
  limit: 20,
});
/** When mites came, and when the boss died. */
const told = (one: FightSketch) => {
  const { log } = fought(one);
  const kinds = eventsOf(log, 'spawn').map(({ time, actor, c }) => ({ time, actor, wave: c }));
  const death = eventsOf(log, 'death')[0].time;
  return { came: kinds.filter(({ wave }) => wave > 0).map(({ time }) => Number(time.toFixed(6))), death };
};
const after = (death: number, ...seconds: number[]) => seconds.map((one) => Number((death + one).toFixed(6)));

describe('while a wave that holds others back lives', () => {
  test('a trickle stops, and goes on from where it stood', () => {
    // Due each second: at 0 and 1; when the boss comes, half a second of the third wait is left.
    const { came, death } = told(sketch({ groups: [group('mite', 1)], repeat: { times: 5, when: 'every', every: 1 } }));
    expect(death).toBeGreaterThan(2.5);
    expect(came).toEqual([0, 1, ...after(death, 0.5, 1.5, 2.5)]);
  });

  test('spawns of one coming that are not yet made wait too', () => {
    const { came, death } = told(sketch({ groups: [group('mite', 4, 1)] }));
    expect(came).toEqual([0, 1, ...after(death, 0.5, 1.5)]);
  });

  test('a delay under way stands still; one that is to begin begins afterwards', () => {
    const delayed = told(sketch({ start: 'clock', at: 1, delay: 2, groups: [group('mite', 1)] }));
    expect(delayed.came).toEqual(after(delayed.death, 1.5));
    const due = told(sketch({ start: 'clock', at: 2, delay: 0.7, groups: [group('mite', 1)] }));
    expect(due.came).toEqual(after(due.death, 0.7));
  });

  test('a coming that is due at the very instant at which the wave begins waits', () => {
    const { came, death } = told(
      sketch({ start: 'clock', at: 1, groups: [group('mite', 1)], repeat: { times: 2, when: 'every', every: 0.5 } }),
    );
    expect(came).toEqual([1, ...after(death, 0)]);
  });

  test('what holds itself is not held', () => {
    const { came } = told(sketch({ start: 'clock', at: 2, holdsBack: true, groups: [group('mite', 2, 0.25)] }));
    expect(came).toEqual([2, 2.25]);
  });

  test('without such a wave nothing is put off', () => {
    const plain = sketch({ groups: [group('mite', 3, 1)] });
    expect(told({ ...plain, wave: { start: 'clock', at: 1.5 } }).came).toEqual([0, 1, 2]);
  });

  test('held twice: only what is left is left', () => {
    const second = { start: 'clock', at: 9, holdsBack: true, groups: [{ ...group('boss', 1), id: 'again' }] };
    const one = sketch({ groups: [group('mite', 6, 2)] }, second);
    const { log } = fought(one);
    const deaths = eventsOf(log, 'death').map(({ time }) => time);
    expect(deaths).toHaveLength(2);
    const came = eventsOf(log, 'spawn')
      .filter(({ c }) => c === 1)
      .map(({ time }) => time);
    // By the clock of the held they come each 2 s; it stands from 1.5 to the first death and from 9 to the second.
    const clock = (time: number) =>
      time - (Math.min(time, deaths[0]) - Math.min(time, 1.5)) - (Math.min(time, deaths[1]) - Math.min(time, 9));
    came.forEach((time, i) => expect(clock(time)).toBeCloseTo(2 * i, 9));
    expect(came).toHaveLength(6);
    for (const time of came) expect((time > 1.5 && time < deaths[0]) || (time > 9 && time < deaths[1])).toBe(false);
  });
});

test('a spawn that the cap leaves out is defeated at once: who waits for its wave starts, though nobody dies', () => {
  const { log } = fought({
    party: [hunter],
    enemies: [{ unit: mite, count: 2, x: 6, scatter: 3 }],
    waves: [
      { id: 'w2', name: 'Wave 2', start: 'clock', at: 1, groups: [group('mite', 1)] },
      { id: 'w3', name: 'Wave 3', start: 'defeated', after: 'w2', groups: [{ ...group('mite', 1), id: 'late' }] },
    ],
    encounter: { alive: { most: 2, full: 'skip' } },
    limit: 5,
  });
  expect(eventsOf(log, 'wave').map(({ time, what }) => [time, what])).toEqual([
    [0, 0],
    [1, 1],
    [1, 2],
  ]);
});
