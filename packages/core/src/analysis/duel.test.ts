import { expect, test } from '@jest/globals';
import { LIMITS } from '../model/limits';
import type { Project } from '../model/project';
import { demoProject } from '../testing/demo';
import { DUEL_MOST, type DuelOptions } from './duel-setup';
import { duelScenario } from './scenario';
import { compileScenario } from './compile-scenario';

/** The demo with nine more kinds of Clipper. */
function crowded(): Project {
  const project = demoProject();
  const clipper = project.units.find(({ id }) => id === 'clipper')!;
  for (let i = 0; i < 9; i++) project.units.push({ ...structuredClone(clipper), id: `clipper-${i}`, name: `Clipper ${i}` });
  return project;
}

const duel = (options: Partial<DuelOptions>) => () =>
  compileScenario(crowded(), duelScenario(crowded(), {}, { enemy: 'clipper', against: 'warden', ...options }));
const company = (kinds: number) => Array.from({ length: kinds }, (_, i) => ({ unit: `clipper-${i}`, count: 1 }));
const wardens = (members: number) => Array.from({ length: members }, () => 'warden');

test('a duel is of as many as it may be of, and of no more', () => {
  expect(duel({ company: company(DUEL_MOST.kinds) })().waves[0].groups).toHaveLength(DUEL_MOST.kinds + 1);
  expect(duel({ company: company(DUEL_MOST.kinds + 1) })).toThrow(
    `company must be at most ${DUEL_MOST.kinds} kinds: it is ${DUEL_MOST.kinds + 1}`,
  );
  expect(duel({ against: wardens(LIMITS.party) })().party).toHaveLength(LIMITS.party);
  expect(duel({ against: wardens(LIMITS.party + 1) })).toThrow(
    `against must name 1 to ${LIMITS.party} party members: it names ${LIMITS.party + 1}`,
  );
  expect(duel({ copies: DUEL_MOST.copies })().waves[0].groups[0].max).toEqual([DUEL_MOST.copies]);
  expect(duel({ copies: DUEL_MOST.copies + 1 })).toThrow('copies must be');
  expect(duel({ distance: 200 })().party).toHaveLength(1);
  expect(duel({ distance: 200.01 })).toThrow('distance must be from 0 to 200 m: it is 200.01');
});
