import { describe, expect, test } from '@jest/globals';
import { dummy, eventsOf, fought, unit } from '../../testing/builders';
import { type Loose, once, against } from '../../testing/duels';

describe('damage, in its order', () => {
  const dealt = (attack: Loose, target: Loose) =>
    eventsOf(fought(against(once('bolt', { effects: { damage: { amount: 20 } }, ...attack }), target)).log, 'hit')[0];

  test('resistance by type, then armour, then least damage', () => {
    const resist = [{ id: 'spore', share: 0.5 }];
    const spore = { effects: { damage: { amount: 20, type: 'spore' } } };
    expect(dealt(spore, { armour: { flat: 4, resist } }).c).toBe(6); // 20 × 0.5 − 4
    expect(dealt({}, { armour: { flat: 4, resist } }).c).toBe(16); // another type: armour only
    expect(dealt(spore, { armour: { flat: 50, resist, minimumDamage: 3 } }).c).toBe(3);
    expect(dealt(spore, { armour: { minimumDamage: 3, resist: [{ id: 'spore', share: 1 }] } }).c).toBe(0); // wholly resisted
    expect(dealt(spore, { armour: { resist: [{ id: 'spore', share: -0.5 }] } }).c).toBe(30); // weak to it
  });

  test('a guarded arc counts from ahead only', () => {
    const guard = { armour: { flat: 15, arc: 120 }, temper: { manner: 'passive' } }; // it does not turn
    const facing = (degrees: number) =>
      eventsOf(
        fought(against(once('bolt', { effects: { damage: { amount: 20 } } }), guard, { partyAt: { x: 0, y: 0, facing: degrees } })).log,
        'hit',
      )[0].c;
    expect([facing(0), facing(59), facing(61), facing(180)]).toEqual([5, 5, 20, 20]);
  });

  test('a weak point multiplies, or kills outright, where it is exposed', () => {
    const aimed = { aim: { weakPointShare: 1 } };
    expect(dealt(aimed, { weakPoint: { multiplier: 3 } }).c).toBe(60);
    expect(dealt({}, { weakPoint: { multiplier: 3 } }).c).toBe(20); // nobody aims at it
    expect(dealt(aimed, { weakPoint: { multiplier: 3, exposed: 'unshielded' }, shield: { max: 5 } }).c).toBe(20);
    expect(dealt(aimed, { weakPoint: { multiplier: 3, exposed: 'staggered' } }).c).toBe(20);
    expect(dealt(aimed, { weakPoint: { lethal: true }, shield: { max: 30 } })).toMatchObject({ a: 100, b: 0, c: 130, d: 30 });
  });

  test('a gate that lies above its health already gives none: damage never heals', () => {
    const raise = {
      id: 'raise',
      delivery: 'support',
      targets: 'fallen',
      range: { min: 0, max: 30 },
      beat: { windup: 0.1, cooldown: 600 },
      effects: { revive: { amount: 10 } },
    };
    const frail = {
      health: { max: 100, gates: [{ id: 'g', share: 0.5, state: 'b', holds: true }] },
      weakPoint: { lethal: true },
      onDeath: { revivableFor: 9, revivals: 1 },
      states: [
        { id: 'a', name: 'A', does: 'hold' },
        { id: 'b', name: 'B', does: 'hold' },
      ],
    };
    // Killed outright past its gate, it comes back with 10: the next hits of 4 take what they are.
    const finish = once('finish', { aim: { weakPointShare: 1 }, effects: { damage: { amount: 1 } } });
    const beat = { windup: 0.6, cooldown: 1 };
    const prick = { id: 'prick', range: { min: 0, max: 30 }, delivery: 'hitscan', beat, effects: { damage: { amount: 4 } } };
    const biter = unit({
      id: 'clipper',
      attacks: [finish, prick],
      targeting: { only: { units: ['warden'] } },
      choice: { priorities: [{ entries: [{ attack: 'finish' }] }, { entries: [{ attack: 'prick' }] }] },
    });
    const medic = unit({ id: 'medic', side: 'party', attacks: [raise] });
    const { log } = fought({ party: [dummy('warden', 100, frail), medic], enemies: [{ unit: biter, x: 4 }], limit: 3 });
    const taken = eventsOf(log, 'hit').map(({ a, b }) => [a, b]);
    expect(taken.slice(0, 3)).toEqual([
      [100, 0],
      [4, 0],
      [4, 0],
    ]);
  });

  test('a lent shield goes first, then the unit’s own, then health', () => {
    const medic = unit({
      id: 'medic',
      side: 'party',
      attacks: [
        {
          id: 'ward',
          delivery: 'support',
          targets: 'friends',
          range: { min: 0, max: 30 },
          beat: { windup: 0.05, cooldown: 600 },
          effects: { shield: { amount: 8, for: 3 } },
        },
      ],
    });
    const hit = once('bolt', { beat: { windup: 0.5, cooldown: 600 }, effects: { damage: { amount: 20 } } });
    const sketch = {
      ...against(hit, { shield: { max: 5 } }),
      party: [dummy('warden', 100, { shield: { max: 5 } }), medic],
      partyAt: { x: 0, y: 0, facing: 0 },
    };
    const { log } = fought({
      ...sketch,
      enemies: [{ unit: unit({ id: 'clipper', attacks: [hit], targeting: { only: { units: ['warden'] } } }), x: 6 }],
    });
    expect(eventsOf(log, 'hit')[0]).toMatchObject({ a: 7, d: 13, c: 20 });
    // After its time it lends nothing.
    const late = once('bolt', { beat: { windup: 4, cooldown: 600 }, effects: { damage: { amount: 20 } } });
    const after = fought({
      ...sketch,
      enemies: [{ unit: unit({ id: 'clipper', attacks: [late], targeting: { only: { units: ['warden'] } } }), x: 6 }],
    });
    expect(eventsOf(after.log, 'hit')[0]).toMatchObject({ a: 15, d: 5 });
  });

  test('a gate that holds stops damage until its state has come; one that does not is passed, and said', () => {
    const gated = (holds: boolean) =>
      against(once('bolt', { beat: { windup: 0.1, cooldown: 0.4 }, effects: { damage: { amount: 70 } } }), {
        health: { max: 100, gates: [{ id: 'half', share: 0.5, state: 'second', holds }] },
        states: [
          {
            id: 'first',
            name: 'first',
            does: 'hold',
            leaves: [{ when: { subject: 'healthShare', is: 'below', value: 0.51 }, to: 'second' }],
          },
          { id: 'second', name: 'second', does: 'hold' },
        ],
      });
    const held = eventsOf(fought(gated(true)).log, 'hit');
    expect(held.slice(0, 2).map(({ a, b }) => [a, b])).toEqual([
      [50, 20], // stopped at 50
      [50, 20], // its state has come meanwhile: this one kills
    ]);
    expect(eventsOf(fought(gated(true)).log, 'gate')).toMatchObject([{ a: 0 }]);
    const free = fought(gated(false)).log;
    expect(
      eventsOf(free, 'hit')
        .slice(0, 2)
        .map(({ a }) => a),
    ).toEqual([70, 30]);
    const skipping = gated(false);
    (skipping.party[0] as { states: Loose[] }).states[0].leaves = [
      { when: { subject: 'healthShare', is: 'below', value: 0.35 }, to: 'third' },
    ];
    (skipping.party[0] as { states: Loose[] }).states.push({ id: 'third', name: 'third', does: 'hold' });
    (skipping.party[0] as { health: { gates: Loose[] } }).health.gates.push({ id: 'third-gate', share: 0.4, state: 'third', holds: false });
    expect(eventsOf(fought(skipping).log, 'gate')).toMatchObject([{ what: 0, a: 1 }]);
  });

  test('an invulnerable state takes no damage and says so', () => {
    const { log } = fought(
      against(once('bolt', { effects: { damage: { amount: 5 }, overTime: { amount: 1, every: 1, for: 3 } } }), {
        states: [{ id: 's', name: 's', does: 'hold', invulnerable: true }],
      }),
    );
    expect(eventsOf(log, 'blocked')).toHaveLength(1);
    expect([...eventsOf(log, 'hit'), ...eventsOf(log, 'tick')]).toEqual([]);
  });

  test('a marked unit takes more for as long as the mark lasts; of two the stronger counts', () => {
    const marker = (id: string, multiplier: number, lasts: number) => ({
      unit: unit({ id, attacks: [once('mark', { beat: { windup: 0.05, cooldown: 600 }, effects: { mark: { multiplier, for: lasts } } })] }),
      x: 5,
      y: 1,
    });
    const gun = {
      unit: unit({ id: 'gun', attacks: [once('bolt', { beat: { windup: 1, cooldown: 1 }, effects: { damage: { amount: 10 } } })] }),
      x: 5,
    };
    const { log } = fought({ party: [dummy('warden', 1e4)], enemies: [gun, marker('a', 1.5, 5.5), marker('b', 2, 2.5)], limit: 8 });
    expect(
      eventsOf(log, 'hit')
        .filter(({ c }) => c > 0)
        .slice(0, 7)
        .map(({ c }) => c),
    ).toEqual([20, 20, 15, 15, 15, 10, 10]);
  });

  test('drain takes energy, no more than there is', () => {
    const { log } = fought(against(once('sap', { effects: { drain: { amount: 30 } } }), { energy: { max: 40, start: 12 } }));
    expect(eventsOf(log, 'drain')[0].a).toBe(12);
  });
});
