/** What tuning came to, as data for whoever reads it without the page: the same from the command line and over HTTP. */
import { GOAL_MEASURES, goalIn } from '../measures/list';
import { type Scenario, scenarioKey } from '../analysis/scenario';
import { changesInWords, wordingSentence } from '../model/words';
import type { Project } from '../model/project';
import { dialText } from '../tuning/asked-text';
import type { ComparedVersions } from '../tuning/compare-work';
import type { Dial } from '../tuning/dial';
import { dialValue, dialWords } from '../tuning/dial-words';
import { type ComparedGoal, flips } from '../tuning/flips';
import { bestIn } from '../tuning/find/proposals';
import type { Knob } from '../tuning/find/problem';
import type { FindSearch } from '../tuning/find/search';
import { whyNot } from '../tuning/find/why';
import type { Objective } from '../tuning/goal';
import { wantedWords } from '../telling/goal-words';
import type { MovesFound } from '../tuning/moves-work';
import { wordsOfPlay } from '../tuning/play/habits';
import type { PlayFound, ProvedPlay } from '../tuning/play/search';
import { blameOverall } from '../tuning/which-edit';

/** What is asked for, and what is wanted of it in words. */
export const objectiveReport = ({ measure, statistic, of, band, clock }: Objective) => ({
  measure,
  statistic,
  of,
  wanted: band ? wantedWords(measure, band, clock) : '',
});

/** What moves a fight. */
export function movesReport(
  project: Project,
  { cell, objectives, runs }: { cell: Scenario; objectives: readonly Objective[]; runs: number },
  { moved, stuck, together, measured }: MovesFound,
) {
  return {
    subject: scenarioKey(cell),
    runs,
    ...(measured !== undefined && { measured }),
    objectives: objectives.map(objectiveReport),
    dials: moved.map(({ dial, from, to, effects }) => ({
      path: dial.path,
      ...(dial.role !== undefined && { role: dial.role }),
      ...dialWords(project, dial),
      from,
      to,
      effects,
    })),
    stuck: stuck.map(({ path }) => path),
    ...(together.length && {
      together: together.map(({ first, second, effects }) => ({
        dials: [first.dial, second.dial].map((dial) => dialText(project, dial)),
        effects,
      })),
    }),
  };
}

/** Two versions, goal by goal, and which edit did it. */
export function comparedReport(
  { before, after, runs }: { before: Project; after: Project; runs: number },
  byName: readonly { from: string; to: string }[],
  { all, asked, rows }: ComparedVersions,
) {
  const side = (one: ComparedGoal['before']) =>
    one && {
      value: one.judgement.estimate.value,
      low: one.judgement.estimate.low,
      high: one.judgement.estimate.high,
      verdict: one.verdict,
    };
  return {
    before: before.id,
    after: after.id,
    runs,
    byName,
    changes: changesInWords(before, after).map(wordingSentence),
    goals: all.map((one) => ({
      band: one.goal.band.id,
      cell: scenarioKey(one.goal.cell),
      measure: one.goal.band.measure,
      of: one.goal.of,
      before: side(one.before),
      after: side(one.after),
      effect: one.effect,
      flipped: flips(one),
    })),
    ...(rows && {
      edits: rows.map(({ edit, effects }) => ({
        words: edit.words,
        blame: blameOverall(effects),
        operations: edit.operations,
        effects: effects.map((effect, g) => ({ band: asked[g].band.id, cell: scenarioKey(asked[g].cell), ...effect })),
      })),
    }),
  };
}

/** Where a dial stands before it is turned. */
export const standing = ({ now, dial }: Pick<Knob, 'now' | 'dial'>): number => (dial.op === '×' ? 1 : now);

/** A goal of a search: of several fights with where it is asked. */
export function goalOfSearch({ goals, cells }: FindSearch['problem'], g: number): string {
  const { measure, statistic, band, cell, clock } = goals[g];
  const { usual } = GOAL_MEASURES[measure];
  const { label } = goalIn(measure, clock);
  const at = cells.length > 1 ? ` at ${[cell.tier, cell.skill].filter(Boolean).join(', ') || 'as written'}` : '';
  return `${label}${statistic === usual ? '' : `, ${statistic}`}${at} (${wantedWords(measure, band!, clock)})`;
}

/** What a search came to. */
export function findReport(project: Project, search: FindSearch) {
  const { problem, proposals, progress } = search;
  const best = bestIn(problem, proposals);
  return {
    cells: problem.cells.map(scenarioKey),
    runs: progress.runs,
    budget: problem.budget,
    goals: problem.goals.map(({ measure, statistic, band, of }) => ({ measure, statistic, of, ...band })),
    proposals: proposals.map(({ put, distance, proof, seeds, after }, i) => ({
      best: best[i],
      distance,
      put: put.map(({ knob, value }) => ({ dial: dialText(project, knob.dial), from: standing(knob), to: value })),
      proof: proof.map(({ estimate, verdict }) => ({ value: estimate.value, low: estimate.low, high: estimate.high, verdict })),
      seeds,
      after,
    })),
    ...(proposals.length === 0 && { why: whyWords(project, search) }),
  };
}

/** Why nothing was found, as far as the search can promise: never that there is nothing. */
export function whyWords(project: Project, search: FindSearch): string[] {
  const { alone, pulling } = whyNot(search);
  const named = (goal: Objective) => goalOfSearch(search.problem, search.problem.goals.indexOf(goal));
  const end = (dial: Dial, which: 'low' | 'high') => {
    const { whose, name } = dialWords(project, dial);
    return `${whose} ${name} is at its ${which === 'low' ? 'lowest' : 'highest'}, ${dialValue(project, dial, dial[which])}`;
  };
  return [
    ...pulling.map(([a, b]) => `${named(a)} and ${named(b)} pull against each other within these ranges`),
    ...alone.map(({ goal, ends }) => {
      const at = ends.map(({ knob, end: which }) => end(knob.dial, which));
      return `${named(goal)} is promised nowhere in these ranges${at.length ? `: ${at.join('; ')}` : ''}`;
    }),
  ];
}

/** Ways of playing that win far more cheaply, and how little a player needs to do. */
export function playReport(cell: Scenario, { habits, written, ways, dullest, runs }: PlayFound) {
  const told = ({ play, turns, won, dose, gain, wins, seeds }: ProvedPlay) => ({
    says: wordsOfPlay(habits, play),
    won,
    dose,
    gain: { difference: gain.difference, low: gain.low, high: gain.high },
    wins: { difference: wins.difference, low: wins.low, high: wins.high },
    turned: turns,
    seeds,
  });
  return {
    cell: scenarioKey(cell),
    runs,
    habits: habits.length,
    written,
    ways: ways.map(told),
    ...(dullest && { dullest: told(dullest) }),
  };
}
