/**
 * Rounds as instants. A round lasts as many µs as a second does, so that what is told per second is told per round; within it
 * each unit has its turn at an instant of its own, which follows from the order it comes in alone. So everything that lasts is
 * an instant like any other, whoever it is on: k turns from now is when that unit has its k-th turn from now.
 */
import { ROUND } from '../../record/time';
import { childKey, draw, PURPOSE } from '../time/chance';
import type { CompiledRounds, CompiledTurns } from './tables';

/** An order and its spread are at most this each; with its spread it lies between these, and is drawn to a thousandth. */
export const MOST_ORDER_SPREAD = 100;
const LEAST_ORDER = 0 - MOST_ORDER_SPREAD;
const MOST_ORDER = 2 * MOST_ORDER_SPREAD;
const STEPS = 1000;

/** Places of the parts of an instant: the side, the order, the draw that parts equals, the number. 44 of the 53 bits that are exact. */
const NUMBERS = 512;
const TIES = 16384;
const ORDERS = (MOST_ORDER - LEAST_ORDER) * STEPS + 1;
/** Of a µs: 2 × ORDERS × TIES × NUMBERS of them are less than a round. */
const FINEST = 1 / 8_388_608;

/** The first beginning of a round at or after an instant. */
export const roundFrom = (time: number): number => Math.ceil(time / ROUND) * ROUND;

/** What is asked of a unit for its turn. */
export interface Taker {
  unit: number;
  side: number;
  /** its luck */
  key: number;
  turns: CompiledTurns;
}

/** µs: when a unit has its turn, from where a round begins; more than 0. @param seed of the run */
export function turnWithin(
  round: number,
  { unit, side, key, turns }: Taker,
  { order, first, drawn }: CompiledRounds,
  seed: number,
): number {
  const luck = childKey(key, drawn === 'round' ? round : -1);
  const { order: mean, spread } = turns;
  const by = spread > 0 ? mean + (2 * draw(seed, luck, PURPOSE.order, 0) - 1) * spread : mean;
  const place = Math.floor((MOST_ORDER - by) * STEPS + 0.5);
  const later = order === 'bySide' && side !== first ? 1 : 0;
  const tie = order === 'bySide' ? 0 : Math.floor(draw(seed, luck, PURPOSE.order, 1) * TIES);
  const code = ((later * ORDERS + place) * TIES + tie) * NUMBERS + (unit % NUMBERS);
  // Never at the very beginning of the round: that is before anybody's turn.
  return (code + 1) * FINEST;
}
