/** What the questions of a project refer to, besides what their fields say of themselves. */
import { GOAL_MEASURES, meaningless } from '../measures/list';
import { Arena } from './arena';
import { meaninglessInDuels } from './brief-relations';
import { Encounter } from './encounter';
import { type Constructor } from './field';
import { fieldAt } from './field-at';
import type { Report } from './field-relations';
import { pointerOf, pointerSteps } from './pointer';
import type { Project } from './project';
import type { DialScope, Question, QuestionDial, QuestionGoal } from './question';
import { ENTRY } from './turn';
import { Tier } from './tier';
import { Trait } from './trait';
import { Skill, Style } from './tweak';
import { Unit } from './unit';
import { Variant } from './variant';

/** What the pointer of a dial leads into. */
const ROOTS: Record<DialScope, Constructor> = {
  unit: Unit,
  role: Unit,
  enemies: Unit,
  party: Unit,
  encounter: Encounter,
  arena: Arena,
  trait: Trait,
  tier: Tier,
  skill: Skill,
  style: Style,
  variant: Variant,
};

export function questionProblems(project: Project, report: Report): void {
  const { tuning, encounters } = project;
  for (const question of tuning?.questions ?? []) {
    const fight = question.fight === 'encounter' ? encounters.find(({ id }) => id === question.of) : undefined;
    const here = ['tuning', 'questions', question.id];
    question.goals.forEach((goal, i) => {
      goalProblems(question, goal, [...here, 'goals', String(i)], report);
      const odd = fight ? meaningless(goal.measure, fight.clock, fight.name) : meaninglessInDuels(project, goal.measure);
      if (odd) report(pointerOf(...here, 'goals', i, 'measure'), 'applies', goal.measure, odd);
    });
    question.dials.forEach((dial, i) => dialProblems(dial, [...here, 'dials', String(i)], report));
    if (question.fight === 'encounter' && question.copies !== 1)
      report(pointerOf(...here, 'copies'), 'applies', question.copies, 'does not apply where fight is encounter');
  }
}

function goalProblems(question: Question, { measure, scope, statistic, low, high }: QuestionGoal, at: string[], report: Report): void {
  const { of, share } = GOAL_MEASURES[measure];
  const subject = scope === 'wave' ? 'wave' : scope === 'unit' || question.fight === 'duel' ? 'enemy' : 'encounter';
  if (scope !== 'fight' && question.fight === 'duel')
    report(pointerOf(...at, 'scope'), 'applies', scope, 'does not apply where fight is duel: it is the enemy’s own');
  if (!of.includes(subject))
    report(
      pointerOf(...at, 'measure'),
      'applies',
      measure,
      `is not measured of ${subject === 'enemy' ? 'an enemy' : `a${subject === 'encounter' ? 'n' : ''} ${subject}`}`,
    );
  if ((statistic === 'share') !== (share === true))
    report(
      pointerOf(...at, 'statistic'),
      'applies',
      statistic,
      share ? 'must be share: the measure is yes or no in a run' : 'must not be share: the measure is a number',
    );
  if (low !== undefined && high !== undefined && !(low <= high))
    report(pointerOf(...at, 'high'), 'order', high, `must be at least low, ${low}`);
}

function dialProblems({ scope, path, op, low, high, to }: QuestionDial, at: string[], report: Report): void {
  const kind = leadsTo(scope, path);
  if (!kind) {
    report(pointerOf(...at, 'path'), 'reference', path, 'must lead to a number, a word, a yes-or-no or an entry of a list');
    return;
  }
  if (low !== undefined && high !== undefined && !(low < high))
    report(pointerOf(...at, 'high'), 'order', high, `must be above low, ${low}`);
  if (kind.kind === 'number') {
    if (to !== undefined) report(pointerOf(...at, 'to'), 'applies', to, 'does not apply to a number: it is turned between low and high');
    return;
  }
  if (op === '×') report(pointerOf(...at, 'op'), 'applies', op, 'multiplies a number: this is a word, a yes-or-no or an entry');
  const words = kind.kind === 'entry' ? ['no'] : kind.kind === 'yesNo' ? ['yes', 'no'] : kind.words;
  if (to === undefined)
    report(pointerOf(...at, 'to'), 'required', to, 'is needed for a word, a yes-or-no or an entry (`no`: it is taken out)');
  else if (!words.includes(to)) report(pointerOf(...at, 'to'), 'word', to, `must be one of ${words.join(', ')}`);
}

function leadsTo(scope: DialScope, path: string) {
  try {
    const steps = pointerSteps(path);
    const kind = fieldAt(ROOTS[scope], steps);
    if (fieldAt(ROOTS[scope], steps.slice(0, -1))?.kind === 'list') return ENTRY;
    return kind?.kind === 'number' || kind?.kind === 'word' || kind?.kind === 'yesNo' ? kind : anyNumber(path);
  } catch {
    return undefined; // refused by its own rule already
  }
}

/** The value of a tweak: what kind of number it is, the field that it changes says. */
const anyNumber = (path: string) => (/\/tweaks\/\d+\/value$/.test(path) ? ({ kind: 'number' } as const) : undefined);
