import { describe, expect, test } from '@jest/globals';
import { compile } from '../engine/compile';
import { run } from '../engine/run';
import { demoProject } from '../testing/demo';
import { type InvalidDocument } from './problem';
import type { Json } from './pointer';
import { FORMAT_VERSION, type Project } from './project';
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
  for (const version of [2, 3, 4]) expect(of(version)).toBe('taken');
  expect(of(5)).toBe('/version must be at most 4: it was written by a newer Insidia, which can read it');
  for (const version of [0, -1, 1.5, '1', null, undefined]) expect(of(version)).toMatch(/^\/version must be 4/);
});

describe('from version 1', () => {
  const stout = [{ path: '/health/max', op: '×', value: 1.5 }];
  const quick = [{ path: '/movement/run', op: '×', value: 2 }];
  const group = (id: string, elite?: object) => ({ id, enemy: 'clipper', at: ['gate'], ...(elite && { elite }) });
  const wave = (...groups: object[]) => ({ id: 'w', name: 'W', groups });
  /** A file as version 1 wrote it: two points with health, two encounters, elites of two kinds. */
  const old = (encounters: object[] = []) => ({
    format: 'insidia-project',
    version: 1,
    id: 'p',
    name: 'P',
    units: [
      { id: 'clipper', name: 'Clipper', side: 'enemy' },
      { id: 'elite', name: 'Warden', side: 'party' },
    ],
    arenas: [
      {
        id: 'yard',
        name: 'Yard',
        width: 40,
        depth: 40,
        spawnPoints: [{ id: 'gate', name: 'Gate', x: 5, y: 5 }],
        points: [
          { id: 'vault', name: 'Vault', x: 0, y: 5, health: 50 },
          { id: 'lamp', name: 'Lamp', x: 3, y: 5, health: 20 },
          { id: 'sign', name: 'Sign', x: 6, y: 5 },
        ],
      },
    ],
    encounters: encounters.map((more, i) => ({ id: `e${i}`, name: `E${i}`, arena: 'yard', party: [{ id: 'm', unit: 'elite' }], ...more })),
  });
  const groupsOf = (project: Project) => project.encounters.flatMap(({ waves }) => waves.flatMap(({ groups }) => groups));

  test('what a share of a group carried is a trait, the same once; ids and names that are taken stay whose they are', () => {
    const project = parseProject(
      old([
        { waves: [wave(group('a', { chance: 0.25, tweaks: stout }), group('b', { tweaks: stout }), group('c'))] },
        { waves: [wave(group('d', { chance: 1, tweaks: quick }), group('e', {}))] },
      ]),
    );
    expect(project.version).toBe(4);
    expect(project.traits).toEqual([
      { id: 'elite-2', name: 'Elite', tweaks: stout },
      { id: 'elite-2-2', name: 'Elite 2', tweaks: quick },
      { id: 'elite-3', name: 'Elite 3', tweaks: [] },
    ]);
    expect(groupsOf(project).map(({ traits }) => traits)).toEqual([
      [{ trait: 'elite-2', share: 0.25 }],
      [{ trait: 'elite-2', share: 0.1 }],
      [],
      [{ trait: 'elite-2-2', share: 1 }],
      [{ trait: 'elite-3', share: 0.1 }],
    ]);
  });

  test('points that stood without being named are named, in each encounter of their arena', () => {
    const project = parseProject(old([{}, { ends: { defend: ['vault'] } }, { ends: { destroy: ['lamp'], also: [] } }]));
    expect(project.encounters.map(({ ends }) => ends.also)).toEqual([['vault', 'lamp'], ['lamp'], []]);
  });

  test('what stands, who comes and what becomes of it is as it was', () => {
    const waves = [wave({ ...group('a', { chance: 0.5, tweaks: stout }), count: { min: 20, max: 20 } })];
    const project = parseProject(old([{ waves, limit: 1 }]));
    const compiled = compile(project, { encounter: 'e0' });
    const { kinds, units } = run(compiled, 1);
    const health = (unit: number) => compiled.kinds[kinds[unit]].maxHealth;
    const found = Array.from({ length: units }, (_, unit) => health(unit));
    // The Warden, the two points, twenty Clippers of whom about a half have half as much again.
    expect(found.filter((max) => max === 50 || max === 20)).toHaveLength(2);
    expect(found.filter((max) => max === 150).length).toBeGreaterThan(4);
    expect(found.filter((max) => max === 150 || max === 100)).toHaveLength(21);
  });

  test('what is wrong with a document is found by the rules, wherever an upgrade would have looked', () => {
    const odd: unknown[] = [null, 3, 'x', [], [null], [{}], {}];
    for (const value of odd)
      for (const made of [
        { ...old(), encounters: value },
        { ...old(), arenas: value },
        old([{ waves: value }, { ends: value }, { ends: { defend: value } }]),
        old([
          { waves: [{ groups: value }] },
          { waves: [{ groups: [{ elite: value }] }] },
          { waves: [{ groups: [{ elite: { tweaks: value } }] }] },
        ]),
      ])
        expect(() => upgraded(made as Json)).not.toThrow();
  });
});

test('from version 2: the same document, which asks nothing of its numbers', () => {
  const { tuning, ...rest } = demoProject();
  expect(tuning).toBeDefined();
  const before = parseProject({ ...rest, version: 2 });
  expect(before).toEqual(parseProject(rest));
  expect(before.tuning).toBeUndefined();
});

test('from version 3: the same document, in which no fight takes turns', () => {
  expect(parseProject({ ...demoProject(), version: 3 })).toEqual(demoProject());
});
