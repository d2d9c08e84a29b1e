import { describe, expect, test } from '@jest/globals';
import { parseProject, valueAt, writtenUnit } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { columnsOf } from './columns';
import {
  areaAt,
  type Asked,
  cellsWords,
  countCells,
  deedOf,
  filledCells,
  filledDown,
  multiplied,
  nextSort,
  pastedCells,
  rowsOf,
  troubles,
  writtenCells,
} from './rows';

const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const all = columnsOf(demo, 'enemy');
const columns = ['/health/max', '/movement/run', '/shield/max'].flatMap((id) => all.find((column) => column.id === id) ?? []);
const asked: Asked = { side: 'enemy', filter: '', sort: null, lens: {}, tier: undefined };
const rows = rowsOf(demo, columns, asked);
const at = (row: number, column: number, toRow = row, toColumn = column) => ({ row, column, toRow, toColumn });
const keys = { ctrlKey: false, metaKey: false, altKey: false };

describe('rows of the table', () => {
  test('are the units of a side whose name or role has the filter in it', () => {
    expect(rows.length).toBe(demo.units.filter(({ side }) => side === 'enemy').length + (demo.variants?.length ?? 0));
    expect(rowsOf(demo, columns, { ...asked, filter: 'MULCH' }).map(({ head }) => head.id)).toEqual(['mulcher']);
    expect(rowsOf(demo, columns, { ...asked, filter: 'swarm' }).every(({ head }) => head.role === 'swarm')).toBe(true);
    expect(rowsOf(demo, columns, { ...asked, side: 'party' }).some(({ head }) => head.id === 'clipper')).toBe(false);
  });

  test('sort by a number both ways; whoever lacks it comes last when it rises', () => {
    const rising = rowsOf(demo, columns, { ...asked, sort: { by: '/shield/max', down: false } }).map(({ cells }) => cells[2].value);
    const firstLacking = rising.findIndex((value) => value === undefined);
    expect(rising.slice(firstLacking).every((value) => value === undefined)).toBe(true);
    const health = rowsOf(demo, columns, { ...asked, sort: { by: '/health/max', down: true } }).map(({ cells }) => cells[0].value!);
    expect(health).toEqual([...health].sort((a, b) => b - a));
    const names = rowsOf(demo, columns, { ...asked, sort: { by: 'name', down: false } }).map(({ head }) => head.name);
    expect(names).toEqual([...names].sort());
    expect(nextSort(null, 'a')).toEqual({ by: 'a', down: false });
    expect(nextSort({ by: 'a', down: false }, 'a')).toEqual({ by: 'a', down: true });
    expect(nextSort({ by: 'a', down: true }, 'a')).toBeNull();
    expect(nextSort({ by: 'a', down: true }, 'b')).toEqual({ by: 'b', down: false });
  });

  test('show what is written, or what the lens makes of it where its tier is edited, and which the lens changes', () => {
    const tier = demo.tiers[demo.tiers.length - 1].id;
    const plain = rowsOf(demo, columns, { ...asked, lens: { tier } });
    const through = rowsOf(demo, columns, { ...asked, lens: { tier }, tier });
    const changed = plain
      .flatMap(({ cells }, r) => cells.map((cell, c) => ({ cell, seen: through[r].cells[c] })))
      .filter(({ cell }) => cell.through);
    expect(changed.length).toBeGreaterThan(0);
    for (const { cell, seen } of changed) {
      expect(seen.value).not.toBe(cell.value);
      expect(cell.chain).toBeDefined();
    }
  });
});

