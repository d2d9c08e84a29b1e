/** What an edit in seconds adds to a fight in turns is said in turns at once, and nothing else is touched. */
import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { blank } from './blank';
import { Attack } from './attack';
import { Condition } from './condition';
import { Repeat, Wave } from './encounter';
import type { Project } from './project';
import { roundsProblems } from './rounds-relations';
import { State, Transition } from './state';
import { projectWithRounds } from './turning-rounds';
import { withTurnsFilled } from './turns-filled';
import { Unit } from './unit';

const ENCOUNTER = 'first-bell';
const turned = () => projectWithRounds(demoProject(), ENCOUNTER, { round: 2, cell: 1.5 });
const fightOf = (project: Project) => project.encounters.find(({ id }) => id === ENCOUNTER)!;
const enemyOf = (project: Project) => {
  const id = fightOf(project).waves[0].groups[0].enemy;
  return project.units.find((unit) => unit.id === id)!;
};
/** A copy with something done to it. */
function edited(project: Project, change: (copy: Project) => void): Project {
  const copy = structuredClone(project);
  change(copy);
  return copy;
}

describe('a document that lacks nothing', () => {
  test('in seconds alone, or with all said in turns, is given back itself', () => {
    const inSeconds = demoProject();
    expect(withTurnsFilled(inSeconds)).toBe(inSeconds);
    const project = turned();
    expect(withTurnsFilled(project)).toBe(project);
  });

  test('a unit that no fight in turns meets may lack what it likes', () => {
    const project = edited(turned(), (copy) => copy.units.push({ ...blank(Unit), id: 'stranger', name: 'Stranger', side: 'enemy' }));
    expect(withTurnsFilled(project)).toBe(project);
  });

  test('one that names units that are not there is left for the rules to refuse', () => {
    const project = edited(turned(), (copy) => {
      enemyOf(copy).attacks.push({ ...blank(Attack), id: 'new', name: 'New' });
      fightOf(copy).waves[0].groups[0].enemy = 'nobody';
    });
    expect(withTurnsFilled(project)).toBe(project);
    const party = edited(turned(), (copy) => {
      enemyOf(copy).attacks.push({ ...blank(Attack), id: 'new', name: 'New' });
      fightOf(copy).party[0].unit = 'nobody';
    });
    expect(withTurnsFilled(party)).toBe(party);
  });
});

describe('what is added', () => {
  test.each<[string, (copy: Project) => void, (project: Project) => unknown, object]>([
    [
      'an attack',
      (copy) =>
        enemyOf(copy).attacks.push({
          ...blank(Attack),
          id: 'new',
          name: 'New',
          range: { min: 1, max: 4 },
          beat: { ...blank(Attack).beat, windup: 3, cooldown: 7 },
        }),
      (project) => enemyOf(project).attacks.at(-1),
      // Of 2 s and 1 m: 3 s are two turns, 7 s four.
      { rounds: { from: 1, to: 4, windup: 2, cooldown: 4 } },
    ],
    [
      'an effect of an attack',
      (copy) => (enemyOf(copy).attacks[0].effects.slow = { share: 0.5, for: 3 }),
      (project) => enemyOf(project).attacks[0].effects.slow,
      { share: 0.5, for: 3, rounds: { for: 2 } },
    ],
    [
      'a state that keeps a distance',
      (copy) => enemyOf(copy).states.push({ ...blank(State), id: 'apart', name: 'Apart', does: 'band', near: 2, far: 5 }),
      (project) => enemyOf(project).states.at(-1),
      { rounds: { near: 2, far: 5 } },
    ],
    [
      'a way out, and what it asks',
      (copy) =>
        enemyOf(copy).states[0].leaves.push({
          ...blank(Transition),
          to: enemyOf(copy).states[0].id,
          after: 5,
          when: { ...blank(Condition), subject: 'sinceHit', is: 'above', value: 6 },
        }),
      (project) => enemyOf(project).states[0].leaves.at(-1),
      { rounds: { after: 3 }, when: { rounds: { value: 3 } } },
    ],
    [
      'a wave that comes again',
      (copy) =>
        fightOf(copy).waves.push({
          ...structuredClone(fightOf(copy).waves[0]),
          ...({ rounds: undefined } as object),
          id: 'late',
          name: 'Late',
          start: 'clock',
          at: 20,
          repeat: { ...blank(Repeat), times: 3, pause: 4 },
        }),
      (project) => fightOf(project).waves.at(-1),
      { rounds: { at: 11 }, repeat: { rounds: { pause: 2 } } },
    ],
  ])('%s is said in turns at the usual scale, and passes the rules', (_, change, found, meant) => {
    const before = edited(turned(), change);
    expect(roundsProblems(before).length).toBeGreaterThan(0);
    const after = withTurnsFilled(before);
    expect(found(after)).toMatchObject(meant);
    expect(roundsProblems(after)).toEqual([]);
    // Nothing that was there is another: without what was filled in they are the same.
    expect(withoutRounds(after)).toEqual(withoutRounds(before));
    // What was given is not written on.
    expect(roundsProblems(before).length).toBeGreaterThan(0);
  });

  test('what is written of turns already stays, however odd', () => {
    const before = edited(turned(), (copy) => {
      enemyOf(copy).attacks[0].rounds!.cooldown = 77;
      enemyOf(copy).attacks.push({ ...blank(Attack), id: 'new', name: 'New' });
    });
    const after = withTurnsFilled(before);
    expect(enemyOf(after).attacks[0].rounds).toEqual(enemyOf(before).attacks[0].rounds);
    expect(enemyOf(after).rounds).toEqual(enemyOf(before).rounds);
  });

  test('a wave of a class of its own, and a unit that comes with it', () => {
    const after = withTurnsFilled(
      edited(turned(), (copy) => {
        copy.units.push({ ...structuredClone(enemyOf(demoProject())), id: 'another', name: 'Another' });
        fightOf(copy).waves.push({
          ...blank(Wave),
          id: 'late',
          name: 'Late',
          groups: [{ ...structuredClone(fightOf(copy).waves[0].groups[0]), id: 'g', enemy: 'another' }],
        });
      }),
    );
    expect(after.units.at(-1)!.rounds).toBeDefined();
    expect(roundsProblems(after)).toEqual([]);
  });
});

/** A document without anything in turns. */
function withoutRounds(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutRounds);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, one]) => (key === 'rounds' || one === undefined ? [] : [[key, withoutRounds(one)]])),
  );
}
