/** Runs fights of a search off the page's thread: a part at a time. */
import { type AskedFight, type AskedRuns, type NoFight, type Project, runFights } from '@insidia/core';

/** The first is the project of all that follow. */
export type RunnerRequest = { project: Project } | { part: number; asks: Omit<AskedFight, 'project'>[] };

export type RunnerAnswer = { part: number; came: (AskedRuns | NoFight)[] } | { failure: string };

let project: Project | undefined;

onmessage = ({ data }: MessageEvent<RunnerRequest>) => {
  if ('project' in data) {
    project = data.project;
    return;
  }
  try {
    const answer: RunnerAnswer = { part: data.part, came: data.asks.map((ask) => runFights({ ...ask, project: project! })) };
    postMessage(answer);
  } catch (error) {
    const answer: RunnerAnswer = { failure: (error as Error).message };
    postMessage(answer);
  }
};
