import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addCell, both, emptySet, findCell, hasCell, isEmpty, listOf, removeCell, setOf } from './cell-sets';

const COUNT = 150;
const numbers = fc.uniqueArray(fc.nat(COUNT - 1), { maxLength: 60 });

test('sets of cells hold what lists of numbers hold', () => {
  fc.assert(
    fc.property(numbers, numbers, (a, b) => {
      const [one, other] = [setOf(COUNT, a), setOf(COUNT, b)];
      const sorted = (list: number[]) => [...list].sort((x, y) => x - y);
      expect(listOf(one)).toEqual(sorted(a));
      expect(isEmpty(one)).toBe(a.length === 0);
      expect(listOf(both(one, other, emptySet(COUNT)))).toEqual(sorted(a.filter((cell) => b.includes(cell))));
      expect(findCell(one, (cell) => b.includes(cell))).toBe(sorted(a).find((cell) => b.includes(cell)) ?? -1);
      for (const cell of b) {
        addCell(one, cell);
        expect(hasCell(one, cell)).toBe(true);
        removeCell(one, cell);
        expect(hasCell(one, cell)).toBe(false);
      }
      expect(listOf(one)).toEqual(sorted(a.filter((cell) => !b.includes(cell))));
      expect(hasCell(one, -1)).toBe(false);
    }),
    { numRuns: 500 },
  );
});
