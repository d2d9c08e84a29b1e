import { About, OneOf, Optional, Quantity, RefersByName } from '../field';
import { numberWords as n } from '../number-words';
import { InTurns, TickRounds } from '../rounds';
import { DAMAGE_TYPE, effect, hitTold, lasts, points, seconds } from './parts';

/** What a second hit does while it runs. */
const STACKING = { refresh: 'moves the end', stack: 'adds another', ignore: 'does nothing' } as const;
export type Stacking = keyof typeof STACKING;

@About('Ticks of damage after a hit: at every, 2 × every … up to and including `for`.')
export class OverTime {
  @points('Tick damage', 'of one tick, before armour') amount = 0;
  @Quantity({ label: 'Tick every', unit: 's', min: 0.01, max: 60, about: 'time between ticks' }) every = 1;
  @seconds('Lasts', 'ticks fall up to and including this long after the hit') for = 4;
  @OneOf(STACKING, {
    label: 'Again while it runs',
    about: 'what a second hit does: moves the end and keeps the phase, adds another, or nothing',
  })
  stacking: Stacking = 'refresh';
  @Optional() @RefersByName(DAMAGE_TYPE, 40, { label: 'Kind', about: 'what resistances speak of' }) type?: string;
  @InTurns(() => TickRounds) rounds?: TickRounds;
}

export const overTime = effect({
  type: OverTime,
  label: 'Damage over time',
  isItself: 'hit',
  compile: ({ amount, every, for: lasts, stacking, type }: OverTime, { time, damageType }) => ({
    amount,
    every: time(every),
    lasts: time(lasts),
    stacking,
    type: damageType(type),
  }),
  event: { name: 'tick', values: ['damage', 'overkill', 'dealt', 'absorbed'], told: hitTold('lingers on') },
  sentence: (given, _, clock) => {
    const { amount, every, rounds } = given;
    const often = clock === 'rounds' ? (rounds?.every === 1 ? 'turn' : `${rounds?.every ?? every} turns`) : `${n(every)} s`;
    const each = clock === 'rounds' ? (rounds?.amount ?? amount) : amount;
    return `${n(each)} every ${often} for ${lasts(given, clock)}`;
  },
  begins: { amount: 2 },
  typical: { amount: [0, 3], every: [0.2, 0.8], for: [0, 3], stacking: { oneOf: ['refresh', 'stack', 'ignore'] } },
});
