import { describe, expect, test } from '@jest/globals';
import { applyPatch } from '../model/patch';
import type { Project } from '../model/project';
import { demoProject } from '../testing/demo';
import { Batch } from '../analysis/batch';
import { scenarioKey } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import { sampleOf, type Sample } from '../measures/sample';
import { Band } from '../model/brief';
import { compared, flips, goalsOfBoth, inOrder } from './flips';
import { readOf } from './goal';
import { editsBetween, matched, operationsBetween, tierAs } from './versions';
import { blameOverall, byBlame, byBlameOverall, whichEdit } from './which-edit';
import { aimOf } from './goal';

const changed = (change: (project: Project) => void): Project => {
  const copy = structuredClone(demoProject());
  change(copy);
  return copy;
};
const clipperOf = (project: Project) => project.units.find(({ id }) => id === 'clipper')!;

describe('edits between two versions', () => {
  const before = demoProject();

  test('are told apart by field, in words, and each stands alone in and alone out', () => {
    const after = changed((project) => {
      clipperOf(project).health.max = 28;
      clipperOf(project).movement.run = 6;
      project.name = 'Another';
      project.brief!.bands = [];
    });
    const edits = editsBetween(before, after);
    expect(edits.map(({ words }) => words)).toEqual([['Clipper: Health 22 hp → 28 hp'], ['Clipper: Run 7 m/s → 6 m/s']]);
    expect([clipperOf(edits[0].putIn).health.max, clipperOf(edits[0].putIn).movement.run]).toEqual([28, 7]);
    expect([clipperOf(edits[0].takenOut).health.max, clipperOf(edits[0].takenOut).movement.run]).toEqual([22, 6]);
    expect(operationsBetween(before, after)).toHaveLength(2);
    expect(editsBetween(before, after, 'unit').map(({ words }) => words.length)).toEqual([2]);
    expect(editsBetween(before, before)).toEqual([]);
  });

  test('that need one another are one: a new attack and its place in the choice; a state and the way to it', () => {
    const after = changed((project) => {
      const clipper = clipperOf(project);
      clipper.attacks.push({ ...structuredClone(clipper.attacks[0]), id: 'snap', name: 'Snap' });
      clipper.choice.priorities[0].entries.push({ ...structuredClone(clipper.choice.priorities[0].entries[0]), attack: 'snap' });
      clipper.health.max = 30;
    });
    const edits = editsBetween(before, after);
    expect(edits.map(({ operations }) => operations.length).sort()).toEqual([1, 2]);
    for (const { putIn, takenOut } of edits) expect([putIn, takenOut].every(Boolean)).toBe(true);
    // All of them together are the version after.
    const all = structuredClone(before);
    applyPatch(
      all,
      edits.flatMap(({ operations }) => operations),
    );
    expect(clipperOf(all)).toEqual(clipperOf(after));
  });

  test('another project’s objects are found by id, else by name, and it is told which', () => {
    const text = JSON.stringify(demoProject()).replaceAll('"thistlejack"', '"jack-7"');
    const { project, byName } = matched(before, JSON.parse(text) as Project);
    expect(byName).toContainEqual({ from: 'jack-7', to: 'thistlejack' });
    expect(project.units).toEqual(before.units);
    expect(matched(before, before)).toEqual({ project: before, byName: [] });
  });
});

