/** What the bands and curves of a brief refer to, and whether they say anything at all. */
import { GOAL_MEASURES, type GoalSubject } from '../measures/goals';
import type { Band, BandScope } from './brief';
import type { Project } from './project';
import { pointerOf } from './pointer';
import { type Report, uniqueIn } from './unit-relations';
import { hasUnit } from './variants';

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
  uniqueIn(brief.bands, report, 'brief', 'bands');
  uniqueIn(brief.curves, report, 'brief', 'curves');
  for (const band of brief.bands) bandProblems(project, band, report);
  const curved = new Set<string>();
  for (const { id, encounter, tier, points } of brief.curves) {
    const here = pointerOf('brief', 'curves', id);
    refers(project, 'encounters', encounter, `${here}/encounter`, report);
    if (tier !== undefined) refers(project, 'tiers', tier, `${here}/tier`, report);
    const key = `${encounter} ${tier}`;
    if (curved.has(key)) report(`${here}/tier`, 'unique', tier, 'must be the only curve of its encounter at that tier');
    curved.add(key);
    points.forEach(({ at }, i) => {
      if (i > 0 && !(at > points[i - 1].at)) report(`${here}/points/${i}/at`, 'order', at, 'must be later than the point before');
    });
  }
}

/** A project whose brief speaks of nothing that is not there: goals and curves of what was taken out go with it. */
export function withFittingBrief(project: Project): Project {
  const { brief } = project;
  if (!brief) return project;
  const has = (list: readonly { id: string }[], id: string | undefined) => id === undefined || list.some((one) => one.id === id);
  const bands = brief.bands.filter((band) => {
    let fits = true;
    bandProblems(project, band, (_, rule) => (fits &&= rule !== 'reference' && rule !== 'required'));
    return fits;
  });
  const curves = brief.curves.filter(({ encounter, tier }) => has(project.encounters, encounter) && has(project.tiers, tier));
  if (bands.length === brief.bands.length && curves.length === brief.curves.length) return project;
  return { ...project, brief: { ...brief, bands, curves } };
}

function bandProblems(project: Project, band: Band, report: Report): void {
  const here = pointerOf('brief', 'bands', band.id);
  const { measure, scope, of, encounter, tier, skill, statistic, low, high } = band;
  const subject = SUBJECT_OF[scope];
  const goal = GOAL_MEASURES[measure];
  if (!goal.of.includes(subject))
    report(`${here}/measure`, 'applies', measure, `is not measured of ${subject === 'enemy' ? 'an enemy' : `a ${subject}`}`);
  if ((statistic === 'share') !== (goal.share === true))
    report(
      `${here}/statistic`,
      'applies',
      statistic,
      goal.share ? 'must be share: the measure is yes or no in a run' : 'must not be share: the measure is a number',
    );
  if (low === undefined && high === undefined) report(`${here}/low`, 'required', low, 'must be given, or high, or both');
  if (low !== undefined && high !== undefined && !(low <= high)) report(`${here}/high`, 'order', high, `must be at least low, ${low}`);
  if (tier !== undefined) refers(project, 'tiers', tier, `${here}/tier`, report);
  if (skill !== undefined) refers(project, 'skills', skill, `${here}/skill`, report);
  if (encounter !== undefined) refers(project, 'encounters', encounter, `${here}/encounter`, report);
  if (scope === 'unit' && !hasUnit(project, of ?? '')) report(`${here}/of`, 'reference', of, 'must be a unit of the project');
  if (scope === 'role' && !of) report(`${here}/of`, 'required', of, 'must name the role');
  if (scope === 'encounter') refers(project, 'encounters', of, `${here}/of`, report);
  if (scope === 'wave') {
    const within = project.encounters.find(({ id }) => id === encounter);
    if (!within) report(`${here}/encounter`, 'required', encounter, 'must name the encounter of the wave');
    else if (!within.waves.some(({ id }) => id === of)) report(`${here}/of`, 'reference', of, `must be a wave of ${within.name}`);
  }
}

function refers(project: Project, list: 'encounters' | 'tiers' | 'skills', id: string | undefined, at: string, report: Report): void {
  if (!project[list].some((one) => one.id === id)) report(at, 'reference', id, `must be one of the project’s ${list}`);
}
