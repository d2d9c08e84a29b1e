import { expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { frozen } from '../testing/frozen';
import { effectiveEncounter, effectiveUnit, lenses, tweakedUnit } from './effective';
import { effectiveValues } from './effective-values';
import { valueAt } from './pointer';

test('every number of a unit through a lens: the value that a fight has, with its chain where something touched it', () => {
  const project = demoProject();
  for (const { id } of [...project.units, ...project.variants]) {
    const lens = { tier: 'blight', skill: 'expert', style: 'careful' };
    const { unit, chains } = effectiveUnit(project, id, lens);
    const values = effectiveValues(project, id, lens);
    expect(new Set(values.map(({ path }) => path)).size).toBe(values.length);
    for (const { path, value, chain } of values) {
      expect(valueAt(unit as never, path)).toBe(value);
      expect(chain?.value).toBe(chains.get(path)?.value);
      if (chain) expect(chain.value).toBe(value);
    }
    expect(values.filter(({ chain }) => chain).length).toBe(chains.size);
  }
});

test('a cap that bites is in the chain: asked 945, granted 420', () => {
  const health = effectiveValues(demoProject(), 'head-gardener', { tier: 'blight' }).find(({ path }) => path === '/health/max')!;
  expect(health).toMatchObject({ label: 'Health', unit: 'hp', value: 420 });
  expect(health.chain!.steps[health.chain!.steps.length - 1]).toMatchObject({ asked: 945, granted: 420 });
});

test('of several factors on one number only the largest counts where a list says so; sums and set values of it all do', () => {
  const project = demoProject();
  const health = (value: number, op: '×' | '+' = '×') => ({ scope: 'enemies' as const, path: '/health/max', op, value });
  const run = { ...health(2), path: '/movement/run' };
  project.tiers = [{ id: 't', name: 'T', traits: [], tweaks: [health(1.2), health(10, '+'), health(1.5), health(1.5), run] }];
  const of = () => {
    const { unit, chains } = effectiveUnit(project, 'clipper', { tier: 't' });
    return [unit.health.max, unit.movement.run, chains.get('/health/max')!.steps.map(({ index }) => index)];
  };
  // (22 × 1.2 + 10) × 1.5 × 1.5 = 81.9; of three factors the first of the two largest: (22 + 10) × 1.5 = 48.
  expect(of()).toEqual([expect.closeTo(81.9, 9), 14, [0, 1, 2, 3]]);
  project.tiers[0].largestOnly = true;
  expect(of()).toEqual([48, 14, [1, 2]]);
});

test('whatever is laid over a document, nothing of it is written in; what no tweak touches is the document’s own', () => {
  const written = demoProject();
  const project = frozen(structuredClone(written));
  for (const lens of lenses(project)) {
    for (const { id } of [...project.units, ...project.variants]) {
      const { unit, chains, words } = effectiveUnit(project, id, lens);
      // As if each had a copy of its own, and what comes later in a fight leaves what is known of it alone.
      const before = JSON.stringify(frozen(unit));
      const later = tweakedUnit(unit, [
        { path: '/health/max', op: '×', value: 0.5 },
        { path: '/attacks/*/beat/active', op: '+', value: 1 },
        { path: '/attacks/*/beat/recovery', op: '+', value: 1 },
      ]);
      expect(JSON.stringify(unit)).toBe(before);
      for (const [i, { beat }] of unit.attacks.entries()) {
        expect(later.attacks[i].beat.recovery).toBeCloseTo(beat.recovery + 1, 9);
        expect(later.attacks[i].beat.active).toBeCloseTo(beat.active + 1, 9);
      }
      const original = project.units.find((one) => one.id === id);
      const touched = [...chains.keys(), ...words.keys()];
      if (original && !touched.some((path) => path.startsWith('/attacks'))) expect(unit.attacks).toBe(original.attacks);
      if (original && !touched.length) expect(unit).toBe(original);
    }
    for (const encounter of project.encounters) effectiveEncounter(project, encounter, lens);
  }
  expect(project).toEqual(written);
});
