import { describe, expect, test } from '@jest/globals';
import { type FightSketch, dummy, eventsOf, fought, unit } from '../testing/builders';
import { type Loose, against, once } from '../testing/duels';

const bolt = (amount: number, beat: Loose = {}, more: Loose = {}) =>
  once('bolt', { beat: { windup: 0.1, cooldown: 600, ...beat }, effects: { damage: { amount } }, ...more });
const ONLY_WARDEN = { only: { units: ['warden'] } };
/** Each goes for the warden alone. */
const enemies = (...attacks: Loose[][]) =>
  attacks.map((all, i) => ({ unit: unit({ id: `clipper-${i}`, attacks: all as { id: string }[], targeting: ONLY_WARDEN }), x: 4, y: i }));
const hits = (sketch: FightSketch) => eventsOf(fought(sketch).log, 'hit');

describe('windows of invulnerability', () => {
  // Keys of "same attacker" and of "same attack" were numbers of one map, and met for some pairs of units.
  test('a window of one unit holds for no other, whatever the scopes of both', () => {
    for (const [scopeA, scopeB] of [
      ['attacker', 'attack'],
      ['attack', 'attacker'],
      ['attack', 'attack'],
      ['attacker', 'attacker'],
    ]) {
      for (let count = 1; count <= 5; count++) {
        const victims = Array.from({ length: 2 }, (_, i) =>
          dummy(`victim-${i}`, 1e5, { invulnerability: i ? { duration: 0.01, scope: scopeB } : { duration: 5, scope: scopeA } }),
        );
        const spray = unit({
          id: 'clipper',
          attacks: ['one', 'two', 'three'].map((id) => ({
            id,
            delivery: 'area',
            area: { about: 'self', radius: 30 },
            range: { min: 0, max: 30 },
            beat: { windup: 0.1, cooldown: 0.4 },
            effects: { damage: { amount: 1 } },
          })),
        });
        const { log } = fought({ party: victims, enemies: [{ unit: spray, count, x: 4, scatter: 2 }], limit: 3 });
        // What comes later than 0.01 s after the last hit of its kind is never stopped at the one with the short window.
        const last = new Map<string, number>();
        const wrong: unknown[] = [];
        for (let i = 0; i < log.length; i++) {
          const key = `${log.actor[i]} ${scopeB === 'attack' ? log.what[i] : ''}`;
          const { time, victim, what } = { time: log.time[i], victim: log.other[i], what: log.kind[i] };
          if (victim !== 1) continue;
          if (what === 6) last.set(key, time);
          if (what === 8 && !(time - (last.get(key) ?? -Infinity) < 10_000)) wrong.push({ time, key });
        }
        expect(wrong).toEqual([]);
      }
    }
  });

  test('by scope: any hit, the same attacker, the same attack of it', () => {
    const counted = (scope: string) => {
      const two = (i: number) => [
        { ...bolt(1, { windup: 0.1, cooldown: 0.2 }), id: `a${i}` },
        { ...bolt(1, { windup: 0.1, cooldown: 0.2 }), id: `b${i}` },
      ];
      return hits({
        party: [dummy('warden', 100, { invulnerability: { duration: 5, scope } })],
        enemies: enemies(two(0), two(1)),
        limit: 4,
      }).length;
    };
    expect([counted('any'), counted('attacker'), counted('attack')]).toEqual([1, 2, 4]);
  });

  test('a unit whose state takes its window away is struck again at once, whatever is open', () => {
    const states = [
      { id: 'shelled', name: 'Shelled', does: 'hold', leaves: [{ when: { subject: 'clock', is: 'above', value: 1 }, to: 'bare' }] },
      { id: 'bare', name: 'Bare', does: 'hold', tweaks: [{ path: '/invulnerability/duration', op: '=', value: 0 }] },
    ];
    // It is struck at 0.1, 0.3, 0.5 …: the first hit opens 5 s, and at 1.05 s it is bare.
    const times = hits({
      party: [dummy('warden', 100, { invulnerability: { duration: 5 }, states })],
      enemies: enemies([bolt(1, { cooldown: 0.2 })]),
      limit: 2,
    }).map(({ time }) => time);
    expect(times).toEqual([0.1, 1.1, 1.3, 1.5, 1.7, 1.9]);
  });

  test('a revived unit has no window left, whatever its scope', () => {
    for (const scope of ['any', 'attacker', 'attack']) {
      const medic = unit({
        id: 'medic',
        side: 'party',
        attacks: [
          {
            id: 'raise',
            delivery: 'support',
            targets: 'fallen',
            range: { min: 0, max: 30 },
            beat: { windup: 0.1, cooldown: 600 },
            effects: { revive: { amount: 10 } },
          },
        ],
      });
      // Hits at 0.1 (dead), 0.2 raised, 0.9.
      const { log } = fought({
        party: [dummy('warden', 10, { invulnerability: { duration: 5, scope }, onDeath: { revivableFor: 9, revivals: 1 } }), medic],
        enemies: [{ unit: unit({ id: 'clipper', attacks: [bolt(20, { cooldown: 0.8 })], targeting: ONLY_WARDEN }), x: 4 }],
        limit: 2,
      });
      expect([scope, eventsOf(log, 'death').filter(({ actor }) => actor === 0).length]).toEqual([scope, 2]);
    }
  });
});

