/** A judged goal in words, the same on the page, on the command line and in a report. */
import type { JudgedGoal } from '../analysis/cells';
import { goalIn } from '../measures/list';
import type { Project } from '../model/project';
import { unitHeads } from '../model/variants';
import { VERDICT_WORDS, told, unitOf, wantedWords } from './goal-words';
import { shown } from './numbers';

export const isMissed = ({ verdict }: Pick<JudgedGoal, 'verdict'>) => verdict === 'missedLow' || verdict === 'missedHigh';

/** "Clipper, Bloom, regular": of whom, where and at what. */
export function goalPlace(project: Project, { cell, of }: Pick<JudgedGoal, 'cell' | 'of'>): string {
  const encounter = project.encounters.find(({ id }) => id === cell.id);
  const named = [...unitHeads(project), ...project.encounters, ...(encounter?.waves ?? [])].find(({ id }) => id === of);
  const place = cell.kind === 'encounter' && of !== cell.id ? ` in ${encounter?.name ?? cell.id}` : '';
  const at = [project.tiers.find(({ id }) => id === cell.tier)?.name, project.skills.find(({ id }) => id === cell.skill)?.name];
  return [`${named?.name ?? of}${place}`, ...at.filter(Boolean)].join(', ');
}

/** "time-to-kill of Clipper, Bloom, regular". */
export function goalName(project: Project, goal: JudgedGoal): string {
  return `${goalIn(goal.band.measure, goal.clock).label} of ${goalPlace(project, goal)}`;
}

/** "median 6.8 s (6.58 to 7.02), wanted 4.5–7: undecided". */
export function goalSentence({ band, judgement, verdict, clock }: JudgedGoal): string {
  if (!judgement) return 'not measured';
  const { value, low, high } = judgement.estimate;
  const unit = unitOf(band.measure, clock);
  const number = (bound: number) => (Number.isFinite(bound) ? short(told(band.measure, bound)) : bound > 0 ? 'never' : 'open');
  const statistic = band.statistic === 'share' ? '' : `${band.statistic} `;
  const found = Number.isNaN(value) ? 'none' : number(value);
  const more = verdict === 'undecided' && judgement.more ? `; about ${judgement.more} more runs would decide` : '';
  return `${statistic}${found}${Number.isFinite(value) && unit ? ` ${unit}` : ''} (${number(low)} to ${number(high)}), ${wantedWords(band.measure, band, clock)}: ${VERDICT_WORDS[verdict]}${more}`;
}

/** Three digits that count; whole numbers whole. */
const short = (value: number) => shown(Math.abs(value) >= 1000 ? Math.round(value) : Number(value.toPrecision(3)), 4);
