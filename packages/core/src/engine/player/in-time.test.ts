/** Whatever is seen in time is answered, also when its owner is done with it already: in the air, marked, left by the dead. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MISS, VERDICT } from '../../record/log';
import {
  announced,
  announcer as foe,
  announcerOf,
  beats,
  facingEachOther as field,
  reader as member,
} from '../../testing/arbitrary-announced';
import { casesOf, ofCases } from '../../testing/cases';
import { dummy, eventsOf, fought } from '../../testing/builders';
import { ANSWER } from '../numbers';

type Loose = Record<string, unknown>;

const dodge = { id: 'dodge', kind: 'dodge', window: 0.3, distance: 0, cooldown: 0 };

const shot = (speed: number, more: Loose = {}) => ({
  delivery: 'projectile',
  projectile: { speed, lifetime: 30, radius: 0.1 },
  beat: { windup: 0.1, cooldown: 99 },
  ...more,
});

describe('a dodge that nothing hinders', () => {
  test('keeps off all that is seen in time: only what left no time has struck', () => {
    let kept = 0;
    let struck = 0;
    fc.assert(
      fc.property(
        announced.filter(({ kind }) => kind !== 'dash'),
        beats,
        fc.integer({ min: 0, max: 10 }),
        fc.integer({ min: 2, max: 12 }),
        fc.integer({ min: 1, max: 90 }),
        (attack, beat, cue, x, reaction) => {
          const enemy = announcerOf(attack, { ...beat, cue: (beat.windup * cue) / 10 });
          const { log } = fought(field(member(reaction / 100 + 0.003, [dodge]), enemy, x));
          for (const { c } of eventsOf(log, 'exposed')) expect(c).toBeLessThan(1e-6);
          struck += eventsOf(log, 'exposed').length;
          kept += eventsOf(log, 'miss').filter(({ a }) => a === MISS.dodged).length;
        },
      ),
      { numRuns: casesOf(400) },
    );
    expect(Math.min(kept, struck)).toBeGreaterThan(ofCases(30, 400));
  });
});

describe('a step out that is judged to be in time', () => {
  test('has worked, however far it was to go: nothing has struck whoever tried', () => {
    let tried = 0;
    const of = { area: 0, straight: 0, dash: 0, melee: 0 };
    fc.assert(
      fc.property(
        announced,
        beats,
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 2, max: 8 }),
        (attack, beat, x, reaction, run) => {
          const runner = member(reaction / 100 + 0.003, [{ id: 'step', kind: 'stepOut' }], { movement: { walk: 0, run } });
          const { log } = fought(field(runner, announcerOf(attack, beat), x));
          const given = eventsOf(log, 'answer').filter(({ b }) => b === VERDICT.tried).length;
          tried += given;
          of[attack.kind] += given;
          expect(eventsOf(log, 'exposed').filter(({ b }) => b === VERDICT.tried)).toEqual([]);
        },
      ),
      { numRuns: casesOf(800) },
    );
    expect(tried).toBeGreaterThan(ofCases(50, 800));
    expect(Math.min(...Object.values(of))).toBeGreaterThan(ofCases(3, 800));
  });
});

test('a dodge that protects nobody counts only where it leads out', () => {
  // 8 m about its owner, the member's middle 7 m from it: 2 m straight away lead out, 2 m aside do not.
  const wide = { delivery: 'area', area: { about: 'self', radius: 8, delay: 1 }, beat: { windup: 0.2, cooldown: 99 } };
  const told = (way: string) => {
    const aside = { id: 'aside', kind: 'dodge', protects: false, window: 0.3, distance: 2, cooldown: 0, way };
    const { log } = fought(field(member(0.2, [aside]), foe(wide), 7));
    return [eventsOf(log, 'answer').map(({ b }) => b), eventsOf(log, 'exposed').map(({ b, c }) => [b, c])];
  };
  expect(told('away')).toEqual([[VERDICT.tried], []]);
  expect(told('sideways')).toEqual([[VERDICT.none], [[VERDICT.none, -Infinity]]]);
  expect(told('towards')).toEqual([[VERDICT.none], [[VERDICT.none, -Infinity]]]);
});

test('who breaks the line in time is behind something when the line is drawn', () => {
  const wall = (id: string, from: number, to: number) => ({
    id,
    name: id,
    height: 3,
    corners: [
      { x: 0.7, y: from },
      { x: 1.2, y: from },
      { x: 1.2, y: to },
      { x: 0.7, y: to },
    ],
  });
  const walls = [wall('left', 0.6, 4), wall('right', -4, -0.6)];
  let tried = 0;
  fc.assert(
    fc.property(
      fc.record({ windup: fc.integer({ min: 2, max: 15 }), cooldown: fc.constantFrom(0.9, 99) }),
      fc.integer({ min: 3, max: 14 }),
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 2, max: 8 }),
      ({ windup, cooldown }, x, reaction, run) => {
        const seer = member(reaction / 100 + 0.003, [{ id: 'line', kind: 'breakLine' }], { movement: { walk: 0, run } });
        const gun = foe({ delivery: 'hitscan', beat: { windup: windup / 10, cooldown } });
        const { log } = fought({ ...field(seer, gun, x), arena: { walls } });
        tried += eventsOf(log, 'answer').filter(({ b }) => b === VERDICT.tried).length;
        expect(eventsOf(log, 'exposed').filter(({ b }) => b === VERDICT.tried)).toEqual([]);
      },
    ),
    { numRuns: casesOf(300) },
  );
  expect(tried).toBeGreaterThan(ofCases(20, 300));
});

describe('a shot whose owner is idle again', () => {
  // It leaves at 0.1 and is 0.9 s under way or so; the member has reacted at 0.4.
  test.each([
    ['dodged', dodge, {}],
    ['blocked', { id: 'block', kind: 'block', window: 0.3, reduces: 1 }, {}],
    ['stepped out of', { id: 'step', kind: 'stepOut' }, { movement: { walk: 4, run: 4 } }],
  ])('is %s', (_, answer, more) => {
    const { log } = fought(field(member(0.4, [answer], more), foe(shot(10)), 10));
    expect(eventsOf(log, 'answer')).toMatchObject([{ time: 0.4, b: VERDICT.tried }]);
    expect(eventsOf(log, 'hit')).toEqual([]);
  });

  test('can’t be broken off any more', () => {
    const hook = {
      id: 'hook',
      weight: 0,
      range: { min: 0, max: 30 },
      beat: { windup: 0.1, cooldown: 9 },
      effects: { stagger: { for: 1 } },
    };
    const told = (windup: number) =>
      fought(
        field(
          member(0.4, [{ id: 'interrupt', kind: 'interrupt' }], { attacks: [hook] }),
          foe(shot(10, { beat: { windup, recovery: 2, cooldown: 99 } })),
          10,
        ),
      ).log;
    // It would have to land before the shot leaves: at 0.4 + 0.1.
    expect(eventsOf(told(0.45), 'answer')).toMatchObject([{ a: -1, b: VERDICT.tooLate }]);
    expect(eventsOf(told(0.55), 'answer')).toMatchObject([{ a: ANSWER.interrupt, b: VERDICT.tried }]);
    expect(eventsOf(told(0.55), 'interrupted').map(({ actor }) => actor)).toEqual([1]);
  });

  test('is still what it was seen as when it is longer under way than it looked, however many came in between', () => {
    const dart = { delivery: 'hitscan', beat: { windup: 0.1, cooldown: 0.4 } };
    const runner = member(0.2, [{ ...dodge, window: 0.1, cooldown: 99 }], {
      states: [{ id: 'away', name: 'Away', does: 'flee' }],
      movement: { walk: 4, run: 4 },
    });
    const enemies = [
      { unit: foe(shot(6), { id: 'shooter' }), x: 8 },
      { unit: foe(dart, { id: 'darter' }), x: 8 },
    ];
    const { log } = fought({ ...field(runner, foe(dart), 8), enemies, width: 120, limit: 20 });
    const exposed = eventsOf(log, 'exposed');
    const slow = exposed.find(({ actor }) => actor === 1)!;
    // Seen at 0 and dodged as it should have come, at 1.3 s or so; it came much later, and darts before it.
    expect(slow.time).toBeGreaterThan(2.5);
    expect(exposed.filter(({ actor, time }) => actor === 2 && time < slow.time).length).toBeGreaterThan(3);
    expect([slow.a, slow.b]).toEqual([ANSWER.dodge, VERDICT.tried]);
  });
});

describe('what is left by the dead', () => {
  const dart = {
    id: 'dart',
    delivery: 'hitscan',
    range: { min: 0, max: 60 },
    beat: { windup: 0.5, cooldown: 99 },
    effects: { damage: { amount: 5 } },
  };
  const cask = foe(
    { id: 'burst', delivery: 'area', area: { about: 'self', radius: 4, delay: 0.3 }, beat: { windup: 0.6, cue: 0.1 } },
    { health: { max: 1 }, onDeath: { attack: 'burst' }, choice: { priorities: [] } },
  );
  const others = [
    { unit: cask, x: 2 },
    { unit: { ...dummy('bystander', 1e6), side: 'enemy' }, x: 20 },
  ];

  test.each([
    ['dodged', dodge, {}],
    ['stepped out of', { id: 'step', kind: 'stepOut' }, { movement: { walk: 6, run: 6 } }],
  ])('a death attack is %s', (_, answer, more) => {
    // The death is at 0.5; it can be read from 0.6, is reacted to at 0.8, and strikes at 1.4.
    const { log } = fought({ ...field(member(0.2, [answer], { attacks: [dart], ...more }), cask, 2), enemies: others });
    expect(eventsOf(log, 'answer').map(({ time, b }) => [time, b])).toEqual([[0.8, VERDICT.tried]]);
    expect(eventsOf(log, 'hit').filter(({ actor }) => actor === 1)).toEqual([]);
  });
});

describe('what was broken off', () => {
  const sting = { id: 'sting', delivery: 'hitscan', range: { min: 0, max: 60 }, beat: { windup: 0.3, cooldown: 99 } };

  test.each([
    ['a stagger', { stagger: { for: 5 } }, {}],
    ['its owner’s death', { damage: { amount: 9 } }, { health: { max: 1 } }],
  ])('by %s before it left its owner is not answered', (_, effects, frail) => {
    const told = (reaction: number) => {
      const warden = member(reaction, [dodge], { attacks: [{ ...sting, effects }] });
      const other = { unit: { ...dummy('bystander', 1e6), side: 'enemy' }, x: 20 };
      const enemy = foe(shot(5, { beat: { windup: 0.6, cooldown: 99 } }), frail);
      return eventsOf(fought({ ...field(warden, enemy, 10), enemies: [{ unit: enemy, x: 10 }, other] }).log, 'answer');
    };
    // Struck at 0.3.
    expect(told(0.2)).toMatchObject([{ time: 0.2, b: VERDICT.tried }]);
    expect(told(0.4)).toEqual([]);
  });
});

test('what was broken off is nobody’s to mind: there is room for the next', () => {
  const told = (stagger: boolean) => {
    const player = { attention: { mean: 0.1, spread: 0, angle: 360, follows: 1, mistakes: 0 }, answers: [dodge] };
    const sting = {
      id: 'sting',
      delivery: 'hitscan',
      range: { min: 0, max: 60 },
      beat: { windup: 0.3, cooldown: 99 },
      effects: { damage: { amount: 1 }, ...(stagger && { stagger: { for: 9 } }) },
    };
    const first = foe(shot(5, { beat: { windup: 1, cooldown: 99 } }), { id: 'first' });
    const second = foe(shot(5, { beat: { windup: 0.2, cooldown: 99, initialDelay: { min: 0.5, max: 0.5 } } }), { id: 'second' });
    const party = member(0.1, [dodge], { player, attacks: [sting] });
    const enemies = [first, second].map((one, i) => ({ unit: one, x: 8 + i }));
    return eventsOf(fought({ ...field(party, first, 8), enemies }).log, 'answer').map(({ other, b }) => [other, b]);
  };
  expect(told(true)).toEqual([
    [1, VERDICT.tried],
    [2, VERDICT.tried],
  ]);
  expect(told(false)).toEqual([
    [1, VERDICT.tried],
    [2, VERDICT.notSeen],
  ]);
});

test('a mark is stepped out of where it lies, whatever its owner has begun since', () => {
  // Marks at 0.1 where the member stands; it has reacted at 0.4, after the next one has begun about its owner's other foe.
  const marker = foe({
    delivery: 'area',
    area: { about: 'mark', radius: 1, delay: 1 },
    beat: { windup: 0.1, recovery: 0, cooldown: 0.15 },
  });
  const runner = member(0.4, [{ id: 'step', kind: 'stepOut' }], { movement: { walk: 0, run: 5 } });
  const { log } = fought({ ...field(runner, marker, 10), limit: 1.15 });
  const [first] = eventsOf(log, 'answer');
  expect([first.time, first.b]).toEqual([0.4, VERDICT.tried]);
  expect(eventsOf(log, 'hit').filter(({ time }) => time < 1.12)).toEqual([]);
});
