import { describe, expect, test } from '@jest/globals';
import { editUnit } from '../../model/edit';
import type { Project } from '../../model/project';
import { parseProject } from '../../model/validate';
import { demoProject } from '../../testing/demo';
import { acceptanceOf, causeOf, sortedOut } from '../warning';
import { inspect } from './inspect';
import { found } from '../../testing/spoilt';

describe('accepting a warning', () => {
  const bite = (project: Project) => found(project, 'manyHitsNoWindow', '/units/clipper/attacks/bite/hits/perTarget')!;
  const accepted = () => {
    const project = demoProject();
    const warning = bite(project);
    project.accepted.push({ id: 'a', rule: warning.rule, path: warning.path, cause: causeOf(project, warning), reason: 'meant' });
    return parseProject(project);
  };

  test('it stays quiet while its cause is the same, whatever else changes', () => {
    const project = editUnit(accepted(), 'clipper', (unit) => (unit.health.max = 77));
    expect(acceptanceOf(project, bite(project))?.reason).toBe('meant');
    expect(sortedOut(project, inspect(project, {})).accepted.map(({ path }) => path)).toEqual([bite(project).path]);
  });

  test('its cause is what it rests on, as it is written; of much a short sign that tells it from anything else', () => {
    const project = demoProject();
    const of = (path: string) => causeOf(project, { path });
    expect(of('/units/clipper/attacks/bite/hits/perTarget')).toBe('"every"');
    const whole = of('/units/head-gardener/attacks');
    expect([whole.length < 20, /^\d+:[0-9a-f]+$/.test(whole)]).toEqual([true, true]);
    project.units.find(({ id }) => id === 'head-gardener')!.attacks[0].aim.near = 0.123;
    expect(of('/units/head-gardener/attacks')).not.toBe(whole);
  });

  test('it reopens when its cause changes, as written or at some tier', () => {
    const project = accepted();
    const harder = editUnit(project, 'clipper', (unit) => (unit.attacks[0].effects.damage!.amount = 9));
    expect(acceptanceOf(harder, bite(harder))).toBeUndefined();
    const tier = structuredClone(project);
    tier.tiers[3].tweaks.push({ scope: 'unit', of: 'clipper', path: '/attacks/bite/beat/active', op: '×', value: 2 });
    expect(acceptanceOf(tier, bite(tier))).toBeUndefined();
  });
});
