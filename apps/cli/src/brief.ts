/** The brief judged in this process: every goal over the same seeds as a board of it. */
import {
  Batch,
  GOAL_MEASURES,
  type JudgedGoal,
  type Project,
  type Sample,
  cellKey,
  compileCell,
  goalsOf,
  judgeGoals,
  sampleOf,
  unitHeads,
} from '@insidia/core';
import { asUsage } from './simulate';

export interface BriefOptions {
  runs: number;
  tier?: string[];
  skill?: string[];
}

const PORTION = 50;

/** @throws Exit for a tier or skill that is not there */
export function judgeBrief(project: Project, { runs, tier, skill }: BriefOptions, report: (text: string) => void): JudgedGoal[] {
  const goals = goalsOf(project, { ...(tier && { tiers: tier }), ...(skill && { skills: skill }) });
  const cells = [...new Map(goals.map(({ cell }) => [cellKey(cell), cell])).values()];
  const samples = new Map<string, Sample>();
  cells.forEach((cell, i) => {
    const compiled = asUsage(() => compileCell(project, cell));
    const batch = asUsage(() => new Batch(compiled, 1, runs));
    while (!batch.done) {
      batch.advance(PORTION);
      report(`cell ${i + 1} of ${cells.length}: ${batch.rows.length} of ${runs} runs`);
    }
    samples.set(cellKey(cell), sampleOf(compiled, batch.rows));
  });
  return judgeGoals(goals, (cell) => samples.get(cellKey(cell)));
}

/** "time-to-kill of Clipper, Bloom, regular". */
export function goalName(project: Project, { band, cell, of }: JudgedGoal): string {
  const encounter = project.encounters.find(({ id }) => id === cell.id);
  const named = [...unitHeads(project), ...project.encounters, ...(encounter?.waves ?? [])].find(({ id }) => id === of);
  const place = cell.kind === 'encounter' && of !== cell.id ? ` in ${encounter?.name ?? cell.id}` : '';
  const at = [project.tiers.find(({ id }) => id === cell.tier)?.name, project.skills.find(({ id }) => id === cell.skill)?.name];
  return [`${GOAL_MEASURES[band.measure].label} of ${named?.name ?? of}${place}`, ...at.filter(Boolean)].join(', ');
}

/** "median 6.8 s (6.58 to 7.02), wanted 4.5 to 7: undecided". */
export function goalSentence({ band, judgement, verdict }: JudgedGoal): string {
  const { unit, percent } = GOAL_MEASURES[band.measure];
  const number = (value: number | undefined) =>
    value === undefined
      ? 'any'
      : Number.isFinite(value)
        ? String(Number((percent ? 100 * value : value).toPrecision(4)))
        : value > 0
          ? 'never'
          : 'open';
  const shown = percent ? (unit === '/s' ? '%/s' : '%') : unit;
  if (!judgement) return 'not measured';
  const { value, low, high } = judgement.estimate;
  const words = { met: 'met', missedLow: 'missed low', missedHigh: 'missed high', undecided: 'undecided' }[verdict];
  const more = verdict === 'undecided' && judgement.more ? `; about ${judgement.more} more runs would decide` : '';
  return `${band.statistic} ${Number.isNaN(value) ? 'none' : number(value)}${shown && ` ${shown}`} (${number(low)} to ${number(high)}), wanted ${number(band.low)} to ${number(band.high)}: ${words}${more}`;
}
