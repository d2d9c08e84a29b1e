/** insidia compare: two versions of a project on the same seeds, goal by goal; and which edit did it. */
import {
  type ComparedGoal,
  type ComparedVersions,
  type EditRow,
  type Goal,
  type PairedEffect,
  type Project,
  VERDICT_WORDS,
  blameOverall,
  byBlame,
  byBlameOverall,
  changesInWords,
  compareWork,
  comparedReport,
  csvRow,
  flips,
  goalName,
  goalsOfBoth,
  isSeen,
  matched,
  numberOf,
  unitOf,
  wordingSentence,
  workThrough,
} from '@insidia/core';
import { stringify } from 'csv-stringify/sync';
import { effectText, json } from './effect-text';
import { junit } from './junit';
import { EXIT, Exit } from './exit';
import { textTable } from './text-table';

export interface CompareOptions {
  runs: number;
  byEdit?: boolean;
  tier?: string[];
  skill?: string[];
  format: 'text' | 'json' | 'csv' | 'junit';
}

export interface CompareText {
  text: string;
  /** Goals that the second version misses, and those that it alone misses. */
  missed: number;
  newlyMissed: number;
}

interface Found extends ComparedVersions {
  before: Project;
  after: Project;
  byName: { from: string; to: string }[];
}

/** @throws Exit where neither has a goal */
export function compare(before: Project, other: Project, options: CompareOptions, report: (text: string) => void): CompareText {
  const { project: after, byName } = matched(before, other);
  const axes = { ...(options.tier && { tiers: options.tier }), ...(options.skill && { skills: options.skill }) };
  const { runs, byEdit = false } = options;
  const versions = { before, after };
  if (!goalsOfBoth(before, after, axes).length)
    throw new Exit(EXIT.usage, 'neither version has a goal at these tiers and skills: there is nothing to compare by');
  const found: Found = {
    ...versions,
    byName,
    ...workThrough(compareWork(versions, { runs, axes, byEdit }), ({ runs: done, of }) => report(`${done} of ${of} runs`)),
  };
  const { all } = found;
  const isMissed = (verdict: string | undefined) => verdict !== undefined && verdict.startsWith('missed');
  return {
    text: { text: asText, json: asJson, csv: asCsv, junit: asJunit }[options.format](found, options),
    missed: all.filter(({ after: now }) => isMissed(now?.verdict)).length,
    newlyMissed: all.filter(({ before: was, after: now }) => isMissed(now?.verdict) && !isMissed(was?.verdict)).length,
  };
}

const verdictWords = (one: ComparedGoal['before']) => (one ? VERDICT_WORDS[one.verdict] : '–');

const nameOf = (project: Project, goal: Goal) => goalName(project, { ...goal, runs: 0, verdict: 'undecided' });

function asText({ before, after, all, byName, asked, rows }: Found, { runs }: CompareOptions): string {
  const changes = changesInWords(before, after).map(wordingSentence);
  const flipped = all.filter(flips);
  const moved = all.filter((one) => !flips(one) && isSeen(one.effect));
  const line = (one: ComparedGoal) => {
    const { measure } = one.goal.band;
    const { clock } = one.goal;
    const value = (of: ComparedGoal['before']) => (of ? numberOf(measure, of.judgement.estimate.value, clock) : '–');
    return [
      nameOf(after, one.goal),
      unitOf(measure, clock),
      value(one.before),
      value(one.after),
      one.effect ? effectText(measure, one.effect, clock) : '',
      verdictWords(one.before),
      verdictWords(one.after),
    ];
  };
  const head = ['goal', 'unit', 'before', 'after', 'moved by (95 %)', 'was', 'is'];
  const part = (title: string, list: readonly ComparedGoal[]) =>
    list.length ? [`${title}\n`, textTable(head, list.map(line), 1)] : [`${title}: none\n`];
  return [
    `${before.name} → ${after.name}, ${runs} runs a cell on the same seeds, ${all.length} goals\n`,
    ...byName.map(({ from, to }) => `found by name: "${from}" is "${to}"\n`),
    changes.length ? `What changed\n${changes.map((one) => `  ${one}\n`).join('')}` : 'Nothing changed\n',
    ...part('Verdicts that flipped', flipped),
    ...part('What else moved', moved),
    ...(rows ? [byEditText(after, asked, rows)] : []),
  ].join('\n');
}

