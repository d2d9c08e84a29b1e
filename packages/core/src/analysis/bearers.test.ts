import { describe, expect, test } from '@jest/globals';
import { parseProject } from '../model/validate';
import type { Project } from '../model/project';
import { demoProject } from '../testing/demo';
import { bearersOf, traitOn } from './bearers';

const evening = (project: Project) => project.encounters.find(({ id }) => id === 'evening-shift')!;
const unit = (project: Project, id: string) => project.units.find((one) => one.id === id)!;

/** The demo with a trait that is given to nobody yet. */
function withTrait(tweaks: Project['traits'][number]['tweaks'] = [{ path: '/health/max', op: '×', value: 1.2 }]): Project {
  const project = demoProject();
  project.traits.push({ id: 'stout', name: 'Stout', tweaks });
  return project;
}

describe('who has a trait', () => {
  const event = (then: object) => ({
    id: 'e',
    name: 'E',
    when: { subject: 'clock', is: 'above', value: 1 },
    then: [{ does: 'trait', of: 'stout', ...then }],
  });
  test.each<[string, (project: Project) => void, string[]]>([
    ['nobody', () => undefined, []],
    ['a unit, and the variant that follows it', (p) => void (unit(p, 'clipper').traits = ['stout']), ['clipper', 'clipper-elder']],
    ['a variant alone', (p) => void p.variants[0].changes.push({ op: 'replace', path: '/traits', value: ['stout'] }), ['clipper-elder']],
    ['all of a role at a tier', (p) => void p.tiers[2].traits.push({ trait: 'stout', scope: 'unit', of: 'mulcher' }), ['mulcher']],
    ['whoever comes in a wave', (p) => void (evening(p).waves[0].traits = ['stout']), ['clipper', 'thistlejack']],
    ['a share of a group', (p) => void (evening(p).waves[0].groups[0].traits = [{ trait: 'stout', share: 0.1 }]), ['clipper']],
    ['no share of a group', (p) => void (evening(p).waves[0].groups[0].traits = [{ trait: 'stout', share: 0 }]), []],
    ['whom an event gives it', (p) => void evening(p).events.push(event({ to: 'unit', whom: 'warden' }) as never), ['warden']],
  ])('%s', (_, give, expected) => {
    const project = withTrait();
    give(project);
    expect(bearersOf(parseProject(project), 'stout')).toEqual(expected);
  });
});

describe('what a trait comes to', () => {
  test('health is touched; shield and weak point of the same one are not, and are named', () => {
    const project = withTrait();
    const { touched, missing, spared } = traitOn(project, project.traits[1], 'lantern-stalk', {});
    expect(touched).toEqual([{ path: '/health/max', before: 48, after: 57.599999999999994 }]);
    expect(missing).toEqual([]);
    expect(spared.map(({ path }) => path)).toContain('/shield/max');
    expect(spared.map(({ path }) => path)).not.toContain('/movement/run');
  });

  test('on somebody who has it already it counts once', () => {
    const project = withTrait();
    unit(project, 'clipper').traits = ['stout', 'hardened'];
    // 22 × 1.5 of the other, × 1.2 of this.
    expect(traitOn(project, project.traits[1], 'clipper', {}).touched).toEqual([{ path: '/health/max', before: 33, after: 39.6 }]);
  });

  test('what it speaks of and a unit does not have is told by its place', () => {
    const project = withTrait([
      { path: '/shield/max', op: '×', value: 2 },
      { path: '/attacks/*/effects/damage/amount', op: '+', value: 1 },
    ]);
    const { touched, missing } = traitOn(project, project.traits[1], 'clipper', {});
    expect(missing).toEqual([0]);
    expect(touched).toEqual([{ path: '/attacks/bite/effects/damage/amount', before: 3, after: 4 }]);
  });
});
