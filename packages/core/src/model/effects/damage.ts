import { About, Optional, Quantity, RefersByName } from '../field';
import { numberWords as n } from '../number-words';
import { DAMAGE_TYPE, effect, hitTold, points, share } from './parts';

@About('What it takes from whoever is struck.')
export class Damage {
  @points('Damage', 'of one hit, before armour') amount = 0;
  @points('Damage ±', 'each hit is drawn uniformly from amount ± spread, at least 0') spread = 0;
  @Optional()
  @RefersByName(DAMAGE_TYPE, 40, { label: 'Kind', about: 'what resistances speak of; absent: none of them counts' })
  type?: string;
  @share('Crit chance', 'share of hits that are critical') critChance = 0;
  @Quantity({ label: 'Crit factor', unit: '×', min: 1, max: 100, about: 'a critical hit is multiplied by this' }) critMultiplier = 2;
}

export const damage = effect({
  type: Damage,
  label: 'Damage',
  isItself: 'hit',
  begins: { amount: 10 },
  compile: ({ type, ...numbers }: Damage, { damageType }) => ({ ...numbers, type: damageType(type) }),
  event: { name: 'hit', values: ['damage', 'overkill', 'dealt', 'absorbed'], told: hitTold('hits') },
  sentence: ({ amount, spread, type }, each) =>
    `${n(amount)}${spread > 0 ? ` ± ${n(spread)}` : ''}${type ? ` ${type}` : ' hp'}${each ? ' each' : ''}`,
  typical: { amount: [0, 14], spread: [0, 3], type: { oneOf: ['spore', 'light'] }, critChance: [0, 0.5] },
});
