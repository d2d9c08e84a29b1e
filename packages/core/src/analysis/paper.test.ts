import { describe, expect, test } from '@jest/globals';
import { FORMAT_VERSION } from '../model/project';
import { parseProject } from '../model/validate';
import type { Unit } from '../model/unit';
import { dummy, unit } from '../testing/builders';
import { paperAttack, paperDuel } from './paper';

/** Complete units from sketches. */
function units(...sketches: object[]): Unit[] {
  return parseProject({ format: 'insidia-project', version: FORMAT_VERSION, id: 'paper', name: 'Paper', units: sketches }).units;
}

const striker = (attack: object, more: object = {}) => unit({ id: 'clipper', attacks: [{ id: 'bite', ...attack }], ...more });

describe('on paper', () => {
  test('nine hits of 12 each 0.4 s on 100 health take (9 − 1) × 0.4 s', () => {
    const [clipper, warden] = units(
      striker({ beat: { windup: 0.1, cooldown: 0.4 }, effects: { damage: { amount: 12 } } }),
      dummy('warden', 100),
    );
    expect(paperDuel(clipper, warden)).toEqual({
      damagePerSecond: expect.closeTo(30),
      hitsToKill: 9,
      shotsToKill: 9,
      timeToKill: expect.closeTo(3.2),
    });
  });

  test('accuracy 0.4 at half range needs k / p shots; armour and least damage count', () => {
    const [clipper, warden] = units(
      striker({ beat: { cooldown: 1 }, aim: { near: 0.6, far: 0.2 }, effects: { damage: { amount: 12 } } }),
      dummy('warden', 100, { armour: { flat: 2 } }),
    );
    expect(paperDuel(clipper, warden)).toMatchObject({
      hitsToKill: 10,
      shotsToKill: expect.closeTo(25),
      damagePerSecond: expect.closeTo(4),
      timeToKill: expect.closeTo(24),
    });
  });

  test('a cooldown from the end comes after the phases; a pause may be longer than a cooldown', () => {
    const beat = { windup: 0.4, active: 0.9, every: 0.15, recovery: 0.25, cooldown: 0.7, cooldownFrom: 'end' };
    const [sweeper] = units(striker({ beat, hits: { perTarget: 'every' }, effects: { damage: { amount: 1 } } }));
    expect(paperAttack(sweeper.attacks[0], sweeper)).toMatchObject({ hitsPerUse: 6, cycle: expect.closeTo(2.25), damagePerCycle: 6 });
    const [idler] = units(
      striker(
        { beat: { recovery: 0.5, cooldown: 0.6 }, effects: { damage: { amount: 1 } } },
        { choice: { priorities: [{ entries: [{ attack: 'bite' }] }], pause: { min: 1, max: 2 } } },
      ),
    );
    expect(paperAttack(idler.attacks[0], idler).cycle).toBe(2);
  });

  test('damage over time adds its ticks: those before it is renewed, or all where they stack', () => {
    const overTime = (stacking: string) => ({ beat: { cooldown: 2 }, effects: { overTime: { amount: 3, every: 0.8, for: 4, stacking } } });
    const [renewed] = units(striker(overTime('refresh')));
    const [stacked] = units(striker(overTime('stack')));
    expect(paperAttack(renewed.attacks[0], renewed).damagePerCycle).toBeCloseTo((3 * 2) / 0.8, 9);
    expect(paperAttack(stacked.attacks[0], stacked).damagePerCycle).toBe(15);
  });

  test('what nothing gets through is never killed, and who chooses no attack has no paper', () => {
    const [clipper, warden] = units(striker({ effects: { damage: { amount: 1 } } }), dummy('warden', 100, { armour: { flat: 5 } }));
    expect(paperDuel(clipper, warden)?.timeToKill).toBe(Infinity);
    expect(paperDuel(warden, clipper)).toBeUndefined();
  });
});
