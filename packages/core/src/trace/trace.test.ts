import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { compile } from '../engine/compile';
import { Runner, run } from '../engine/run';
import { parseProject } from '../model/validate';
import { type FightSketch, compiled, dummy, unit } from '../testing/builders';
import { reasonSentences } from './reasons';
import { sentenceOf } from './sentences';
import { reasonsAt, trace, traceWith } from './trace';

const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));

test('recording changes nothing: the digest is that of the run without', () => {
  for (const encounter of ['evening-shift', 'the-head-gardener', 'cellar-beat', 'glasshouse-defence']) {
    const runner = new Runner(compile(demo, { encounter, tier: 'bramble', skill: 'regular' }));
    for (const seed of [1, 2]) {
      const { digest } = runner.run(seed);
      expect(traceWith(runner, seed).digest).toBe(digest);
      expect(traceWith(runner, seed, { positionsEvery: 4, reasons: false }).digest).toBe(digest);
    }
  }
});

test('every event is a record with names, and a sentence without gaps', () => {
  for (const encounter of demo.encounters) {
    const { events, names, steps } = trace(compile(demo, { encounter: encounter.id, tier: 'blight', skill: 'novice' }), 5);
    expect(events.map(({ time }) => time)).toEqual(events.map(({ time }) => time).sort((a, b) => a - b));
    for (const event of events) {
      const sentence = sentenceOf(event);
      expect(sentence).toMatch(/^\d+\.\d\d s: .*[^ ]\.$/);
      expect(sentence).not.toMatch(/undefined|NaN|\?|\bnull\b/);
      if (event.unit !== undefined) expect(event.name).toBe(names[event.unit]);
    }
    for (const { units, places } of steps) expect(places).toHaveLength(5 * units.length);
  }
});

test('an attack keeps its cause, whatever it is called', () => {
  const names = ['Bite: quick, low', 'a: b: c', ', ', ': ', 'none, tried'];
  for (const name of names) {
    const bite = {
      id: 'bite',
      name,
      delivery: 'hitscan',
      range: { min: 0, max: 30 },
      beat: { windup: 0.3, cooldown: 1 },
      answers: ['dodge'],
    };
    const player = { attention: { mean: 0.1, spread: 0 }, answers: [{ id: 'd', kind: 'dodge', window: 0.3, distance: 0, cooldown: 2 }] };
    const { events } = trace(
      compiled({
        party: [unit({ id: 'warden', side: 'party', health: { max: 500 }, player })],
        enemies: [{ unit: unit({ id: 'clipper', attacks: [{ ...bite, effects: { damage: { amount: 3 } } }] }), x: 4 }],
        limit: 4,
      }),
      1,
    );
    const told = (event: string) => events.find((one) => one.event === event)!;
    expect(told('miss')).toMatchObject({ id: 'bite', what: name, cause: 'dodged' });
    expect(sentenceOf(told('miss'))).toContain(`${name} of clipper misses warden: it was dodged`);
    expect(told('answer')).toMatchObject({ id: 'bite', what: name, cause: 'tried', answer: 'dodge' });
    expect(sentenceOf(told('answer'))).toContain(`${name} of clipper comes at warden: dodges`);
    expect(told('exposed')).toMatchObject({ id: 'bite', what: name, cause: 'cooldown', answer: 'none' });
    expect(sentenceOf(told('exposed'))).toContain('gives no answer, its answers were on cooldown');
  }
});

test('units of one kind are told apart by number, a single one is not numbered', () => {
  const { names } = trace(compile(demo, { encounter: 'first-bell' }), 1);
  expect(names).toEqual(['Warden', 'Clipper']);
  expect(trace(compile(demo, { encounter: 'evening-shift' }), 1).names.slice(0, 4)).toEqual([
    'Warden',
    'Tender',
    'Clipper 1',
    'Thistlejack 1',
  ]);
});

