import { describe, expect, test } from '@jest/globals';
import { scenarioKey } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import type { Project } from '../model/project';
import type { Question, QuestionDial } from '../model/question';
import { type InvalidDocument } from '../model/problem';
import { parseProject } from '../model/validate';
import { demoProject } from '../testing/demo';
import { NoGoal, dialOfText, dialText, goalOfText, goalText } from './asked-text';
import { type Dial, dialFor, nudged, wordDial, writtenAt } from './dial';
import { dialWords } from './dial-words';
import { kindsOfNumbers, numbersOf, wordsOf } from './dials-of-fight';
import { cellsOfQuestion, dialOfKept, keptDial, keptGoal, objectivesOf } from './kept';

const project = demoProject();
const shift = project.tuning!.questions[0];
const crowd = project.tuning!.questions[1];
const cell = cellsOfQuestion(shift)[0];
const numbers = numbersOf(project, compileScenario(project, cell), 'evening-shift', true);
const everyDial: Dial[] = [...numbers, ...kindsOfNumbers(project, numbers), ...wordsOf(project, compileScenario(project, cell))];

describe('a question that is kept', () => {
  test('is asked of its fight at each tier and skill it names, as written where it names none', () => {
    expect(cellsOfQuestion(shift)).toEqual([{ kind: 'encounter', id: 'evening-shift', tier: 'bloom', skill: 'regular' }]);
    expect(cellsOfQuestion(crowd).map(scenarioKey)).toEqual(['duel|clipper||regular|||copies=6']);
    expect(cellsOfQuestion({ ...crowd, copies: 1, at: [] }).map(scenarioKey)).toEqual(['duel|clipper||||']);
  });

  test('wants its own goals; of none what the brief wants, made up by what is usually looked at', () => {
    const own = objectivesOf(project, cellsOfQuestion(crowd)[0], crowd.goals);
    expect(own.map(({ measure, column, statistic, band }) => [measure, column, statistic, band])).toEqual([
      ['won', 'won', 'share', { low: 0.7, high: 0.9 }],
      ['timeToKill', 'type clipper timeToKill', 'median', undefined],
      ['peakPressureShare', 'peakPressureShare', 'median', { low: 0.02, high: 0.08 }],
    ]);
    expect(own.map((one) => keptGoal(project, one))).toEqual(crowd.goals);
    expect(objectivesOf(project, cell).every(({ band }) => band)).toBe(true);
    expect(objectivesOf(project, { kind: 'duel', id: 'clipper', duel: { copies: 6 } }).map(({ measure }) => measure)).toEqual([
      'won',
      'timeToKill',
      'peakPressureShare',
      'dose',
    ]);
    const wave = { measure: 'span', scope: 'wave', of: 'three', statistic: 'median', high: 40 } as const;
    const [ofWave] = objectivesOf(project, cell, [wave]);
    expect(ofWave).toMatchObject({ column: 'wave three span', of: 'three', band: { high: 40 } });
    expect(keptGoal(project, ofWave)).toEqual(wave);
  });

  test('every dial of a fight, number, kind and word, is kept and comes back the same; so it does by its text', () => {
    expect(everyDial.length).toBeGreaterThan(200);
    for (const dial of everyDial.filter((_, i) => i % 4 === 0)) {
      const kept = keptDial(project, dial)!;
      expect([dial.id, dialOfKept(project, kept)]).toEqual([dial.id, dial]);
      expect([dial.id, dialOfText(project, dialText(project, dial))]).toEqual([dial.id, dial]);
    }
    const some = everyDial.filter(({ to }, i) => to === undefined && i % 9 === 0);
    for (const dial of some.map((one) => ({ ...one, low: one.low - 0.25, locked: true }))) {
      expect(dialOfKept(project, keptDial(project, dial)!)).toEqual(dial);
      expect(dialOfText(project, dialText(project, dial))).toEqual(dial);
    }
    const dials = everyDial.slice(0, 150).map((dial) => keptDial(project, dial)!);
    const asked: Project = { ...project, tuning: { questions: [{ ...shift, dials }] } };
    expect(parseProject(JSON.parse(JSON.stringify(asked))).tuning!.questions[0].dials).toHaveLength(150);
  });

  test('a dial that leads nowhere any more is none', () => {
    const dial: QuestionDial = { scope: 'unit', of: 'clipper', path: '/attacks/gone/beat/cooldown', op: '=', locked: false };
    expect(dialOfKept(project, dial)).toBeUndefined();
    expect(dialOfKept(project, { ...dial, path: '/health/max', low: 30, high: 20 })).toBeUndefined();
  });
});