function byEditText(project: Project, asked: readonly Goal[], rows: readonly EditRow[]): string {
  if (!asked.length) return 'Which edit did it: no goal moved\n';
  const overall = byBlameOverall(rows).map((row) => [
    row.edit.words.join('; ') || 'no words',
    blameOverall(row.effects).toFixed(1),
    `${movedBy(row)} of ${asked.length}`,
  ]);
  const each = asked
    .map((goal, g) => {
      const lines = byBlame(rows, g).map(({ edit, effects }) => {
        const { putIn, takenOut, together } = effects[g];
        const words = (effect: PairedEffect | undefined) => (effect ? effectText(goal.band.measure, effect, goal.clock) : '–');
        return [edit.words.join('; ') || 'no words', words(putIn), words(takenOut), together ? 'only with others' : ''];
      });
      return `Which edit moved ${nameOf(project, goal)}\n${textTable(['edit', 'put in alone', 'lost without it', ''], lines, 1)}`;
    })
    .join('\n');
  return `Which edit did it, over all of them\n${textTable(['edit', 'blame', 'goals moved'], overall, 1)}\n${each}`;
}

/** Goals that an edit moves for all to see, alone or among the others. */
const movedBy = ({ effects }: EditRow) => effects.filter(({ putIn, takenOut }) => isSeen(putIn) || isSeen(takenOut)).length;

const asJson = (found: Found, { runs }: CompareOptions): string =>
  json(comparedReport({ before: found.before, after: found.after, runs }, found.byName, found));

function asCsv({ after, all, asked, rows }: Found): string {
  const effects = (effect: PairedEffect | undefined) => ({
    difference: effect?.difference ?? '',
    low: effect?.low ?? '',
    high: effect?.high ?? '',
    says: effect?.says ?? '',
  });
  const lines = rows
    ? rows.flatMap(({ edit, effects: own }) =>
        own.flatMap(({ putIn, takenOut }, g) =>
          (['putIn', 'takenOut'] as const).map((how) => ({
            edit: edit.words.join('; '),
            how,
            goal: nameOf(after, asked[g]),
            ...effects(how === 'putIn' ? putIn : takenOut),
          })),
        ),
      )
    : all.map((one) => ({
        goal: nameOf(after, one.goal),
        before: one.before?.judgement.estimate.value ?? '',
        after: one.after?.judgement.estimate.value ?? '',
        was: one.before?.verdict ?? '',
        is: one.after?.verdict ?? '',
        ...effects(one.effect),
      }));
  return stringify(lines.map(csvRow), { header: true });
}

/** A case a goal: failed where the second version misses it, skipped where that is undecided. */
function asJunit({ before, after, all }: Found): string {
  return junit(
    `${before.name} → ${after.name}`,
    'compare',
    all.map((one) => {
      const { measure } = one.goal.band;
      const { clock } = one.goal;
      const moved = one.effect ? `, moved by ${effectText(measure, one.effect, clock)} ${unitOf(measure, clock)}` : '';
      const { verdict } = one.after ?? {};
      return {
        classname: measure,
        name: nameOf(after, one.goal),
        message: `${verdictWords(one.before)} → ${verdictWords(one.after)}${moved}`,
        outcome: verdict?.startsWith('missed') ? 'failed' : verdict === 'undecided' ? 'skipped' : 'passed',
        ...(verdict && { type: verdict }),
      };
    }),
  );
}