describe('reasons', () => {
  const told = (sketch: FightSketch, seconds: number, who = 1) => reasonSentences(reasonsAt(compiled(sketch), 1, who, seconds)!);
  const biter = (attack: object, more: object = {}) =>
    unit({ id: 'clipper', attacks: [{ id: 'bite', range: { min: 0, max: 2 }, beat: { windup: 0.2, cooldown: 3 }, ...attack }], ...more });
  const fight = (attacker: ReturnType<typeof biter>, more: Partial<FightSketch> = {}): FightSketch => ({
    party: [dummy('warden', 1e4)],
    enemies: [{ unit: attacker, x: 2 }],
    limit: 9,
    ...more,
  });

  test('out of range, by how much', () => {
    const lines = told(fight(biter({}), { enemies: [{ unit: biter({}), x: 5 }] }), 1);
    expect(lines).toContain('Priority 1, bite: ruled out, 2.2 m too far (reaches 2 m, is at 4.2 m).');
    expect(told(fight(biter({ range: { min: 3, max: 9 } })), 1)).toContain(
      'Priority 1, bite: ruled out, 1.8 m too near (from 3 m, is at 1.2 m).',
    );
  });

  test('on cooldown, in the middle of it, in a pause', () => {
    expect(told(fight(biter({})), 1)).toContain('Priority 1, bite: ruled out, 2 s of cooldown left.');
    expect(told(fight(biter({})), 0.1).join(' ')).toContain('in the middle of bite, 0.1 s left');
    const pausing = biter({}, { choice: { priorities: [{ entries: [{ attack: 'bite' }] }], pause: { min: 2, max: 2 } } });
    expect(told(fight(pausing), 1)).toContain('It pauses for another 1.2 s.');
  });

  test('a wall in the way: which, and how much too high', () => {
    const wall = {
      id: 'w',
      name: 'Planter',
      height: 1.5,
      corners: [
        { x: 3, y: -2 },
        { x: 4, y: -2 },
        { x: 4, y: 2 },
        { x: 3, y: 2 },
      ],
    };
    const gun = biter({ delivery: 'hitscan', range: { min: 0, max: 20 } });
    // From 1.2 at x = 8 to 0.85 at 0: at the near edge (x = 3) the line is 0.98 high.
    expect(told(fight(gun, { enemies: [{ unit: gun, x: 8 }], arena: { walls: [wall] }, width: 40, depth: 40 }), 1)).toContain(
      'Priority 1, bite: ruled out, Planter is in the way: 0.52 m too high (the line goes from 1.2 m to 0.85 m).',
    );
  });

  test('too little energy, no slot, no charge, not allowed in this state, a condition', () => {
    expect(told(fight(biter({ energy: 5, beat: { cooldown: 0.1 } }, { energy: { max: 8, start: 6 } })), 1)).toContain(
      'Priority 1, bite: ruled out, costs 5, has 1.0.',
    );
    const slotted = biter({ slot: { pool: 'close', takes: 2 } });
    expect(told(fight(slotted, { encounter: { slots: [{ id: 'close', size: 1 }] } }), 1)).toContain(
      'Priority 1, bite: ruled out, no free slot in close (1).',
    );
    expect(told(fight(biter({ charges: { count: 1, reload: 5 }, beat: { cooldown: 0.1 } })), 2)).toContain(
      'Priority 1, bite: ruled out, no charge left; the next in 3 s.',
    );
    const calm = biter({}, { states: [{ id: 's', name: 'calm', does: 'hold', attacks: 'some', only: [] }] });
    expect(told(fight(calm), 1)).toContain('Priority 1, bite: ruled out, not allowed in this state.');
    const low = { subject: 'healthShare', is: 'below', value: 0.5 };
    const desperate = biter({}, { choice: { priorities: [{ condition: low, entries: [{ attack: 'bite' }] }] } });
    expect(told(fight(desperate), 1)).toContain('Priority 1 is passed over: its share of health is 1, not below 0.5.');
  });

  test('no target, and why not each of its foes', () => {
    const blind = biter({}, { senses: { sight: 3, lose: 4 } });
    const lines = told(fight(blind, { enemies: [{ unit: blind, x: 9, group: { alerted: false } }] }), 1);
    expect(lines).toContain('warden is not its target: 9 m away: beyond the 4 m at which it loses a foe.');
    expect(lines).toContain('It knows of no foe.');
  });

  test('asking changes nothing', () => {
    const sketch = fight(biter({ range: { min: 0, max: 9 } }), { enemies: [{ unit: biter({}), count: 3, x: 6, scatter: 2 }] });
    const tables = compiled(sketch);
    const { digest } = run(tables, 1);
    reasonsAt(tables, 1, 1, 3);
    expect(run(tables, 1).digest).toBe(digest);
  });
});

test('the comings of a wave are told as they are counted', () => {
  const of = (coming: number) =>
    sentenceOf({ time: 0, event: 'wave', what: 'Second', values: { coming } }).replace('0.00 s: Second starts', '').trim();
  expect([0, 1, 2, 3, 10, 20, 21].map(of)).toEqual([
    '.',
    'for the 2nd time.',
    'for the 3rd time.',
    'for the 4th time.',
    'for the 11th time.',
    'for the 21st time.',
    'for the 22nd time.',
  ]);
});
