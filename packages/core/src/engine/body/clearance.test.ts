import { expect, test } from '@jest/globals';
import { Clearance } from './clearance';

test('a place outside counts to the nearest cell, on every side', () => {
  const empty = new Clearance(4, 3, 1, []);
  expect([empty.columns, empty.rows]).toEqual([8, 6]);
  expect(empty.cellAt(-3.5, -2.5)).toBe(0);
  expect(empty.cellAt(-99, -99)).toBe(0);
  expect(empty.cellAt(-99, 99)).toBe(5 * 8);
  expect(empty.cellAt(99, -99)).toBe(7);
  expect(empty.cellAt(99, 99)).toBe(5 * 8 + 7);
});
