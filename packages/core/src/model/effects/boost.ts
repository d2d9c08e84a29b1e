import { About, ListOf } from '../field';
import { numberWords as n } from '../number-words';
import { InTurns, LastingRounds } from '../rounds';
import { FieldTweak } from '../tweak';
import { effect, lasting, lasts, seconds } from './parts';

@About('Tweaks on whoever is struck or helped, for a time; the same boost again moves its end.')
export class Boost {
  @ListOf(() => FieldTweak, 16, { label: 'Tweaks' }) tweaks: FieldTweak[] = [];
  @seconds('For', 'how long it lasts; 0: to the end') for = 5;
  @InTurns(() => LastingRounds, ({ for: lasts }: Boost) => lasts > 0)
  rounds?: LastingRounds;
}

export const boost = effect({
  type: Boost,
  label: 'Boost',
  turn: 4,
  compile: ({ tweaks, for: lasts }: Boost, compiling) => ({ id: compiling.boost(), tweaks, lasts: compiling.time(lasts) }),
  strike: (struck, compiled) => struck.boost(compiled),
  help: (struck, compiled) => struck.boost(compiled),
  event: {
    name: 'boost',
    values: ['s:seconds'],
    told: ({ otherName, what, values, clock }) =>
      `${what || 'an event'} changes ${otherName}${values.seconds ? ` for ${lasting(values.seconds, clock)}` : ' for good'}`,
  },
  sentence: (given, _, clock) =>
    `boosts ${given.tweaks.length === 1 ? 'one number' : `${n(given.tweaks.length)} numbers`}${given.for > 0 ? ` for ${lasts(given, clock)}` : ' to the end'}`,
  typical: {
    tweaks: {
      someOf: [
        { path: '/movement/run', op: '×', value: 1.5 },
        { path: '/health/max', op: '×', value: 0.5 },
        { path: '/attacks/*/beat/cooldown', op: '×', value: 0.5 },
        { path: '/shield/max', op: '+', value: 3 },
        { path: '/body/radius', op: '×', value: 1.2 },
      ],
    },
    for: [0, 2],
  },
});
