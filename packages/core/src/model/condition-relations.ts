/** Whether a condition says what its subject needs, no more, and speaks of things that are there. */
import { type Condition, SUBJECTS, type SubjectInfo, TARGET_DOES } from './condition';
import { LIMITS } from './limits';
import { pointerOf } from './pointer';
import type { Project } from './project';
import type { Unit } from './unit';
import type { Report } from './unit-relations';
import { hasUnit } from './variants';

/** From where a condition is asked. */
export interface Asker {
  /** The unit that asks; none for an encounter. */
  unit?: Unit;
  /** Waves by id, where the encounter is known. */
  waves?: readonly string[];
  /** Asked by an encounter: only what speaks of the whole. */
  encounter: boolean;
}

export function conditionProblems(project: Project, condition: Condition, asker: Asker, at: string[], report: Report, depth = 1): void {
  const info: SubjectInfo = SUBJECTS[condition.subject];
  const here = (field: string) => pointerOf(...at, field);
  if (depth > LIMITS.conditionDepth) {
    report(pointerOf(...at), 'limit', depth, `must not be nested deeper than ${LIMITS.conditionDepth} conditions`);
    return;
  }
  if (asker.encounter && !info.encounter)
    report(here('subject'), 'applies', condition.subject, 'is something only a unit can tell, not the encounter');
  const wanted = {
    is: info.asked === 'number' ? ['below', 'above'] : info.asked === 'yesNo' ? ['yes', 'no'] : [],
    value: info.asked === 'number' || info.asked === 'chance',
    of: info.of !== undefined,
    within: info.within !== undefined,
    parts: info.asked === 'group',
  };
  if (wanted.is.length ? !wanted.is.includes(condition.is ?? '') : condition.is !== undefined)
    report(here('is'), 'oneOf', condition.is, wanted.is.length ? `must be ${wanted.is.join(' or ')}` : 'is not asked here');
  for (const field of ['value', 'of', 'within', 'parts'] as const) {
    const given = condition[field] !== undefined;
    if (given && !wanted[field]) report(here(field), 'applies', condition[field], `is not asked of ${condition.subject}`);
    if (!given && wanted[field] && !(field === 'of' && info.ofOptional))
      report(here(field), 'required', undefined, `is needed for ${condition.subject}`);
  }
  if (condition.subject === 'not' && condition.parts && condition.parts.length !== 1)
    report(here('parts'), 'limit', condition.parts.length, 'must hold exactly one condition');
  if (info.asked === 'group' && condition.parts?.length === 0) report(here('parts'), 'required', [], 'needs at least one condition');
  if (info.asked === 'chance' && (condition.value ?? 0) > 1) report(here('value'), 'max', condition.value, 'must not be greater than 1');
  if (condition.of !== undefined && info.of) refersTo(project, info.of, condition.of, asker, here('of'), report);
  condition.parts?.forEach((part, i) => conditionProblems(project, part, asker, [...at, 'parts', String(i)], report, depth + 1));
}

function refersTo(project: Project, what: string, id: string, { unit, waves }: Asker, path: string, report: Report): void {
  if (what === 'attack' && unit && !unit.attacks.some((attack) => attack.id === id))
    report(path, 'reference', id, 'must be an attack of the unit');
  if (what === 'unit' && !hasUnit(project, id)) report(path, 'reference', id, 'must be a unit of the project');
  if (what === 'doing' && !(TARGET_DOES as readonly string[]).includes(id))
    report(path, 'oneOf', id, `must be one of ${TARGET_DOES.join(', ')}`);
  // A unit may be asked of waves in encounters that have them; where there is none of that name the answer is no.
  if (what === 'wave' && waves && !waves.includes(id)) report(path, 'reference', id, 'must be a wave of the encounter');
}
