import { describe, expect, test } from '@jest/globals';
import { type Project, parseProject, valueAt, writtenUnit } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FIRST_COLUMNS, columnsOf } from './columns';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));

describe('columns of a table of units', () => {
  test('each has a number in some unit, and leads to a number wherever it leads', () => {
    const project = demo();
    for (const side of ['enemy', 'party'] as const) {
      const units = project.units.filter((unit) => unit.side === side).map(({ id }) => writtenUnit(project, id));
      const columns = columnsOf(project, side);
      expect(new Set(columns.map(({ id }) => id)).size).toBe(columns.length);
      for (const { id, label, pathOf } of columns) {
        const paths = units.flatMap((unit) => {
          const path = pathOf(unit);
          return path === undefined ? [] : [[unit, path] as const];
        });
        expect([label, paths.length]).not.toEqual([label, 0]);
        for (const [unit, path] of paths) expect(typeof valueAt(unit, path)).toBe('number');
        // What a label says alone it says without its group.
        expect([label, id]).toEqual([expect.stringMatching(/^\p{Lu}/u), id]);
      }
    }
  });

  test('those that are shown at first are all there for enemies', () => {
    const ids = columnsOf(demo(), 'enemy').map(({ id }) => id);
    for (const id of FIRST_COLUMNS) expect(ids).toContain(id);
  });

  test('an attack is told by its place, whatever its name: the second of a Thistlejack is its fan', () => {
    const project = demo();
    const column = columnsOf(project, 'enemy').find(({ id }) => id === 'attack 2 beat/cooldown')!;
    expect(column.pathOf(writtenUnit(project, 'thistlejack'))).toBe('/attacks/quill-fan/beat/cooldown');
    expect(column.pathOf(writtenUnit(project, 'clipper'))).toBeUndefined();
  });

  test('numbers of lists whose items differ from unit to unit have no columns of their own', () => {
    expect(
      columnsOf(demo(), 'enemy').some(({ id }) =>
        /^\/(attacks|states|choice\/priorities|health\/gates|player\/answers|armour\/resist)\//.test(id),
      ),
    ).toBe(false);
  });
});
