import { describe, expect, test } from '@jest/globals';
import { columnOf } from '../measures/list';
import type { Project } from '../model/project';
import { demoProject } from '../testing/demo';
import {
  type ReadCells,
  acrossStyles,
  askedOf,
  cellAt,
  columnAt,
  columnsOf,
  countsOf,
  everyCell,
  goalsByPlace,
  judgedOf,
  lensOfGoals,
  rankedRows,
  rowsOf,
  shownAt,
} from './board';
import { scenarioKey } from './scenario';

/** Fifty runs of a value that hardly varies. */
const about = (value: number) => Array.from({ length: 50 }, (_, i) => value + (i % 5) * 0.01);
const briefed = (): Project => ({
  ...demoProject(),
  brief: {
    bands: [
      {
        id: 'a',
        measure: 'timeToKill',
        scope: 'unit',
        of: 'clipper',
        tier: 'bloom',
        skill: 'regular',
        statistic: 'median',
        low: 1,
        high: 2,
      },
      { id: 'b', measure: 'waveDose', scope: 'wave', of: 'two', encounter: 'evening-shift', statistic: 'mean', high: 1 },
    ],
    curves: [],
  },
});
const lens = { skill: 'regular' };

describe('through which lens there are goals', () => {
  const band = (more: object) => ({ id: 'x', measure: 'timeToKill', scope: 'unit', of: 'clipper', statistic: 'median', high: 2, ...more });
  const wanting = (...bands: object[]): Project => ({ ...demoProject(), brief: { bands: bands.map(band), curves: [] } }) as Project;
  const of = (project: Project, axis: 'tiers' | 'skills' | 'players', own: object = {}) => lensOfGoals(project, axis, own);

  test('that of most goals, where none is seen through this one', () => {
    const bloom = { skill: 'regular', tier: 'bloom' };
    const project = wanting({ skill: 'novice', tier: 'blight' }, bloom, { ...bloom, of: 'mulcher' }, { skill: 'regular', tier: 'bramble' });
    expect(of(project, 'tiers')).toEqual({ skill: 'regular' });
    expect(of(project, 'skills')).toEqual({ tier: 'bloom' });
    expect(of(project, 'players')).toEqual({ tier: 'bloom', skill: 'regular' });
  });

  test('none where this one has some, where there are none at all, and where goals speak of nothing that is measured', () => {
    expect(of(wanting({ skill: 'novice' }, { skill: 'regular' }, { skill: 'regular' }), 'tiers', { skill: 'novice' })).toBeUndefined();
    expect(of(wanting({}), 'tiers')).toBeUndefined();
    expect(of(wanting(), 'tiers')).toBeUndefined();
    expect(of(wanting({ skill: 'regular', scope: 'role', of: 'nobody' }), 'tiers')).toBeUndefined();
  });
});

describe('a board’s axes', () => {
  test('columns are the tiers in their order, the skills, or player counts; the lens gives the rest of a cell', () => {
    const project = demoProject();
    expect(columnsOf(project, 'tiers').map(({ number, at }) => [number, at.tier])).toEqual(project.tiers.map(({ id }, i) => [i + 1, id]));
    expect(columnsOf(project, 'skills').map(({ at }) => at.skill)).toEqual(project.skills.map(({ id }) => id));
    expect(
      columnsOf(project, 'players')
        .map(({ name }) => name)
        .slice(0, 2),
    ).toEqual(['as written', '1 player']);
    expect(columnsOf({ ...project, tiers: [] }, 'tiers')).toEqual([{ key: '', name: 'as written', at: {} }]);
    const alone = project.encounters.map((one) => ({ ...one, party: one.party.slice(0, 1) }));
    expect(columnsOf({ ...project, encounters: alone }, 'players').map(({ name }) => name)).toEqual(['as written', '1 player']);
    const [, one] = columnsOf(project, 'players');
    expect(cellAt({ subject: 'encounter', id: 'first-bell' }, one, { tier: 'bloom', skill: 'novice', style: 'still' })).toEqual({
      kind: 'encounter',
      id: 'first-bell',
      tier: 'bloom',
      skill: 'novice',
      style: 'still',
      players: 1,
    });
  });

  test('a duel has one player: player counts have no rows of enemies, and the lens’s players no say in theirs', () => {
    const project = demoProject();
    expect(rowsOf(project, 'dose', 'players').every(({ subject }) => subject === 'encounter')).toBe(true);
    const [column] = columnsOf(project, 'tiers');
    expect(cellAt({ subject: 'enemy', id: 'clipper' }, column, { ...lens, players: 3 }).players).toBeUndefined();
    expect(everyCell(project, 'players', lens)).toHaveLength(project.encounters.length * columnsOf(project, 'players').length);
  });

  test('measures of waves have a row a wave; waves of one encounter share its cells, each with its own column', () => {
    const project = demoProject();
    const rows = rowsOf(project, 'waveDose', 'tiers').filter(({ id }) => id === 'evening-shift');
    expect(rows.map(({ wave }) => wave)).toEqual(project.encounters.find(({ id }) => id === 'evening-shift')!.waves.map(({ id }) => id));
    expect(new Set(rows.map((row) => columnAt(row, 'waveDose'))).size).toBe(rows.length);
    const [column] = columnsOf(project, 'tiers');
    const shown = rows.map((row) => shownAt(row, column, lens, 'waveDose', new Map(), null));
    expect(new Set(shown.map(({ cell }) => scenarioKey(cell))).size).toBe(1);
    expect(new Set(shown.map(({ key }) => key)).size).toBe(rows.length);
    const [asked] = askedOf(project, 'waveDose', 'tiers', lens).filter(({ cell }) => cell === scenarioKey(shown[0].cell));
    expect(asked.columns).toEqual(expect.arrayContaining(rows.map((row) => columnAt(row, 'waveDose'))));
  });
});

