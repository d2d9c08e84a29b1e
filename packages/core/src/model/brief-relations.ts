/** What the bands and curves of a brief refer to, and whether they say anything at all. */
import type { GoalSubject } from '../measures/measure';
import { type BandMeasure, GOAL_MEASURES, meaningless } from '../measures/list';
import type { Band, BandScope } from './brief';
import { duelClocks } from './clocks';
import type { Project } from './project';
import { pointerOf } from './pointer';
import type { Report } from './field-relations';

/** Of what the measure of a band is, by its scope. */
export const SUBJECT_OF: Record<BandScope, GoalSubject> = {
  enemies: 'enemy',
  role: 'enemy',
  unit: 'enemy',
  encounters: 'encounter',
  encounter: 'encounter',
  wave: 'wave',
};

export function briefProblems(project: Project, report: Report): void {
  const { brief } = project;
  if (!brief) return;
  for (const band of brief.bands) bandProblems(project, band, report);
  const curved = new Set<string>();
  for (const { id, encounter, tier, points } of brief.curves) {
    const here = pointerOf('brief', 'curves', id);
    const key = `${encounter} ${tier}`;
    if (curved.has(key)) report(`${here}/tier`, 'unique', tier, 'must be the only curve of its encounter at that tier');
    curved.add(key);
    points.forEach(({ at }, i) => {
      if (i > 0 && !(at > points[i - 1].at)) report(`${here}/points/${i}/at`, 'order', at, 'must be later than the point before');
    });
  }
}

/** Why a measure can't be asked of any duel; undefined: it can of some. Where it means nothing in one, it asks for nothing there. */
export function meaninglessInDuels(project: Project, measure: BandMeasure): string | undefined {
  const odd = duelClocks(project).map((clock) => meaningless(measure, clock, 'a duel'));
  return odd.every((why) => why !== undefined) ? odd[0] : undefined;
}

function bandProblems(project: Project, band: Band, report: Report): void {
  const here = pointerOf('brief', 'bands', band.id);
  const { measure, scope, of, encounter, statistic, low, high } = band;
  const subject = SUBJECT_OF[scope];
  const goal = GOAL_MEASURES[measure];
  if (!goal.of.includes(subject))
    report(`${here}/measure`, 'applies', measure, `is not measured of ${subject === 'enemy' ? 'an enemy' : `a ${subject}`}`);
  const fight = project.encounters.find(({ id }) => id === (scope === 'encounter' ? of : encounter));
  const duel = subject === 'enemy' && encounter === undefined;
  const odd = fight ? meaningless(measure, fight.clock, fight.name) : duel && meaninglessInDuels(project, measure);
  if (odd) report(`${here}/measure`, 'applies', measure, odd);
  if ((statistic === 'share') !== (goal.share === true))
    report(
      `${here}/statistic`,
      'applies',
      statistic,
      goal.share ? 'must be share: the measure is yes or no in a run' : 'must not be share: the measure is a number',
    );
  if (low === undefined && high === undefined) report(`${here}/low`, 'required', low, 'must be given, or high, or both');
  if (low !== undefined && high !== undefined && !(low <= high)) report(`${here}/high`, 'order', high, `must be at least low, ${low}`);
  if (scope === 'wave' && !project.encounters.some(({ id }) => id === encounter))
    report(`${here}/encounter`, 'required', encounter, 'must name the encounter of the wave');
}
