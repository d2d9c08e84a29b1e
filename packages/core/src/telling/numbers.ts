/** Numbers as people read them. */
import type { Clock } from '../record/clock';

/** A number to read: at most three places, no trailing zeros beyond what is given. */
export function shown(value: number, places = 3): string {
  if (!Number.isFinite(value)) return value > 0 ? '∞' : '−∞';
  return String(Number(value.toFixed(places))).replace('-', '−');
}

/** Always so many places: for columns; a dash for nothing. */
export function fixed(value: number, places: number): string {
  if (Number.isNaN(value)) return '—';
  return Number.isFinite(value) ? value.toFixed(places).replace('-', '−') : value > 0 ? '∞' : '−∞';
}

/** A moment of a fight: 1:05, or where it takes turns the number of its round. */
export const momentWords = (clock: Clock, value: number): string => (clock === 'rounds' ? String(Math.round(value)) : clockTime(value));

/** Seconds as a clock: 1:05, or 1:05.25 with places. */
export function clockTime(seconds: number, places = 0): string {
  const rounded = Number(seconds.toFixed(places));
  const minutes = Math.floor(rounded / 60);
  return `${minutes}:${(rounded - 60 * minutes).toFixed(places).padStart(places ? 3 + places : 2, '0')}`;
}
