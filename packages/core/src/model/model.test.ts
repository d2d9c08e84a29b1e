import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { chainSentence, effectiveUnit } from './effective';
import { InvalidDocument } from './problem';
import { applyPatch, difference, patched, patchesOverlap, sameJson, sharing } from './patch';
import { placesAt, pointerOf, pointerSteps, valueAt } from './pointer';
import type { Project } from './project';
import { parseProject } from './validate';
import { projectSchema } from '../schema';
import { casesOf } from '../testing/cases';

const demo = (): any => JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8'));

function problemsOf(change: (document: any) => void) {
  const document = demo();
  change(document);
  try {
    parseProject(document);
  } catch (error) {
    if (error instanceof InvalidDocument) return error.problems.map(({ path, rule, value }) => [path, rule, value]);
    throw error;
  }
  return [];
}

describe('validity', () => {
  test('the demo is valid; parsing what was parsed changes nothing', () => {
    const parsed = parseProject(demo());
    expect(parseProject(structuredClone(parsed))).toEqual(parsed);
  });

  test('what is left out gets its default', () => {
    const project = parseProject({
      format: 'insidia-project',
      version: 4,
      id: 'p',
      name: 'P',
      units: [{ id: 'u', name: 'U', side: 'enemy' }],
    });
    expect(project.units[0]).toMatchObject({
      body: { radius: 0.4 },
      health: { max: 100 },
      targeting: { criteria: [{ by: 'nearest', weight: 1 }] },
    });
    expect(project.tiers).toEqual([]);
  });

  test.each<[string, (d: any) => void, unknown[]]>([
    ['below the least', (d) => (d.units[1].health.max = 0), ['/units/clipper/health/max', 'min', 0]],
    ['infinity', (d) => (d.units[1].movement.run = Infinity), ['/units/clipper/movement/run', 'number', Infinity]],
    ['NaN', (d) => (d.units[1].body.radius = NaN), ['/units/clipper/body/radius', 'number', NaN]],
    ['text for a number', (d) => (d.units[1].attacks[0].beat.cooldown = '1'), ['/units/clipper/attacks/bite/beat/cooldown', 'number', '1']],
    [
      'null for an absent field',
      (d) => (d.units[1].attacks[0].beat.every = null),
      ['/units/clipper/attacks/bite/beat/every', 'number', null],
    ],
    ['a list for a group', (d) => (d.units[1].body = []), ['/units/clipper/body', 'object', []]],
    ['a number for a group', (d) => (d.units[1].body = 3), ['/units/clipper/body', 'object', 3]],
    ['a list among the items of a list', (d) => (d.units[2].attacks[2] = []), ['/units/thistlejack/attacks', 'object', expect.anything()]],
    ['an unknown field', (d) => (d.units[1].pace = 3), ['/units/clipper/pace', 'unknown', 3]],
    ['an unknown word', (d) => (d.units[1].attacks[0].delivery = 'breath'), ['/units/clipper/attacks/bite/delivery', 'oneOf', 'breath']],
    ['turns without a word of them', (d) => (d.encounters[0].clock = 'rounds'), ['/encounters/first-bell/rounds', 'required', undefined]],
    [
      'a fraction for a count',
      (d) => (d.encounters[0].waves[0].groups[0].count.max = 1.5),
      ['/encounters/first-bell/waves/bell/groups/one/count/max', 'whole', 1.5],
    ],
    ['a second id', (d) => (d.units[2].id = 'clipper'), ['/units/clipper/id', 'unique', 'clipper']],
    ['an id of another list', (d) => (d.tiers[0].id = 'clipper'), ['/tiers/clipper/id', 'unique', 'clipper']],
    ['a second name', (d) => (d.units[2].name = 'Clipper'), ['/units/thistlejack/name', 'unique', 'Clipper']],
    [
      'an attack that is not there',
      (d) => (d.units[1].choice.priorities[0].entries[0].attack = 'sting'),
      ['/units/clipper/choice/priorities/0/entries/0/attack', 'reference', 'sting'],
    ],
    [
      'a state that is not there',
      (d) => (d.units[2].states[0].leaves[0].to = 'sleep'),
      ['/units/thistlejack/states/close-in/leaves/0/to', 'reference', 'sleep'],
    ],
    ['an arena that is not there', (d) => (d.encounters[0].arena = 'attic'), ['/encounters/first-bell/arena', 'reference', 'attic']],
    [
      'a spawn point that is not there',
      (d) => (d.encounters[0].waves[0].groups[0].at = ['door']),
      ['/encounters/first-bell/waves/bell/groups/one/at/0', 'reference', 'door'],
    ],
    [
      'a tweak that leads nowhere',
      (d) => (d.tiers[0].tweaks[0].path = '/health/most'),
      ['/tiers/seedling/tweaks/0/path', 'reference', '/health/most'],
    ],
    [
      'a skill that changes enemies',
      (d) => (d.skills[0].tweaks[0].scope = 'enemies'),
      ['/skills/novice/tweaks/0/scope', 'applies', 'enemies'],
    ],
    [
      'a range the wrong way round',
      (d) => (d.units[2].attacks[0].range = { min: 5, max: 2 }),
      ['/units/thistlejack/attacks/quill/range/min', 'order', 5],
    ],
    [
      'a pause the wrong way round',
      (d) => (d.units[2].choice.pause = { min: 2, max: 1 }),
      ['/units/thistlejack/choice/pause/min', 'order', 2],
    ],
    ['eyes above the head', (d) => (d.units[1].body.eyeHeight = 9), ['/units/clipper/body/eyeHeight', 'atMostHeight', 9]],
    [
      'a projectile without one',
      (d) => delete d.units[2].attacks[0].projectile,
      ['/units/thistlejack/attacks/quill/projectile', 'required', undefined],
    ],
    ['a band without edges', (d) => delete d.units[2].states[1].near, ['/units/thistlejack/states/keep-band/near', 'required', undefined]],
    [
      'too many units',
      (d) => (d.encounters[0].waves[0].groups[0].count = { min: 1, max: 500 }),
      ['/encounters/first-bell/waves', 'limit', 501],
    ],
    ['another format', (d) => (d.format = 'sheet'), ['/format', 'format', 'sheet']],
  ])('%s is refused by path, rule and value', (_, change, problem) => {
    expect(problemsOf(change)).toContainEqual(problem);
  });

  test('an attack that takes no time at a tier only is refused too', () => {
    const change = (d: any) => {
      d.units[1].attacks[0].beat = { ...d.units[1].attacks[0].beat, windup: 0, active: 0, recovery: 0, cooldown: 1 };
      d.tiers[2].tweaks.push({ scope: 'unit', of: 'clipper', path: '/attacks/*/beat/cooldown', op: '×', value: 0 });
    };
    expect(problemsOf(change)).toMatchObject([['/units/clipper/attacks/bite/beat', 'takesTime', expect.anything()]]);
  });

  test('no mutation of the demo’s values makes the parser fail otherwise than by refusing', () => {
    const paths: string[] = [];
    const walk = (value: unknown, at: string[]) => {
      if (typeof value === 'object' && value !== null) for (const [key, item] of Object.entries(value)) walk(item, [...at, key]);
      if (at.length) paths.push(JSON.stringify(at));
    };
    walk(demo(), []);
    fc.assert(
      fc.property(fc.constantFrom(...paths), fc.jsonValue(), (path, value) => {
        const steps = JSON.parse(path) as string[];
        problemsOf((document) => {
          const parent = steps.slice(0, -1).reduce((at: any, step) => at[step], document);
          parent[steps[steps.length - 1]] = value;
        });
      }),
      { numRuns: casesOf(200) },
    );
  });
});

