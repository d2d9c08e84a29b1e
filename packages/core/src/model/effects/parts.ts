/** What the files of several effects share. */
import { type Clock, countedTurns } from '../../record/clock';
import { numberWords } from '../number-words';
import { Quantity, type Reference } from '../field';
import type { ToldEvent } from './effect';

export { effect } from './effect';

export const seconds = (label: string, about: string, max = 600) => Quantity({ label, unit: 's', min: 0, max, about });
export const share = (label: string, about: string) => Quantity({ label, unit: '', min: 0, max: 1, about });
export const points = (label: string, about: string) => Quantity({ label, unit: 'hp', min: 0, max: 1e6, about });

export const DAMAGE_TYPE: Reference = { to: ['damageType'], loose: true };

/** A number of an event as a trace tells it. */
export const brief = (value: number | undefined, digits = 1) => (value === undefined ? '?' : String(Number(value.toFixed(digits))));

/** "2 s", or "2 turns" of whoever bears it. */
export const lasting = (seconds: number | undefined, clock: Clock): string =>
  clock === 'rounds' ? countedTurns(Math.round(seconds ?? 0)) : `${brief(seconds, 2)} s`;

/** How long an effect lasts as it is written: "2 s", or "2 turns" of whoever bears it. */
export const lasts = (given: { for: number; rounds?: { for: number } }, clock: Clock): string =>
  clock === 'rounds' ? lasting(given.rounds?.for ?? given.for, clock) : `${numberWords(given.for)} s`;

/** A hit or a tick, with what became of it. */
export const hitTold =
  (does: string) =>
  ({ name, otherName, what, values: { dealt, damage, absorbed, overkill } }: ToldEvent) =>
    `${what} of ${name} ${does} ${otherName} for ${brief(dealt)} (${brief(damage)} of health, ${brief(absorbed)} absorbed${overkill > 0.05 ? `, ${brief(overkill)} too much` : ''})`;
