/** Counters, waves that stop for good or pause before they come again, score: worked out by hand. */
import { describe, expect, test } from '@jest/globals';
import { type Row, rowOf } from '../../measures/row';
import { type FightSketch, compiled, dummy, eventsOf, fought, unit } from '../../testing/builders';
import { run } from '../run';

type Loose = Record<string, unknown>;
const STEPS = [0.1, 0.05, 0.01];

/** Kills whatever comes into its reach, one each half second. */
const reaper = unit({
  id: 'warden',
  side: 'party',
  health: { max: 1e6 },
  attacks: [
    { id: 'strike', delivery: 'hitscan', range: { min: 0, max: 200 }, beat: { cooldown: 0.5 }, effects: { damage: { amount: 10 } } },
  ],
});
const seedling = (more: Loose = {}) => unit({ id: 'seedling', health: { max: 10 }, attacks: [], onDeath: { worth: 5 }, ...more });
const group = (count: number, more: Loose = {}) => ({
  id: 'g',
  enemy: 'seedling',
  count: { min: count, max: count },
  at: ['p0'],
  alerted: true,
  ...more,
});
const after = (time: number) => ({ subject: 'clock', is: 'above', value: time - 0.001 });
const event = (id: string, when: Loose, ...then: Loose[]) => ({ id, name: id, when, then });
const staged = (sketch: Partial<FightSketch>): FightSketch => ({
  party: [reaper],
  enemies: [{ unit: seedling(), count: 1, x: 20, scatter: 6 }],
  limit: 60,
  ...sketch,
});

describe('counters', () => {
  const counters = [{ id: 'bells', name: 'Bells', start: 2 }];
  const changes = (log: Parameters<typeof eventsOf>[0]) => eventsOf(log, 'counter').map(({ time, actor, a }) => [time, actor, a]);
  /** Enters one state after another each second, and counts each time. */
  const ringer = (counts: Loose[]) =>
    unit({
      id: 'seedling',
      health: { max: 1e6 },
      movement: { walk: 0, run: 0 },
      attacks: [],
      states: ['a', 'b'].map((id, i) => ({
        id,
        name: id,
        does: 'hold',
        decides: { min: 1, max: 1 },
        leaves: [{ to: i === 0 ? 'b' : 'a' }],
        onEnter: { counts },
      })),
    });

  test.each(STEPS)('a state counts each time that it is entered, and an event asks at the next step: a step of %s s', (step) => {
    const { log, outcome, length } = fought(
      staged({
        party: [dummy('warden', 10)],
        enemies: [{ unit: ringer([{ counter: 'bells', by: 1.5 }]), x: 30 }],
        encounter: { counters, events: [event('over', { subject: 'counter', of: 'bells', is: 'above', value: 6 }, { does: 'end' })] },
      }),
      1,
      step,
    );
    // 2 at first, then 3.5, 5 and 6.5 at 1, 2 and 3 s: the step after the third finds more than 6.
    expect(changes(log)).toEqual([
      [1, 1, 3.5],
      [2, 1, 5],
      [3, 1, 6.5],
    ]);
    expect([outcome, length / 1e6]).toEqual(['ended', 3 + step]);
  });

  test('an event counts once; a counter stays between nothing and a million; a change to the same is none', () => {
    const { log } = fought(
      staged({
        encounter: {
          counters,
          ends: { cleared: false },
          events: [
            event('less', after(1), { does: 'count', counts: { counter: 'bells', how: 'add', by: -5 } }),
            event('none', after(2), { does: 'count', counts: { counter: 'bells', how: 'set', by: 0 } }),
            event('seven', after(3), { does: 'count', counts: { counter: 'bells', how: 'set', by: 7 } }),
            event('all', after(4), { does: 'count', counts: { counter: 'bells', how: 'add', by: 1e6 } }),
          ],
        },
        limit: 6,
      }),
    );
    expect(changes(log)).toEqual([
      [1, -1, 0],
      [3, -1, 7],
      [4, -1, 1e6],
    ]);
  });

  test('a unit asks for it; in an encounter without that counter it is never so, and a change of it is nothing', () => {
    const asks = unit({
      id: 'seedling',
      health: { max: 1e6 },
      attacks: [],
      states: [
        {
          id: 'a',
          name: 'a',
          does: 'hold',
          onEnter: { counts: [{ counter: 'bells', by: 1 }] },
          leaves: [{ to: 'b', when: { subject: 'counter', of: 'bells', is: 'above', value: 4 } }],
        },
        { id: 'b', name: 'b', does: 'hold', leaves: [{ to: 'a', when: { subject: 'counter', of: 'bells', is: 'below', value: 4 } }] },
      ],
    });
    const entered = (more: Loose) =>
      eventsOf(
        fought(staged({ party: [dummy('warden', 10)], enemies: [{ unit: asks, x: 30 }], encounter: more, limit: 5 })).log,
        'state',
      ).map(({ time, what }) => [time, what]);
    const events = (on: string) => [event('up', after(2), { does: 'count', counts: { counter: on, how: 'set', by: 5 } })];
    expect(entered({ counters, events: events('bells') })).toEqual([[2, 1]]);
    expect(entered({ counters: [{ id: 'other', name: 'Other' }], events: events('other') })).toEqual([]);
  });
});

