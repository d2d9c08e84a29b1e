import { describe, expect, test } from '@jest/globals';
import { inspectAll } from '../analysis/inspection/inspect';
import { compileScenario } from '../analysis/compile-scenario';
import { Runner } from '../engine/run';
import { demoProject } from '../testing/demo';
import { placesOfTweaked } from './edit';
import { chainSentence, effectiveEncounter, effectiveUnit, writtenUnit } from './effective';
import { effectiveValues } from './effective-values';
import { Encounter } from './encounter';
import { changeableAt } from './field-at';
import { pointerSteps, valueAt } from './pointer';
import type { InvalidDocument } from './problem';
import type { Project } from './project';
import { between } from './tiers';
import { turnedProject } from './turn';
import type { FieldTweak, Tweak, TweakValue } from './tweak';
import { Unit } from './unit';
import { parseProject } from './validate';

const project = demoProject();

/** Words and yes-or-nos that a tweak may set, each with every other that it could be. */
function others(of: Unit | Encounter, root: typeof Unit | typeof Encounter): { path: string; value: TweakValue }[] {
  return placesOfTweaked(of, root).flatMap((path) => {
    const field = changeableAt(root, pointerSteps(path))!;
    if (field.kind === 'number') return [];
    const words: readonly TweakValue[] = field.kind === 'yesNo' ? [true, false] : field.words;
    return words.filter((value) => value !== valueAt(of, path)).map((value) => ({ path, value }));
  });
}

const atTier = (tweaks: Tweak[]): Project => ({ ...project, tiers: [...project.tiers, { id: 'own', name: 'Own', tweaks, traits: [] }] });
const problems = (document: Project): string[] => {
  try {
    parseProject(JSON.parse(JSON.stringify(document)));
    return [];
  } catch (error) {
    return (error as InvalidDocument).problems.map(({ path, rule }) => `${path} ${rule}`);
  }
};

