/** Two versions of a project, objective by objective: which verdicts flip, and what moves. */
import { type Axes, type Goal, goalsOf } from '../analysis/cells';
import { scenarioKey } from '../analysis/scenario';
import { type Judgement, judge, together } from '../measures/verdict';
import type { Verdict } from '../measures/enough';
import type { Project } from '../model/project';
import { type PairedEffect, type Ran, effectOf, isSeen } from '../analysis/effect';

/** A goal of either version in both of them. */
export interface ComparedGoal {
  goal: Goal;
  /** Only one of them has this goal, or can run its fight. */
  only?: 'before' | 'after';
  before?: { judgement: Judgement; verdict: Verdict };
  after?: { judgement: Judgement; verdict: Verdict };
  effect?: PairedEffect;
}

/** Goals that either version has, by band and cell; what both have is judged by the band of the newer. */
export function goalsOfBoth(before: Project, after: Project, axes: Axes = {}): { goal: Goal; only?: 'before' | 'after' }[] {
  // Seconds and rounds are not compared.
  const key = ({ band, cell, of, clock }: Goal) => `${band.id} ${scenarioKey(cell)} ${of} ${clock}`;
  const [old, now] = [goalsOf(before, axes), goalsOf(after, axes)];
  const [oldKeys, nowKeys] = [new Set(old.map(key)), new Set(now.map(key))];
  return [
    ...now.map((goal) => ({ goal, ...(!oldKeys.has(key(goal)) && { only: 'after' as const }) })),
    ...old.filter((goal) => !nowKeys.has(key(goal))).map((goal) => ({ goal, only: 'before' as const })),
  ];
}

/**
 * @param ran what a version's runs of a goal's cell come to; undefined where it has no such fight
 */
export function compared(
  goals: readonly { goal: Goal; only?: 'before' | 'after' }[],
  ran: (version: 'before' | 'after', goal: Goal) => Ran | undefined,
): ComparedGoal[] {
  const found = goals.map(({ goal, only }) => {
    const [old, now] = [ran('before', goal), ran('after', goal)];
    const own = (one: Ran | undefined) => one && judge(one.values, goal.band.statistic, goal.band);
    return { goal, only, old: own(old), now: own(now), effect: old && now ? effectOf(old, now, goal.band.statistic) : undefined };
  });
  // Verdicts of one version are read together, as on its board.
  const verdicts = (side: 'old' | 'now') => {
    const known = found.flatMap((one) => one[side] ?? []);
    const all = together(known);
    let next = 0;
    return found.map((one) => (one[side] ? all[next++] : undefined));
  };
  const [was, is] = [verdicts('old'), verdicts('now')];
  return found.map(({ goal, only, old, now, effect }, i) => ({
    goal,
    ...(only && { only }),
    ...(old && { before: { judgement: old, verdict: was[i]! } }),
    ...(now && { after: { judgement: now, verdict: is[i]! } }),
    ...(effect && { effect }),
  }));
}

/** Goals of which it is asked which edit did it. */
const MOST_ASKED = 12;

/** Goals that flip or move, in their order, as many as are asked about. */
export const goalsToAsk = (all: readonly ComparedGoal[]): Goal[] =>
  all
    .filter((one) => flips(one) || isSeen(one.effect))
    .slice(0, MOST_ASKED)
    .map(({ goal }) => goal);

/** A verdict that was decided and is another now, or was not decided and is. */
export const flips = ({ before, after }: ComparedGoal): boolean => before?.verdict !== after?.verdict;

/** Flipped verdicts first, what came to be missed before all; then by how clearly each moved. */
export function inOrder(all: readonly ComparedGoal[]): ComparedGoal[] {
  const rank = (one: ComparedGoal) => (flips(one) ? (one.after?.verdict.startsWith('missed') ? 0 : 1) : isSeen(one.effect) ? 2 : 3);
  const clarity = ({ effect }: ComparedGoal) =>
    effect && effect.high > effect.low ? Math.abs(effect.difference) / (effect.high - effect.low) : 0;
  return [...all].sort((a, b) => rank(a) - rank(b) || clarity(b) - clarity(a));
}
