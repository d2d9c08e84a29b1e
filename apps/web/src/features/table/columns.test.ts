import { describe, expect, test } from '@jest/globals';
import { type Project, parseProject, valueAt, writtenUnit } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { infoAt } from '../../fields/edits';
import { FIRST_COLUMNS, clockOfSide, columnsOf, exampleOf } from './columns';

const read = (name: string): Project =>
  parseProject(JSON.parse(readFileSync(join(__dirname, `../../../../../demo/${name}.insidia.json`), 'utf8')));
const demo = () => read('verdance');

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
    for (const [name, clock] of [
      ['verdance', 'continuous'],
      ['archive', 'rounds'],
    ] as const) {
      const project = read(name);
      expect(clockOfSide(project, 'enemy')).toBe(clock);
      const ids = columnsOf(project, 'enemy').map(({ id }) => id);
      for (const id of FIRST_COLUMNS[clock]) expect(ids).toContain(id);
    }
  });

  test('in turns only where nobody of the side is met in seconds', () => {
    const project = read('archive');
    project.encounters.push({ ...structuredClone(project.encounters[1]), id: 'another', clock: 'continuous' });
    expect(clockOfSide(project, 'enemy')).toBe('continuous');
    expect(clockOfSide(parseProject({ format: 'insidia-project', version: 4, id: 'none', name: 'None' }), 'enemy')).toBe('continuous');
  });

  test('each has its unit: of attacks, of states, of a unit itself', () => {
    const units = (ids: string[]) => ids.map((id) => infoAt(exampleOf(id))?.unit);
    expect(units(['attack 2 rounds/cooldown', 'attack 1 range/max', 'state 3 stopAt', '/rounds/moves', '/movement/run'])).toEqual([
      'turns',
      'm',
      'm',
      'cells',
      'm/s',
    ]);
  });

  test('an attack is told by its place, whatever its name: the second of a Thistlejack is its fan', () => {
    const project = demo();
    const column = columnsOf(project, 'enemy').find(({ id }) => id === 'attack 2 beat/cooldown')!;
    expect(column.pathOf(writtenUnit(project, 'thistlejack'))).toBe('/attacks/quill-fan/beat/cooldown');
    expect(column.pathOf(writtenUnit(project, 'clipper'))).toBeUndefined();
  });

  test('so is a state: its pace, its band, how often it decides, the weights of its ways', () => {
    const project = demo();
    const jack = project.units.find(({ id }) => id === 'thistlejack')!;
    Object.assign(jack.states[1], { decides: { min: 0.5, max: 2 } });
    jack.states[1].leaves[1] = { ...jack.states[1].leaves[0], weight: 3 };
    const columns = columnsOf(project, 'enemy');
    const found = (id: string) => columns.find((column) => column.id === id)!;
    const unit = writtenUnit(project, 'thistlejack');
    const { id } = unit.states[1];
    expect(found('state 2 decides/max').label).toBe('State 2: decides to');
    expect(found('state 2 decides/max').pathOf(unit)).toBe(`/states/${id}/decides/max`);
    expect(found('state 2 leaves/1/weight').label).toBe('State 2: way 2 weight');
    expect(found('state 2 leaves/1/weight').pathOf(unit)).toBe(`/states/${id}/leaves/1/weight`);
    expect(found('state 2 leaves/1/weight').pathOf(writtenUnit(project, 'clipper'))).toBeUndefined();
    expect(columns.some((column) => column.id === 'state 3 leaves/2/weight')).toBe(false);
  });

  test('numbers of lists whose items differ from unit to unit have no columns of their own', () => {
    expect(
      columnsOf(demo(), 'enemy').some(({ id }) =>
        /^\/(attacks|states|choice\/priorities|health\/gates|player\/answers|armour\/resist)\//.test(id),
      ),
    ).toBe(false);
  });
});
