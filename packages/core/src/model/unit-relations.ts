/** How the parts of one unit fit together, besides what its fields say of themselves. */
import type { Attack } from './attack';
import { conditionProblems } from './condition-relations';
import { traitsOf } from './delivery';
import { changeableAt, fieldAt, fitsField } from './field-at';
import { type Report, fieldProblems } from './field-relations';
import { pointerOf, pointerSteps } from './pointer';
import type { Problem } from './problem';
import type { Project } from './project';
import { type State, keepsBand } from './state';
import type { FieldTweak } from './tweak';
import { roundsOrder } from './rounds-relations';
import { Unit } from './unit';

/** All that can be wrong with one unit. @param at the steps that lead to it in its document */
export function unitProblems(project: Project, unit: Unit, at: string[]): Problem[] {
  const problems = fieldProblems(Unit, unit, at, { project });
  partProblems(unit, at, (path, rule, value, message) => problems.push({ path, rule, value, message }));
  return problems;
}

/** The same without what its fields say of themselves. */
export function partProblems(unit: Unit, at: string[], report: Report): void {
  for (const attack of unit.attacks) attackProblems(attack, [...at, 'attacks', attack.id], report);
  for (const state of unit.states) stateProblems(state, [...at, 'states', state.id], report);
  choiceProblems(unit, at, report);
}

/** What must hold of a unit's numbers, whatever tweaks made of them. */
export function orderProblems(unit: Unit, at: string[]): Problem[] {
  const problems: Problem[] = [];
  const report: Report = (path, rule, value, message) => problems.push({ path, rule, value, message });
  const ordered = (low: number, high: number, what: string, ...steps: string[]) => {
    if (low > high) report(pointerOf(...at, ...steps), 'order', low, `must be at most ${what} ${high}`);
  };
  if (unit.body.eyeHeight > unit.body.height)
    report(pointerOf(...at, 'body', 'eyeHeight'), 'atMostHeight', unit.body.eyeHeight, `must be at most the height ${unit.body.height}`);
  ordered(unit.choice.pause.min, unit.choice.pause.max, 'the longest pause', 'choice', 'pause', 'min');
  for (const { id, range, beat } of unit.attacks) {
    ordered(range.min, range.max, 'the range’s end', 'attacks', id, 'range', 'min');
    ordered(beat.initialDelay.min, beat.initialDelay.max, 'the longest delay', 'attacks', id, 'beat', 'initialDelay', 'min');
    if (beat.windup + beat.active + beat.recovery + beat.cooldown > 0) continue;
    report(
      pointerOf(...at, 'attacks', id, 'beat'),
      'takesTime',
      { windup: 0, active: 0, recovery: 0, cooldown: 0 },
      'must take some time: wind-up, active, recovery and cooldown are all 0',
    );
  }
  for (const { id, does, near = 0, far, decides, roams } of unit.states) {
    if (keepsBand(does) && far !== undefined) ordered(near, far, 'the far edge', 'states', id, 'near');
    if (decides) ordered(decides.min, decides.max, 'the longest time', 'states', id, 'decides', 'min');
    if (roams && does === 'wander') ordered(roams.min, roams.max, 'the longest time', 'states', id, 'roams', 'min');
  }
  roundsOrder(unit, ordered);
  return problems;
}

/** Each tweak leads to a number of the class, or sets one of its words or yes-or-nos. */
export function tweakPaths(root: new () => object, tweaks: readonly FieldTweak[], report: Report, ...at: string[]): void {
  tweaks.forEach((tweak, i) => {
    const here = pointerOf(...at, i);
    tweakProblems(root, tweak, here, report);
    if (tweak.min !== undefined && tweak.max !== undefined && tweak.min > tweak.max) {
      report(`${here}/min`, 'order', tweak.min, `must be at most ${tweak.max}`);
    }
  });
}

function tweakProblems(root: new () => object, tweak: FieldTweak, here: string, report: Report): void {
  const { path, op, value } = tweak;
  const field = changeableAt(root, stepsOf(path));
  if (!field) {
    const word = /^(word|yesNo)$/.test(fieldAt(root, stepsOf(path))?.kind ?? '');
    report(
      `${here}/path`,
      word ? 'applies' : 'reference',
      path,
      word
        ? 'must not be a word that other fields hang on, or that no fight reads: change it in the unit, or in a variant'
        : 'must lead to a number, a word or a yes-or-no of the unit or encounter',
    );
    return;
  }
  if (field.kind === 'number') {
    if (typeof value !== 'number') report(`${here}/value`, 'number', value, 'must be a number: this changes one');
    return;
  }
  if (op !== '=') report(`${here}/op`, 'applies', op, 'must be =: a word or a yes-or-no is set');
  if (!fitsField(field, value))
    report(
      `${here}/value`,
      field.kind === 'word' ? 'word' : 'yesNo',
      value,
      field.kind === 'word' ? `must be one of ${field.words.join(', ')}` : 'must be true or false',
    );
  for (const limit of ['min', 'max', 'round'] as const)
    if (tweak[limit] !== undefined) report(`${here}/${limit}`, 'applies', tweak[limit], 'does not apply to a word or a yes-or-no');
}

function stepsOf(path: string): string[] {
  try {
    return pointerSteps(path);
  } catch {
    return []; // refused by its own rule already
  }
}

function attackProblems(attack: Attack, here: string[], report: Report): void {
  const { aids, needsTarget } = traitsOf(attack.delivery);
  if ((attack.targets === 'foes') === (aids && needsTarget))
    report(pointerOf(...here, 'targets'), 'applies', attack.targets, 'must be friends or fallen for support, and foes for all else');
  const { strikes } = traitsOf(attack.delivery);
  if (attack.dash && attack.dash.hurts !== 'no' && !strikes)
    report(pointerOf(...here, 'dash', 'hurts'), 'applies', attack.dash.hurts, 'must be no where the attack strikes nobody');
  if (attack.condition) conditionProblems(attack.condition, 'attack', [...here, 'condition'], report);
  if (attack.effects.boost) tweakPaths(Unit, attack.effects.boost.tweaks, report, ...here, 'effects', 'boost', 'tweaks');
}

function choiceProblems(unit: Unit, at: string[], report: Report): void {
  unit.choice.priorities.forEach((priority, p) => {
    const here = [...at, 'choice', 'priorities', String(p)];
    if (priority.condition) conditionProblems(priority.condition, 'unit', [...here, 'condition'], report);
    priority.entries.forEach((entry, e) => {
      const place = [...here, 'entries', String(e)];
      const attack = unit.attacks.find(({ id }) => id === entry.attack);
      if (attack && !traitsOf(attack.delivery).chosen)
        report(pointerOf(...place, 'attack'), 'applies', entry.attack, traitsOf(attack.delivery).about);
      if (entry.condition) conditionProblems(entry.condition, 'unit', [...place, 'condition'], report);
    });
  });
}

function stateProblems(state: State, here: string[], report: Report): void {
  state.leaves.forEach(({ when }, i) => {
    if (when) conditionProblems(when, 'unit', [...here, 'leaves', String(i), 'when'], report);
  });
  tweakPaths(Unit, state.tweaks, report, ...here, 'tweaks');
}
