/** Points that were proved: whether one is another than those there are, and what each is best in. */
import type { Verdict } from '../../measures/enough';
import { type Estimate, judge, together } from '../../measures/verdict';
import { type DialPoint, type FindProblem, type Knob, type Preferred, distanceOf, valueOf } from './problem';

/** Proposals that are worth choosing from, and by how much of a range one must differ from the others. */
export const MOST_PROPOSALS = 4;
const DIFFERS = 0.2;

/** A point that was proved. */
export interface Proposal {
  prefer: Preferred;
  at: number[];
  /** Dials that are turned, and to what. */
  put: { knob: Knob; value: number }[];
  distance: number;
  /** One for each goal, of seeds that the search had not seen. */
  proof: { estimate: Estimate; verdict: Verdict }[];
  /** Seeds of the proof. */
  seeds: { first: number; runs: number };
  /** Runs that the search had taken when it was proved. */
  after: number;
}

/** @param endSeed the first after those of the proof @param values of the proof: one list a goal, one value a run */
export function proposalOf(
  { dials, goals }: FindProblem,
  {
    at,
    values,
    prefer,
    after,
    endSeed,
  }: { at: number[]; values: readonly (readonly number[])[]; prefer: Preferred; after: number; endSeed: number },
): Proposal {
  const judgements = goals.map(({ statistic, band }, g) => judge(values[g], statistic, band!));
  const verdicts = together(judgements);
  const runs = values[0].length;
  return {
    prefer,
    at,
    put: dials.flatMap((knob, i) => (at[i] === 0 ? [] : [{ knob, value: valueOf(knob, at[i]) }])),
    distance: distanceOf(at),
    proof: judgements.map(({ estimate }, g) => ({ estimate, verdict: verdicts[g] })),
    seeds: { first: endSeed - runs, runs },
    after,
  };
}

/** How a proposal is looked for. */
export interface FindAim {
  prefer: Preferred;
  /** Dials that are not turned. */
  kept: ReadonlySet<number>;
  /** The same again with less change, now that it is known better where all holds; else another way is looked for. */
  closer?: true;
}

/** How others are looked for once one is proved: as it was preferred, but closer; then otherwise; then without what it turned most. */
export function furtherAims({ prefer }: Pick<FindProblem, 'prefer'>, { at }: Proposal): FindAim[] {
  const most = at.reduce((best, value, i) => (Math.abs(value) > Math.abs(at[best]) ? i : best), 0);
  return [
    ...(prefer === 'change' ? [{ prefer, kept: new Set<number>(), closer: true as const }] : []),
    ...(['change', 'numbers', 'margin'] as const).filter((one) => one !== prefer).map((one) => ({ prefer: one, kept: new Set<number>() })),
    { prefer, kept: new Set([most]) },
  ];
}

/** Another set of numbers than each proposal so far, or one of them by a fifth of its range. */
export const isAnother = (proposals: readonly Proposal[], at: DialPoint): boolean =>
  proposals.every((one) => at.some((value, i) => (value === 0) !== (one.at[i] === 0) || Math.abs(value - one.at[i]) >= DIFFERS));

/** What a proposal is best in among others; other: in nothing, it is another way. */
export type BestIn = Preferred | 'other';

/** By what each is told from the others: the least change, fewer numbers than that, the most room between interval and edge; each once. */
export function bestIn({ goals }: Pick<FindProblem, 'goals'>, proposals: readonly Proposal[]): BestIn[] {
  // From the nearer end of its interval to the edge, in halves of what is wanted; of one edge alone in shares of it.
  const room = ({ proof }: Proposal) =>
    Math.min(
      ...proof.map(({ estimate: { low, high } }, g) => {
        const { low: from = -Infinity, high: to = Infinity } = goals[g].band!;
        const half = Number.isFinite(to - from) ? (to - from) / 2 : Math.abs(Number.isFinite(from) ? from : to);
        return Math.min(low - from, to - high) / Math.max(1e-9, half);
      }),
    );
  const least = (score: (one: Proposal) => number, of: readonly Proposal[]) => [...of].sort((a, b) => score(a) - score(b))[0];
  const change = least(({ distance }) => distance, proposals);
  const fewer = proposals.filter(({ put }) => change && put.length < change.put.length);
  const numbers = least(({ put, distance }) => put.length + distance / 1000, fewer);
  const margin = least(
    (one) => -room(one),
    proposals.filter((one) => one !== change && one !== numbers && room(one) > room(change)),
  );
  return proposals.map((one) => (one === change ? 'change' : one === numbers ? 'numbers' : one === margin ? 'margin' : 'other'));
}
