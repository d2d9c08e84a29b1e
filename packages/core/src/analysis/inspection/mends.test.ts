/** What a warning offers can be done, whatever the numbers are that brought it about. */
import { expect, test } from '@jest/globals';
import { breaches } from '../../model/validate';
import { Project } from '../../model/project';
import { parseProject } from '../../model/validate';
import { demoProject } from '../../testing/demo';
import type { Loose } from '../../testing/duels';
import { fieldsIn } from '../../testing/fields-in';
import { type Warning, mended } from '../warning';
import { inspect } from './inspect';

/** As in the demo, with a number of every kind: a member, three enemies, the fights and tiers that need no other. */
function few(): Loose {
  const { tuning: _, brief: __, ...demo } = demoProject();
  const kept = ['warden', 'clipper', 'thistlejack', 'briar-hound'];
  const units = demo.units.filter(({ id }) => kept.includes(id));
  const tiers = demo.tiers.map((tier) => ({ ...tier, tweaks: tier.tweaks.filter(({ scope }) => scope === 'enemies') }));
  const encounters = demo.encounters.filter(({ id }) => id === 'first-bell');
  return JSON.parse(JSON.stringify({ ...demo, units, tiers, encounters, variants: [], accepted: [] })) as Loose;
}

test('at every number’s least and most each mend leads to a document that is valid, in which the warning is gone', () => {
  const given = few();
  expect(breaches(Project, given, [])).toEqual([]);
  const same = ({ rule, path }: Warning) => `${rule} ${path}`;
  const usual = new Set(inspect(parseProject(given), {}).map(same));
  let mends = 0;
  for (const { kind, at } of fieldsIn(Project, given)) {
    if (kind?.kind !== 'number') continue;
    for (const value of [kind.info.min, kind.info.max]) {
      const made = structuredClone(given);
      at.slice(0, -1).reduce<any>((inside, step) => inside[step], made)[at.at(-1)!] = value;
      let project: Project;
      try {
        project = parseProject(made);
      } catch {
        continue;
      }
      for (const warning of inspect(project, {}).filter((one) => !usual.has(same(one)))) {
        for (const fix of warning.fixes ?? []) {
          mends++;
          const what = [at.join('/'), value, warning.rule, fix.name];
          const after = JSON.parse(JSON.stringify(mended(project, fix, {}))) as Loose;
          expect([...what, breaches(Project, after, []).map(({ message }) => message)]).toEqual([...what, []]);
          expect([...what, inspect(parseProject(after), {}).some((one) => same(one) === same(warning))]).toEqual([...what, false]);
        }
      }
    }
  }
  expect(mends).toBeGreaterThan(20);
});
