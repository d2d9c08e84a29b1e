/** A search as work in steps. */
import { type Asking, thereOf } from '../asking';
import type { FindProblem } from './problem';
import { FindSearch } from './search';

export function* findWork(problem: FindProblem): Asking<FindSearch> {
  const { project, goals, budget } = problem;
  const search = new FindSearch(problem);
  const columns = [...new Set(goals.map(({ column }) => column))];
  for (let asks = search.asks(); asks.length; asks = search.asks()) {
    const { phase, runs, best } = search.progress;
    const own = asks.reduce((sum, one) => sum + one.runs, 0);
    const came = yield {
      phase,
      asks: asks.map((ask) => ({ ...ask, project, columns })),
      runs: runs + own,
      of: Math.max(budget, runs + own),
      ...(best && { outside: best.outside }),
      found: search.proposals.length,
    };
    search.take(came.map(thereOf));
  }
  return search;
}
