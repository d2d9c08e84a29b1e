import { describe, expect, test } from '@jest/globals';
import type { Scenario } from '../../analysis/scenario';
import { compileScenario } from '../../analysis/compile-scenario';
import { acceptanceOf, causeOf } from '../../analysis/warning';
import type { Project } from '../../model/project';
import { parseProject } from '../../model/validate';
import { demoProject } from '../../testing/demo';
import { runFights, workThrough } from '../asking';
import { habitsOf, playedProject, styleOfPlay, turnsOfPlay, wordsOfPlay } from './habits';
import { playWork, worthOf } from './search';
import { spotsOf } from './spots';
import { cheapWarning, dullSentence, withStyleOf } from './told';

const project = demoProject();
const crowd: Scenario = { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 } };
const bell: Scenario = { kind: 'encounter', id: 'first-bell', skill: 'regular' };

/** First Bell with ten Clippers who see everything, and a pen of low walls somewhere in its court: who stands in it shoots over them. */
function withPen(middle: { x: number; y: number }, half: number): Project {
  const document = JSON.parse(JSON.stringify(project));
  const round = (value: number) => Math.round(100 * value) / 100;
  const wall = (id: string, x0: number, y0: number, x1: number, y1: number) => ({
    id,
    name: id,
    height: 0.1,
    corners: [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ].map(([x, y]) => ({ x: round(x), y: round(y) })),
  });
  const { x, y } = middle;
  const [inner, outer] = [half, half + 0.3];
  const court = document.arenas.find(({ id }: { id: string }) => id === 'boiler-court');
  court.points = [];
  court.walls = [
    wall('west', x - outer, y - outer, x - inner, y + outer),
    wall('east', x + inner, y - outer, x + outer, y + outer),
    wall('south', x - inner, y - outer, x + inner, y - inner),
    wall('north', x - inner, y + inner, x + inner, y + outer),
  ];
  const fight = document.encounters.find(({ id }: { id: string }) => id === 'first-bell');
  fight.limit = 120;
  Object.assign(fight.waves[0].groups[0], { count: { min: 10, max: 10 }, at: ['hatch', 'north-east', 'south-west'], alerted: true });
  const clipper = document.units.find(({ id }: { id: string }) => id === 'clipper');
  Object.assign(clipper.senses, { sight: 60, lose: 80, memory: 60 });
  document.encounters = [fight];
  delete document.brief;
  delete document.tuning;
  return parseProject(document);
}

describe('habits', () => {
  test('are levels that change something, the first as it is written; aim and reactions are none', () => {
    const habits = habitsOf(project, compileScenario(project, crowd), crowd);
    expect(habits.map(({ id }) => id)).toEqual(['distance', 'pace', 'cover', 'healing', 'runs', 'rescues', 'answers', 'dodge', 'targets']);
    for (const { levels } of habits) {
      expect(levels[0]).toEqual({ says: '', turns: [], tweaks: [], idle: false });
      expect(levels.length).toBeGreaterThan(1);
      for (const { says, turns } of levels.slice(1)) {
        expect(says).not.toBe('');
        expect(JSON.stringify(playedProject(project, [{ id: '', levels: [levels[0], { says, turns, idle: false }] }], [1]))).not.toBe(
          JSON.stringify(project),
        );
        expect(turns.every(({ path }) => !/aim|reaction/.test(path))).toBe(true);
      }
    }
    // Cover is taken below 30 % as it is written: that is no level of its own.
    expect(habits.find(({ id }) => id === 'cover')!.levels.map(({ says }) => says)).toEqual([
      '',
      'never takes cover',
      'takes cover below 60 %',
      'takes cover below 95 %',
    ]);
    expect(habits.find(({ id }) => id === 'distance')!.levels[1].says).toBe('keeps 1.3 m to 2.3 m');
  });

  test('a play is its levels; as a style it fights to the same digest, and says what a style can’t', () => {
    const habits = habitsOf(project, compileScenario(project, bell), bell);
    const play = habits.map(({ id, levels }) => (['distance', 'runs', 'answers', 'place'].includes(id) ? levels.length - 1 : 0));
    expect(wordsOfPlay(habits, play)).toHaveLength(4);
    const { left } = styleOfPlay(habits, play);
    expect(left).toEqual([expect.stringMatching(/^begins at/)]);
    const without = play.map((level, h) => (habits[h].id === 'place' ? 0 : level));
    const { project: kept, style } = withStyleOf(project, bell, habits, without);
    const ran = (of: Project, cell: Scenario) => runFights({ project: of, cell, firstSeed: 1, runs: 40, columns: ['won'] });
    const turned = ran(project, { ...bell, turned: turnsOfPlay(habits, without) });
    expect(ran(kept, { ...bell, style: style.id })).toEqual(turned);
    expect(ran(project, bell)).not.toEqual(turned);
    expect(() => parseProject(JSON.parse(JSON.stringify(kept)))).not.toThrow();
    const again = withStyleOf(kept, { ...bell, style: style.id }, habits, without);
    expect([again.style.id, again.style.name]).toEqual([`${style.id}-2`, `${style.name} 2`]);
    expect(again.style.tweaks).toHaveLength(2 * style.tweaks.length);
  });

  test('a fight without a player has none, and a search says so', () => {
    const document = JSON.parse(JSON.stringify(project));
    for (const unit of document.units) delete unit.player;
    const bare = parseProject(document);
    expect(habitsOf(bare, compileScenario(bare, crowd), crowd)).toEqual([]);
    expect(() => workThrough(playWork({ project: bare, cell: crowd, budget: 20_000 }))).toThrow('nobody of this fight is a player');
    expect(() => workThrough(playWork({ project, cell: crowd, budget: 500 }))).toThrow('at least 12000 runs, it is 500');
  });
});

