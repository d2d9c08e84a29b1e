import { describe, expect, test } from '@jest/globals';
import { summarise, timeUseWords } from '@insidia/core';
import { changeSentence, inPercent, survivalSentence } from './words';

const summary = (values: number[]) => summarise(values)!;
const many = (value: number) => Array.from({ length: 40 }, (_, i) => value + (i % 5) * 0.1);

describe('the sentence beneath a measure', () => {
  test('says what it was, by how much it changed, and how sure it is', () => {
    const change = { difference: -2.9, low: -3.5, high: -2.3, visible: true };
    expect(changeSentence({ summary: summary(many(23.9)), before: summary(many(26.8)), change }, 1)).toBe(
      'before 27.0, changed by −2.9 (−3.5 to −2.3); interval 24.0–24.2',
    );
  });

  test('does not make much of what can’t be told apart', () => {
    const change = { difference: 0.1, low: -0.2, high: 0.3, visible: false };
    const measured = { summary: summary(many(5)), before: summary(many(5)), change };
    expect(changeSentence(measured, 1)).toContain('no visible change');
    expect(changeSentence({ ...measured, tooFew: true }, 1)).toContain('too few runs to tell');
    expect(changeSentence({ ...measured, change: { difference: 0, low: 0, high: 0, visible: false }, tooFew: true }, 1)).toContain(
      ', the same',
    );
  });

  test('is the same of a share, in percent', () => {
    const change = { difference: -0.029, low: -0.035, high: -0.023, visible: true };
    const share = (of: number) => summary(many(of).map((value) => value / 100));
    expect(changeSentence(inPercent({ summary: share(23.9), before: share(26.8), change }), 1)).toBe(
      'before 27.0, changed by −2.9 (−3.5 to −2.3); interval 24.0–24.2',
    );
  });

  test('has no interval for a median that never comes, and says so of the one before', () => {
    const never = summary([Infinity, Infinity, 3]);
    expect(changeSentence({ summary: never }, 1)).toBe('');
    expect(changeSentence({ summary: summary(many(4)), before: never }, 1)).toMatch(/^before never; interval/);
    expect(survivalSentence(never, 'Warden stands')).toBe('Warden stands in 67 % of runs');
  });

  test('is empty for a measure that no run has', () => {
    expect(changeSentence({}, 1)).toBe('');
    expect(timeUseWords('range')).toBe('out of range');
  });
});
