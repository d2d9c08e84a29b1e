import { describe, expect, test } from '@jest/globals';
import type { Scenario } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import { Runner } from '../engine/run';
import type { InvalidDocument } from '../model/problem';
import type { Project } from '../model/project';
import type { QuestionDial } from '../model/question';
import { type Turn, turnedProject } from '../model/turn';
import { parseProject } from '../model/validate';
import { demoProject } from '../testing/demo';
import { dialOfText, dialText } from './asked-text';
import { nudged, turnTo, writtenAt } from './dial';
import { dialWords } from './dial-words';
import { entriesOf } from './dials-of-fight';
import { dialOfKept, keptDial } from './kept';

const project = demoProject();
const cell: Scenario & { kind: 'encounter' } = { kind: 'encounter', id: 'evening-shift', tier: 'bloom', skill: 'regular' };
const question = project.tuning!.questions.find(({ id }) => id === 'clippers-in-a-crowd')!;
const problems = (dial: Partial<Record<keyof QuestionDial, unknown>>): string[] => {
  try {
    parseProject(JSON.parse(JSON.stringify({ ...project, tuning: { questions: [{ ...question, dials: [dial] }] } })));
    return [];
  } catch (error) {
    return (error as InvalidDocument).problems.map(({ path, rule }) => `${path} ${rule}`);
  }
};

describe('entries of lists', () => {
  const compiled = compileScenario(project, cell);
  const entries = entriesOf(project, compiled, cell.id);

  test('each can be taken out: the document is whole still, and comes back the same as a question keeps it, and by its text', () => {
    expect(entries.length).toBeGreaterThan(20);
    for (const dial of entries) {
      expect(writtenAt(project, dial)).toBe(true);
      expect(nudged(project, dial)).toBe(false);
      expect(dialOfKept(project, keptDial(project, dial)!)).toEqual(dial);
      expect(dialOfText(project, dialText(project, dial))).toEqual(dial);
      expect(dialWords(project, dial).name).not.toMatch(/undefined|^:/);
      const without = turnedProject(project, [turnTo(dial, false)]);
      expect(without).not.toEqual(project);
      expect(() => parseProject(JSON.parse(JSON.stringify(without)))).not.toThrow();
    }
  });

  test('an attack goes with what speaks of it; the fight is that of a document in which it never was', () => {
    const out = turnedProject(project, [{ path: '/units/thistlejack/attacks/quill', op: '=', value: false }]);
    const unit = out.units.find(({ id }) => id === 'thistlejack')!;
    expect(unit.attacks.map(({ id }) => id)).toEqual(['quill-fan', 'kick']);
    expect(JSON.stringify(unit)).not.toMatch(/"quill"/);
    const duel = { kind: 'duel', id: 'thistlejack' } as const;
    const digest = (of: Project, one: Scenario) => new Runner(compileScenario(of, one)).run(1).digest;
    expect(digest(project, { ...duel, turned: [{ path: '/units/thistlejack/attacks/quill', op: '=', value: false }] })).toBe(
      digest(out, duel),
    );
    expect(digest(out, duel)).not.toBe(digest(project, duel));
  });

  test('of a list without ids several go at once, each the one that was meant; numbers of others are turned before', () => {
    const path = '/units/thistlejack/choice/priorities/0/entries';
    const weights = (of: Project) =>
      of.units.find(({ id }) => id === 'thistlejack')!.choice.priorities[0].entries.map(({ attack }) => attack);
    expect(weights(project)).toEqual(['kick', 'quill-fan', 'quill']);
    const off = (i: number): Turn => ({ path: `${path}/${i}`, op: '=', value: false });
    expect(weights(turnedProject(project, [off(0), off(1)]))).toEqual(['quill']);
    expect(weights(turnedProject(project, [off(2), off(0)]))).toEqual(['quill-fan']);
    const both = turnedProject(project, [off(0), { path: `${path}/1/weight`, op: '=', value: 9 }]);
    expect(both.units.find(({ id }) => id === 'thistlejack')!.choice.priorities[0].entries[0]).toMatchObject({
      attack: 'quill-fan',
      weight: 9,
    });
    expect(turnedProject(project, [{ path: `${path}/7`, op: '=', value: false }])).toBe(project);
    expect(turnedProject(project, [{ path: `${path}/0`, op: '=', value: true }])).toBe(project);
  });

  test('a wave goes with what the brief says of it', () => {
    const [wave] = entries.filter(({ path }) => /\/waves\/[^/]+$/.test(path));
    const out = turnedProject(project, [turnTo(wave, false)]);
    const id = wave.path.split('/').at(-1)!;
    expect(out.encounters.find((one) => one.id === cell.id)!.waves.some((one) => one.id === id)).toBe(false);
    expect(out.brief!.bands.some(({ scope, of }) => scope === 'wave' && of === id)).toBe(false);
  });

  test('one that is not there, a whole object of the document, and anything but no are refused', () => {
    const entry = { scope: 'unit', of: 'clipper', path: '/attacks/bite', to: 'no' };
    const at = '/tuning/questions/clippers-in-a-crowd';
    expect(problems(entry)).toEqual([]);
    expect(problems({ ...entry, to: 'yes' })).toEqual([`${at}/dials/0/to word`]);
    expect(problems({ ...entry, to: undefined })).toEqual([`${at}/dials/0/to required`]);
    expect(dialOfText(project, '/units/clipper=no')).toBeUndefined();
    expect(dialOfText(project, '/encounters/evening-shift=no')).toBeUndefined();
    expect(dialOfText(project, '/units/clipper/attacks/none=no')).toBeUndefined();
  });
});