/** A medic beside a dummy, who lends it one shield at 0.1 s and another at 0.2 s, and what hits it. */
const lent = (first: Loose, second: Loose, ...bolts: Loose[][]): FightSketch => {
  const ward = (id: string, shield: Loose) => ({
    id,
    delivery: 'support',
    targets: 'friends',
    range: { min: 0, max: 30 },
    beat: { windup: 0.1, cooldown: 600 },
    effects: { shield },
  });
  const medic = unit({
    id: 'medic',
    side: 'party',
    attacks: [ward('one', first), ward('two', second)],
    choice: { priorities: [{ entries: [{ attack: 'one' }] }, { entries: [{ attack: 'two' }] }] },
  });
  return { party: [dummy('warden', 100), medic], enemies: enemies(...bolts), limit: 6 };
};

describe('lent shields add up; the one that ends first is used first', () => {
  const absorbed = (sketch: FightSketch) =>
    hits(sketch)
      .filter(({ other }) => other === 0)
      .map(({ d }) => d);
  const at = (windup: number, amount: number) => [bolt(amount, { windup })];

  test('20 and 10 lent: 30 absorbed, whoever lent first', () => {
    for (const [a, b] of [
      [20, 10],
      [10, 20],
    ])
      expect(absorbed(lent({ amount: a, for: 5 }, { amount: b, for: 5 }, at(1, 40)))).toEqual([30]);
  });

  test('5 of the first to end are used: when it has ended the other is whole', () => {
    // 20 for 4 s (to 4.1), 10 for 1 s (to 1.2): a hit of 5 at 1 takes it from the 10; at 2 a hit of 50 meets 20.
    expect(absorbed(lent({ amount: 20, for: 4 }, { amount: 10, for: 1 }, at(1, 5), at(2, 50)))).toEqual([5, 20]);
    // The other way round: 10 for 4 s, 20 for 1 s (to 1.2): 5 and then 10.
    expect(absorbed(lent({ amount: 10, for: 4 }, { amount: 20, for: 1 }, at(1, 5), at(2, 50)))).toEqual([5, 10]);
  });

  test('one after another in one hit and over several', () => {
    expect(absorbed(lent({ amount: 20, for: 4 }, { amount: 10, for: 3 }, at(1, 12), at(2, 12), at(2.5, 12)))).toEqual([12, 12, 6]);
    // The 10 are used up by 12 at 1 s, with 2 of the 20; from 3.2 s on nothing else ends before the 18 do.
    expect(absorbed(lent({ amount: 20, for: 4 }, { amount: 10, for: 3 }, at(1, 12), at(3.5, 50)))).toEqual([12, 18]);
  });

  test('of two that end together the older goes first, which shows in nothing but their sum', () => {
    expect(absorbed(lent({ amount: 7, for: 3.1 }, { amount: 9, for: 3 }, at(1, 8), at(2, 50)))).toEqual([8, 8]);
  });
});

