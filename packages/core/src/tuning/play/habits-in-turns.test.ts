import { describe, expect, test } from '@jest/globals';
import { compileScenario } from '../../analysis/compile-scenario';
import type { Scenario } from '../../analysis/scenario';
import { archiveProject } from '../../testing/demo';
import { unit } from '../../testing/builders';
import { inTurns } from '../../testing/rounds';
import { runFights, thereOf, workThrough } from '../asking';
import { habitsOf, playedProject, styleOfPlay, turnsOfPlay, wordsOfPlay } from './habits';
import { playWork } from './search';
import { withStyleOf } from './told';

const fight: Scenario = { kind: 'encounter', id: 'fight' };

/** One who shoots eight cells far and comes up to its foe, which is slow and strikes hard beside it. */
const archer = () =>
  inTurns({
    party: [
      unit({
        id: 'archer',
        side: 'party',
        health: { max: 60 },
        attacks: [
          { id: 'arrow', name: 'arrow', delivery: 'hitscan', arc: 360, effects: { damage: { amount: 6, spread: 0.5 } }, rounds: { to: 8 } },
        ],
        states: [{ id: 'near', name: 'near', does: 'band', near: 1, far: 2, rounds: { near: 1, far: 2 } }],
        rounds: { moves: 4, order: 60 },
      }),
    ],
    enemies: [
      {
        unit: unit({
          id: 'hulk',
          health: { max: 90 },
          attacks: [{ id: 'slam', name: 'slam', arc: 360, effects: { damage: { amount: 14, spread: 0.5 } }, rounds: {} }],
          states: [{ id: 'come', name: 'come', does: 'approach' }],
          rounds: { moves: 1, order: 40 },
        }),
        x: 6,
      },
    ],
    width: 24,
    depth: 24,
    encounter: { rounds: { ground: 'squares', limit: 60 } },
  });

describe('habits in turns', () => {
  test('are of cells, turns and reactions; each level changes something, and what a fight reads', () => {
    const project = archiveProject();
    const cell: Scenario = { kind: 'encounter', id: 'store-room', tier: 'dormant' };
    const habits = habitsOf(project, compileScenario(project, cell), cell);
    expect(habits.map(({ id }) => id)).toEqual(['distance', 'pace', 'ends', 'reactions', 'targets', 'place']);
    const words = (id: string) => habits.find((one) => one.id === id)!.levels.map(({ says }) => says);
    expect(words('distance')).toContain('keeps 4 to 12 cells');
    expect(words('pace')).toEqual(['', 'goes half as far in a turn', 'stands still']);
    expect(words('ends')).toContain('ends its turns where least can strike it');
    expect(words('reactions')).toEqual(['', 'reacts to nothing (no dodge, no guard)']);
    expect(words('targets')).toContain('goes for the most damage a round');
    expect(words('place').some((one) => one.includes('no enemy gets to'))).toBe(false);
    const ran = (level: number, h: number) => {
      const turned = turnsOfPlay(
        habits,
        habits.map((_, other) => (other === h ? level : 0)),
      );
      const { digests } = thereOf(runFights({ project, cell: { ...cell, turned }, firstSeed: 1, runs: 40, columns: ['won'] }));
      return Array.from<string | number>(digests);
    };
    const written = ran(0, 0);
    for (const id of ['distance', 'pace', 'ends', 'reactions', 'targets', 'place']) {
      const h = habits.findIndex((one) => one.id === id);
      const all = habits[h].levels.map((_, level) => ran(level, h));
      expect([id, all.some((digests) => digests.some((one, i) => one !== written[i]))]).toEqual([id, true]);
    }
    // Nobody of the party reacts any more, and nothing else is changed.
    const without = playedProject(
      project,
      habits,
      habits.map(({ id, levels }) => (id === 'reactions' ? levels.length - 1 : 0)),
    );
    expect(without.units.flatMap(({ side, rounds }) => (side === 'party' ? rounds!.reactions : []))).toEqual([]);
    expect(without.units.filter(({ side }) => side === 'enemy')).toEqual(project.units.filter(({ side }) => side === 'enemy'));
  });

  test('on a board it may begin on cells that are open, told by column and row, each once', () => {
    const project = archer();
    const corners = [
      { x: -2, y: -2 },
      { x: 2, y: -2 },
      { x: 2, y: 2 },
      { x: -2, y: 2 },
    ];
    project.arenas[0].walls.push({ id: 'block', name: 'block', height: 3, corners });
    const levels = habitsOf(project, compileScenario(project, fight), fight)
      .find(({ id }) => id === 'place')!
      .levels.slice(1);
    const { columns, side, x, y, blocked } = compileScenario(project, fight).rounds!.board!;
    expect(levels.length).toBeGreaterThan(10);
    expect(new Set(levels.map(({ says }) => says)).size).toBe(levels.length);
    for (const { says, turns } of levels) {
      const [, column, row] = /^begins at column (\d+), row (\d+)$/.exec(says)!.map(Number);
      const cell = (row - 1) * columns + column - 1;
      expect(blocked[0][cell]).toBe(false);
      expect(Math.hypot(Number(turns[0].value) - x[cell], Number(turns[1].value) - y[cell])).toBeLessThan(side / 100);
    }
  });

  test('without ground there is no place to begin', () => {
    const project = archiveProject();
    const cell: Scenario = { kind: 'encounter', id: 'index', tier: 'dormant' };
    expect(habitsOf(project, compileScenario(project, cell), cell).map(({ id }) => id)).not.toContain('place');
  });

  test('a fight that is won from afar is found to be, and kept as a style it is fought to the same digest', () => {
    const project = archer();
    const found = workThrough(playWork({ project, cell: fight, budget: 12_000 }));
    expect(found.written.won.value).toBeLessThan(0.3);
    const [way] = found.ways;
    expect(way.won.low).toBeGreaterThan(0.95);
    expect(wordsOfPlay(found.habits, way.play).join()).toMatch(/keeps \d+ to \d+ cells|begins at/);
    // Its distance alone does it.
    const far = found.habits.map(({ id, levels }) => (id === 'distance' ? levels.length - 1 : 0));
    expect(styleOfPlay(found.habits, far).left).toEqual([]);
    const { project: kept, style } = withStyleOf(project, fight, found.habits, far);
    const ran = (of: typeof project, cell: Scenario) => runFights({ project: of, cell, firstSeed: 1, runs: 40, columns: ['won'] });
    expect(ran(kept, { ...fight, style: style.id })).toEqual(ran(project, { ...fight, turned: turnsOfPlay(found.habits, far) }));
  });
});
