/** Runs two versions off the page's thread: every goal of both, then each edit alone. */
import {
  type ComparedGoal,
  type EditEffect,
  type Goal,
  type Project,
  VersionRuns,
  compared,
  editsBetween,
  goalsOfBoth,
  goalsToAsk,
  inOrder,
  scenarioKey,
  whichEdit,
} from '@insidia/core';

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
    const goals = goalsOfBoth(before, after, { ...(tier && { tiers: [tier] }), ...(skill && { skills: [skill] }) });
    const cells = (list: readonly Goal[]) => new Set(list.map(({ cell }) => scenarioKey(cell))).size;
    const both = 2 * cells(goals.map(({ goal }) => goal));
    let of = both;
    const versions = new VersionRuns(runs, (done) => send({ done, of }));
    const all = inOrder(compared(goals, (version, goal) => versions.ran(version === 'before' ? before : after, goal)));
    send({ goals: all });
    if (goalsOnly) {
      send({ asked: [], edits: [] });
      return;
    }
    const asked = goalsToAsk(all);
    const edits = editsBetween(before, after);
    of = both + 2 * edits.length * cells(asked);
    const rows = asked.length ? whichEdit({ before, after }, edits, asked, (project, goal) => versions.ran(project, goal)) : [];
    send({ asked, edits: rows.map(({ edit: { words }, effects }) => ({ words, effects })) });
  } catch (error) {
    send({ failure: (error as Error).message });
  }
};
