/** What a document must say so that a fight of it can take turns. */
import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { encounterWithRounds, withRounds } from './derive-rounds';
import { type InvalidDocument } from './problem';
import type { Project } from './project';
import { parseProject } from './validate';

const SCALE = { round: 2, cell: 1 };

/** First Bell in turns, with all that it asks of its units. */
function inTurns(change: (project: Project) => void = () => undefined): Project {
  const project = demoProject();
  project.units = project.units.map((unit) => withRounds(unit, SCALE));
  project.encounters[0] = encounterWithRounds(project.encounters[0], SCALE);
  change(project);
  return project;
}

function problems(project: Project): [string, string][] {
  try {
    parseProject(JSON.parse(JSON.stringify(project)));
    return [];
  } catch (error) {
    return (error as InvalidDocument).problems.map(({ path, rule }) => [path, rule]);
  }
}

const unitOf = (project: Project, id: string) => project.units.find((unit) => unit.id === id)!;

test('what is derived from seconds is whole; what seconds say beside it stays, and so does every fight in seconds', () => {
  expect(problems(inTurns())).toEqual([]);
  const project = inTurns(({ encounters }) => (encounters[0].clock = 'continuous'));
  expect(problems(project)).toEqual([]);
  const { rounds: _rounds, ...before } = project.encounters[0];
  expect(before).toEqual(demoProject().encounters[0]);
});

describe('a fight in turns is refused where something of it says nothing in turns', () => {
  test.each<[string, (project: Project) => void, [string, string][]]>([
    ['itself', ({ encounters }) => delete encounters[0].rounds, [['/encounters/first-bell/rounds', 'required']]],
    ['a unit', (p) => delete unitOf(p, 'warden').rounds, [['/units/warden/rounds', 'required']]],
    [
      'an attack, and what it leaves',
      (p) => {
        const [bite] = unitOf(p, 'clipper').attacks;
        delete bite.rounds;
        bite.effects.slow = { share: 0.3, for: 2 };
        bite.effects.knockback = { distance: 2 };
      },
      [
        ['/units/clipper/attacks/bite/rounds', 'required'],
        ['/units/clipper/attacks/bite/effects/slow/rounds', 'required'],
        ['/units/clipper/attacks/bite/effects/knockback/rounds', 'required'],
      ],
    ],
    [
      'the edge of a band',
      (p) => Object.assign(unitOf(p, 'clipper').states[0], { does: 'band', near: 2, far: 4, rounds: { near: 2 } }),
      [['/units/clipper/states/' + unitOf(demoProject(), 'clipper').states[0].id + '/rounds/far', 'required']],
    ],
    [
      'a wave by the clock',
      ({ encounters: [{ waves }] }) => Object.assign(waves[0], { start: 'clock', at: 5, rounds: undefined }),
      [[`/encounters/first-bell/waves/bell/rounds`, 'required']],
    ],
    [
      'an order of its range',
      (p) => Object.assign(unitOf(p, 'clipper').attacks[0].rounds!, { from: 3, to: 1 }),
      [
        ['/units/clipper/attacks/bite/rounds/from', 'order'],
        ['/variants/clipper-elder/attacks/bite/rounds/from', 'order'],
      ],
    ],
  ])('%s', (_name, change, wanted) => {
    expect(problems(inTurns(change))).toEqual(wanted);
  });

  test('units that no fight in turns meets need nothing', () => {
    const met = new Set(demoProject().encounters[0].party.map(({ unit }) => unit));
    const other = demoProject().units.find(({ id }) => !met.has(id) && id !== 'clipper' && id !== 'thistlejack' && id !== 'sapwright')!;
    const said = problems(inTurns((p) => delete unitOf(p, other.id).rounds));
    const named = JSON.stringify(demoProject().encounters[0]).includes(`"${other.id}"`);
    expect(said).toEqual(named ? [[`/units/${other.id}/rounds`, 'required']] : []);
  });

  test('a variant is asked for what its base lacks, by its own name', () => {
    const project = inTurns((p) => {
      p.variants.push({ id: 'twin', name: 'Twin', basedOn: 'clipper', changes: [], tweaks: [] });
      p.encounters[0].waves[0].groups[0].enemy = 'twin';
    });
    expect(problems(project)).toEqual([]);
    delete unitOf(project, 'clipper').rounds;
    expect(problems(project)).toContainEqual(['/variants/twin/rounds', 'required']);
  });
});

describe('limits', () => {
  test.each<[string, (project: Project) => void, [string, string][]]>([
    [
      'a board of more than 64 × 64 cells',
      (p) =>
        Object.assign(p.encounters[0].rounds!, { cell: 0.5, ground: 'squares' }) &&
        Object.assign(
          p.arenas.find(({ id }) => id === p.encounters[0].arena)!,
          { width: 40, depth: 20 },
        ),
      [['/encounters/first-bell/rounds/cell', 'limit']],
    ],
    ['more than 500 rounds', (p) => (p.encounters[0].rounds!.limit = 501), [['/encounters/first-bell/rounds/limit', 'max']]],
    [
      'more than 100 units',
      (p) => (p.encounters[0].waves[0].groups[0].count = { min: 1, max: 120 }),
      [['/encounters/first-bell/waves', 'limit']],
    ],
    [
      'half a turn',
      (p) => (unitOf(p, 'clipper').attacks[0].rounds!.windup = 0.5),
      [['/units/clipper/attacks/bite/rounds/windup', 'whole']],
    ],
  ])('%s', (_name, change, wanted) => {
    expect(problems(inTurns(change)).slice(0, 1)).toEqual(wanted);
  });

  test('the board has room for whoever stands on it from the start', () => {
    const tight = inTurns((p) => {
      Object.assign(
        p.arenas.find(({ id }) => id === p.encounters[0].arena)!,
        { width: 20, depth: 20 },
      );
      Object.assign(p.encounters[0].rounds!, { cell: 20, ground: 'squares' });
      p.encounters[0].allies = [
        { id: 'friend', unit: 'warden' },
        { id: 'other', unit: 'warden' },
      ];
    });
    expect(problems(tight)).toEqual([['/encounters/first-bell/rounds/cell', 'fits']]);
  });
});
