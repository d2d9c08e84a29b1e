import { describe, expect, test } from '@jest/globals';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { Batch } from '../../analysis/batch';
import { fairness, joined } from '../../measures/fairness';
import { MISS, VERDICT } from '../../record/log';
import { run } from '../run';

type Loose = Record<string, unknown>;

const quick = { mean: 0.2, spread: 0, angle: 360, follows: 9, mistakes: 0 };
const dodge = (more: Loose = {}) => ({ id: 'dodge', kind: 'dodge', window: 0.3, distance: 2, cooldown: 1, ...more });
const step = { id: 'step', kind: 'stepOut' };
const member = (player: Loose, more: Loose = {}) =>
  unit({
    id: 'warden',
    side: 'party',
    health: { max: 1000 },
    movement: { walk: 4, run: 4 },
    attacks: [],
    player: { attention: quick, answers: [], ...player },
    ...more,
  });
/** A slam about itself: radius 3 from its middle, wound up as long as said. */
const slammer = (windup: number, more: Loose = {}, rest: Loose = {}) =>
  unit({
    id: 'mulcher',
    health: { max: 1e5 },
    attacks: [
      {
        id: 'slam',
        delivery: 'area',
        area: { about: 'self', radius: 3 },
        range: { min: 0, max: 30 },
        arc: 360,
        beat: { windup, cooldown: 5 },
        effects: { damage: { amount: 10 } },
        ...more,
      },
    ],
    ...rest,
  });
const fight = (player: Loose, attacker: Loose, more: Partial<FightSketch> = {}): FightSketch => ({
  party: [player],
  enemies: [{ unit: attacker, x: 2 }],
  limit: 4,
  ...more,
});
const story = (sketch: FightSketch, seed = 1) => {
  const { log } = fought(sketch, seed);
  return {
    answers: eventsOf(log, 'answer').map(({ time, a, b, c }) => ({ time, answer: a, verdict: b, margin: c })),
    hits: eventsOf(log, 'hit').filter(({ other }) => other === 0).length,
    exposed: eventsOf(log, 'exposed').map(({ a, b, c }) => ({ answer: a, verdict: b, margin: c })),
    misses: eventsOf(log, 'miss').map(({ a }) => a),
  };
};

