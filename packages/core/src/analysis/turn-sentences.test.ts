/** Attacks, conditions and waves of fights in turns read aloud; what says nothing of turns is read in seconds. */
import { describe, expect, test } from '@jest/globals';
import { Attack } from '../model/attack';
import { blank } from '../model/blank';
import { Condition, SUBJECT_NAMES, conditionSentence } from '../model/condition';
import type { Delivery } from '../model/delivery';
import { Encounter, Repeat, Wave } from '../model/encounter';
import { AttackRounds, RepeatRounds, WaveRounds } from '../model/rounds';
import { attackSentence } from './attack-sentence';
import { waveSentence } from './wave-sentence';

const attack = (delivery: Delivery, rounds: Partial<AttackRounds>, more: object = {}): Attack =>
  ({ ...blank(Attack), id: 'a', name: 'A', delivery, rounds: { ...blank(AttackRounds), ...rounds }, ...more }) as Attack;
const read = (one: Attack) => attackSentence(one, (unit) => unit, 'rounds');

describe('an attack', () => {
  test.each<[string, Attack]>([
    ['strikes within 1 cell in an arc of 90°', attack('melee', {})],
    ['strikes at 2–4 cells in an arc of 360°', attack('melee', { from: 2, to: 4 }, { arc: 360 })],
    ['prepares, 2 turns later strikes within 1 cell in an arc of 90°', attack('melee', { windup: 2 })],
    ['prepares, 1 turn later lunges up to 3 cells, strikes within 1 cell in an arc of 90°', attack('melee', { windup: 1, lunge: 3 })],
    ['lunges up to 1 cell, strikes three times within 1 cell in an arc of 90°', attack('melee', { hits: 3, lunge: 1 })],
    [
      'bursts in a circle of 2 cells about itself, begun within 5 cells, then recovers 1 turn and may come again 4 turns later',
      attack('area', { to: 5, radius: 2, recovery: 1, cooldown: 4 }, { area: { about: 'self', radius: 9, angle: 360, delay: 0 } }),
    ],
    [
      'bursts in a cone of 1 cell and 60° at a marked point, 2 turns after the mark, begun within 5 cells',
      attack('area', { to: 5, radius: 1, delay: 2 }, { area: { about: 'mark', radius: 9, angle: 60, delay: 0.5 } }),
    ],
    [
      'strikes within 1 cell in an arc of 90°; costs 5 energy; two charges, one back every 3 turns',
      attack('melee', { recharge: 3 }, { energy: 5, charges: { count: 2, reload: 9 } }),
    ],
  ])('%s', (sentence, one) => expect(read(one)).toBe(sentence));

  test('its effects last turns', () => {
    const one = attack(
      'melee',
      { hits: 2 },
      {
        effects: {
          damage: { amount: 5, spread: 1 },
          overTime: { amount: 2, every: 9, for: 9, rounds: { every: 1, for: 3 } },
          slow: { share: 0.5, for: 9, rounds: { for: 1 } },
          stagger: { for: 9, rounds: { for: 2 } },
          knockback: { distance: 9, rounds: { cells: 1 } },
        },
      },
    );
    const sentence = read(one);
    for (const part of ['5 ± 1 hp each', '2 every turn for 3 turns', 'slows by 50 % for 1 turn', 'staggers 2 turns', 'knocks back 1 cell'])
      expect(sentence).toContain(part);
    expect(sentence).not.toMatch(/\d m\b|\d s\b/);
  });

  test('that says nothing of turns is read in seconds, whatever the clock', () => {
    const one = { ...blank(Attack), id: 'a', name: 'A', delivery: 'melee' as const };
    expect(attackSentence(one, (unit) => unit, 'rounds')).toBe(attackSentence(one));
    // And one that does is read in seconds where its fight goes by them.
    expect(attackSentence(attack('melee', { windup: 2 }))).toBe(attackSentence(one));
  });
});

describe('a condition', () => {
  const condition = (more: Partial<Condition>): Condition => ({ ...blank(Condition), ...more }) as Condition;
  test.each<[string, string, Partial<Condition>]>([
    ['the distance to its target is below 3 cells', 'the distance to its target is below 9 m', { subject: 'distance', is: 'below' }],
    [
      'the time since it last began an attack is above 3 turns',
      'the time since it last began an attack is above 9 s',
      { subject: 'sinceAttack', is: 'above' },
    ],
    ['the clock is above 3 rounds', 'the clock is above 9 s', { subject: 'clock', is: 'above' }],
  ])('%s', (inTurns, inSeconds, more) => {
    const one = condition({ ...more, value: 9, rounds: { value: 3, within: 0 } });
    expect(conditionSentence(one, 'rounds')).toBe(inTurns);
    expect(conditionSentence(one)).toBe(inSeconds);
  });

  test('looks so many cells around or turns back; what it counts is no time', () => {
    const rounds = { value: 7, within: 1 };
    const around = condition({ subject: 'friends', is: 'above', value: 2, within: 9, rounds });
    expect(conditionSentence(around, 'rounds')).toBe('the number of friends within 1 cell is above 2');
    const back = condition({ subject: 'damageTaken', is: 'above', value: 20, within: 9, rounds: { value: 7, within: 2 } });
    expect(conditionSentence(back, 'rounds')).toBe('the damage taken in the last 2 turns is above 20 hp');
  });

  test('joined ones are read by the clock all through', () => {
    const near = condition({ subject: 'distance', is: 'below', value: 9, rounds: { value: 1, within: 0 } });
    const late = condition({ subject: 'timeInState', is: 'above', value: 9, rounds: { value: 1, within: 0 } });
    const joined = condition({ subject: 'all', parts: [near, condition({ subject: 'not', parts: [late] })] });
    expect(conditionSentence(joined, 'rounds')).toBe(
      'the distance to its target is below 1 cell and not (the time in this state is above 1 turn)',
    );
  });

  test('no subject is read in metres or seconds in turns', () => {
    for (const subject of SUBJECT_NAMES) {
      const one = condition({ subject, is: 'below', value: 9, within: 9, rounds: { value: 3, within: 3 }, parts: undefined });
      expect(conditionSentence(one, 'rounds')).not.toMatch(/\d (m|s)\b/);
    }
  });
});

describe('a wave', () => {
  const encounter = (...waves: Partial<Wave>[]): Encounter => ({
    ...blank(Encounter),
    clock: 'rounds',
    waves: waves.map((wave, i) => ({ ...blank(Wave), id: `w${i}`, name: `Wave ${i}`, rounds: blank(WaveRounds), ...wave }) as Wave),
  });
  test('starts in a round, waits for rounds, and comes again after rounds', () => {
    const repeat = { ...blank(Repeat), times: 3, pause: 9, rounds: { ...blank(RepeatRounds), pause: 1 } } as Repeat;
    const made = encounter(
      { start: 'clock', at: 99, rounds: { at: 4, delay: 2, timeout: 6 }, timeout: 99 },
      { start: 'defeated', share: 0.5, repeat },
      {
        start: 'condition',
        when: { subject: 'clock', is: 'above', value: 99, rounds: { value: 5, within: 0 } } as Condition,
        rounds: { at: 1, delay: 1 },
      },
    );
    expect(made.waves.map((wave) => waveSentence(made, wave))).toEqual([
      'in round 4, then 2 rounds, at the latest after 6 rounds',
      '50 % of Wave 0 defeated, 3 times, 1 round between',
      'when the clock is above 5 rounds, then 1 round',
    ]);
  });
});
