/** Which edit did it: each edit put in alone and taken out alone, on the same seeds, for each objective. */
import type { Goal } from '../analysis/cells';
import type { Project } from '../model/project';
import { type PairedEffect, type Ran, effectOf, isSeen } from '../analysis/effect';
import type { Edit } from './versions';

export interface EditEffect {
  /** What it does to the version before, alone. */
  putIn?: PairedEffect;
  /** What the version after has of it: what is lost when it alone is taken out. */
  takenOut?: PairedEffect;
  /** It moves nothing alone but does among the others, or the other way about. */
  together: boolean;
}

export interface EditRow {
  edit: Edit;
  /** One for each goal. */
  effects: EditEffect[];
}

/** @param ran what a version's runs of a goal's cell come to; undefined where it has no such fight */
export function whichEdit(
  { before, after }: { before: Project; after: Project },
  edits: readonly Edit[],
  goals: readonly Goal[],
  ran: (project: Project, goal: Goal) => Ran | undefined,
): EditRow[] {
  const effect = (from: Project, to: Project, goal: Goal) => {
    const [a, b] = [ran(from, goal), ran(to, goal)];
    return a && b ? effectOf(a, b, goal.band.statistic) : undefined;
  };
  return edits.map((edit) => ({
    edit,
    effects: goals.map((goal) => {
      const [putIn, takenOut] = [effect(before, edit.putIn, goal), effect(edit.takenOut, after, goal)];
      return { ...(putIn && { putIn }), ...(takenOut && { takenOut }), together: isSeen(putIn) !== isSeen(takenOut) };
    }),
  }));
}

/** How much an edit is to blame for an objective: the larger of what it does alone and of what is lost without it. */
export function blame({ putIn, takenOut }: EditEffect): number {
  const size = (effect: PairedEffect | undefined) =>
    effect && effect.says !== 'never' && effect.says !== 'mute' ? Math.abs(effect.difference) : 0;
  return (size(putIn) + size(takenOut)) / 2;
}

/** Edits by how much they are to blame for one goal, the most first. */
export const byBlame = (rows: readonly EditRow[], goal: number): EditRow[] =>
  [...rows].sort((a, b) => blame(b.effects[goal]) - blame(a.effects[goal]));

/**
 * How clearly an edit is to blame over all goals: of each its difference in half-widths of its interval, squared and added up. What
 * moves many goals a little stands before what moves one by luck.
 */
export function blameOverall(effects: readonly EditEffect[]): number {
  const clarity = (effect: PairedEffect | undefined) =>
    effect && effect.says !== 'never' && effect.says !== 'mute' && effect.high > effect.low
      ? (2 * effect.difference) / (effect.high - effect.low)
      : 0;
  return effects.reduce((sum, { putIn, takenOut }) => sum + clarity(putIn) ** 2 + clarity(takenOut) ** 2, 0);
}

/** Edits by how clearly they are to blame over all goals, the clearest first. */
export const byBlameOverall = (rows: readonly EditRow[]): EditRow[] =>
  [...rows].sort((a, b) => blameOverall(b.effects) - blameOverall(a.effects));