describe('an answer', () => {
  test('dodge: laid about the hit, it keeps it from landing; the next one within its cooldown lands', () => {
    const told = story(
      fight(member({ answers: [dodge({ cooldown: 3 })] }), slammer(0.6, { beat: { windup: 0.6, cooldown: 1 } }), { limit: 2 }),
    );
    // Begun at 0, 1 …; reacted at 0.2; the dodge's window of 0.3 lies about 0.6: from 0.45.
    expect(told.misses[0]).toBe(MISS.dodged);
    expect(told.answers.map(({ verdict }) => verdict)).toEqual([VERDICT.tried, VERDICT.cooldown]);
    expect(told.exposed).toMatchObject([{ answer: -1, verdict: VERDICT.cooldown }]);
    expect(told.hits).toBe(1);
  });

  test('step out: it runs out of the area where there is time for the way', () => {
    // Edge 1.2 + 0.4 − … : centre at 2 m, radius 0.4: 1.4 m to clear and a tenth to spare: 0.375 s at 4 m/s.
    const told = (windup: number) => story(fight(member({ answers: [step] }), slammer(windup)));
    expect(told(0.5)).toMatchObject({ hits: 1, exposed: [{ answer: -1, verdict: VERDICT.tooLate }] });
    expect(told(0.8)).toMatchObject({ hits: 0, answers: [{ answer: 0, verdict: VERDICT.tried }] });
  });

  test('step out: with its back to walls on all sides there is nowhere to go', () => {
    const corner = {
      width: 3.2,
      depth: 2,
      partyAt: { x: -1.1, y: 0 },
      enemies: [{ unit: slammer(1.5, {}, { body: { radius: 0.3 } }), x: 0.9 }],
    };
    expect(story(fight(member({ answers: [step] }), slammer(1.5), corner)).answers[0].verdict).toBe(VERDICT.nowhere);
  });

  test('block: takes its share off what comes from ahead', () => {
    const block = (reduces: number) => ({ id: 'block', kind: 'block', window: 0.4, reduces });
    const dealt = (reduces: number) =>
      eventsOf(fought(fight(member({ answers: [block(reduces)] }), slammer(0.8))).log, 'hit').map(({ c }) => c);
    expect(dealt(0.75)).toEqual([2.5]);
    expect(dealt(1)).toEqual([]);
    expect(story(fight(member({ answers: [block(1)] }), slammer(0.8))).misses).toEqual([MISS.warded]);
  });

  test('break the line: behind a wall before the shot comes', () => {
    const wall = {
      id: 'w',
      name: 'w',
      height: 3,
      corners: [
        { x: 2, y: 0.7 },
        { x: 2.6, y: 0.7 },
        { x: 2.6, y: 5 },
        { x: 2, y: 5 },
      ],
    };
    const gun = unit({
      id: 'lantern',
      health: { max: 1e5 },
      attacks: [
        {
          id: 'beam',
          delivery: 'hitscan',
          range: { min: 0, max: 30 },
          beat: { windup: 1.2, cooldown: 9 },
          effects: { damage: { amount: 10 } },
        },
      ],
    });
    const told = story(
      fight(member({ answers: [{ id: 'line', kind: 'breakLine' }] }), gun, {
        enemies: [{ unit: gun, x: 10 }],
        arena: { walls: [wall] },
        width: 40,
        depth: 40,
        limit: 3,
      }),
    );
    expect(told.answers[0]).toMatchObject({ answer: 3, verdict: VERDICT.tried });
    expect(told.hits).toBe(0);
  });

  test('interrupt: a blow that staggers, landed before what is coming', () => {
    const hook = { id: 'hook', weight: 0, range: { min: 0, max: 3 }, beat: { windup: 0.2, cooldown: 9 }, effects: { stagger: { for: 1 } } };
    const fighter = member({ answers: [{ id: 'interrupt', kind: 'interrupt' }] }, { attacks: [hook], senses: { sight: 40, lose: 60 } });
    const { log } = fought(fight(fighter, slammer(1)));
    expect(eventsOf(log, 'interrupted')).toMatchObject([{ time: 0.4, actor: 1 }]); // 0.2 reaction + 0.2 wind-up
    expect(eventsOf(log, 'hit').filter(({ other }) => other === 0)).toEqual([]);
    expect(story(fight(fighter, slammer(0.3))).answers[0].verdict).toBe(VERDICT.tooLate);
  });

  test('is tried in the member’s order, and only where the attack lets it work', () => {
    const both = member({ answers: [step, dodge()] });
    expect(story(fight(both, slammer(1))).answers[0].answer).toBe(0);
    expect(story(fight(both, slammer(1, { answers: ['dodge'] }))).answers[0].answer).toBe(1);
    const none = story(fight(both, slammer(1, { answers: [] })));
    expect(none.exposed).toMatchObject([{ answer: -1, verdict: VERDICT.none, margin: -Infinity }]);
  });
});