describe('effective values', () => {
  const project = parseProject(demo());

  test('stack base → tier → skill, each with its step', () => {
    const { unit, chains } = effectiveUnit(project, 'thistlejack', { tier: 'bramble', skill: 'novice' });
    expect(unit.health.max).toBe(35);
    expect(chainSentence(chains.get('/health/max')!)).toBe('28 → ×1.25 Bramble → 35');
    expect(unit.attacks.map(({ effects }) => effects.damage?.amount)).toEqual([6, 4.8, 9.6].map((x) => expect.closeTo(x, 9)));
    expect(project.units[2].health.max).toBe(28); // the base is as it was
  });

  test('a skill changes the party only', () => {
    expect(effectiveUnit(project, 'warden', { skill: 'novice' }).unit.attacks[0].aim.near).toBeCloseTo(0.95 * 0.75, 12);
    expect(effectiveUnit(project, 'clipper', { skill: 'novice' }).chains.size).toBe(0);
  });

  test('limits of the tweak and of the field bite, and the chain says so', () => {
    const lens = { dials: [{ scope: 'unit' as const, of: 'clipper', path: '/health/max', op: '×' as const, value: 10, max: 150 }] };
    const { unit, chains } = effectiveUnit(project, 'clipper', lens);
    expect(unit.health.max).toBe(150);
    expect(chainSentence(chains.get('/health/max')!)).toBe('22 → ×10 dial → 150 (asked 220, capped)');
    const aim = { dials: [{ scope: 'unit' as const, of: 'warden', path: '/attacks/*/aim/near', op: '×' as const, value: 3 }] };
    expect(effectiveUnit(project, 'warden', aim).unit.attacks[0].aim.near).toBe(1);
  });

  test('= replaces, + adds, counts are rounded half up', () => {
    const dials = [
      { scope: 'unit' as const, of: 'mulcher', path: '/attacks/slam/effects/damage/amount', op: '=' as const, value: 3 },
      { scope: 'role' as const, of: 'bruiser', path: '/movement/run', op: '+' as const, value: 0.4 },
      { scope: 'role' as const, of: 'bruiser', path: '/movement/walk', op: '=' as const, value: 1 },
    ];
    const { unit } = effectiveUnit(project, 'mulcher', { dials });
    expect([unit.attacks[0].effects.damage?.amount, unit.movement.run, unit.movement.walk]).toEqual([3, 5, 1]);
    const rounds = [{ scope: 'party' as const, path: '/player/magazine/rounds', op: '×' as const, value: 0.25 }];
    expect(effectiveUnit(project, 'warden', { dials: rounds }).unit.player?.magazine?.rounds).toBe(5); // 4.5, half up
  });
});

