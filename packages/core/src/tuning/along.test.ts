import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import type { Scenario } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import { alongPoint, crossingsOf, gridOf, pointsBetween } from './along';
import { type Dial, dialFor, nudged, standsAt, stepped } from './dial';
import { dialValue, dialWords } from './dial-words';
import { numbersOf } from './dials-of-fight';
import { lookAt } from './goal';
import { movesOf, nudges, byStrength, turnedCell } from './moves';

const project = demoProject();
const cell: Scenario = { kind: 'duel', id: 'clipper' };
const health = dialFor(project, '/units/clipper/health/max')!;

describe('a dial', () => {
  test('stands where it is written, turns by people’s steps, and is named by what it is of', () => {
    expect(standsAt(project, health)).toBe(22);
    expect([health.low, health.high, health.step]).toEqual([11, 33, 1]);
    expect(nudged(project, health)).toBe(24);
    expect(dialWords(project, health)).toEqual({ name: 'Health', whose: 'Clipper', unit: 'hp' });
    const cooldown = dialFor(project, '/units/clipper/attacks/bite/beat/cooldown')!;
    expect(nudged(project, cooldown)).toBe(1.75); // 1.76, at a step of 0.05
    expect(dialWords(project, cooldown)).toEqual({ name: 'Bite: cooldown', whose: 'Clipper', unit: 's' });
    expect(dialValue(project, cooldown, 1.75)).toBe('1.75 s');
    expect(dialFor(project, '/units/clipper/name')).toBeUndefined();
    expect(dialFor(project, '/units/nobody/health/max')).toBeUndefined();
  });

  test('goes down where it stands at its upper end, and nowhere where it has nowhere to go', () => {
    expect(nudged(project, { ...health, high: 22 })).toBe(20);
    expect(nudged(project, { ...health, low: 22, high: 22 })).toBeUndefined();
    expect(nudges(project, [{ ...health, low: 22, high: 22 }, health])).toMatchObject({ turned: [{ to: 24 }], stuck: [{ low: 22 }] });
  });

  test('of a kind of number is a factor', () => {
    const kind: Dial = { id: 'kind', path: '/units/*/attacks/*/beat/cooldown', role: 'enemy', op: '×', low: 0.5, high: 2 };
    expect(standsAt(project, kind)).toBe(1);
    expect(nudged(project, kind)).toBe(1.1);
    expect(dialWords(project, kind)).toEqual({ name: 'Cooldown of all attacks (beat)', whose: 'all enemies', unit: '×' });
    expect(dialValue(project, kind, 1.1)).toBe('× 1.1');
  });

  test('every number of a fight has one, each of its own, none of the party’s', () => {
    const all = numbersOf(project, compileScenario(project, { kind: 'encounter', id: 'evening-shift' }), 'evening-shift');
    expect(new Set(all.map(({ path }) => path)).size).toBe(all.length);
    const party = project.units.filter(({ side }) => side === 'party').map(({ id }) => id);
    expect(all.filter(({ path }) => party.includes(path.split('/')[2]))).toEqual([]);
    for (const dial of all) {
      const now = standsAt(project, dial)!;
      expect(dial.low <= now && now <= dial.high).toBe(true);
      expect(dialWords(project, dial).name).not.toBe('');
    }
    expect(all.some(({ path }) => path.startsWith('/encounters/evening-shift/waves/'))).toBe(true);
  });
});

describe('along a dial', () => {
  test('the values are its ends, what is written, and steps between', () => {
    expect(gridOf(health, 22)).toEqual([11, 15, 18, 22, 26, 29, 33]);
    expect(gridOf({ ...health, low: 20, high: 23 }, 22)).toEqual([20, 21, 22, 23]);
    expect(stepped(health, 22.4)).toBe(22);
    expect(stepped({ low: 0, high: 1, step: 0.05 }, 0.14999)).toBe(0.15);
  });

  const objective = { ...lookAt(cell, 'timeToKill'), band: { low: 4, high: 6 } };
  const many = (value: number) => Array.from({ length: 60 }, (_, i) => value + (i % 7) * 0.01);

  test('a point tells where its statistic lies, its runs’ middle half, and the verdict', () => {
    expect(alongPoint(22, objective, many(5))).toMatchObject({ at: 22, value: 5.03, verdict: 'met', spread: { low: 5.01, high: 5.05 } });
    expect(alongPoint(22, objective, many(9)).verdict).toBe('missedHigh');
    expect(alongPoint(22, lookAt(cell, 'won'), [1, 0, 1, 1])).not.toHaveProperty('spread');
  });

  test('it enters and leaves what is wanted between the points that are sure of it, on the straight line as a guess', () => {
    const at = (x: number, value: number, verdict?: 'undecided') => ({
      ...alongPoint(x, objective, many(value)),
      ...(verdict && { verdict }),
    });
    const points = [at(10, 2), at(20, 3.9, 'undecided'), at(30, 4.9), at(40, 8)];
    const [into, out] = crossingsOf(points, objective.band);
    expect(into).toMatchObject({ goes: 'in', between: { low: 10, high: 30 } });
    expect(into.at).toBeCloseTo(30 - (4.93 - 4) / 0.1, 6); // 3.93 at 20, 4.93 at 30: 4 is at 20.7
    expect(out).toMatchObject({ goes: 'out', between: { low: 30, high: 40 } });
    expect(pointsBetween({ ...health, low: 10, high: 40 }, [points], [objective.band])).toEqual([25, 35]);
    expect(crossingsOf([at(10, 2), at(20, 3)], objective.band)).toEqual([]);
  });
});

describe('what moves it', () => {
  test('is told of each dial for each objective; not run, exactly none, and stronger ones in their order', () => {
    const objectives = [lookAt(cell, 'timeToKill'), lookAt(cell, 'won')];
    const other = dialFor(project, '/units/clipper/movement/run')!;
    const { turned } = nudges(project, [health, other]);
    const values: Record<string, number[]> = { base: [4, 5, 6, 7], [JSON.stringify(turnedCell(cell, health, 24))]: [5, 6, 7, 9] };
    const moved = movesOf(objectives, turned, (one, { measure }) => {
      if (measure === 'won') return { digests: ['a', 'b', 'c', 'd'], values: [1, 1, 1, 1] };
      const own = one.turned ? values[JSON.stringify(one)] : values.base;
      return own && { digests: own.map((value) => String(value)), values: own };
    });
    expect(moved[0].effects[0]).toMatchObject({ difference: 1, before: 5, after: 6 });
    expect(moved[0].effects[1]!.says).toBe('never');
    expect(moved[1].effects[0]).toBeUndefined();
    expect(byStrength(moved, 0).map(({ dial }) => dial.id)).toEqual([health.id, other.id]);
  });
});
