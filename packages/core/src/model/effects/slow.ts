import { About } from '../field';
import { numberWords as n } from '../number-words';
import { InTurns, LastingRounds } from '../rounds';
import { brief, effect, lasting, lasts, seconds, share } from './parts';

@About('Moves more slowly for a time.')
export class Slow {
  @share('Slowed by', 'share of speed taken away; the strongest slow counts') share = 0.3;
  @seconds('For', 'how long it lasts') for = 2;
  @InTurns(() => LastingRounds) rounds?: LastingRounds;
}

export const slow = effect({
  type: Slow,
  label: 'Slow',
  turn: 1,
  compile: ({ share: part, for: lasts }: Slow, { time }) => (part > 0 ? { share: part, lasts: time(lasts) } : null),
  strike: (struck, { share: part, lasts }) => {
    struck.tell('slow', part, lasts);
    struck.lasts('slow', part, lasts);
  },
  event: {
    name: 'slow',
    values: ['share', 's:seconds'],
    told: ({ otherName, values, clock }) =>
      `${otherName} is slowed by ${brief(100 * values.share, 0)} % for ${lasting(values.seconds, clock)}`,
  },
  sentence: (given, _, clock) => `slows by ${n(100 * given.share)} % for ${lasts(given, clock)}`,
  typical: { share: [0, 1], for: [0.1, 2] },
});
