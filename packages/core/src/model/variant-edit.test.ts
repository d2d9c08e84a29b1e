import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { demoProject } from '../testing/demo';
import { editUnit, setAt } from './edit';
import { parseProject } from './validate';
import { writtenUnit } from './effective';
import { asBase, ownValues } from './variant-edit';
import { dropPart } from './references';
import { evenly } from '../testing/evenly';
import { frozen } from '../testing/frozen';

const elder = 'clipper-elder';
const variant = (project: ReturnType<typeof demoProject>) => project.variants.find(({ id }) => id === elder)!;

describe('editing a linked variant', () => {
  test('a number becomes a tweak that sets it; tweaks that still hold stay as they are written', () => {
    const project = editUnit(demoProject(), elder, (unit) => {
      unit.movement.walk = 3;
      unit.health.max = 90;
    });
    expect(variant(project).tweaks).toEqual([
      { path: '/attacks/bite/effects/damage/amount', op: '×', value: 1.25 },
      { path: '/movement/run', op: '×', value: 0.85 },
      { path: '/health/max', op: '=', value: 90 },
      { path: '/movement/walk', op: '=', value: 3 },
    ]);
    expect(writtenUnit(project, elder)).toMatchObject({ movement: { walk: 3 }, health: { max: 90 } });
  });

  test('a change of the base reaches the variant except where it has its own value', () => {
    const project = editUnit(
      editUnit(demoProject(), elder, (unit) => (unit.movement.walk = 3)),
      'clipper',
      (unit) => {
        unit.movement.walk = 9;
        unit.body.radius = 0.7;
        unit.health.max = 100;
      },
    );
    expect(writtenUnit(project, elder)).toMatchObject({ movement: { walk: 3 }, body: { radius: 0.7 }, health: { max: 160 } });
  });

  test('what differs is listed, and each can be given back to the base', () => {
    const project = editUnit(demoProject(), elder, (unit) => {
      unit.states[0].name = 'Creep';
      unit.senses.needsLine = false;
    });
    const paths = ownValues(project, elder).map(({ path }) => path);
    expect(paths).toEqual(expect.arrayContaining(['/health/max', '/movement/run', '/states/rush/name', '/senses/needsLine']));
    let plain = frozen(project);
    for (const path of paths) {
      const wanted = asBase(plain, variant(plain), path);
      plain = frozen(editUnit(plain, elder, (unit) => Object.assign(unit, wanted)));
    }
    expect(variant(plain)).toMatchObject({ changes: [], tweaks: [] });
    expect({ ...writtenUnit(plain, elder), id: 0, name: 0, notes: 0, glyph: 0, colour: 0 }).toEqual({
      ...writtenUnit(plain, 'clipper'),
      id: 0,
      name: 0,
      notes: 0,
      glyph: 0,
      colour: 0,
    });
  });

  test('parts can be added to and taken from a variant, and its base’s own parts stay', () => {
    const project = editUnit(demoProject(), elder, (unit) => {
      unit.attacks.push({ ...structuredClone(unit.attacks[0]), id: 'gnaw', name: 'Gnaw' });
      unit.choice.priorities[0].entries.push({ attack: 'gnaw', weight: 2 });
    });
    expect(writtenUnit(project, elder).attacks.map(({ id }) => id)).toEqual(['bite', 'gnaw']);
    expect(writtenUnit(project, 'clipper').attacks.map(({ id }) => id)).toEqual(['bite']);
    parseProject(structuredClone(project));
    const without = editUnit(project, elder, (unit) => dropPart(unit, 'attack', 'bite'));
    expect(writtenUnit(without, elder).choice.priorities).toEqual([{ entries: [{ attack: 'gnaw', weight: 2 }] }]);
    parseProject(structuredClone(without));
  });

  test('a change to something the base no longer has is left out, and the project stays sound', () => {
    const project = editUnit(demoProject(), elder, (unit) => (unit.states[0].name = 'Creep'));
    const without = editUnit(project, 'clipper', (unit) => dropPart(unit, 'state', 'rush'));
    expect(variant(without).changes).toEqual([]);
    expect(writtenUnit(without, elder).states).toEqual([]);
    parseProject(structuredClone(without));
  });

  test('whatever numbers are written, the variant comes to exactly them', () => {
    const paths = [
      '/health/max',
      '/movement/run',
      '/movement/walk',
      '/body/radius',
      '/attacks/bite/effects/damage/amount',
      '/attacks/bite/beat/cooldown',
      '/senses/sight',
    ];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...paths), evenly(0.1, 15)), { maxLength: 12 }), (edits) => {
        let project = demoProject();
        for (const [path, value] of edits) project = editUnit(project, elder, (unit) => setAt(unit, path, value));
        const wanted = structuredClone(writtenUnit(demoProject(), elder));
        for (const [path, value] of edits) setAt(wanted, path, value);
        expect(writtenUnit(project, elder)).toEqual(wanted);
      }),
      { numRuns: 200 },
    );
  });
});