describe('attention', () => {
  const told = (attention: Loose, more: Partial<FightSketch> = {}, seed = 1) =>
    story(
      fight(member({ attention: { ...quick, ...attention }, answers: [dodge()] }, { movement: { turnRate: 1 } }), slammer(0.8), more),
      seed,
    );

  test('what is out of view is not seen', () => {
    const behind = { partyAt: { x: 0, y: 0, facing: 180 } };
    expect(told({ angle: 180 }, behind).answers[0].verdict).toBe(VERDICT.notSeen);
    expect(told({ angle: 360 }, behind).answers[0].verdict).toBe(VERDICT.tried);
    expect(told({ angle: 180 }).answers[0].verdict).toBe(VERDICT.tried);
  });

  test('no more threats are followed than it can keep in mind', () => {
    const crowd = { enemies: [{ unit: slammer(0.8), count: 3, x: 2, scatter: 2 }] };
    const seen = (follows: number) => told({ follows }, crowd).answers.filter(({ verdict }) => verdict !== VERDICT.notSeen).length;
    expect([seen(0), seen(1), seen(9)]).toEqual([0, 1, 3]);
  });

  test('mistakes happen as often as set', () => {
    let mistakes = 0;
    for (let seed = 0; seed < 300; seed++) if (told({ mistakes: 0.25 }, {}, seed).answers[0].verdict === VERDICT.mistake) mistakes++;
    expect(mistakes / 300).toBeGreaterThan(0.18);
    expect(mistakes / 300).toBeLessThan(0.32);
  });

  test('a cue late in the wind-up leaves less time', () => {
    const late = (cue: number) =>
      story(fight(member({ answers: [dodge({ window: 0.1 })] }), slammer(0.8, { beat: { windup: 0.8, cue, cooldown: 9 } })));
    expect(late(0).answers[0]).toMatchObject({ time: 0.2, margin: expect.closeTo(0.6, 9) });
    expect(late(0.5).answers[0]).toMatchObject({ time: 0.7, margin: expect.closeTo(0.1, 9) });
    expect(late(0.7)).toMatchObject({ hits: 1, exposed: [{ verdict: VERDICT.tooLate, margin: expect.closeTo(-0.1, 9) }] });
  });

  test('doubling a wind-up changes what the player suffers by what it could do about it, not by a die', () => {
    const damage = (windup: number) => {
      const tables = compiled(
        fight(
          member({ attention: { ...quick, mean: 0.34, spread: 0.08 }, answers: [step, dodge()] }),
          slammer(windup, { beat: { windup, cooldown: 2 } }),
          { limit: 20 },
        ),
      );
      const batch = new Batch(tables, 1, 20);
      batch.advance(20);
      return batch.rows.reduce((sum, row) => sum + row.dose, 0);
    };
    const short = damage(0.2);
    const double = damage(0.4);
    const long = damage(0.8);
    expect(short).toBeGreaterThan(double);
    expect(double).toBeGreaterThan(2 * long);
  });
});

