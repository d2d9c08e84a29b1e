import { describe, expect, test } from '@jest/globals';
import { BODY_LIMITS, checkAddress, checkBody, withoutControls } from './body';

const check = (text: string) => {
  try {
    checkBody(Buffer.from(text));
    return 'taken';
  } catch (error) {
    return (error as { body: { detail: string } }).body.detail;
  }
};
const { depth, fields, items, text } = BODY_LIMITS;

describe('a body before it is read', () => {
  test('is taken up to each limit and refused past it, with the limit and the place', () => {
    expect(check('['.repeat(depth) + ']'.repeat(depth))).toBe('taken');
    expect(check('['.repeat(depth + 1))).toBe(`lists and objects may lie ${depth} deep in one another: at byte ${depth} they lie deeper`);
    expect(check(JSON.stringify(Array(items).fill(0)))).toBe('taken');
    expect(check(JSON.stringify(Array(items + 1).fill(0)))).toMatch(`a list may have ${items} items: at byte `);
    const object = (n: number) => JSON.stringify(Object.fromEntries(Array.from({ length: n }, (_, i) => [`k${i}`, i])));
    expect(check(object(fields))).toBe('taken');
    expect(check(object(fields + 1))).toMatch(`an object may have ${fields} fields: at byte `);
    expect(check(JSON.stringify('x'.repeat(text - 1)))).toBe('taken');
    expect(check(JSON.stringify('x'.repeat(text + 1)))).toMatch(`a text may be ${text} bytes long: the one at byte 0`);
  });

  test('what stands in texts counts for nothing', () => {
    expect(check(JSON.stringify(['[[[{{{,,,"\\'.repeat(3000), '\\"', '"'.repeat(500)]))).toBe('taken');
    expect(check('"\\\\"')).toBe('taken');
    expect(check('"never ends')).toBe('taken'); // the parser says so
  });
});

test('control characters and halves of characters are refused, in keys too; line breaks are not', () => {
  for (const wrong of ['a\u0000', { 'k\u0001': 1 }, [{ a: ['\u007f'] }], '\ud800', { '\udc00': 1 }])
    expect(() => withoutControls(wrong)).toThrow();
  for (const right of ['a\nb\tc\r', '😀', { 'ä ü': ['—', null, 3, true] }, undefined]) expect(() => withoutControls(right)).not.toThrow();
});

test('an address has no control characters, and each question once', () => {
  const tried =
    (path: string, query: Record<string, unknown> = {}) =>
    () =>
      checkAddress(path, query);
  for (const right of [tried('/api/projects/a%20b'), tried('/x', { cell: 'a|b', measure: ['won', 'dose'] })]) expect(right).not.toThrow();
  for (const wrong of [
    tried('/a%00'),
    tried('/a%'),
    tried('/a%ff'),
    tried('/x', { label: ['a', 'b'] }),
    tried('/x', { label: '\u0000' }),
    tried('/x', { a: { b: 'c' } }),
  ])
    expect(wrong).toThrow();
});