describe('damage over time lasts [t, t + for]', () => {
  const ticks = (overTime: Loose, every: number, more: Loose = {}, limit = 8) =>
    eventsOf(
      fought(
        against(
          { ...once('spit', { beat: { windup: 0, recovery: 0.01, cooldown: every } }), effects: { overTime } },
          {},
          { limit, ...more },
        ),
      ).log,
      'tick',
    ).map(({ time }) => time);

  test('every 1 for 1.5, left again each 1.2: ticks at 1, 2, 3, 4, 5', () => {
    expect(ticks({ amount: 1, every: 1, for: 1.5, stacking: 'refresh' }, 1.2, {}, 5.5)).toEqual([1, 2, 3, 4, 5]);
  });

  test('an effect that is shorter than its first tick lasts all the same', () => {
    // 0.8 from 0, 0.5, 1 …: never over, so ticks at 1, 2, 3.
    expect(ticks({ amount: 1, every: 1, for: 0.8, stacking: 'refresh' }, 0.5, {}, 3.5)).toEqual([1, 2, 3]);
    // Left again only after its end: a new one each time, and none lives to its tick.
    expect(ticks({ amount: 1, every: 1, for: 0.8, stacking: 'refresh' }, 0.9, {}, 3.5)).toEqual([]);
    // Left again in the very instant of its end: it lasts still, and keeps its phase.
    expect(ticks({ amount: 1, every: 1, for: 0.8, stacking: 'refresh' }, 0.8, {}, 3.5)).toEqual([1, 2, 3]);
  });

  test('ignore: nothing is left while one lasts, also after its last tick', () => {
    // One from 0 to 1.5 ticks at 1; hits at 0.6, 1.2 are ignored, that at 1.8 leaves the next: 2.8.
    expect(ticks({ amount: 1, every: 1, for: 1.5, stacking: 'ignore' }, 0.6, {}, 3.5)).toEqual([1, 2.8]);
  });

  test('stack: each has its own end', () => {
    expect(ticks({ amount: 1, every: 1, for: 1.5, stacking: 'stack' }, 1.2, {}, 4)).toEqual([1, 2.2, 3.4]);
  });
});

describe('at one instant', () => {
  const medicAt = (windup: number, amount = 50) =>
    unit({
      id: 'medic',
      side: 'party',
      attacks: [
        {
          id: 'mend',
          delivery: 'support',
          targets: 'friends',
          range: { min: 0, max: 30 },
          beat: { windup, cooldown: 600 },
          effects: { heal: { amount } },
        },
      ],
    });
  /** A spit at 0.1 leaves 60 at 1.1; a medic's help is due at the same 1.1. */
  const spit = once('spit', {
    beat: { windup: 0.1, cooldown: 600 },
    effects: { damage: { amount: 1 }, overTime: { amount: 60, every: 1, for: 1 } },
  });
  const sketch = (...more: Loose[][]): FightSketch => ({
    party: [dummy('warden', 50), medicAt(1)],
    enemies: enemies([spit], ...more).map((one, i) => ({ ...one, x: 4, y: i * 2 })),
    limit: 3,
  });
  const fates = (log: ReturnType<typeof fought>['log']) => ({
    ticks: eventsOf(log, 'tick').map(({ time, a, b }) => [time, a, b]),
    heals: eventsOf(log, 'heal').map(({ time, a }) => [time, a]),
    deaths: eventsOf(log, 'death').map(({ time, actor, other }) => [time, actor, other]),
  });

  test('help that lands with the tick that took the last health saves', () => {
    const { log } = fought(sketch());
    expect(fates(log)).toEqual({ ticks: [[1.1, 49, 11]], heals: [[1.1, 50]], deaths: [] });
  });

  test('a hit of the same instant that takes what help gave is what killed', () => {
    // Both wind up for 1.1 s: the hit lands at 1.1 too, after the help, and takes all 50.
    const { log } = fought(sketch([{ ...bolt(50, { windup: 1.1 }), id: 'late' }]));
    expect(fates(log)).toEqual({ ticks: [[1.1, 49, 11]], heals: [[1.1, 50]], deaths: [[1.1, 0, 3]] });
  });

  test('help that comes a microsecond later helps nobody', () => {
    const { log } = fought({ ...sketch(), party: [dummy('warden', 50), medicAt(1.000001)] });
    expect(fates(log)).toMatchObject({ heals: [], deaths: [[1.1, 0, 2]] });
  });
});