describe('husbandry', () => {
  const gun = (more: Loose = {}) => ({
    id: 'bolt',
    delivery: 'hitscan',
    range: { min: 0, max: 30 },
    beat: { cooldown: 0.5 },
    effects: { damage: { amount: 1 } },
    ...more,
  });
  const target = unit({ id: 'clipper', health: { max: 1e5 }, attacks: [] });

  test('a magazine is shot empty and reloaded, to the instant', () => {
    const shooter = member(
      { magazine: { attacks: ['bolt'], rounds: 3, reload: 2 } },
      { attacks: [gun()], senses: { sight: 40, lose: 60 } },
    );
    const { log } = fought(fight(shooter, target, { limit: 7 }));
    // 0, 0.5, 1; the step at 1 finds it empty; reloaded at 3.
    expect(eventsOf(log, 'start').map(({ time }) => time)).toEqual([0, 0.5, 1, 3, 3.5, 4, 6, 6.5, 7]);
  });

  test('a healing item is used below its share, takes its time, and runs out', () => {
    const biter = unit({
      id: 'clipper',
      health: { max: 1e5 },
      attacks: [
        { id: 'bite', delivery: 'hitscan', range: { min: 0, max: 30 }, beat: { cooldown: 1 }, effects: { damage: { amount: 30 } } },
      ],
    });
    const healer = member({ healing: { count: 1, below: 0.5, takes: 0.8, heal: { amount: 20, share: 0 } } }, { health: { max: 100 } });
    const { log } = fought(fight(healer, biter, { limit: 8 }));
    // 100, 70 at 0, 40 at 1: below half; begun at the step of 1.
    expect(eventsOf(log, 'heal')).toMatchObject([{ time: 1.8, other: 0, a: 20 }]);
  });

  test('aim errs by distance and size: r ÷ (d tan error)', () => {
    const shooter = (aimError: number) =>
      member({ aimError }, { attacks: [gun({ beat: { cooldown: 0.05 } })], senses: { sight: 400, lose: 500 } });
    const share = (aimError: number, radius: number) => {
      const small = unit({ id: 'clipper', body: { radius }, health: { max: 1e5 }, attacks: [] });
      const { log } = fought(fight(shooter(aimError), small, { enemies: [{ unit: small, x: 20 }], limit: 60 }));
      const hits = eventsOf(log, 'hit').length;
      return hits / (hits + eventsOf(log, 'miss').length);
    };
    expect(share(0, 0.3)).toBe(1);
    expect(share(2, 0.35)).toBeCloseTo(0.35 / (20 * Math.tan((2 * Math.PI) / 180)), 1);
    expect(share(2, 0.35)).toBeLessThan(share(2, 0.6));
  });

  test('a member that goes down is helped up by a friend, once; or bleeds out', () => {
    const down = { bleedOut: 6, rescue: 1, reach: 0.8, health: 0.5, lives: 1 };
    const biter = unit({
      id: 'clipper',
      health: { max: 1e5 },
      attacks: [
        {
          id: 'bite',
          delivery: 'hitscan',
          range: { min: 0, max: 30 },
          beat: { windup: 0.1, cooldown: 60 },
          effects: { damage: { amount: 500 } },
        },
      ],
      targeting: { only: { units: ['warden'] } },
    });
    const victim = member({ down }, { health: { max: 100 } });
    const friend = (within: number) => ({ ...member({ down, rescues: { within, safe: 0 } }), id: 'tender', name: 'tender' });
    const rescued = fought({ party: [victim, friend(20)], enemies: [{ unit: biter, x: 15 }], limit: 12 });
    const [fell] = eventsOf(rescued.log, 'down');
    const [raised] = eventsOf(rescued.log, 'revive');
    expect(raised).toMatchObject({ actor: 1, other: 0, a: 50 });
    expect(raised.time).toBeGreaterThanOrEqual(fell.time + 1);
    expect(raised.time).toBeLessThan(fell.time + 1.1);
    const alone = fought({ party: [victim, friend(0)], enemies: [{ unit: biter, x: 15 }], limit: 12 });
    expect(eventsOf(alone.log, 'death')).toMatchObject([{ actor: 0, time: expect.closeTo(fell.time + 6, 9) }]);
    expect(alone.outcome).toBe('timeOut'); // the other still stands
  });

  test('the last one standing does not lie down: the party is down', () => {
    const biter = unit({
      id: 'clipper',
      health: { max: 1e5 },
      attacks: [
        {
          id: 'bite',
          delivery: 'hitscan',
          range: { min: 0, max: 30 },
          beat: { windup: 0.1, cooldown: 1 },
          effects: { damage: { amount: 500 } },
        },
      ],
    });
    expect(fought(fight(member({ down: { lives: 3 } }, { health: { max: 100 } }), biter)).outcome).toBe('partyDown');
  });

  test('low on health it takes cover where nobody has a line to it', () => {
    const wall = {
      id: 'w',
      name: 'w',
      height: 3,
      corners: [
        { x: 2, y: 1 },
        { x: 3, y: 1 },
        { x: 3, y: 5 },
        { x: 2, y: 5 },
      ],
    };
    const biter = unit({
      id: 'clipper',
      health: { max: 1e5 },
      attacks: [
        {
          id: 'bite',
          delivery: 'hitscan',
          range: { min: 0, max: 30 },
          beat: { windup: 0.1, cooldown: 1.5 },
          effects: { damage: { amount: 60 } },
        },
      ],
    });
    const sketch = (cover: Loose) =>
      fight(member(cover, { health: { max: 100, regen: 0 } }), biter, {
        enemies: [{ unit: biter, x: 10 }],
        arena: { walls: [wall] },
        width: 40,
        depth: 40,
        limit: 4,
      });
    expect(fought(sketch({})).outcome).toBe('partyDown');
    expect(fought(sketch({ cover: { below: 0.6, stays: 10, radius: 6 } })).outcome).toBe('timeOut');
  });

  test('it walks, and runs when a foe is near', () => {
    const kiter = member(
      { runsWithin: 5 },
      { movement: { walk: 1, run: 4 }, states: [{ id: 's', name: 's', does: 'flee' }], senses: { sight: 400, lose: 500 } },
    );
    const speeds: number[] = [];
    run(compiled(fight(kiter, target, { enemies: [{ unit: target, x: 3 }], limit: 4 })), 1, (f) =>
      speeds.push(Math.round(Math.hypot(f.vx[0], f.vy[0]) * 10) / 10),
    );
    expect(speeds.slice(1, 8).every((speed) => speed === 4)).toBe(true);
    expect(speeds.slice(-10).every((speed) => speed === 1)).toBe(true);
  });

  test('what a style changes, changes the fight', () => {
    const styles = [{ id: 'still', name: 'still', tweaks: [{ scope: 'party', path: '/movement/run', op: '=', value: 0 }] }];
    const sketch = { ...fight(member({ answers: [step] }), slammer(0.8)), styles };
    expect(story(sketch).hits).toBe(0);
    const still = { ...sketch, party: [member({ answers: [step] }, { movement: { walk: 0, run: 0 } })] };
    expect(story(still).hits).toBe(1);
  });
});

