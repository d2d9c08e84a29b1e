import { expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { effectiveUnit } from './effective';
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