describe('pointers and patches', () => {
  test('steps through lists go by id; escapes are undone', () => {
    expect(valueAt(demo(), '/units/clipper/attacks/bite/name')).toBe('Bite');
    expect(valueAt(demo(), '/units/1/name')).toBeUndefined();
    expect(valueAt({ 'a/b': { '~': 1 } }, '/a~1b/~0')).toBe(1);
    expect(pointerOf('a/b', '~')).toBe('/a~1b/~0');
    expect(pointerSteps('/a~1b/~0')).toEqual(['a/b', '~']);
    expect(placesAt(demo().units[2], ['attacks', '*', 'range', 'max'])).toHaveLength(3);
    // What has no id is named by its place; so is what is no object.
    expect(placesAt({ list: [{ a: 1 }, { id: 'b', a: 2 }, { id: 3, a: 4 }] }, ['list', '*', 'a'])).toEqual([
      ['list', '0', 'a'],
      ['list', 'b', 'a'],
      ['list', '2', 'a'],
    ]);
    expect(placesAt({ list: [7] }, ['list', '*'])).toEqual([['list', '0']]);
  });

  test('adding in a list keeps the place; what is there already is not added twice', () => {
    const from = { list: [{ id: 'a' }, { id: 'c' }] };
    const to = { list: [{ id: 'a' }, { id: 'b' }, { id: 'c' }, { id: 'd' }] };
    const patch = difference(from, to);
    const copy = structuredClone(from);
    applyPatch(copy, patch);
    expect(copy).toEqual(to);
    expect(() => applyPatch(copy, patch)).toThrow('"d" is there already');
  });

  test('a patch that does not fit says which operation and why', () => {
    expect(() => applyPatch(demo(), [{ op: 'replace', path: '/units/moth/health/max', value: 1 }])).toThrow(
      'operation 0 (/units/moth/health/max): there is nothing at "moth"',
    );
    expect(() => applyPatch({ a: 1 }, [{ op: 'test', path: '/a', value: 2 }])).toThrow('the value is another');
    expect(() => applyPatch({}, [{ op: 'add', path: '/__proto__/x', value: 1 }])).toThrow('not a field');
  });

  describe('of any two documents', () => {
    const item = fc.record({
      id: fc.constantFrom('a', 'b', 'c', 'd'),
      value: fc.integer({ min: 0, max: 3 }),
      inner: fc.option(fc.record({ x: fc.integer() }), { nil: undefined }),
    });
    const document = fc
      .record({
        list: fc.uniqueArray(item, { selector: ({ id }) => id }),
        plain: fc.array(fc.integer(), { maxLength: 3 }),
        field: fc.option(fc.string(), { nil: undefined }),
      })
      .map((d) => JSON.parse(JSON.stringify(d)) as { list: { id: string }[]; plain: number[]; field?: string });

    test('the difference, applied, gives the second', () => {
      fc.assert(
        fc.property(document, document, (from, to) => {
          const copy = structuredClone(from);
          applyPatch(copy, difference(from, to));
          expect(sameJson(copy, to)).toBe(true);
        }),
        { numRuns: 2000 },
      );
    });

    test('what the second has like the first can be the very same objects, and the first stays as it was', () => {
      fc.assert(
        fc.property(document, document, (from, to) => {
          const kept = structuredClone(from);
          for (const shared of [sharing(from, to), patched(from, difference(from, to))]) {
            expect(sameJson(shared, to)).toBe(true);
            expect(from).toEqual(kept);
            expect(shared === from).toBe(sameJson(from, to));
            expect(shared.list === from.list).toBe(sameJson(from.list, to.list));
            for (const one of shared.list) {
              const before = from.list.find(({ id }) => id === one.id);
              expect(one === before).toBe(before !== undefined && sameJson(before, one));
            }
          }
        }),
        { numRuns: 2000 },
      );
      expect(sharing({ a: [1, 2] }, { a: [1, 2, 3] })).toEqual({ a: [1, 2, 3] });
      expect(sharing<unknown>({ a: [] }, { a: {} })).toEqual({ a: {} });
      expect(sharing<unknown>({ a: null }, { a: undefined })).toEqual({ a: undefined });
    });
  });

  test('patches overlap where one touches what the other is a part of', () => {
    const at = (path: string) => [{ op: 'replace' as const, path, value: 1 }];
    expect(patchesOverlap(at('/units/clipper/health/max'), at('/units/clipper/health/regen'))).toEqual([]);
    expect(patchesOverlap(at('/units/clipper/health/max'), [{ op: 'remove', path: '/units/clipper' }])).toEqual([
      '/units/clipper/health/max',
    ]);
    expect(patchesOverlap(at('/units/clip'), at('/units/clipper'))).toEqual([]);
  });
});

