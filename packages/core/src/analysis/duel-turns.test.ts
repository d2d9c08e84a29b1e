/** Duels that take turns: whose do, on what board, how far apart, and what a readout says of them. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Runner } from '../engine/run';
import { encounterWithRounds, withRounds } from '../model/derive-rounds';
import type { Project } from '../model/project';
import { eventsOf } from '../testing/builders';
import { archiveProject, demoProject } from '../testing/demo';
import { parseProject } from '../model/validate';
import { clocksOfBoard, rowsOf } from './board';
import { clockOfScenario, goalsOf } from './cells';
import { compileScenario } from './compile-scenario';
import { clockOfDuel } from './duel-clock';
import type { DuelOptions } from './duel-setup';
import { DuelWork } from './readout';
import { duelScenario, scenarioKey, scenarioOf } from './scenario';

const compiled = (project: Project, options: Partial<DuelOptions>) =>
  compileScenario(project, duelScenario(project, {}, { enemy: 'shelf-clerk', against: 'warden', ...options }));

/** Cells between the first member and the first enemy as it begins. */
function gapOf(project: Project, options: Partial<DuelOptions>): number {
  let gap = NaN;
  new Runner(compiled(project, options)).run(1, (fight, time) => {
    if (time === 0) gap = fight.gap(fight.living[0][0], fight.living[1][0]);
  });
  return gap;
}

/** The demo with its first encounter in turns; whoever it meets has turns. */
function mixed(): Project {
  const project = demoProject();
  const scale = { round: 2, cell: 1 };
  project.units = project.units.map((unit) => (['warden', 'clipper', 'mulcher'].includes(unit.id) ? withRounds(unit, scale) : unit));
  project.encounters[0] = encounterWithRounds(project.encounters[0], scale);
  return project;
}

describe('whose duels take turns', () => {
  test('those of enemies all of whose fights do', () => {
    const archive = archiveProject();
    for (const { id, side } of archive.units) {
      if (side === 'enemy') expect(clockOfDuel(archive, { enemy: id, against: 'warden' })).toBe('rounds');
    }
    const station = demoProject();
    expect(clockOfDuel(station, { enemy: 'clipper', against: 'warden' })).toBe('continuous');
  });

  test('not where an enemy is met in seconds as well, nor against somebody who is met in none that does; unless it is asked for', () => {
    const project = mixed();
    expect(clockOfDuel(project, { enemy: 'clipper', against: 'warden' })).toBe('continuous');
    expect(clockOfDuel(project, { enemy: 'clipper', against: 'warden', clock: 'rounds' })).toBe('rounds');
    expect(compiled(project, { enemy: 'clipper', clock: 'rounds' }).rounds).not.toBeNull();
    expect(clockOfDuel(archiveProject(), { enemy: 'shelf-clerk', against: 'nobody' })).toBe('continuous');
    expect(compiled(archiveProject(), { clock: 'continuous' }).rounds).toBeNull();
  });

  test('who says nothing of turns is named', () => {
    expect(() => compiled(mixed(), { enemy: 'thistlejack', clock: 'rounds' })).toThrow(
      'Thistlejack can’t take turns: /units/thistlejack/rounds is missing',
    );
    expect(() => compiled(mixed(), { enemy: 'clipper', clock: 'hours' as never })).toThrow(
      'clock must be one of continuous, rounds: it is hours',
    );
  });
});

describe('its board', () => {
  const withGround = (ground: string, sizes: [number, number] = [1, 1]) => {
    const project = archiveProject();
    for (const { rounds } of project.encounters) Object.assign(rounds!, { ground });
    Object.assign(project.units.find(({ id }) => id === 'warden')!.rounds!, { size: sizes[0] });
    Object.assign(project.units.find(({ id }) => id === 'shelf-clerk')!.rounds!, { size: sizes[1] });
    return project;
  };

  test('they begin as many cells apart as is asked, six where nobody says, whatever the board and their bodies', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('squares', 'diagonals', 'hexagons'),
        fc.tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 })),
        fc.option(fc.integer({ min: 1, max: 40 }), { nil: undefined }),
        fc.constantFrom('ahead' as const, 'behind' as const),
        (ground, sizes, distance, from) => {
          expect(gapOf(withGround(ground, sizes), { distance, from })).toBe(distance ?? 6);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('what has no room is refused', () => {
    const archive = withGround('squares');
    expect(() => compiled(archive, { distance: 0 })).toThrow('distance in turns must be whole cells from 1: it is 0');
    expect(() => compiled(archive, { distance: 2.5 })).toThrow('must be whole cells from 1: it is 2.5');
    expect(() => compiled(archive, { distance: 60 })).toThrow('distance in turns must leave room on 64 cells: it is 60');
    expect(() => compiled(archive, { distance: 2, wall: 2 })).toThrow('a wall between needs a distance of at least 3 cells: it is 2');
    expect(() => compiled(withGround('none'), { wall: 2 })).toThrow('without ground there is no wall between');
  });

  test('a wall between closes five cells halfway, and is gone around', () => {
    const { rounds } = compiled(withGround('squares'), { distance: 6, wall: 2 });
    expect(rounds!.board!.blocked[0].filter(Boolean)).toHaveLength(5);
    // Somebody is struck by hand all the same: on open ground in fewer rounds than past the wall.
    const struck = (wall?: number) =>
      eventsOf(new Runner(compiled(withGround('squares'), { enemy: 'binder', distance: 6, wall })).run(1).log, 'start')[0].time;
    expect(struck(2)).toBeGreaterThan(struck());
  });

  test('whoever is met from behind looks away from the enemies, else towards them', () => {
    for (const [from, ahead] of [
      ['behind', -1],
      [undefined, 1],
    ] as const) {
      const compiledDuel = compiled(withGround('squares'), { distance: 6, ...(from && { from }) });
      new Runner(compiledDuel).run(1, (fight, time) => {
        if (time > 0) return;
        const [own, foe] = [fight.living[0][0], fight.living[1][0]];
        expect(Math.sign(fight.fx[own] * (fight.x[foe] - fight.x[own]))).toBe(ahead);
      });
    }
  });

  test('in an arena it is that of the arena', () => {
    const archive = archiveProject();
    const [arena] = archive.arenas;
    const { rounds } = compiled(withGround('squares'), { arena: arena.id });
    expect(rounds!.board!.columns).toBe(Math.floor(arena.width));
  });
});