describe('a wave that comes again', () => {
  test.each(STEPS)('pauses before each coming after the first; its delay is of the first alone: a step of %s s', (step) => {
    const { log } = fought(staged({ wave: { delay: 2, repeat: { times: 3, when: 'defeated', pause: 4 } } }), 1, step);
    const comings = eventsOf(log, 'wave').map(({ time }) => time);
    const deaths = eventsOf(log, 'death').map(({ time }) => time);
    // At 2 s; each later one 4 s after the one before it died. It dies as soon as it is there: at 2, 6 and 10 s.
    expect(comings).toEqual([2, deaths[0] + 4, deaths[1] + 4]);
    expect(deaths[0]).toBe(2);
  });
});

describe('a wave that is stopped', () => {
  const stops = (at: number, of = 'w1') => ({ events: [event('halt', after(at), { does: 'stopWave', of })] });
  const spawned = (log: Parameters<typeof eventsOf>[0]) =>
    eventsOf(log, 'spawn')
      .slice(1)
      .map(({ time }) => time);

  test('comes no more, and the fight is won without the rest', () => {
    const { log, outcome } = fought(staged({ wave: { repeat: { times: 20, when: 'every', every: 5 } }, encounter: stops(7) }));
    expect(spawned(log)).toEqual([0, 5]);
    expect(eventsOf(log, 'stopped')).toMatchObject([{ what: 0, a: 18 }]);
    expect(outcome).toBe('cleared');
  });

  test('leaves out those of a coming that are not there yet: all of it that came being dead is all of it', () => {
    const { log, outcome } = fought(
      staged({
        wave: { groups: [group(10, { spacing: 1 })] },
        waves: [{ id: 'w2', name: 'w2', start: 'defeated', share: 1, delay: 3, groups: [group(1)] }],
        encounter: stops(3.5),
      }),
    );
    // At 0, 1, 2 and 3 s four have come and died; what waits for all of it starts with its end, and waits 3 s more.
    expect(spawned(log)).toEqual([0, 1, 2, 3, 6.5]);
    expect(eventsOf(log, 'stopped')).toMatchObject([{ a: 6 }]);
    expect(outcome).toBe('cleared');
  });

  test('lets nobody in who waits for room', () => {
    // Two of five fit; those who could follow when the two are struck down, from 3 s on, never come.
    const sketch = (encounter: Loose) =>
      staged({
        party: [{ ...reaper, attacks: [{ ...(reaper.attacks as Loose[])[0], beat: { cooldown: 0.5, initialDelay: { min: 3, max: 3 } } }] }],
        wave: { groups: [group(5)] },
        encounter: { alive: { most: 2, full: 'wait' }, ...encounter },
      });
    const { log, outcome } = fought(sketch(stops(2)));
    expect(spawned(log)).toEqual([0, 0]);
    expect(eventsOf(log, 'stopped')).toMatchObject([{ a: 3 }]);
    expect([outcome, eventsOf(log, 'end')[0].time]).toEqual(['cleared', 3.5]);
    expect(spawned(fought(sketch({})).log)).toHaveLength(5);
  });

  test('before it came counts as one that brought nobody: what waits for it goes on', () => {
    const late = (start: string, id: string) => ({ id, name: id, start, after: 'w2', groups: [group(1)] });
    const { log, outcome } = fought(
      staged({
        waves: [{ id: 'w2', name: 'w2', start: 'clock', at: 30, groups: [group(3)] }, late('with', 'w3'), late('defeated', 'w4')],
        encounter: stops(2, 'w2'),
      }),
    );
    expect(eventsOf(log, 'wave').map(({ what, time }) => [what, time])).toEqual([
      [0, 0],
      [2, 2],
      [3, 2],
    ]);
    expect(outcome).toBe('cleared');
  });

  test('does not come either where its start is queued, nor where an event calls it later', () => {
    const { log, outcome } = fought(
      staged({
        waves: [
          { id: 'w2', name: 'w2', start: 'atOnce', delay: 5, groups: [group(3)] },
          { id: 'w3', name: 'w3', start: 'called', groups: [group(1)] },
        ],
        encounter: {
          events: [
            event('halt', after(2), { does: 'stopWave', of: 'w2' }, { does: 'stopWave', of: 'w3' }),
            event('call', after(3), { does: 'startWave', of: 'w3' }),
          ],
        },
      }),
    );
    expect(spawned(log)).toEqual([0]);
    expect(outcome).toBe('cleared');
  });

  test('frees those whom it held back', () => {
    // The first of two dies at once; the second would come at 50 s, and hold the other wave until then.
    const sketch = (encounter: Loose) =>
      staged({
        wave: { holdsBack: true, groups: [group(2, { spacing: 50 })] },
        waves: [{ id: 'w2', name: 'w2', start: 'clock', at: 1, groups: [group(1)] }],
        encounter,
      });
    const starts = (encounter: Loose) => eventsOf(fought(sketch(encounter)).log, 'wave').map(({ what, time }) => [what, time]);
    expect(starts({})).toEqual([
      [0, 0],
      [1, 50],
    ]);
    expect(starts(stops(4))).toEqual([
      [0, 0],
      [1, 4],
    ]);
  });
});