test('fairness counts what was announced, unseen, unanswerable and clashing', () => {
  const tables = compiled(
    fight(member({ answers: [dodge({ cooldown: 3 })] }), slammer(0.6, { beat: { windup: 0.6, cooldown: 1 } }), { limit: 2 }),
  );
  const all = joined(fairness({ compiled: tables, run: run(tables, 1) }).flat());
  expect(all).toMatchObject({ announced: 2, unseen: 0, clashes: 1, hits: 1, damage: 10, unanswerable: 0 });
  expect(all.margins).toEqual([expect.closeTo(0.4, 9)]); // 0.6 − 0.2 − 0
  const hopeless = compiled(fight(member({ answers: [dodge()] }), slammer(0.1)));
  expect(joined(fairness({ compiled: hopeless, run: run(hopeless, 1) }).flat())).toMatchObject({ hits: 1, damage: 10, unanswerable: 10 });
});

describe('the reaction margin of what its owner is done with, or did not mean for its victim', () => {
  const brittle = (attack: Loose, more: Loose = {}) =>
    unit({
      id: 'sporecask',
      health: { max: 1 },
      attacks: [{ id: 'burst', delivery: 'area', range: { min: 0, max: 1 }, area: { about: 'self', radius: 9 }, ...attack }],
      choice: { priorities: [] },
      onDeath: { attack: 'burst' },
      ...more,
    });
  const dart = {
    id: 'dart',
    delivery: 'hitscan',
    range: { min: 0, max: 30 },
    beat: { windup: 0.5, cooldown: 9 },
    effects: { damage: { amount: 5 } },
  };
  const warden = (windup: number) => member({ answers: [dodge()] }, { attacks: [{ ...dart, beat: { windup, cooldown: 9 } }] });

  test('a death attack: from its cue after the death, however late in the fight and whatever the run before', () => {
    for (const windup of [0.5, 3]) {
      const cask = brittle({
        beat: { windup: 0.4, recovery: 0.1, cue: 0.1 },
        area: { about: 'self', radius: 9, delay: 0.3 },
        effects: { damage: { amount: 4 } },
      });
      const bystander = { ...dummy('bystander', 1e6), side: 'enemy' };
      const enemies = [
        { unit: cask, x: 2 },
        { unit: bystander, x: 20 },
      ];
      const told = story(fight(warden(windup), cask, { enemies, limit: 6 }));
      // It strikes 0.4 + 0.3 after the death; 0.1 of that passes before it can be read; the mean reaction is 0.2; a dodge is at once.
      expect(told.answers.map(({ verdict, margin }) => [verdict, Number(margin.toFixed(9))])).toEqual([[VERDICT.tried, 0.4]]);
      expect(told.exposed).toEqual([]);
    }
  });

  test('a mark that bursts after its owner has begun something else: from its own cue', () => {
    // Marks at 0.2 where the warden stands, with a delay of 1; the next use begins at 0.5. The tender is in it unannounced.
    const marker = unit({
      id: 'mulcher',
      health: { max: 1e5 },
      targeting: { only: { units: ['warden'] } },
      attacks: [
        {
          id: 'mark',
          delivery: 'area',
          range: { min: 0, max: 30 },
          area: { about: 'mark', radius: 0.5, delay: 1 },
          beat: { windup: 0.2, recovery: 0.1, cooldown: 0.5, cue: 0 },
          effects: { damage: { amount: 4 } },
        },
      ],
    });
    const walker = member(
      { answers: [dodge({ distance: 0 })], attention: { ...quick, mean: 0.3 } },
      {
        id: 'tender',
        states: [{ id: 'in', name: 'In', does: 'goTo', to: 'well', onTheWay: 'ignore' }],
      },
    );
    const { log } = fought({
      party: [member({}), walker],
      enemies: [{ unit: marker, x: 6 }],
      partyAt: { x: 0, y: 0 },
      arena: { points: [{ id: 'well', name: 'Well', x: 0, y: -0.6 }] },
      limit: 1.25,
    });
    const margins = eventsOf(log, 'exposed').filter(({ other }) => other === 1);
    // From 0 to 1.2, less 0.3 of reaction.
    expect(margins.length).toBeGreaterThan(0);
    for (const { c } of margins) expect(c).toBeCloseTo(0.9, 9);
    expect(eventsOf(log, 'start').length).toBeGreaterThan(2);
  });
});