describe('what a cell shows', () => {
  const clipper = { subject: 'enemy' as const, id: 'clipper', name: 'Clipper', clock: 'continuous' as const };
  const at = (project: Project, tier: string) => columnsOf(project, 'tiers').find(({ key }) => key === tier)!;
  const read = (project: Project, tier: string, more: object): ReadCells =>
    new Map([[scenarioKey(cellAt(clipper, at(project, tier), lens)), { runs: 0, values: {}, ...more }]]);
  const column = columnOf('timeToKill', 'enemy', 'clipper');

  test('its runs against the band that speaks of it; elsewhere no verdict', () => {
    const project = briefed();
    const own = read(project, 'bloom', { runs: 50, values: { [column]: about(1.5) } });
    const judged = judgedOf(project, 'tiers', lens, own);
    const shown = shownAt(clipper, at(project, 'bloom'), lens, 'timeToKill', goalsByPlace(judged), own);
    expect(shown).toMatchObject({ runs: 50, stale: false, verdict: 'met', band: { id: 'a' } });
    expect(shownAt(clipper, at(project, 'bramble'), lens, 'timeToKill', goalsByPlace(judged), own)).toMatchObject({ runs: 0, values: [] });
    expect(countsOf(judged).get('timeToKill')).toEqual({ met: 1, missedLow: 0, missedHigh: 0, undecided: 0 });
    // A band of another skill does not speak of it.
    const expert = { skill: 'expert' };
    expect(
      shownAt(clipper, at(project, 'bloom'), expert, 'timeToKill', goalsByPlace(judgedOf(project, 'tiers', expert, own)), own).band,
    ).toBe(undefined);
  });

  test('what was run before an edit is shown as stale and not judged', () => {
    const project = briefed();
    const old = read(project, 'bloom', { stale: { runs: 50, values: { [column]: about(9) } } });
    const shown = shownAt(clipper, at(project, 'bloom'), lens, 'timeToKill', goalsByPlace(judgedOf(project, 'tiers', lens, old)), old);
    expect(shown).toMatchObject({ stale: true, runs: 50 });
    expect(shown.estimate.value).toBeCloseTo(9.02, 9);
    expect(shown.verdict).toBeUndefined();
  });

  test('across styles: the same statistic of each that has been run', () => {
    const project = briefed();
    const [first, second] = project.styles;
    const styled = scenarioKey(cellAt(clipper, at(project, 'bloom'), { ...lens, style: second.id }));
    const cells: ReadCells = new Map([[styled, { runs: 50, values: { [column]: about(4) } }]]);
    const plain = shownAt(clipper, at(project, 'bloom'), lens, 'timeToKill', new Map(), cells);
    const { styles } = acrossStyles(project, clipper, at(project, 'bloom'), lens, 'timeToKill', plain, cells);
    expect(styles).toEqual([{ id: second.id, name: second.name, value: expect.closeTo(4.02, 9) }]);
    expect(styles!.map(({ id }) => id)).not.toContain(first.id);
  });
});

test('ranking: the most first, survivors before all, what has not been run left out, neighbours that touch not told apart', () => {
  const project = demoProject();
  const rows = ['clipper', 'mulcher', 'thistlejack', 'sapwright', 'sporecask', 'briar-hound'].map((id) => ({
    subject: 'enemy' as const,
    clock: 'continuous' as const,
    id,
    name: id,
  }));
  const columns = columnsOf(project, 'tiers').slice(0, 1);
  const values: Record<string, number[]> = {
    clipper: about(2),
    mulcher: about(8),
    thistlejack: about(2.005),
    sapwright: Array.from({ length: 50 }, () => Infinity),
    sporecask: Array.from({ length: 50 }, () => Infinity),
  };
  const read: ReadCells = new Map(
    rows.flatMap((row) =>
      values[row.id]
        ? [[scenarioKey(cellAt(row, columns[0], lens)), { runs: 50, values: { [columnAt(row, 'timeToKill')]: values[row.id] } }]]
        : [],
    ),
  );
  const cells = rows.map((row) => columns.map((column) => shownAt(row, column, lens, 'timeToKill', new Map(), read)));
  expect(rankedRows(rows, cells, 0).map(({ row, apart }) => [row.id, apart])).toEqual([
    // As much as one another: in the order of the rows.
    ['sapwright', undefined],
    ['sporecask', false],
    ['mulcher', true],
    ['thistlejack', true],
    ['clipper', false],
  ]);
});
