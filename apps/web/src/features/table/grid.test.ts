import { describe, expect, test } from '@jest/globals';
import { fromText, numberIn, placed, toText } from './grid';

const at = (row: number, column: number, toRow = row, toColumn = column) => ({ row, column, toRow, toColumn });

describe('what is copied and pasted', () => {
  test('goes out and comes back the same, with holes', () => {
    const text = toText([
      [1, 2.5],
      [undefined, -3],
    ]);
    expect(text).toBe('1\t2.5\n\t-3');
    expect(fromText(text)).toEqual([
      ['1', '2.5'],
      ['', '-3'],
    ]);
    expect(fromText('12\r\n13\r\n')).toEqual([['12'], ['13']]);
  });

  test('one value fills the selection, a column is laid from its first cell, a row is repeated where it fits', () => {
    expect(placed([['7']], at(1, 1, 2, 2), 9, 9).map(({ row, column }) => [row, column])).toEqual([
      [1, 1],
      [1, 2],
      [2, 1],
      [2, 2],
    ]);
    expect(placed([['1'], ['2'], ['3']], at(7, 0), 9, 9)).toEqual([
      { row: 7, column: 0, text: '1' },
      { row: 8, column: 0, text: '2' },
    ]);
    expect(placed([['1', '2']], at(0, 0, 1, 3), 9, 9).map(({ text }) => text)).toEqual(['1', '2', '1', '2', '1', '2', '1', '2']);
    // A selection drawn upwards counts from its upper left cell.
    expect(placed([['7']], at(2, 2, 1, 1), 9, 9)[0]).toMatchObject({ row: 1, column: 1 });
  });

  test.each([
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['2,5', 2.5],
    [' 12 ', 12],
    ['2*1.25', 2.5],
    ['−3', -3],
    ['abc', undefined],
    ['', undefined],
  ])('%s is read as %p', (text, value) => expect(numberIn(text)).toBe(value));
});