test('an answer with a cooldown can be given at the very first instant', () => {
  const first = member({ attention: { ...quick, mean: 0 }, answers: [dodge({ window: 2, distance: 0, cooldown: 5 })] });
  const { log } = fought({ party: [first], enemies: [{ unit: slammer(0.5), x: 3 }], limit: 1 });
  expect(eventsOf(log, 'answer').map(({ time, b }) => [time, b])).toEqual([[0, VERDICT.tried]]);
  expect(eventsOf(log, 'hit')).toEqual([]);
});

test('shots stray within the error to either side: of a body of half-width r at d, r ÷ (d tan error) are within it', () => {
  const gun = { id: 'gun', delivery: 'hitscan', range: { min: 0, max: 60 }, beat: { cooldown: 0.05 }, effects: { damage: { amount: 1 } } };
  const shooter = member({ aimError: 40 }, { attacks: [gun], senses: { sight: 400, lose: 500 } });
  const { log } = fought({
    party: [shooter],
    enemies: [{ unit: dummy('clipper', 1e6, { side: 'enemy', movement: { walk: 0, run: 0 } }), x: 4 }],
    limit: 100,
  });
  const shots = eventsOf(log, 'start').length;
  // Half-width 0.4 at 4 m: 0.4 ÷ (4 × tan 40°) = 0.119. Of 2,000 shots three standard errors are 0.022.
  expect(shots).toBeGreaterThan(1900);
  expect(Math.abs(eventsOf(log, 'hit').length / shots - 0.4 / (4 * Math.tan((40 * Math.PI) / 180)))).toBeLessThan(0.022);
});
