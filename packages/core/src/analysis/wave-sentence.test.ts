import { expect, test } from '@jest/globals';
import { blank } from '../model/blank';
import { Encounter, Repeat, Wave } from '../model/encounter';
import { waveSentence } from './wave-sentence';

const encounter = (...waves: Partial<Wave>[]): Encounter => ({
  ...blank(Encounter),
  waves: waves.map((wave, i) => ({ ...blank(Wave), id: `w${i}`, name: `Wave ${i}`, ...wave })),
});
const sentence = (made: Encounter, i: number) => waveSentence(made, made.waves[i]);

test('a wave waits for the one that it names, and for the one before it where it names none', () => {
  const made = encounter(
    {},
    {},
    { start: 'defeated', share: 0.75 },
    { start: 'defeated', after: 'w0', delay: 4 },
    { start: 'with', after: 'w1' },
  );
  expect(sentence(made, 2)).toBe('75 % of Wave 1 defeated');
  expect(sentence(made, 3)).toBe('100 % of Wave 0 defeated, then 4 s');
  expect(sentence(made, 4)).toBe('with Wave 1');
  expect(sentence(encounter({ start: 'defeated' }), 0)).toBe('100 % of no wave defeated');
});

test('a time, an event, a condition, at the latest, and how often', () => {
  const repeat = { ...blank(Repeat), times: 3, pause: 5 };
  const made = encounter(
    { start: 'clock', at: 20, timeout: 30 },
    { start: 'called', repeat },
    { start: 'condition', when: { subject: 'enemiesAlive', is: 'below', value: 3 } },
    { repeat: { ...repeat, when: 'every' } },
    { repeat: { ...repeat, times: 1 } },
  );
  expect([0, 1, 2, 3, 4].map((i) => sentence(made, i))).toEqual([
    'at 20 s, at the latest after 30 s',
    'when an event calls it, 3 times, 5 s between',
    'when the number of living enemies is below 3',
    'at once, 3 times',
    'at once',
  ]);
});
