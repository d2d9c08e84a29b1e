import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import type { Project } from './project';
import { usesOf, without } from './references';
import type { Tweak } from './tweak';
import type { Priority } from './unit';
import { parseProject } from './validate';

const ID = 'visitor';

/** Pointers to every text of a document that is an id, whatever it is there for. */
function mentions(value: unknown, id: string, path = ''): string[] {
  if (value === id) return [path];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([key, one]) => mentions(one, id, `${path}/${key}`));
}
const spoken = (project: Project, id: string) =>
  mentions(project, id).filter((path) => !/^\/(units|variants)\/\d+\/id$/.test(path) && !path.startsWith('/accepted'));

/** The demo with one more enemy that nothing speaks of. */
function withVisitor(): Project {
  const project = demoProject();
  project.units.push({ ...structuredClone(project.units.find(({ id }) => id === 'clipper')!), id: ID, name: 'Visitor' });
  return project;
}
const tweak: Tweak = { scope: 'unit', of: ID, path: '/health/max', op: '×', value: 2 };
const evening = (project: Project) => project.encounters.find(({ id }) => id === 'evening-shift')!;
const warden = (project: Project) => project.units.find(({ id }) => id === 'warden')!;
const entry = (project: Project) => warden(project).choice.priorities[0].entries[0];

/** Every kind of place that can speak of a unit, and whether it goes with it. */
const places: [string, (project: Project) => void, boolean][] = [
  ['a summons', (p) => (p.units.find(({ id }) => id === 'head-gardener')!.attacks.find(({ summon }) => summon)!.summon!.unit = ID), false],
  ['a state that follows', (p) => Object.assign(warden(p).states[0], { does: 'follow', to: ID }), false],
  ['a targeting criterion', (p) => warden(p).targeting.criteria.push({ by: 'unit', of: ID, weight: 1 }), false],
  ['“only it”', (p) => (warden(p).targeting.only = { roles: [], units: [ID] }), false],
  ['“only it” and another', (p) => (warden(p).targeting.only = { roles: [], units: [ID, 'clipper'] }), true],
  ['“only it” and a role', (p) => (warden(p).targeting.only = { roles: ['boss'], units: [ID] }), true],
  ['“never it”', (p) => (warden(p).targeting.never = { roles: [], units: [ID] }), true],
  [
    '“never it” of an entry of a choice',
    (p) => (entry(p).targeting = { ...warden(p).targeting, never: { roles: [], units: [ID] } } as Priority['entries'][number]['targeting']),
    true,
  ],
  [
    'a change of a linked variant',
    (p) => p.variants[0].changes.push({ op: 'add', path: '/targeting/only', value: { roles: [], units: [ID] } }),
    false,
  ],
  ['a group', (p) => (evening(p).waves[0].groups[0].enemy = ID), true],
  [
    'a pool',
    (p) =>
      Object.assign(evening(p).waves[0].groups[0], {
        enemy: undefined,
        pool: [
          { enemy: ID, weight: 1 },
          { enemy: 'clipper', weight: 1 },
        ],
      }),
    true,
  ],
  ['a forced target', (p) => (evening(p).waves[0].groups[0].target = ID), true],
  [
    'the start of a wave',
    (p) => Object.assign(evening(p).waves[0], { start: 'condition', when: { subject: 'killed', of: ID, is: 'above', value: 1 } }),
    false,
  ],
  [
    'the condition of an event',
    (p) => evening(p).events.push({ id: 'e', name: 'E', when: { subject: 'killed', of: ID, is: 'above', value: 1 }, then: [] } as never),
    false,
  ],
  [
    'a tweak of an event',
    (p) =>
      evening(p).events.push({
        id: 'e',
        name: 'E',
        when: { subject: 'clock', is: 'above', value: 1 },
        then: [{ does: 'tweak', tweaks: [tweak, { ...tweak, of: 'clipper' }] }],
      } as never),
    true,
  ],
  ['the party', (p) => evening(p).party.push({ ...evening(p).party[0], id: 'third', unit: ID }), true],
  ['the allies', (p) => evening(p).allies.push({ ...evening(p).allies[0], ...evening(p).party[0], id: 'ally', unit: ID } as never), true],
  ['a cap', (p) => (evening(p).alive = { most: 20, full: 'wait', perType: [{ unit: ID, most: 2 }] } as never), true],
  ['party sizes', (p) => (evening(p).bySize = [{ members: 1, tweaks: [tweak] }]), true],
  ['a tier', (p) => p.tiers[0].tweaks.push(tweak), true],
  ['the trait of a tier', (p) => p.tiers[0].traits.push({ trait: 'hardened', scope: 'unit', of: ID }), true],
  [
    'a trait given by an event',
    (p) =>
      evening(p).events.push({
        id: 'e',
        name: 'E',
        when: { subject: 'clock', is: 'above', value: 1 },
        then: [{ does: 'trait', of: 'hardened', to: 'unit', whom: ID }],
      } as never),
    true,
  ],
  ['a skill', (p) => p.skills[0].tweaks.push(tweak), true],
  ['a style', (p) => p.styles[0].tweaks.push(tweak), true],
  ['a goal', (p) => p.brief!.bands.push({ id: 'one', measure: 'timeToKill', scope: 'unit', of: ID, statistic: 'median', low: 1 }), true],
];

