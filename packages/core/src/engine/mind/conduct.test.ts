/** A boss made of three lines of choice: what stands above is never gone over by what is drawn below. */
import { describe, expect, test } from '@jest/globals';
import { compiled, dummy, eventsOf, unit } from '../../testing/builders';
import { run } from '../run';

const REVIVE = 80;
const weighed = (id: string, amount: number) => ({
  id,
  delivery: 'hitscan',
  range: { min: 0, max: 100 },
  beat: { windup: 0.2, cooldown: 0.1 },
  effects: { damage: { amount } },
});
const atTheWeakest = { criteria: [{ by: 'lowestHealth', weight: 1 }], reconsider: 0, commitment: 0 };
const boss = {
  ...unit({
    id: 'sapwright',
    health: { max: 1e6 },
    energy: { max: 260, start: 260, regen: 0 },
    attacks: [
      {
        id: 'raise',
        delivery: 'support',
        targets: 'fallen',
        range: { min: 0, max: 100 },
        energy: REVIVE,
        beat: { windup: 0.5, cooldown: 0.1 },
        effects: { revive: { share: 1 } },
      },
      {
        id: 'rage',
        delivery: 'self',
        charges: { count: 1, reload: 600 },
        beat: { windup: 1, cooldown: 0.1 },
        effects: { boost: { tweaks: [{ path: '/attacks/*/effects/damage/amount', op: '×', value: 2 }], for: 600 } },
      },
      weighed('claw', 3),
      weighed('spit', 2),
      weighed('slam', 1),
    ],
  }),
  // The whole of its conduct.
  choice: {
    priorities: [
      { entries: [{ attack: 'raise' }] },
      { entries: [{ attack: 'rage' }] },
      {
        entries: [
          { attack: 'claw', weight: 5, targeting: atTheWeakest },
          { attack: 'spit', weight: 3, targeting: atTheWeakest },
          { attack: 'slam', weight: 2, targeting: atTheWeakest },
        ],
      },
    ],
  },
};
const minion = unit({ id: 'clipper', health: { max: 10 }, attacks: [], onDeath: { revivableFor: 600, revivals: 9 } });
/** Strikes minions down, eight times and no more, one each six seconds. */
const hunter = unit({
  id: 'warden',
  side: 'party',
  health: { max: 5e4 },
  attacks: [
    {
      id: 'strike',
      delivery: 'hitscan',
      range: { min: 0, max: 100 },
      beat: { cooldown: 6 },
      charges: { count: 8, reload: 600 },
      effects: { damage: { amount: 10 } },
    },
  ],
  targeting: { never: { units: ['sapwright'] }, reconsider: 0 },
});

describe('a boss that raises while it can pay, else rages once, else strikes the weakest', () => {
  const tables = compiled({
    party: [hunter, dummy('tender', 4.9e4), dummy('lamp', 4.8e4)],
    enemies: [
      { unit: boss, x: 10 },
      { unit: minion, count: 3, x: 20, scatter: 5 },
    ],
    limit: 590,
  });
  const { log } = run(tables, 1);
  const starts = eventsOf(log, 'start').filter(({ actor }) => actor === 3);
  const names = tables.kinds.find(({ id }) => id === 'sapwright')!.attacks.map(({ id }) => id);
  const begun = (id: string) => starts.filter(({ what }) => names[what] === id);

  test('three are raised of 260 energy; it rages once, at the first time that nobody is to be raised', () => {
    expect(begun('raise')).toHaveLength(3);
    expect(begun('rage')).toHaveLength(1);
    const others = starts.filter(({ what }) => what > 1);
    expect(others.every(({ time }) => time > begun('rage')[0].time)).toBe(true);
  });

  test('nothing is drawn while somebody lies there whom it could pay for, nor before its rage', () => {
    const fallen = new Set<number>();
    let energy = 260;
    let raged = false;
    let over = 0;
    const all = (['start', 'death', 'revive'] as const).flatMap((event) => eventsOf(log, event).map((row) => ({ ...row, event })));
    const rows = all.sort((a, b) => a.time - b.time);
    for (const { event, time, actor, other, what } of rows) {
      if (event === 'death') fallen.add(actor);
      if (event === 'revive') fallen.delete(other);
      if (event !== 'start' || actor !== 3) continue;
      const attack = names[what];
      if (attack === 'raise') {
        energy -= REVIVE;
        continue;
      }
      // Whoever falls at the very instant of a draw falls before it or after: that one draw tells nothing.
      const clear = rows.every((one) => one.time !== time || one.event === 'start');
      if (fallen.size > 0 && energy >= REVIVE && clear) over++;
      if (attack === 'rage') raged = true;
      else if (!raged) over++;
    }
    expect(over).toBe(0);
    expect([energy, raged]).toEqual([20, true]);
  });

  test('the three come 5 : 3 : 2, each at whoever has least health left', () => {
    const counts = ['claw', 'spit', 'slam'].map((id) => begun(id).length);
    const all = counts.reduce((sum, n) => sum + n, 0);
    expect(all).toBeGreaterThan(1500);
    // Two degrees of freedom: 13.8 is exceeded once in a thousand.
    expect([5, 3, 2].reduce((sum, weight, i) => sum + (counts[i] - (all * weight) / 10) ** 2 / ((all * weight) / 10), 0)).toBeLessThan(
      13.8,
    );
    const health = [5e4, 4.9e4, 4.8e4];
    const hits = eventsOf(log, 'hit').filter(({ actor }) => actor === 3);
    let next = 0;
    for (const { time, other, what } of starts) {
      while (next < hits.length && hits[next].time <= time) health[hits[next].other] -= hits[next++].a;
      if (what > 1) expect(health[other]).toBe(Math.min(...health));
    }
  });
});
