import { expect, test } from '@jest/globals';
import { RANKED_BY_DOSE } from '@insidia/core';
import { rankFrom, rankText } from './rankBy';

test('what tiers are ranked by is read from the address; what is no measure or weight is left out', () => {
  expect(rankFrom(null)).toEqual(RANKED_BY_DOSE);
  expect(rankFrom('won')).toEqual([{ measure: 'won', weight: 1 }]);
  expect(rankFrom('dose:2,won:0.5,dose:9')).toEqual([
    { measure: 'dose', weight: 2 },
    { measure: 'won', weight: 0.5 },
  ]);
  expect(rankFrom('nonsense:1,won:-1,won:x')).toEqual(RANKED_BY_DOSE);
});

test('and written back: the usual one without a word', () => {
  expect(rankText(RANKED_BY_DOSE)).toBeUndefined();
  for (const text of ['won', 'dose:2,won:0.5']) expect(rankText(rankFrom(text))).toBe(text);
});