test('with several, all on the board find cells of their own', () => {
  new Runner(compiled(archiveProject(), { copies: 12, company: [{ unit: 'binder', count: 12 }] })).run(1, (fight) => {
    if (!fight.board) return;
    const cells = fight.alive.map((unit) => fight.onCell[unit]);
    expect(new Set(cells).size).toBe(cells.length);
    expect(Math.min(...cells)).toBeGreaterThanOrEqual(0);
  });
});

test('its key says what is asked for and not usual', () => {
  const archive = archiveProject();
  const asked = (options: Partial<DuelOptions>) => duelScenario(archive, {}, { enemy: 'binder', against: 'warden', ...options });
  expect(asked({ distance: 6, clock: 'rounds' })).toEqual({ kind: 'duel', id: 'binder' });
  expect(asked({ distance: 12 }).duel).toEqual({ distance: 12 });
  const seconds = asked({ clock: 'continuous', distance: 12 });
  expect(seconds.duel).toEqual({ clock: 'continuous' });
  expect(scenarioOf(scenarioKey(seconds))).toEqual(seconds);
  expect(clockOfScenario(archive, seconds)).toBe('continuous');
  expect(clockOfScenario(archive, asked({}))).toBe('rounds');
});

test('its readout tells rounds and cells, and no paper', () => {
  const archive = archiveProject();
  const work = new DuelWork(archive, { kind: 'duel', id: 'binder' }, 1);
  work.advance(20);
  const { summary, approach, paper, timeAtGap, values } = work.result();
  expect(summary.clock).toBe('rounds');
  expect([approach.clock, approach.groundless]).toEqual(['rounds', false]);
  const boss = new DuelWork(archive, { kind: 'duel', id: 'index-keeper' }, 1);
  boss.advance(2);
  expect(boss.result().approach.groundless).toBe(true);
  expect(paper).toEqual({});
  expect(Math.max(...timeAtGap)).toBe(0);
  for (const value of values.timeToKill) expect(Number.isNaN(value) || value === Infinity || Number.isInteger(value)).toBe(true);
  const [line] = approach.lines;
  expect(line.gaps[0]).toBe(6);
  for (const gap of line.gaps) expect(Number.isInteger(gap)).toBe(true);
  expect(approach.length).toBeLessThanOrEqual(60);
});

test('on the board an enemy’s duel goes as its fights do, and has no row where the measure means nothing there', () => {
  const rows = (project: Project, measure: Parameters<typeof rowsOf>[1]) =>
    rowsOf(project, measure, 'tiers').filter(({ subject }) => subject === 'enemy');
  expect(new Set(rows(archiveProject(), 'timeToKill').map(({ clock }) => clock))).toEqual(new Set(['rounds']));
  expect(new Set(rows(demoProject(), 'timeToKill').map(({ clock }) => clock))).toEqual(new Set(['continuous']));
});

test('a brief and a question may want of duels what is told in turns alone, where some fight takes turns; of others it asks for nothing', () => {
  const wants = (project: Project, measure: string) => {
    const band = { id: 'reach', measure, scope: 'enemies', statistic: 'mean', low: 0.5 };
    project.brief = { curves: [], ...project.brief, bands: [band as never] };
    const [enemy] = project.units.filter(({ side }) => side === 'enemy');
    const goals = [{ measure, scope: 'fight', statistic: 'mean', low: 0.5 }];
    const question = { id: 'q', name: 'Q', fight: 'duel', of: enemy.id, goals, dials: [] };
    project.tuning = { questions: [question as never] };
    return parseProject(JSON.parse(JSON.stringify(project)));
  };
  const archive = wants(archiveProject(), 'reach');
  const goals = goalsOf(archive);
  expect(new Set(goals.map(({ of }) => of)).size).toBe(archive.units.filter(({ side }) => side === 'enemy').length);
  expect(new Set(goals.map(({ clock }) => clock))).toEqual(new Set(['rounds']));
  expect(() => wants(demoProject(), 'reach')).toThrow('/brief/bands/reach/measure means something only where a fight takes turns');
  // What means nothing in turns asks for nothing of duels that all take them.
  expect(goalsOf(wants(archiveProject(), 'unanswerable'))).toEqual([]);
  expect(clocksOfBoard(archive)).toEqual(['rounds']);
  expect(clocksOfBoard(demoProject())).toEqual(['continuous']);
  expect(new Set(clocksOfBoard(mixed()))).toEqual(new Set(['continuous', 'rounds']));
});
