import { expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { type InvalidDocument } from './problem';
import { FORMAT_VERSION } from './project';
import { UPGRADES, type Upgrade, upgraded } from './upgrades';
import { parseProject } from './validate';

/** A format that once called health otherwise, and before that had it beside the units. */
const MADE_UP: Upgrade[] = [
  ({ strengths, ...rest }) => ({
    ...rest,
    units: (rest.units as object[]).map((unit, i) => ({ ...unit, strength: (strengths as number[])[i] })),
  }),
  ({ units, ...rest }) => ({
    ...rest,
    units: (units as { strength: number }[]).map(({ strength, ...unit }) => ({ ...unit, health: { max: strength } })),
  }),
];

test('documents of every earlier version come to the same, each through all steps from its own on; what was handed in stays', () => {
  const first = { version: 1, units: [{ id: 'a' }, { id: 'b' }], strengths: [3, 5] };
  const second = {
    version: 2,
    units: [
      { id: 'a', strength: 3 },
      { id: 'b', strength: 5 },
    ],
  };
  const third = {
    version: 3,
    units: [
      { id: 'a', health: { max: 3 } },
      { id: 'b', health: { max: 5 } },
    ],
  };
  const before = structuredClone([first, second, third]);
  expect([first, second, third].map((one) => upgraded(one, MADE_UP))).toEqual([third, third, third]);
  expect([first, second, third]).toEqual(before);
});

test('the chain is as long as the format is old', () => {
  expect(UPGRADES.length + 1).toBe(FORMAT_VERSION);
});

test('a newer one is refused with what to do; what is no version is left to the rules', () => {
  const of = (version: unknown) => {
    try {
      parseProject({ ...demoProject(), version });
      return 'taken';
    } catch (error) {
      return (error as InvalidDocument).problems.map(({ path, message }) => `${path} ${message}`).join();
    }
  };
  expect(of(1)).toBe('taken');
  expect(of(2)).toBe('/version must be at most 1: it was written by a newer Insidia, which can read it');
  for (const version of [0, -1, 1.5, '1', null, undefined]) expect(of(version)).toMatch(/^\/version must be 1/);
});
