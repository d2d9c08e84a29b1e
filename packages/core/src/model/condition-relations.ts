/** Whether a condition asks what its subject can be asked, and of whom; what it needs beside it and refers to, its fields say. */
import { type Condition, TARGET_DOES, subjectOf } from './condition';
import type { Report } from './field-relations';
import { LIMITS } from './limits';
import { pointerOf } from './pointer';

/** Who asks: the encounter, only what speaks of the whole; a unit; one of its attacks, not whether it may itself be used. */
export type Asking = 'encounter' | 'unit' | 'attack';

export function conditionProblems(condition: Condition, asking: Asking, at: string[], report: Report, depth = 1): void {
  const { subject, is, value, of, parts } = condition;
  const info = subjectOf(subject);
  const here = (field: string) => pointerOf(...at, field);
  if (depth > LIMITS.conditionDepth) {
    report(pointerOf(...at), 'limit', depth, `must not be nested deeper than ${LIMITS.conditionDepth} conditions`);
    return;
  }
  if (asking === 'encounter' && !info.encounter)
    report(here('subject'), 'applies', subject, 'is something only a unit can tell, not the encounter');
  if (asking === 'attack' && subject === 'strikable')
    report(here('subject'), 'applies', subject, 'must not be asked by an attack: whom it can strike hangs on whether it may be used');
  const answers = info.asked === 'number' ? ['below', 'above'] : info.asked === 'yesNo' ? ['yes', 'no'] : [];
  if (answers.length ? !answers.includes(is ?? '') : is !== undefined)
    report(here('is'), 'oneOf', is, answers.length ? `must be ${answers.join(' or ')}` : 'is not asked here');
  if (info.of && !info.ofOptional && of === undefined) report(here('of'), 'required', undefined, `is needed for ${subject}`);
  if (info.of === 'doing' && of !== undefined && !(TARGET_DOES as readonly string[]).includes(of))
    report(here('of'), 'oneOf', of, `must be one of ${TARGET_DOES.join(', ')}`);
  if (subject === 'not' && parts && parts.length > 1) report(here('parts'), 'limit', parts.length, 'must hold exactly one condition');
  if (info.asked === 'chance' && (value ?? 0) > 1) report(here('value'), 'max', value, 'must not be greater than 1');
  parts?.forEach((part, i) => conditionProblems(part, asking, [...at, 'parts', String(i)], report, depth + 1));
}