test('the schema has every field of the demo, its units and limits', () => {
  const schema = projectSchema() as { properties: object; $defs: Record<string, { properties: Record<string, unknown> }> };
  const seen = demo() as Project;
  for (const key of Object.keys(seen)) expect(Object.keys(schema.properties)).toContain(key);
  for (const unit of seen.units) for (const key of Object.keys(unit)) expect(Object.keys(schema.$defs.Unit.properties)).toContain(key);
  expect(schema.$defs.Health.properties.max).toMatchObject({
    type: 'number',
    minimum: 0.001,
    default: 100,
    description: 'Health (hp): full health',
  });
  expect(schema.$defs.Condition.properties.parts).toMatchObject({ items: { $ref: '#/$defs/Condition' } });
  expect(Object.keys(schema.$defs)).toContain('Skill');
});

test('the schema speaks of nothing that it does not define, and says of every field what it may be', () => {
  const schema = projectSchema() as { $defs: Record<string, { properties: Record<string, Record<string, unknown>> }> };
  const told = JSON.stringify(schema);
  const references = [...told.matchAll(/"\$ref":"([^"]+)"/g)].map(([, to]) => to);
  expect(references.length).toBeGreaterThan(50);
  expect(references.filter((to) => !(to.replace('#/$defs/', '') in schema.$defs))).toEqual([]);
  const vague = Object.entries(schema.$defs).flatMap(([name, { properties }]) =>
    Object.entries(properties).flatMap(([field, own]) =>
      'type' in own || 'enum' in own || '$ref' in own || 'const' in own ? [] : [`${name}.${field}`],
    ),
  );
  // What a change of a variant puts in its place may be anything.
  expect(vague).toEqual(['Alteration.value']);
});