describe('score', () => {
  test('is what the killed were worth, the one that was raised twice, and what an event gave', () => {
    const mender = unit({
      id: 'mender',
      health: { max: 1e6 },
      onDeath: { worth: 100 },
      attacks: [
        {
          id: 'raise',
          delivery: 'support',
          targets: 'fallen',
          range: { min: 0, max: 200 },
          beat: { windup: 1, cooldown: 600 },
          effects: { revive: { amount: 10 } },
        },
      ],
    });
    const tables = compiled({
      party: [{ ...reaper, targeting: { never: { units: ['mender'] } } }, dummy('tender', 100)],
      enemies: [
        { unit: seedling({ onDeath: { worth: 5, revivableFor: 60, revivals: 1 } }), count: 2, x: 20, scatter: 4 },
        { unit: mender, x: 40 },
      ],
      encounter: {
        events: [event('bonus', after(5), { does: 'score', score: 7 }), event('fine', after(6), { does: 'score', score: -2.5 })],
      },
      limit: 10,
    });
    const result = run(tables, 1);
    expect(eventsOf(result.log, 'death')).toHaveLength(3);
    const row: Row = rowOf({ compiled: tables, run: result });
    // Three deaths at 5 each, 7 given and 2.5 taken; all killed by the first member, all of one wave.
    expect(row.score).toBe(19.5);
    expect(row.scores).toEqual([15, 0]);
    expect(row.waves[0].score).toBe(15);
  });
});
