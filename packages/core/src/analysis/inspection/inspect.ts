/** Warnings by inspection: what can be told from the document alone, at once, through one lens or all of them. */
import { clocksOf } from '../../model/clocks';
import type { Lens } from '../../model/effective';
import type { Constructor } from '../../model/field';
import { quantityAt } from '../../model/field-at';
import { unitInRounds } from '../../model/in-rounds';
import { pointerOf, pointerSteps } from '../../model/pointer';
import { Project } from '../../model/project';
import { Unit } from '../../model/unit';
import { unitHeads } from '../../model/variants';
import { type Fix, type Warning, byCost, distinct } from '../warning';
import { beats, choices } from './beats';
import { inspected } from './context';
import { distances } from './distances';
import { lasting } from './lasting';
import { minds } from './minds';
import { traits } from './traits';
import { turns } from './turns';
import { tweaks } from './tweaks';
import { waves } from './waves';

/** Warnings of one unit or variant, what costs most first. */
export function inspectUnit(project: Project, id: string, lens: Lens): Warning[] {
  const one = inspected(project, id, lens);
  const clocks = clocksOf(project, id);
  if (clocks.has('continuous')) {
    distances(one);
    beats(one);
    minds(one);
    lasting(one);
  }
  if (clocks.has('rounds') && one.unit.rounds) {
    turns(one);
    // What it compares in turns and cells, where nothing has been said of seconds and metres.
    const own = { ...one, unit: unitInRounds(one.unit) };
    if (!clocks.has('continuous')) {
      choices(own);
      minds(own);
    }
  }
  return byCost(possible(one.found));
}

/** Warnings of a whole project through one lens, what costs most first. */
export function inspect(project: Project, lens: Lens): Warning[] {
  return byCost(distinct([...units(project, lens), ...besides(project)]));
}

const units = (project: Project, lens: Lens): Warning[] => unitHeads(project).flatMap(({ id }) => inspectUnit(project, id, lens));

/** What is the same through every lens. */
const besides = (project: Project): Warning[] =>
  possible([...project.encounters.flatMap((encounter) => waves(project, encounter)), ...traits(project), ...tweaks(project)]);

/** Without mends that no field may be given: what a mend works out may lie beyond a number's limits. */
const possible = (warnings: readonly Warning[]): Warning[] =>
  warnings.map((warning) =>
    warning.fixes?.every(isPossible) === false ? { ...warning, fixes: warning.fixes.filter(isPossible) } : warning,
  );

function isPossible(fix: Fix): boolean {
  const within = (root: Constructor, path: string, value: unknown) => {
    const limits = typeof value === 'number' ? quantityAt(root, pointerSteps(path)) : undefined;
    return !limits || ((value as number) >= limits.min && (value as number) <= limits.max);
  };
  if ('unit' in fix) return fix.set.every(({ path, value }) => within(Unit, path, value));
  return !('path' in fix) || within(Project, fix.path, fix.value);
}

/** The same as written and at every tier; what several tiers share is said once, as the first of them has it. */
export function inspectAll(project: Project): Warning[] {
  const [written, ...tiers]: Lens[] = [{}, ...project.tiers.map(({ id }) => ({ tier: id }))];
  return byCost(distinct([...units(project, written), ...besides(project), ...tiers.flatMap((lens) => units(project, lens))]));
}

/** Warnings that lie at a place or below it. */
export function warningsAt(warnings: readonly Warning[], ...steps: (string | number)[]): Warning[] {
  const at = pointerOf(...steps);
  return warnings.filter(({ path }) => path === at || path.startsWith(`${at}/`));
}
