import { expect, test } from '@jest/globals';
import { csvCell, csvRow } from './csv';

test('no text is run as a formula, whatever it begins with; numbers stay numbers', () => {
  for (const text of [
    '=1+1',
    '+1',
    '-1',
    '@sum',
    '\t=1',
    '\r=1',
    '\n=1',
    '\u0000=',
    '\u001b',
    '\u007f',
    '\u0085',
    '＝1',
    '＋',
    '－',
    '＠',
  ]) {
    expect(csvCell(text)).toBe(`'${text}`);
  }
  for (const kept of ['', 'Clipper', ' =1', '1-2', '∞', '−1', -1.5, 0, -Infinity, undefined, null]) expect(csvCell(kept)).toBe(kept);
  expect(csvRow({ '=a': '=b', n: -2 })).toEqual({ "'=a": "'=b", n: -2 });
});
