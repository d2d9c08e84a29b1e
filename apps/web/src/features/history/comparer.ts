/** Runs two versions off the page's thread: every goal of both, then each edit alone. */
import { type ComparedGoal, type EditEffect, type Goal, type Project, compareWork, workThrough } from '@insidia/core';

export interface CompareRequest {
  before: Project;
  after: Project;
  /** Only at these; absent: at all. */
  tier?: string;
  skill?: string;
  runs: number;
  /** What each edit does is not asked. */
  goalsOnly?: boolean;
}

/** What an edit does to each goal that is asked about. */
export interface EditRow {
  words: string[];
  effects: EditEffect[];
}

export type CompareAnswer =
  { done: number; of: number } | { goals: ComparedGoal[] } | { asked: Goal[]; edits: EditRow[] } | { failure: string };

const send = (answer: CompareAnswer) => postMessage(answer);

onmessage = ({ data: { before, after, tier, skill, runs, goalsOnly } }: MessageEvent<CompareRequest>) => {
  try {
    const axes = { ...(tier && { tiers: [tier] }), ...(skill && { skills: [skill] }) };
    const work = compareWork({ before, after }, { runs, axes, byEdit: !goalsOnly }, (all) => send({ goals: [...all] }));
    const { asked, rows = [] } = workThrough(work, ({ runs: done, of }) => send({ done, of }));
    send({ asked: goalsOnly ? [] : asked, edits: rows.map(({ edit: { words }, effects }) => ({ words, effects })) });
  } catch (error) {
    send({ failure: (error as Error).message });
  }
};
