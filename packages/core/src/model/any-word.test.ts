/** A word or a yes-or-no that a form sets by itself leaves a project that is taken, whatever it is set to. */
import { expect, test } from '@jest/globals';
import { archiveProject, demoProject } from '../testing/demo';
import { Arena } from './arena';
import { Encounter } from './encounter';
import { fieldAt } from './field-at';
import type { Project } from './project';
import { withTurnsFilled } from './turns-filled';
import { Unit } from './unit';
import { parseProject } from './validate';
import { eachObject } from './walk';

/** Words that need something else to be said, or hold for some only: the forms say it with them, or offer those alone. */
const NEED_MORE = new Set([
  'State.does',
  'State.attacks',
  'Attack.delivery',
  'Attack.targets',
  'Wave.start',
  'WaveGroup.draws',
  'WaveGroup.side',
  'Encounter.clock',
  'Unit.side',
  'Condition.subject',
  'Condition.is',
  'Consequence.does',
  'TurnReaction.does',
  'Tweak.scope',
]);

/** As an edit of the page is written: what it lacks in turns is filled in. */
function refusal(project: Project): string | undefined {
  try {
    parseProject(withTurnsFilled(JSON.parse(JSON.stringify(project)) as Project));
    return undefined;
  } catch (error) {
    return (error as Error).message;
  }
}

test.each([demoProject(), archiveProject()])('in $name every other word and yes-or-no may be any that there is', (project) => {
  const places = new Map<string, { owner: object; field: string; values: readonly unknown[] }[]>();
  const copy = structuredClone(project);
  for (const [type, list] of [
    [Unit, copy.units],
    [Encounter, copy.encounters],
    [Arena, copy.arenas],
  ] as const)
    for (const one of list as object[])
      eachObject(type, one, [], { project: copy }, (of, owner, at) => {
        for (const field of Object.keys(owner)) {
          const name = `${of.name}.${field}`;
          const kind = NEED_MORE.has(name) ? undefined : fieldAt(type, [...at, field]);
          if (kind?.kind !== 'word' && kind?.kind !== 'yesNo') continue;
          const values = kind.kind === 'word' ? kind.words : [true, false];
          places.set(name, [...(places.get(name) ?? []), { owner, field, values }]);
        }
      });
  expect(places.size).toBeGreaterThan(30);
  const found: string[] = [];
  for (const [name, of] of places)
    for (const value of of[0].values) {
      const before = of.map(({ owner, field }) => (owner as Record<string, unknown>)[field]);
      for (const { owner, field } of of) (owner as Record<string, unknown>)[field] = value;
      const why = refusal(copy);
      if (why !== undefined) found.push(`${name} = ${String(value)}: ${why}`);
      of.forEach(({ owner, field }, i) => ((owner as Record<string, unknown>)[field] = before[i]));
    }
  expect(found).toEqual([]);
});