describe('what is refused', () => {
  const problems = (question: object): string[] => {
    try {
      parseProject({ ...demoProject(), tuning: { questions: [{ ...(crowd as object), ...question }] } });
      return [];
    } catch (error) {
      return (error as InvalidDocument).problems.map(({ path, rule }) => `${path} ${rule}`);
    }
  };
  const at = '/tuning/questions/clippers-in-a-crowd';
  test.each<[string, Partial<Record<keyof Question, unknown>>, string[]]>([
    ['a fight that is not there', { of: 'nobody' }, [`${at}/of reference`]],
    ['copies of an encounter', { fight: 'encounter', of: 'first-bell', goals: [] }, [`${at}/copies applies`]],
    ['a tier that is not there', { at: [{ tier: 'nowhere' }] }, [`${at}/at/0/tier reference`]],
    ['a measure of waves of an enemy', { goals: [{ measure: 'span', statistic: 'median' }] }, [`${at}/goals/0/measure applies`]],
    [
      'one enemy of a duel',
      { goals: [{ measure: 'timeToKill', scope: 'unit', of: 'clipper', statistic: 'median' }] },
      [`${at}/goals/0/scope applies`],
    ],
    ['a share by its median', { goals: [{ measure: 'won', statistic: 'median' }] }, [`${at}/goals/0/statistic applies`]],
    ['goals set backwards', { goals: [{ measure: 'timeToKill', statistic: 'median', low: 2, high: 1 }] }, [`${at}/goals/0/high order`]],
    ['a pointer to nothing', { dials: [{ scope: 'unit', of: 'clipper', path: '/health/most' }] }, [`${at}/dials/0/path reference`]],
    ['a pointer to a name', { dials: [{ scope: 'unit', of: 'clipper', path: '/name' }] }, [`${at}/dials/0/path reference`]],
    ['nobody’s number', { dials: [{ scope: 'unit', path: '/health/max' }] }, [`${at}/dials/0/of required`]],
    [
      'a range set backwards',
      { dials: [{ scope: 'enemies', path: '/health/max', op: '×', low: 2, high: 1 }] },
      [`${at}/dials/0/high order`],
    ],
    ['a number put to a word', { dials: [{ scope: 'unit', of: 'clipper', path: '/health/max', to: 'yes' }] }, [`${at}/dials/0/to applies`]],
    ['a word put to none', { dials: [{ scope: 'unit', of: 'clipper', path: '/role' }] }, [`${at}/dials/0/path reference`]],
    ['two of the same id', {}, []],
  ])('%s', (_, change, found) => {
    expect(problems(change)).toEqual(found);
  });

  test('words and yes-or-no that there are not, and factors of them', () => {
    const [word] = everyDial.filter(({ to }) => typeof to === 'string');
    const [yes] = everyDial.filter(({ to }) => typeof to === 'boolean');
    for (const dial of [word, yes].map((one) => keptDial(project, one)!)) {
      expect(problems({ dials: [dial] })).toEqual([]);
      expect(problems({ dials: [{ ...dial, to: 'perhaps' }] })).toEqual([`${at}/dials/0/to word`]);
      expect(problems({ dials: [{ ...dial, to: undefined }] })).toEqual([`${at}/dials/0/to required`]);
      expect(problems({ dials: [{ ...dial, op: '×' }] })).toEqual([`${at}/dials/0/op applies`]);
    }
  });
});

describe('words, yes-or-no and kinds of numbers', () => {
  test('a word is a dial for each other word there is; it is turned to that and to nothing else', () => {
    const words = everyDial.filter(({ to }) => to !== undefined);
    expect(new Set(words.map(({ id }) => id)).size).toBe(words.length);
    for (const dial of words) {
      expect(nudged(project, dial)).toBe(dial.to);
      expect(writtenAt(project, dial)).not.toBe(dial.to);
      const { path } = dial;
      expect(nudged(project, { ...dial, to: writtenAt(project, dial) as string })).toBeUndefined();
      expect(wordDial(project, path, 'no such word')).toBeUndefined();
    }
    expect(words.some(({ path }) => /\/(role|side|glyph|colour)$/.test(path))).toBe(false);
  });

  test('a kind is what several have alike: of a role, or of the attacks of one', () => {
    const kinds = kindsOfNumbers(project, numbers);
    expect(kinds.map(({ id }) => id)).toContain('swarm/units/*/attacks/*/beat/cooldown×');
    expect(new Set(kinds.map(({ id }) => id)).size).toBe(kinds.length);
    for (const kind of kinds) {
      expect(nudged(project, kind)).toBe(1.1);
      expect(dialWords(project, kind).whose).toBe(`all of the role ${kind.role}`);
    }
    expect(kindsOfNumbers(project, numbers.slice(0, 1))).toEqual([]);
  });
});

describe('goals as text', () => {
  test('come back the same, each by its usual statistic where none is said', () => {
    for (const goal of [...crowd.goals, { measure: 'span', scope: 'wave', of: 'three', statistic: 'p90', low: 1 } as const])
      expect(goalOfText(project, goalText(goal))).toEqual(goal);
    expect(goalOfText(project, 'won')).toEqual({ measure: 'won', scope: 'fight', statistic: 'share' });
    expect(goalOfText(project, 'timeToKill@clipper::..3')).toEqual({
      measure: 'timeToKill',
      scope: 'unit',
      of: 'clipper',
      statistic: 'median',
      high: 3,
    });
  });

  test.each([
    '',
    'nothing',
    'toString',
    'won:median',
    'timeToKill:share',
    'won:share:1',
    'won:share:2..1',
    'won:share:a..b',
    'won:share:1..2..3',
    'won:x',
  ])('refuses %s, with what it may be', (text) => {
    expect(() => goalOfText(project, text)).toThrow(NoGoal);
  });

  test('dials of any text are a dial or none', () => {
    for (const text of [
      '',
      '/',
      'x',
      '/units',
      '/units/clipper',
      '/units/*/health/max=1',
      ':/units/*/health/max',
      '%:/units/*/health/max',
      '/a=..',
      '/units/clipper/health/max=3..2',
    ])
      expect(() => dialOfText(project, text)).not.toThrow();
    expect(dialOfText(project, '/units/clipper/health/max=3..2')).toEqual(dialFor(project, '/units/clipper/health/max'));
    expect(dialOfText(project, 'swarm:/units/*/health/max=0.8..1.2')).toMatchObject({ op: '×', role: 'swarm', low: 0.8, high: 1.2 });
  });
});
