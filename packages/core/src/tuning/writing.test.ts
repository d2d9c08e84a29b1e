import { describe, expect, test } from '@jest/globals';
import type { Scenario } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import { Runner } from '../engine/run';
import type { Project } from '../model/project';
import type { Turn } from '../model/turn';
import { parseProject } from '../model/validate';
import { demoProject } from '../testing/demo';
import { writtenInto } from './writing';

const project = demoProject();
const lens = { tier: 'bloom', skill: 'regular' };
const shift: Scenario = { kind: 'encounter', id: 'evening-shift', ...lens };
const clipper: Turn = { path: '/units/clipper/health/max', op: '=', value: 30 };
const delay: Turn = { path: '/encounters/evening-shift/waves/three/delay', op: '=', value: 9.5 };
const swarm: Turn = { path: '/units/*/attacks/*/beat/cooldown', role: 'swarm', op: '×', value: 1.3 };

const running: Turn = { path: '/units/clipper/states/rush/pace', op: '=', value: 'walk' };
const held: Turn = { path: '/encounters/evening-shift/waves/three/holdsBack', op: '=', value: true };

const digest = (of: Project, scenario: Scenario, seed = 3) => new Runner(compileScenario(of, scenario)).run(seed).digest;
const written = (turns: Turn[], into: Parameters<typeof writtenInto>[2]) => {
  const found = writtenInto(project, turns, into, lens);
  if ('cannot' in found) throw new Error(found.cannot);
  parseProject(JSON.parse(JSON.stringify(found.project)));
  return found;
};
const refusal = (turns: Turn[], into: Parameters<typeof writtenInto>[2]) => {
  const found = writtenInto(project, turns, into, lens);
  return 'cannot' in found ? found.cannot : 'written';
};

describe('a point is written', () => {
  test.each([
    ['health of one', [clipper]],
    ['a delay', [delay]],
    ['a factor of a kind', [swarm]],
    ['a word', [running]],
    ['a yes-or-no of an encounter', [held]],
    ['all of them', [clipper, delay, swarm]],
  ])('%s at a tier: the fight there is the one that was tried, every other tier is as it was', (_, turns) => {
    const tried = digest(project, { ...shift, turned: turns });
    const found = written(turns, { kind: 'tier', tier: 'bloom' });
    expect(digest(found.project, shift)).toBe(tried);
    for (const tier of ['seedling', 'bramble']) expect(digest(found.project, { ...shift, tier })).toBe(digest(project, { ...shift, tier }));
    expect(found.project.units).toEqual(project.units);
    expect(tried).not.toBe(digest(project, shift));
  });

  test('a factor of a kind stays one tweak; a number of one is a factor over what the tier makes of it already', () => {
    const tweaksOf = (turns: Turn[]) =>
      written(turns, { kind: 'tier', tier: 'bloom' })
        .project.tiers.find(({ id }) => id === 'bloom')!
        .tweaks.slice(project.tiers.find(({ id }) => id === 'bloom')!.tweaks.length);
    expect(tweaksOf([swarm])).toEqual([{ scope: 'role', of: 'swarm', path: '/attacks/*/beat/cooldown', op: '×', value: 1.3 }]);
    expect(tweaksOf([clipper])[0]).toMatchObject({ scope: 'unit', of: 'clipper', path: '/health/max' });
    expect(tweaksOf([delay])).toEqual([{ scope: 'encounter', path: '/waves/three/delay', op: '=', value: 9.5 }]);
  });

  test('at a new tier, like another: its fight is the one that was tried', () => {
    const found = written([clipper, delay], { kind: 'newTier', name: 'Bloom', like: 'bloom' });
    const at = found.project.tiers.findIndex(({ id }) => id === found.tier);
    expect(found.project.tiers[at]).toMatchObject({ name: 'Bloom 2' });
    expect(found.project.tiers[at - 1].id).toBe('bloom');
    expect(digest(found.project, { ...shift, tier: found.tier })).toBe(digest(project, { ...shift, turned: [clipper, delay] }));
    expect(digest(found.project, shift)).toBe(digest(project, shift));
    const bare = written([clipper], { kind: 'newTier', name: 'Gentle' });
    expect(digest(bare.project, { ...shift, tier: bare.tier })).toBe(digest(project, { ...shift, tier: undefined, turned: [clipper] }));
  });

  test('in a trait: a factor on whoever has it', () => {
    const { id, tweaks } = project.traits[0];
    const found = written([clipper, swarm], { kind: 'trait', trait: id });
    expect(found.project.traits[0].tweaks.slice(tweaks.length)).toEqual([
      { path: '/health/max', op: '×', value: Number((30 / 22).toPrecision(12)) },
      { path: '/attacks/*/beat/cooldown', op: '×', value: 1.3 },
    ]);
  });

  test('where it stands', () => {
    expect(digest(written([clipper], { kind: 'written' }).project, shift)).toBe(digest(project, { ...shift, turned: [clipper] }));
  });

  test('what a tier or a trait can’t hold is refused in words', () => {
    const word: Turn = { path: '/units/clipper/attacks/bite/delivery', op: '=', value: 'melee' };
    const width: Turn = { path: `/arenas/${project.arenas[0].id}/width`, op: '=', value: 60 };
    const trait = { kind: 'trait', trait: project.traits[0].id } as const;
    const tier = { kind: 'tier', tier: 'bloom' } as const;
    const entry: Turn = { path: '/units/clipper/attacks/bite', op: '=', value: false };
    expect(refusal([word], tier)).toMatch(/^delivery is a word that other fields hang on/);
    expect(refusal([entry], tier)).toMatch(/^an entry of a list/);
    expect(refusal([width], tier)).toMatch(/units and encounters/);
    expect(refusal([delay], trait)).toMatch(/a trait changes units/);
    expect(refusal([word], trait)).toMatch(/^delivery is a word/);
    expect(refusal([{ ...clipper, path: '/units/nobody/health/max' }], tier)).toMatch(/leads nowhere/);
  });
});