describe('places', () => {
  test('lie all over the arena, clear of walls; in a part that nobody gets to there is one, told as such', () => {
    const pen = { x: 6, y: -5 };
    const penned = withPen(pen, 1.7);
    const spots = spotsOf(compileScenario(penned, bell));
    expect(spots.length).toBeGreaterThan(25);
    const inside = spots.filter(({ x, y }) => Math.abs(x - pen.x) < 1.7 && Math.abs(y - pen.y) < 1.7);
    expect(inside.length).toBeGreaterThan(0);
    expect(spots.filter(({ unreached }) => unreached)).toEqual(inside);
    expect(spotsOf(compileScenario(project, bell)).some(({ unreached }) => unreached)).toBe(false);
  });
});

describe('the cheapest way to win', () => {
  test('worth is what is left of the party where it is won', () => {
    expect(worthOf({ digests: [], columns: { won: [1, 0, 1, 1, 1], dose: [0.25, 0.1, 1.5, NaN, 0] } })).toEqual([0.75, 0, 0, 0, 1]);
  });

  test('a planted place that no enemy gets to is found and proved; it is a warning that can be accepted', () => {
    // One here; ten by `npm run study`.
    const pens = [{ x: -3.1, y: 8.4, half: 2.3 }];
    for (const { x, y, half } of pens) {
      const penned = withPen({ x, y }, half);
      const found = workThrough(playWork({ project: penned, cell: bell, budget: 12_000 }));
      expect(found.runs).toBeLessThanOrEqual(12_000);
      expect(found.written.won.value).toBeLessThan(0.1);
      const [way] = found.ways;
      const at = (axis: string) => Number(way.turns.find(({ path }) => path.endsWith(`/${axis}`))!.value);
      expect([Math.abs(at('x') - x) < half, Math.abs(at('y') - y) < half]).toEqual([true, true]);
      expect(way.won.low).toBeGreaterThan(0.95);
      expect(way.dose.value).toBeLessThan(0.05);
      const warning = cheapWarning(bell, found)!;
      expect(warning).toMatchObject({ rule: 'wonCheaply', path: '/encounters/first-bell' });
      expect(warning.message).toMatch(/begins at .*, where no enemy gets to.* gets away with it: won 100 %, dose 0.00; as written won 0 %/);
      const accepted = { ...penned, accepted: [{ rule: warning.rule, path: warning.path, cause: causeOf(penned, warning), reason: '' }] };
      expect(acceptanceOf(accepted as Project, warning)).toBeDefined();
    }
  });

  test('where there is none it says so, and how little there is to do; the same answers come to the same', () => {
    const one: Scenario = { kind: 'encounter', id: 'first-bell', tier: 'bloom', skill: 'regular' };
    const ask = () => workThrough(playWork({ project, cell: one, budget: 12_000 }));
    const found = ask();
    expect(found.ways).toEqual([]);
    expect(cheapWarning(one, found)).toBeUndefined();
    expect(found.written.won.value).toBeGreaterThan(0.98);
    // One Clipper dies before it bites twice: nothing needs to be done about it.
    expect(wordsOfPlay(found.habits, found.dullest!.play)).toEqual(expect.arrayContaining(['stands still', 'never runs']));
    expect(found.dullest!.wins.low).toBeGreaterThan(-0.1);
    expect(dullSentence(found)).toMatch(/stands still.*: won \d+ %, dose .*; as written won/);
    expect(ask()).toEqual(found);
  });
});