describe('cells of the table', () => {
  test('are written together, or none of them and the first three of what is wrong', () => {
    const good = writtenCells(demo, rows, columns, [{ row: 0, column: 0, value: 77 }], undefined);
    if (!('document' in good)) throw new Error(good.trouble);
    expect(valueAt(writtenUnit(good.document, rows[0].head.id), '/health/max')).toBe(77);
    const bad = writtenCells(
      demo,
      rows,
      columns,
      [
        { row: 0, column: 0, value: 77 },
        { row: 1, column: 0, value: -1 },
      ],
      undefined,
    );
    expect(bad).toHaveProperty('trouble', expect.stringMatching(/^Nothing was changed\. .*−1 must be/));
    expect(troubles('No', ['a', 'b', 'c', 'd', 'e'])).toBe('No. a; b; c and 2 more');
  });

  test('that have the value already change nothing, nor do those without a place', () => {
    const same = rows.map(({ cells }, row) => ({ row, column: 0, value: cells[0].value! }));
    expect(writtenCells(demo, rows, columns, same, undefined)).toEqual({ document: demo });
    const lacking = rows.findIndex(({ cells }) => cells[2].path === undefined);
    expect(writtenCells(demo, rows, columns, [{ row: lacking, column: 2, value: 5 }], undefined)).toEqual({ document: demo });
  });

  test('become the tier’s own where that is edited', () => {
    const tier = demo.tiers[1].id;
    const written = writtenCells(demo, rows, columns, [{ row: 0, column: 0, value: 99 }], tier);
    if (!('document' in written)) throw new Error(written.trouble);
    expect(writtenUnit(written.document, rows[0].head.id).health.max).toBe(rows[0].cells[0].value);
    expect(rowsOf(written.document, columns, { ...asked, lens: { tier }, tier })[0].cells[0].value).toBe(99);
  });

  test('of a selection are counted, with a value or without, within the table', () => {
    expect(countCells(rows.length, 3, at(0, 0, 1, 2))).toBe(6);
    expect(countCells(rows.length, 3, at(1, 2, 0, 0))).toBe(6);
    expect(countCells(0, 3, at(0, 0))).toBe(0);
    expect(filledCells(rows, 3, at(0, 0, 1, 2)).every(({ value }) => value !== undefined)).toBe(true);
    expect(filledCells(rows, 3, at(0, 0, 999, 999)).length).toBe(
      rows.flatMap(({ cells }) => cells.filter(({ value }) => value !== undefined)).length,
    );
    expect([cellsWords(1), cellsWords(2)]).toEqual(['1 cell', '2 cells']);
  });

  test('are multiplied, filled down from the first row, and keep what they had otherwise', () => {
    const cells = [
      { row: 0, column: 0, value: 20 },
      { row: 1, column: 1, value: 1.1 },
    ];
    expect(multiplied(rows, cells, 1.1).map(({ value }) => value)).toEqual([22, 1.21]);
    const down = filledDown(rows, filledCells(rows, 3, at(0, 0, 2, 0)), at(0, 0, 2, 0));
    expect(down).toEqual([1, 2].map((row) => ({ row, column: 0, value: rows[0].cells[0].value })));
  });

  test('are pasted as numbers, or not at all: no place, no number; empty texts are passed over', () => {
    const ok = pastedCells(
      [
        ['5', ''],
        ['1,234.5', '7'],
      ],
      at(0, 0),
      rows,
      columns,
    );
    expect(ok).toEqual({
      cells: [
        { row: 0, column: 0, value: 5 },
        { row: 1, column: 0, value: 1234.5 },
        { row: 1, column: 1, value: 7 },
      ],
    });
    expect(pastedCells([['five']], at(0, 0), rows, columns)).toHaveProperty('trouble', expect.stringContaining('“five” is not a number'));
    const lacking = rows.findIndex(({ cells }) => cells[2].path === undefined);
    expect(pastedCells([['5']], at(lacking, 2), rows, columns)).toHaveProperty('trouble', expect.stringContaining('has no'));
  });
});

describe('moving in the table', () => {
  test('stays within it, and stretches from where it began', () => {
    expect(areaAt(at(1, 1), 99, -4, 5, 3, false)).toEqual(at(4, 0));
    expect(areaAt(at(1, 1), 2, 2, 5, 3, true)).toEqual(at(1, 1, 2, 2));
  });

  test('keys go, open, fill and select; all others are the browser’s', () => {
    expect(deedOf({ ...keys, key: 'ArrowDown' })).toEqual({ go: [1, 0] });
    expect(deedOf({ ...keys, key: 'ArrowLeft', ctrlKey: true })).toEqual({ go: [0, -1000] });
    expect(deedOf({ ...keys, key: 'F2' })).toEqual({ begin: '' });
    expect(deedOf({ ...keys, key: '7' })).toEqual({ begin: '7' });
    expect(deedOf({ ...keys, key: 'D', metaKey: true })).toBe('fillDown');
    expect(deedOf({ ...keys, key: 'a', ctrlKey: true })).toBe('all');
    for (const key of ['a', 'Tab', 'Escape', 'F5']) expect(deedOf({ ...keys, key })).toBeUndefined();
    expect(deedOf({ ...keys, key: '7', ctrlKey: true })).toBeUndefined();
  });
});
