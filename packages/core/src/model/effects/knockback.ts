import { withUnit } from '../../record/clock';
import { About, Quantity } from '../field';
import { numberWords as n } from '../number-words';
import { InTurns, PushRounds } from '../rounds';
import { brief, effect } from './parts';

@About('Is pushed away.')
export class Knockback {
  @Quantity({ label: 'Knocked back', unit: 'm', min: 0, max: 50, about: 'away from where the hit came from, stopped by walls' }) distance =
    1;
  @InTurns(() => PushRounds) rounds?: PushRounds;
}

export const knockback = effect({
  type: Knockback,
  label: 'Knockback',
  turn: 7,
  compile: ({ distance, rounds }: Knockback) => (distance > 0 ? { distance, crush: rounds?.crush ?? 0 } : null),
  strike: (struck, { distance, crush }) => struck.push(distance, crush),
  event: {
    name: 'knock',
    values: ['metres'],
    told: ({ name, otherName, what, values, clock }) =>
      `${otherName} is knocked back ${withUnit(clock, brief(values.metres, 2), 'm')} by ${what} of ${name}`,
  },
  sentence: ({ distance, rounds }, _, clock) =>
    clock === 'rounds'
      ? `knocks back ${withUnit(clock, n(rounds?.cells ?? 0), 'm')}${rounds?.crush ? `, ${n(rounds.crush)} hp for each cell that something keeps it from` : ''}`
      : `knocks back ${n(distance)} m`,
  typical: { distance: [0, 5] },
});