describe('a tweak sets a word or a yes-or-no', () => {
  test('of every unit and encounter of the demo: what the tier makes of it is what would be written, and the document is whole', () => {
    let tried = 0;
    for (const { id } of project.units)
      for (const { path, value } of others(writtenUnit(project, id), Unit)) {
        const with1 = atTier([{ scope: 'unit', of: id, path, op: '=', value }]);
        const wanted = turnedProject(project, [{ path: `/units/${id}${path}`, op: '=', value }]);
        const { unit, words } = effectiveUnit(with1, id, { tier: 'own' });
        expect(unit).toEqual(effectiveUnit(wanted, id, {}).unit);
        expect(words.get(path)).toMatchObject({ value, base: valueAt(writtenUnit(project, id), path) });
        tried++;
      }
    for (const encounter of project.encounters)
      for (const { path, value } of others(encounter, Encounter)) {
        const found = effectiveEncounter(atTier([{ scope: 'encounter', path, op: '=', value }]), encounter, { tier: 'own' });
        expect(valueAt(found.unit, path)).toBe(value);
        tried++;
      }
    expect(tried).toBeGreaterThan(200);
  });

  test('a document with all of them at once is accepted, and its fights run', () => {
    const tweaks = project.units.flatMap(({ id }) =>
      others(writtenUnit(project, id), Unit).map(({ path, value }): Tweak => ({ scope: 'unit', of: id, path, op: '=', value })),
    );
    const all = atTier(tweaks.slice(-500));
    expect(problems(all)).toEqual([]);
    for (const { id } of project.units.filter(({ side }) => side === 'enemy')) {
      const { digest } = new Runner(compileScenario(all, { kind: 'duel', id, tier: 'own' })).run(1);
      expect(digest).toMatch(/^[0-9a-f]{16}$/);
    }
  });

  test('the fight is the same whether a tier, a trait or the unit itself says so', () => {
    const path = '/states/trudge/pace';
    const value = writtenUnit(project, 'mulcher').states.find(({ id }) => id === 'trudge')!.pace === 'run' ? 'walk' : 'run';
    const digest = (of: Project, tier?: string) =>
      new Runner(compileScenario(of, { kind: 'duel', id: 'mulcher', ...(tier && { tier }) })).run(2).digest;
    const wanted = digest(turnedProject(project, [{ path: `/units/mulcher${path}`, op: '=', value }]));
    expect(wanted).not.toBe(digest(project));
    expect(digest(atTier([{ scope: 'unit', of: 'mulcher', path, op: '=', value }]), 'own')).toBe(wanted);
    const trait = { id: 'paced', name: 'Paced', tweaks: [{ path, op: '=', value } as FieldTweak] };
    const given = {
      ...project,
      traits: [...project.traits, trait],
      units: project.units.map((unit) => (unit.id === 'mulcher' ? { ...unit, traits: [...unit.traits, 'paced'] } : unit)),
    };
    expect(digest(given)).toBe(wanted);
  });

  test('a state sets a word while it lasts, and it is as it was after', () => {
    const quick = structuredClone(project);
    const mulcher = quick.units.find(({ id }) => id === 'mulcher')!;
    mulcher.states.find(({ id }) => id === 'trudge')!.tweaks = [{ path: '/states/trudge/pace', op: '=', value: 'run' }];
    const written = turnedProject(project, [{ path: '/units/mulcher/states/trudge/pace', op: '=', value: 'run' }]);
    const digest = (of: Project) => new Runner(compileScenario(of, { kind: 'duel', id: 'mulcher' })).run(2).digest;
    expect(digest(quick)).toBe(digest(written));
  });

  test('what it comes to is told in a chain', () => {
    const twice = atTier([
      { scope: 'enemies', path: '/attacks/*/beat/tracking', op: '=', value: 'fixed' },
      { scope: 'unit', of: 'clipper', path: '/attacks/bite/beat/tracking', op: '=', value: 'turns' },
    ]);
    const { words } = effectiveUnit(twice, 'clipper', { tier: 'own' });
    expect(chainSentence(words.get('/attacks/bite/beat/tracking')!)).toBe('turns → = Own → fixed → = Own → turns');
    const told = effectiveValues(twice, 'clipper', { tier: 'own' }).find(({ path }) => path === '/attacks/bite/beat/tracking');
    expect(told).toMatchObject({ value: 'turns', unit: '' });
    expect(effectiveValues(project, 'clipper', {}).every(({ value }) => typeof value === 'number')).toBe(true);
  });

  test.each([
    ['a word that other fields hang on', { path: '/attacks/*/delivery', op: '=', value: 'area' }, 'path applies'],
    ['a side', { path: '/side', op: '=', value: 'party' }, 'path applies'],
    ['how it is drawn', { path: '/colour', op: '=', value: 'blue' }, 'path applies'],
    ['a word that there is not', { path: '/attacks/*/beat/tracking', op: '=', value: 'spins' }, 'value word'],
    ['a number for a word', { path: '/attacks/*/beat/tracking', op: '=', value: 1 }, 'value word'],
    ['a word for a yes-or-no', { path: '/attacks/*/needsLine', op: '=', value: 'yes' }, 'value yesNo'],
    ['a factor of a word', { path: '/attacks/*/beat/tracking', op: '×', value: 'fixed' }, 'op applies'],
    ['a word for a number', { path: '/health/max', op: '=', value: 'much' }, 'value number'],
    ['yes for a number', { path: '/health/max', op: '=', value: true }, 'value number'],
    ['a limit on a word', { path: '/attacks/*/beat/tracking', op: '=', value: 'fixed', max: 3 }, 'max applies'],
    ['a name', { path: '/name', op: '=', value: 'Other' }, 'path reference'],
    ['no value at all', { path: '/health/max', op: '=', value: null }, 'value value'],
  ])('%s is refused', (_, tweak, refusal) => {
    const found = problems(atTier([{ scope: 'enemies', ...tweak } as Tweak]));
    const [field, rule] = refusal.split(' ');
    expect(found).toEqual([`/tiers/own/tweaks/0/${field} ${rule}`]);
  });

  test('one that sets what is written, or is undone, is warned of', () => {
    const rules = (tweaks: Tweak[]) =>
      inspectAll(atTier(tweaks))
        .filter(({ path }) => path.startsWith('/tiers/own/tweaks'))
        .map(({ rule, path }) => `${path.slice(-1)} ${rule}`);
    const bite = (value: TweakValue): Tweak => ({ scope: 'unit', of: 'clipper', path: '/attacks/bite/beat/tracking', op: '=', value });
    expect(rules([bite('turns')])).toEqual(['0 tweakVoid']);
    expect(rules([bite('fixed')])).toEqual([]);
    expect(rules([bite('fixed'), bite('turns')])).toEqual(['0 tweakUndone']);
    expect(rules([{ ...bite('fixed'), path: '/attacks/gone/beat/tracking' }])).toEqual(['0 tweakOfNothing']);
  });

  test('between two tiers a word is the nearer’s', () => {
    const one = (value: TweakValue) => ({
      id: 'x',
      name: 'x',
      tweaks: [{ scope: 'enemies', path: '/attacks/*/beat/tracking', op: '=', value } as Tweak],
    });
    expect(between(one('fixed'), one('turns'), 0.4)).toEqual(one('fixed').tweaks);
    expect(between(one('fixed'), one('turns'), 0.6)).toEqual(one('turns').tweaks);
  });
});
