import { describe, expect, test } from '@jest/globals';
import { inspectAll } from '../analysis/inspection/inspect';
import { runBatch } from '../analysis/batch';
import { compileScenario } from '../analysis/compile-scenario';
import { blankAttack, blankState, blankUnit } from './blank';
import { newProject } from './new-project';
import type { Project } from './project';
import { parseProject } from './validate';

/** A new project to which an enemy came that runs up and bites: 10 each 1.2 s, 100 to take. */
function withBiter(): Project {
  const project = newProject('first', 'First');
  const biter = blankUnit('biter', 'Biter', 'enemy');
  biter.health.max = 100;
  const bite = blankAttack('bite', 'Bite', 'melee');
  Object.assign(bite.beat, { windup: 0.45, cooldown: 1.2, moving: 'free' });
  bite.range.max = 2;
  bite.effects = { damage: { amount: 10, spread: 0, critChance: 0, critMultiplier: 2 } };
  biter.attacks.push(bite);
  biter.choice.priorities[0].entries.push({ attack: 'bite', weight: 1 });
  biter.states.push(blankState('close', 'Close', 'approach'));
  return parseProject({ ...project, units: [...project.units, biter] });
}

describe('a new project', () => {
  test('is whole, has nothing to warn of, and holds what nobody else holds', () => {
    const [one, other] = [newProject('one', 'One'), newProject('one', 'One')];
    expect(parseProject(structuredClone(one))).toEqual(one);
    expect(inspectAll(one)).toEqual([]);
    one.units[0].health.max = 7;
    expect(other.units[0].health.max).toBe(100);
    expect(newProject('two', 'Two').units[0].health.max).toBe(100);
  });

  test('the first enemy has a fight at once, plausible at every skill, and the better the skill the better it goes', () => {
    const project = withBiter();
    const batches = project.skills.map(({ id: skill }) => runBatch(compileScenario(project, { kind: 'duel', id: 'biter', skill }), 1, 200));
    const killed = batches.map(({ kinds }) => kinds.find(({ id }) => id === 'biter')!.timeToKill!.median);
    const doses = batches.map(({ encounter }) => encounter.dose!.mean!);
    // 100 at some 9 a second: eleven seconds on paper; six to thirty in a fight.
    for (const time of killed) expect([time > 6, time < 30]).toEqual([true, true]);
    expect(doses.slice(1).every((dose, i) => dose < doses[i])).toBe(true);
    expect(batches.every(({ outcomes }) => outcomes.timeOut === 0)).toBe(true);
  });
});
