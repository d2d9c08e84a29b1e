/** The search for cheap ways to win off the page's thread: its fights are run by a team. */
import { type PlayFound, type Project, type Scenario, type WorkStep, playWork } from '@insidia/core';
import { FightTeam } from './fightTeam';

export interface PlayerRequest {
  project: Project;
  cell: Scenario;
  budget: number;
  threads: number;
}

export type PlayerAnswer = { step: Omit<WorkStep, 'asks'> } | { found: PlayFound } | { failure: string };

const send = (answer: PlayerAnswer) => postMessage(answer);

async function searched({ project, cell, budget, threads }: PlayerRequest): Promise<void> {
  const work = playWork({ project, cell, budget });
  const team = new FightTeam(project, threads);
  let next = work.next();
  while (!next.done) {
    const { asks, ...step } = next.value;
    send({ step });
    next = work.next(await team.run(asks));
  }
  team.close();
  send({ found: next.value });
}

onmessage = ({ data }: MessageEvent<PlayerRequest>) => {
  searched(data).catch((error: unknown) => send({ failure: (error as Error).message }));
};