describe('two versions', () => {
  const brief = (project: Project) => {
    project.brief!.bands = [
      Object.assign(new Band(), {
        id: 'kill',
        measure: 'timeToKill',
        scope: 'unit',
        of: 'clipper',
        low: 1,
        high: 2.3,
        tier: 'bloom',
        skill: 'regular',
      }),
      Object.assign(new Band(), {
        id: 'other',
        measure: 'timeToKill',
        scope: 'unit',
        of: 'thistlejack',
        low: 1,
        high: 60,
        tier: 'bloom',
        skill: 'regular',
      }),
    ];
  };
  const before = changed(brief);
  const after = changed((project) => {
    brief(project);
    clipperOf(project).health.max = 60;
    clipperOf(project).movement.turnRate = 500;
    project.brief!.bands = [...project.brief!.bands, Object.assign(new Band(), { ...project.brief!.bands[0], id: 'new', high: 90 })];
  });
  const known = new Map<string, Sample>();
  const ran = (project: Project, goal: ReturnType<typeof goalsOfBoth>[number]['goal']) => {
    const compiled = compileScenario(project, goal.cell);
    const key = `${JSON.stringify(compiled).length} ${clipperOf(project).health.max} ${clipperOf(project).movement.turnRate} ${scenarioKey(goal.cell)}`;
    if (!known.has(key)) {
      const batch = new Batch(compiled, 1, 60);
      batch.advance(60);
      known.set(key, sampleOf(compiled, batch.rows));
    }
    return readOf(known.get(key)!, aimOf(goal));
  };

  test('have the goals of either; what flips comes first, what did not move says so', () => {
    const goals = goalsOfBoth(before, after);
    expect(goals.map(({ goal, only }) => [goal.band.id, only])).toEqual([
      ['kill', undefined],
      ['other', undefined],
      ['new', 'after'],
    ]);
    const all = inOrder(compared(goals, (version, goal) => ran(version === 'before' ? before : after, goal)));
    expect(all[0].goal.band.id).toBe('kill');
    expect([all[0].before!.verdict, all[0].after!.verdict, flips(all[0])]).toEqual(['met', 'missedHigh', true]);
    expect(all.find(({ goal }) => goal.band.id === 'other')!.effect!.says).toBe('never');
  });

  test('the edit that did it is named first, the one that did nothing does nothing', () => {
    const goals = goalsOfBoth(before, after).map(({ goal }) => goal);
    const rows = whichEdit({ before, after }, editsBetween(before, after), goals, ran);
    expect(byBlameOverall(rows)[0].edit.words[0]).toContain('Health 22 hp → 60 hp');
    expect(blameOverall([])).toBe(0);
    const [first, last] = byBlame(rows, 0);
    expect(first.edit.words[0]).toContain('Health 22 hp → 60 hp');
    expect(first.effects[0]).toMatchObject({ together: false, putIn: { says: 'up' }, takenOut: { says: 'up' } });
    expect(last.effects[0].putIn!.difference).toBeCloseTo(0, 1);
  });
});

test('a tier were it as another: the same project but for that tier, whose edits are those between them', () => {
  const project = demoProject();
  const other = tierAs(project, 'bloom', 'bramble');
  expect(other.tiers.map(({ id, name }) => [id, name])).toEqual(project.tiers.map(({ id, name }) => [id, name]));
  const tweaks = (of: typeof project, id: string) => of.tiers.find((tier) => tier.id === id)!.tweaks;
  expect(tweaks(other, 'bloom')).toEqual(tweaks(project, 'bramble'));
  expect(operationsBetween(project, other).every(({ path }) => path.startsWith('/tiers/bloom/'))).toBe(true);
  // Each of its changes is an edit of its own; all together they are the other tier.
  const edits = editsBetween(project, other);
  const places = (id: string) => new Map(tweaks(project, id).map((tweak) => [`${tweak.scope} ${tweak.of} ${tweak.path}`, tweak]));
  const [from, to] = [places('bloom'), places('bramble')];
  const changedPlaces = [...new Set([...from.keys(), ...to.keys()])].filter(
    (key) => JSON.stringify(from.get(key)) !== JSON.stringify(to.get(key)),
  );
  expect(edits.length).toBeGreaterThanOrEqual(changedPlaces.length);
  expect(changedPlaces.length).toBeGreaterThan(2);
  for (const { operations, putIn } of edits) {
    const copy = structuredClone(project);
    applyPatch(copy, operations);
    expect(copy).toEqual(putIn);
  }
  expect(tweaks(edits[0].takenOut, 'bloom')).not.toEqual(tweaks(other, 'bloom'));
  expect(tierAs(project, 'bloom', 'bloom')).toEqual(project);
  expect(() => tierAs(project, 'bloom', 'winter')).toThrow('winter');
  // Questions and goals change no fight.
  expect(operationsBetween(project, { ...project, tuning: undefined, brief: undefined })).toEqual([]);
});
