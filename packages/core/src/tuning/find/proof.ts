/** Proofs: runs on seeds that nothing has seen, block by block, until every goal is surely met, or that will not come. */
import { judge } from '../../measures/verdict';
import type { FindProblem } from './problem';

/** Runs of a block; of one where the budget ends with it: fewer need more room, and show as surely what they show. */
export const PROOF = { block: 1200, least: 300 } as const;
/** Blocks of a proof before what stays undecided is given up. */
export const MOST_BLOCKS = 4;
/** A proof is looked at after each block, and many points come to one: by less than this it is not luck. */
const LUCK = 0.02;

/** Runs of the next block. @param left of each fight, that the budget has @returns 0: too few to show anything */
export const blockOf = (left: number): number => (left < PROOF.least ? 0 : Math.min(PROOF.block, left));

/**
 * What the runs of a proof come to: proved; open, where more of them may prove it still; refused.
 * @param values one list a goal, one value a run
 * @param left runs of each fight that the budget has
 */
export function stateOf(
  { goals }: Pick<FindProblem, 'goals'>,
  values: readonly (readonly number[])[],
  left: number,
): 'proved' | 'open' | 'refused' {
  const judgements = goals.map(({ statistic, band }, g) => judge(values[g], statistic, band!));
  if (judgements.every(({ verdict, p }) => verdict === 'met' && p <= LUCK)) return 'proved';
  // What the budget, or its patience, can't bring to an end is not gone on with.
  const most = Math.min(MOST_BLOCKS * PROOF.block - values[0].length, left);
  const inside = judgements.every(({ estimate, verdict, more }, g) => {
    const { low = -Infinity, high = Infinity } = goals[g].band!;
    const decided = verdict === 'met' || (more !== undefined && more <= most);
    return decided && estimate.value >= low && estimate.value <= high;
  });
  return inside && most >= PROOF.least ? 'open' : 'refused';
}
