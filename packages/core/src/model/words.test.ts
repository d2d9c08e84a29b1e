import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { Attack } from './attack';
import { classFields } from './field';
import { fieldAt } from './field-at';
import { editUnit } from './edit';
import { Project } from './project';
import { Unit } from './unit';
import { changesInWords, changesWithin, fieldLabel, fieldWords, wordingSentence } from './words';

const sentences = (change: (project: ReturnType<typeof demoProject>) => ReturnType<typeof demoProject> | void) => {
  const before = demoProject();
  const after = demoProject();
  return changesInWords(before, change(after) ?? after).map(wordingSentence);
};

describe('changes in words', () => {
  test('a number, a word, a yes or no, a condition', () => {
    expect(
      sentences((project) =>
        editUnit(project, 'thistlejack', (unit) => {
          unit.attacks[1].beat.cooldown = 3;
          unit.attacks[1].beat.tracking = 'turns';
          unit.senses.needsLine = false;
          unit.states[1].does = 'band';
        }),
      ),
    ).toEqual([
      'Thistlejack: Needs a line yes → no',
      'Thistlejack › Quill fan: Cooldown 2.4 s → 3 s',
      'Thistlejack › Quill fan: Aim fixed → turns',
      'Thistlejack › Keep band: Does circle in a band → keep a band',
    ]);
  });

  test('things that come and go, and things without a name', () => {
    expect(
      sentences((project) => {
        project.units.pop();
        project.units[1].attacks.push({ ...structuredClone(project.units[1].attacks[0]), id: 'gnaw', name: 'Gnaw' });
        project.units[2].choice.priorities[0].entries[0].weight = 9;
        project.tiers[1].notes = 'Meant so.';
      }),
    ).toEqual([
      'Tender: removed',
      'Clipper › Gnaw: added',
      'Thistlejack › choice: Priorities 1 entry → 1 entry',
      'Bloom: Notes As it is meant. → Meant so.',
    ]);
  });

  test('of a part by itself', () => {
    const [before, after] = [demoProject(), demoProject()].map((project) => project.units[1].attacks[0]);
    after.range.max = 2;
    delete after.beat.every;
    expect(changesWithin(Attack, before, after).map(wordingSentence)).toEqual(['Range to 0.9 m → 2 m', 'Every 0.1 s → none']);
  });
});

test('every field of the model has a name that a person can read, and every word too', () => {
  const bare: string[] = [];
  const walk = (type: new () => object, at: string[], depth: number) => {
    if (depth > 8) return;
    for (const [field, kind] of classFields(type)?.kinds ?? []) {
      if (['id', 'name', 'notes'].includes(field) || PLAIN.has(field)) continue;
      const steps = [...at, field];
      const label = fieldLabel(Unit, steps);
      if (label === field) bare.push(steps.join('/'));
      for (const { id, name } of fieldWords(Unit, steps)) if (/[A-Z]/.test(id) && name === id) bare.push(`${steps.join('/')}: ${id}`);
      if (kind.kind === 'group') walk(kind.type(), steps, depth + 1);
      if (kind.kind === 'list' && !steps.slice(0, -1).includes('parts')) walk(kind.type(), [...steps, '0'], depth + 1);
    }
  };
  walk(Unit, [], 0);
  expect(bare).toEqual([]);
  expect(fieldAt(Project, ['units', 'x', 'attacks', 'y', 'beat', 'cooldown'])?.kind).toBe('number');
  expect(fieldAt(Project, ['units', 'x', 'attack'])).toBeUndefined();
});

/** Conditions are read as sentences and tweaks as tables, not field by field. */
const PLAIN = new Set(['subject', 'is', 'value', 'of', 'within', 'parts', 'path', 'op', 'min', 'max', 'round']);
