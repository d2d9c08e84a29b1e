/** How the parts of one unit refer to one another and fit together. */
import type { Attack } from './attack';
import { conditionProblems } from './condition-relations';
import { quantityAt } from './field';
import { pointerOf, pointerSteps } from './pointer';
import type { Problem } from './problem';
import type { Project } from './project';
import type { State } from './state';
import type { NumberTweak } from './tweak';
import { Unit } from './unit';
import { hasUnit } from './variants';

export type Report = (path: string, rule: string, value: unknown, message: string) => void;

/** @param at the steps that lead to the unit in its document */
export function unitProblems(project: Project, unit: Unit, at: string[]): Problem[] {
  const problems: Problem[] = [];
  const report: Report = (path, rule, value, message) => problems.push({ path, rule, value, message });
  uniqueIn(unit.attacks, report, ...at, 'attacks');
  uniqueIn(unit.states, report, ...at, 'states');
  uniqueIn(unit.health.gates, report, ...at, 'health', 'gates');
  uniqueIn(unit.armour.resist, report, ...at, 'armour', 'resist');
  if (unit.player) uniqueIn(unit.player.answers, report, ...at, 'player', 'answers');
  for (const attack of unit.attacks) attackProblems(project, unit, attack, [...at, 'attacks', attack.id], report);
  for (const state of unit.states) stateProblems(project, unit, state, [...at, 'states', state.id], report);
  choiceProblems(project, unit, at, report);
  bodyProblems(unit, at, report);
  return problems;
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
  for (const { id, does, near = 0, far = 0 } of unit.states) {
    if (does === 'band' || does === 'strafe') ordered(near, far, 'the far edge', 'states', id, 'near');
  }
  return problems;
}

/** Ids, and names where the items have them, differ from one another. */
export function uniqueIn(items: { id: string; name?: string }[], report: Report, ...at: string[]): void {
  for (const key of ['id', 'name'] as const) {
    const seen = new Set<string>();
    for (const item of items) {
      const value = item[key];
      if (value === undefined) continue;
      if (seen.has(value)) report(pointerOf(...at, item.id, key), 'unique', value, `must be unique in ${at.at(-1)}`);
      seen.add(value);
    }
  }
}

/** Each tweak leads to a number of the class. */
export function tweakPaths(root: new () => object, tweaks: readonly NumberTweak[], report: Report, ...at: string[]): void {
  tweaks.forEach((tweak, i) => {
    const here = pointerOf(...at, i);
    if (!quantityAt(root, stepsOf(tweak.path))) {
      report(`${here}/path`, 'reference', tweak.path, `must lead to a number of the unit or encounter`);
    }
    if (tweak.min !== undefined && tweak.max !== undefined && tweak.min > tweak.max) {
      report(`${here}/min`, 'order', tweak.min, `must be at most ${tweak.max}`);
    }
  });
}

function stepsOf(path: string): string[] {
  try {
    return pointerSteps(path);
  } catch {
    return []; // refused by its own rule already
  }
}

/** Fields that only some deliveries have. */
const PARTS = [
  ['projectile', 'projectile', 'speed, radius, volley'],
  ['area', 'area', 'about what, radius'],
  ['summon', 'summon', 'which unit, how many, at most'],
] as const;

function attackProblems(project: Project, unit: Unit, attack: Attack, here: string[], report: Report): void {
  for (const [delivery, part, what] of PARTS) {
    if (attack.delivery === delivery && !attack[part])
      report(pointerOf(...here, part), 'required', undefined, `is needed for ${delivery}: ${what}`);
    if (attack.delivery !== delivery && attack[part])
      report(pointerOf(...here, part), 'applies', attack.delivery, `applies to ${delivery} only, not to ${attack.delivery}`);
  }
  if ((attack.targets === 'foes') === (attack.delivery === 'support'))
    report(pointerOf(...here, 'targets'), 'applies', attack.targets, 'must be friends or fallen for support, and foes for all else');
  if (attack.projectile) uniqueIn(attack.projectile.muzzles, report, ...here, 'projectile', 'muzzles');
  if (attack.summon && !hasUnit(project, attack.summon.unit))
    report(pointerOf(...here, 'summon', 'unit'), 'reference', attack.summon.unit, 'must be a unit of the project');
  if (attack.next && !unit.attacks.some(({ id }) => id === attack.next?.attack))
    report(pointerOf(...here, 'next', 'attack'), 'reference', attack.next.attack, 'must be an attack of the unit');
  if (attack.condition) conditionProblems(project, attack.condition, { unit, encounter: false }, [...here, 'condition'], report);
  if (attack.effects.boost) tweakPaths(Unit, attack.effects.boost.tweaks, report, ...here, 'effects', 'boost', 'tweaks');
}

