import { describe, expect, test } from '@jest/globals';
import { blankState } from '../../model/blank';
import type { Condition } from '../../model/condition';
import type { Project } from '../../model/project';
import { demoProject } from '../../testing/demo';
import { inspected, reachFrom, usedAttacks } from './context';
import { inspect, inspectUnit } from './inspect';
import { type Spoil, encounter, found, spoilUnit, spoilt } from '../../testing/spoilt';

describe('what a rule looks at', () => {
  test('an attack is used that follows one that follows one, in whichever order they stand', () => {
    const project = demoProject();
    const hound = project.units.find(({ id }) => id === 'briar-hound')!;
    const used = usedAttacks({ ...hound, attacks: [...hound.attacks].reverse() });
    expect(used.map(({ id }) => id)).toEqual(['bite-three', 'bite-two', 'bite-one']);
  });

  test('waves start at once by their conditions too: below so many enemies, killed or seconds, all of them, or any', () => {
    const below = (subject: 'clock' | 'enemiesAlive' | 'killed' | 'partyAlive', value = 3) => ({ subject, is: 'below', value }) as const;
    const atOnce = (when: Condition) => {
      const project = demoProject();
      const { waves } = encounter(project, 'evening-shift');
      for (const wave of waves) Object.assign(wave, { start: 'condition', when, delay: 0 });
      return found(project, 'wavesAllAtOnce', '/encounters/evening-shift/waves') !== undefined;
    };
    for (const subject of ['clock', 'enemiesAlive', 'killed'] as const) {
      expect([subject, atOnce(below(subject)), atOnce(below(subject, 0)), atOnce({ ...below(subject), is: 'above' })]).toEqual([
        subject,
        true,
        false,
        false,
      ]);
    }
    expect(atOnce(below('partyAlive'))).toBe(false);
    const [holds, not] = [below('clock'), below('partyAlive')];
    expect([atOnce({ subject: 'all', parts: [holds, not] }), atOnce({ subject: 'all', parts: [holds, holds] })]).toEqual([false, true]);
    expect([atOnce({ subject: 'any', parts: [holds, not] }), atOnce({ subject: 'any', parts: [not, not] })]).toEqual([true, false]);
  });

  test('a shield is left behind only by what changes health itself: not by a factor of one, nor by what a unit has of its own', () => {
    const shields = (spoil: Spoil) => inspect(spoilt(spoil), {}).filter(({ rule }) => rule === 'shieldNotScaled').length;
    const tier = (project: Project, ...tweaks: { op: '×' | '='; value: number }[]) => {
      project.skills = [];
      project.styles = [];
      project.tiers = [
        { id: 'one', name: 'One', traits: [], tweaks: tweaks.map((tweak) => ({ scope: 'enemies', path: '/health/max', ...tweak })) },
      ];
    };
    expect(shields((project) => tier(project, { op: '×', value: 1.5 }))).toBe(1);
    expect(shields((project) => tier(project, { op: '×', value: 1 }))).toBe(0);
    expect(shields((project) => tier(project))).toBe(0);
    const given = shields((project) => {
      tier(project);
      project.traits.push({ id: 'big', name: 'Big', tweaks: [{ path: '/health/max', op: '×', value: 2 }] });
      project.units.find(({ shield }) => shield)!.traits = ['big'];
    });
    expect(given).toBe(1); // of the trait, once; of the tier nothing
  });
});

describe('what a unit can strike with, as warnings see it', () => {
  const chain = () => {
    const { unit } = inspected(demoProject(), 'thistlejack', {});
    const [first, second, third] = unit.attacks;
    const attacks = [
      { ...first, id: 'a', next: { attack: 'b', window: 1 } },
      { ...second, id: 'b', next: { attack: 'c', window: 1 } },
      { ...third, id: 'c', next: undefined, range: { min: 0, max: 30 } },
      { ...third, id: 'd', next: undefined, range: { min: 0, max: 60 } },
    ];
    return { ...unit, attacks, choice: { ...unit.choice, priorities: [{ entries: [{ attack: 'a', weight: 1 }] }] }, states: [] };
  };

  test('follow-ups of follow-ups are used, and nothing else', () => {
    expect(usedAttacks(chain()).map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  });

  test('its reach is that of what it may begin: all where no state is asked about, else what the state lets it', () => {
    const unit = chain();
    const state = (attacks: 'all' | 'none' | 'some', only?: string[]) => ({ ...blankState('s', 'S', 'approach'), attacks, only });
    expect(reachFrom(unit, undefined)).toBe(30);
    expect(reachFrom(unit, state('all'))).toBe(30);
    expect(reachFrom(unit, state('some', ['a']))).toBe(unit.attacks[0].range.max);
    expect(reachFrom(unit, state('none'))).toBeUndefined();
  });

  test('a band that begins exactly where its reach ends is within reach', () => {
    const warned = (near: number) =>
      inspectUnit(
        spoilt(
          spoilUnit('thistlejack', (unit) => {
            unit.attacks.forEach((one) => (one.range = { min: 0, max: 6 }));
            unit.states.forEach((one) => one.does === 'strafe' && Object.assign(one, { near, far: 9 }));
          }),
        ),
        'thistlejack',
        {},
      ).filter(({ rule, path }) => rule === 'stopsOutOfReach' && path.endsWith('/near')).length;
    expect([warned(6), warned(6.1)]).toEqual([0, 1]);
  });
});
