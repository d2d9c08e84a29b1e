import { describe, expect, test } from '@jest/globals';
import { ENCOUNTER_BEGINNINGS, UNIT_BEGINNINGS, beginEncounter, beginUnit, newProject, parseProject, type Project } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { firstSteps, isBeginning, type Seen } from './firstSteps';

const done = (project: Project, ...seen: Seen[]) => firstSteps(project, new Set(seen)).flatMap((step) => (step.done ? [step.id] : []));

describe('the first steps', () => {
  test('are done one by one by what is done, in any order', () => {
    const project = newProject('first', 'First');
    expect(done(project)).toEqual([]);
    project.units.push(beginUnit(UNIT_BEGINNINGS[0], { id: 'rusher', name: 'Rusher' }));
    expect(done(project)).toEqual(['enemy']);
    expect(firstSteps(project, new Set())[1].path).toBe('enemies/rusher');
    const [attack] = project.units[1].attacks;
    attack.name = 'Another name';
    expect(done(project)).toEqual(['enemy']);
    attack.beat.windup = 0.55;
    expect(done(project)).toEqual(['enemy', 'attack']);
    expect(done(project, 'board')).toEqual(['enemy', 'attack', 'board']);
    const setting = { arena: project.arenas[0], party: ['opponent'], enemies: ['rusher'] };
    project.encounters.push({ ...beginEncounter(ENCOUNTER_BEGINNINGS[0], setting, { id: 'one', name: 'One' }), waves: [] });
    expect(done(project)).toEqual(['enemy', 'attack']);
    project.encounters = [beginEncounter(ENCOUNTER_BEGINNINGS[0], setting, { id: 'one', name: 'One' })];
    project.brief = { bands: [{ id: 'a', measure: 'timeToKill', scope: 'enemies', statistic: 'median', high: 6 }], curves: [] };
    expect(done(parseProject(project), 'fight', 'board')).toEqual(['enemy', 'attack', 'fight', 'wave', 'goal', 'board']);
  });

  test('are shown of a project that has just begun, and of no other', () => {
    const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));
    expect([isBeginning(newProject('first', 'First')), isBeginning(demo)]).toEqual([true, false]);
    // What the demo's enemies do is their own: no pattern is taken for it.
    expect(done(demo)).toEqual(['enemy', 'attack', 'wave', 'goal']);
  });
});