function choiceProblems(project: Project, unit: Unit, at: string[], report: Report): void {
  unit.choice.priorities.forEach((priority, p) => {
    const here = [...at, 'choice', 'priorities', String(p)];
    if (priority.condition) conditionProblems(project, priority.condition, { unit, encounter: false }, [...here, 'condition'], report);
    priority.entries.forEach((entry, e) => {
      const place = [...here, 'entries', String(e)];
      const attack = unit.attacks.find(({ id }) => id === entry.attack);
      if (!attack) report(pointerOf(...place, 'attack'), 'reference', entry.attack, 'must be an attack of the unit');
      if (attack?.delivery === 'contact')
        report(pointerOf(...place, 'attack'), 'applies', entry.attack, 'strikes whoever touches, without being chosen');
      if (entry.condition) conditionProblems(project, entry.condition, { unit, encounter: false }, [...place, 'condition'], report);
    });
  });
}

function stateProblems(project: Project, unit: Unit, state: State, here: string[], report: Report): void {
  const hasState = (id: string) => unit.states.some((one) => one.id === id);
  const hasAttack = (id: string) => unit.attacks.some((one) => one.id === id);
  state.leaves.forEach((leave, i) => {
    if (!hasState(leave.to)) report(pointerOf(...here, 'leaves', i, 'to'), 'reference', leave.to, 'must be a state of the unit');
    conditionProblems(project, leave.when, { unit, encounter: false }, [...here, 'leaves', String(i), 'when'], report);
  });
  const needs = (field: 'near' | 'far' | 'patrol' | 'to' | 'only', what: string) => {
    if (state[field] === undefined) report(pointerOf(...here, field), 'required', undefined, `is needed ${what}`);
  };
  if (state.does === 'band' || state.does === 'strafe') {
    needs('near', 'to keep a band');
    needs('far', 'to keep a band');
  }
  if (state.does === 'patrol') needs('patrol', 'for a patrol: its points');
  if (state.patrol && !state.patrol.points.length)
    report(pointerOf(...here, 'patrol', 'points'), 'required', [], 'needs at least one point');
  if (state.patrol) uniqueIn(state.patrol.points, report, ...here, 'patrol', 'points');
  if (state.does === 'goTo' || state.does === 'follow') needs('to', state.does === 'goTo' ? 'to go to a point' : 'to follow somebody');
  if (state.attacks === 'some') needs('only', 'where only some attacks may be begun');
  state.only?.forEach((id, i) => {
    if (!hasAttack(id)) report(pointerOf(...here, 'only', i), 'reference', id, 'must be an attack of the unit');
  });
  if (state.onEnter?.attack && !hasAttack(state.onEnter.attack))
    report(pointerOf(...here, 'onEnter', 'attack'), 'reference', state.onEnter.attack, 'must be an attack of the unit');
  tweakPaths(Unit, state.tweaks, report, ...here, 'tweaks');
}

function bodyProblems(unit: Unit, at: string[], report: Report): void {
  const state = (id: string, ...steps: (string | number)[]) => {
    if (!unit.states.some((one) => one.id === id)) report(pointerOf(...at, ...steps), 'reference', id, 'must be a state of the unit');
  };
  const attack = (id: string, ...steps: (string | number)[]) => {
    if (!unit.attacks.some((one) => one.id === id)) report(pointerOf(...at, ...steps), 'reference', id, 'must be an attack of the unit');
  };
  if (unit.startsIn !== undefined) state(unit.startsIn, 'startsIn');
  unit.weakPoint?.states.forEach((id, i) => state(id, 'weakPoint', 'states', i));
  for (const gate of unit.health.gates) state(gate.state, 'health', 'gates', gate.id, 'state');
  if (unit.onDeath.attack !== undefined) attack(unit.onDeath.attack, 'onDeath', 'attack');
  unit.player?.magazine?.attacks.forEach((id, i) => attack(id, 'player', 'magazine', 'attacks', i));
  if (unit.player && unit.side !== 'party') report(pointerOf(...at, 'player'), 'applies', unit.side, 'belongs to party members only');
}
