/** A search off the page's thread: what it asks for is run by a team; what came of it is kept, so that a closed page loses nothing. */
import {
  type Dial,
  FindSearch,
  type FindProgress,
  type Objective,
  type Preferred,
  type Project,
  type Proposal,
  type Why,
  ENGINE_VERSION,
  findProblem,
  thereOf,
  whyNot,
} from '@insidia/core';
import { AnswersKept, searchKey } from './answersKept';
import { FightTeam } from './fightTeam';

export type FinderRequest =
  { project: Project; objectives: Objective[]; dials: Dial[]; prefer: Preferred; budget: number; threads: number } | 'pause' | 'goOn';

export type FinderAnswer =
  { progress: FindProgress; proposals: Proposal[]; paused: boolean; unmoving: number[]; why?: Why } | { failure: string };

const send = (answer: FinderAnswer) => postMessage(answer);

let paused = false;
/** Lets a search that waits go on. */
let goOn: () => void = () => undefined;

function tell(search: FindSearch): void {
  const { progress, proposals, unmoving } = search;
  const over = progress.phase === 'done' && proposals.length === 0;
  send({ progress, proposals, paused, unmoving: [...unmoving], ...(over && { why: whyNot(search) }) });
}

let search: FindSearch | undefined;

async function searched({ project, threads, ...asked }: Exclude<FinderRequest, string>): Promise<void> {
  const { objectives, dials, prefer, budget } = asked;
  const own = new FindSearch(findProblem(project, objectives, dials, { prefer, budget }));
  search = own;
  const columns = [...new Set(own.problem.goals.map(({ column }) => column))];
  const kept = new AnswersKept(await searchKey([ENGINE_VERSION, project, asked]));
  const team = new FightTeam(project, threads);
  tell(own);
  let asks = own.asks();
  for (let step = 0; asks.length; step++) {
    if (paused) await new Promise<void>((then) => (goOn = then));
    const before = await kept.of(step);
    const came = before ?? (await team.run(asks.map((ask) => ({ ...ask, project, columns }))));
    if (!before) await kept.keep(step, came);
    own.take(came.map(thereOf));
    tell(own);
    asks = own.asks();
  }
  team.close();
}

onmessage = ({ data }: MessageEvent<FinderRequest>) => {
  if (data === 'pause' || data === 'goOn') {
    paused = data === 'pause';
    if (search) tell(search);
    if (!paused) goOn();
    return;
  }
  searched(data).catch((error: unknown) => send({ failure: (error as Error).message }));
};