describe('where a unit is used', () => {
  test('nothing speaks of a new one', () => {
    const project = withVisitor();
    expect([spoken(project, ID), usesOf(project, { kind: 'unit', id: ID })]).toEqual([[], []]);
  });

  test.each(places)('%s: is found, and deleting the unit leaves no name without a unit', (_, speak, goes) => {
    const project = withVisitor();
    speak(project);
    expect(() => parseProject(JSON.parse(JSON.stringify(project)))).not.toThrow();
    expect(spoken(project, ID)).not.toEqual([]);
    const uses = usesOf(project, { kind: 'unit', id: ID });
    expect(uses.map((use) => use.goes)).toEqual([goes]);
    if (!goes) return;
    const left = without(project, { kind: 'unit', id: ID });
    expect(spoken(left, ID)).toEqual([]);
    expect(() => parseProject(JSON.parse(JSON.stringify(left)))).not.toThrow();
  });

  test('of every unit of the demo: each place that speaks of it is found or goes', () => {
    const project = demoProject();
    for (const { id } of [...project.units, ...project.variants]) {
      const uses = usesOf(project, { kind: 'unit', id });
      expect([id, uses.length > 0]).toEqual([id, spoken(project, id).length > 0]);
      const kept = uses.some(({ goes }) => !goes);
      if (!kept) expect([id, spoken(without(project, { kind: 'unit', id }), id)]).toEqual([id, []]);
    }
  });
});

describe('where a trait is used', () => {
  const target = { kind: 'trait', id: 'hardened' } as const;
  const given: [string, (project: Project) => void, string][] = [
    ['a unit', (p) => warden(p).traits.push('hardened'), 'Warden: Traits'],
    [
      'a linked variant',
      (p) => void p.variants[0].changes.push({ op: 'replace', path: '/traits', value: ['hardened'] }),
      'Clipper, elder: Traits',
    ],
    ['a wave', (p) => evening(p).waves[0].traits.push('hardened'), 'Evening Shift › Wave 1: Traits'],
    ['a tier', (p) => p.tiers[0].traits.push({ trait: 'hardened', scope: 'enemies' }), 'Seedling: Trait'],
    [
      'an event',
      (p) =>
        evening(p).events.push({
          id: 'e',
          name: 'E',
          when: { subject: 'clock', is: 'above', value: 1 },
          then: [{ does: 'trait', of: 'hardened', to: 'enemies' }],
        } as never),
      'Evening Shift › E: Which',
    ],
  ];

  test.each(given)('%s: is found, and goes with it', (_, give, place) => {
    const project = demoProject();
    const before = usesOf(project, target).map(({ where }) => where);
    give(project);
    expect(() => parseProject(JSON.parse(JSON.stringify(project)))).not.toThrow();
    expect(usesOf(project, target).filter(({ where }) => !before.includes(where))).toEqual([{ where: place, goes: true }]);
    const left = without(project, target);
    expect(mentions(left, 'hardened')).toEqual([]);
    expect(() => parseProject(JSON.parse(JSON.stringify(left)))).not.toThrow();
  });
});

test('the last who stand against the enemies keep their unit, their wave and the points where they come, until others do', () => {
  const project = withVisitor();
  const shift = evening(project);
  const [first] = shift.waves;
  const held = (target: Parameters<typeof usesOf>[1]) =>
    usesOf(project, target)
      .filter(({ goes }) => !goes)
      .map(({ where }) => where);
  expect(held({ kind: 'unit', id: ID })).toEqual([]);
  shift.party = [];
  first.groups.push({ ...structuredClone(first.groups[0]), id: 'ours', enemy: ID, side: 'ours' });
  expect(() => parseProject(JSON.parse(JSON.stringify(project)))).not.toThrow();
  expect(held({ kind: 'unit', id: ID })).toEqual(['Evening Shift: Party']);
  expect(held({ kind: 'wave', id: first.id, in: shift.id })).toContain('Evening Shift: Party');
  first.groups.push({ ...structuredClone(first.groups[0]), id: 'too', enemy: 'mulcher', side: 'ours' });
  expect(held({ kind: 'unit', id: ID })).toEqual([]);
});
