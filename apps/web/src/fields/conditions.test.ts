import { describe, expect, test } from '@jest/globals';
import { type Project, parseProject } from '@insidia/core';
import { withTurnsFilled } from '../store/turnsFilled';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Asker, firstOf, sentence, subjectsFor } from './conditions';

const read = (name: string): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo', name), 'utf8')));
const verdance = () => read('verdance.insidia.json');
const archive = () => read('archive.insidia.json');
describe('a condition that is begun', () => {
  test.each([
    ['the station', verdance],
    ['the archive', archive],
  ])('is one that may be asked where it is: %s', (_, made) => {
    for (const who of ['unit', 'encounter'] as const) {
      const found: string[] = [];
      for (const subject of subjectsFor(askerOf(made(), who), false)) {
        const project = made();
        const asker = askerOf(project, who);
        const condition = firstOf(subject, asker);
        if (asker.unit) asker.unit.states[0].leaves = [{ ...asker.unit.states[0].leaves[0], when: condition }];
        else asker.encounter!.events = [{ id: 'one', name: 'One', when: condition, then: [{ does: 'raise', of: 'alarm' } as never] }];
        try {
          // As an edit of the page is written: what it lacks in turns is filled in.
          parseProject(withTurnsFilled(JSON.parse(JSON.stringify(project)) as Project));
        } catch (error) {
          found.push(`${subject}: ${(error as Error).message}`);
        }
      }
      expect(found).toEqual([]);
    }
  });

  test('is said with what it speaks of by name', () => {
    const project = verdance();
    const encounter = project.encounters.find(({ id }) => id === 'evening-shift')!;
    const [wave] = encounter.waves;
    expect(sentence({ subject: 'waveShare', of: wave.id, is: 'below', value: 0.5 }, { encounter, project }, 'continuous')).toContain(
      wave.name,
    );
    const unit = project.units.find(({ id }) => id === 'clipper')!;
    const inTurns = sentence({ subject: 'sinceHit', is: 'above', value: 3, rounds: { value: 2, within: 0 } }, { unit, project }, 'rounds');
    expect(inTurns).toMatch(/2 turns/);
    const grouped = firstOf('any', { unit, project });
    expect(grouped.parts).toEqual([{ subject: 'distance', is: 'below', value: 5 }]);
    expect(firstOf('any', { encounter, project }).parts).toEqual([{ subject: 'clock', is: 'below', value: 1 }]);
    expect(subjectsFor({ unit, project }, true)).not.toContain('any');
    // What there is none of can't be asked about.
    const plain = project.encounters.find(({ counters }) => !counters.length)!;
    expect(subjectsFor({ encounter: plain, project }, false)).not.toContain('counter');
    expect(subjectsFor({ unit: { ...unit, attacks: [] }, project }, false)).not.toContain('charges');
  });
});

function askerOf(project: Project, who: 'unit' | 'encounter'): Asker {
  return who === 'unit'
    ? { unit: project.units.find(({ states }) => states.some(({ leaves }) => leaves.length))!, project }
    : { encounter: project.encounters[0], project };
}
