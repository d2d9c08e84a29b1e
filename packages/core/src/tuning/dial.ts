/** A dial: a number, a word, a yes-or-no or an entry of a list of the document that may be turned, and between what. */
import type { QuantityInfo } from '../model/field';
import type { Project } from '../model/project';
import { type Turn, type TurnOperation, placesOfTurn } from '../model/turn';

export interface Dial {
  id: string;
  /** As of a turn. */
  path: string;
  role?: string;
  /** `=`: the number itself; `×`: a factor common to all places. */
  op: TurnOperation;
  /** May turn between; of words and yes-or-no: none. */
  low: number;
  high: number;
  /** Values lie this far from one another; absent: anywhere. */
  step?: number;
  /** Never turned by a search or a screening. */
  locked?: boolean;
  /** Of a word or a yes-or-no: to which it is turned; false takes an entry of a list out. */
  to?: string | boolean;
}

/** Share of what is written by which a dial is turned to see what it moves. */
export const NUDGE = 0.1;

/** How far a dial may turn where nobody said: this share down, and as a factor up. */
const RANGE = { down: 0.5, up: 1.5 };

/** A turn of a dial. */
export const turnTo = ({ path, role, op }: Dial, value: Turn['value']): Turn => ({ path, ...(role !== undefined && { role }), op, value });

/** Where a dial stands: the number that is written; of a common factor 1; undefined where it leads to no number, or to several. */
export function standsAt(project: Project, dial: Dial): number | undefined {
  const places = placesOfTurn(project, turnTo(dial, 1));
  if (dial.op === '×') return places.length ? 1 : undefined;
  const [place] = places;
  return places.length === 1 && typeof place.before === 'number' ? place.before : undefined;
}

/** What is written where a dial leads, number, word or yes-or-no; of a common factor 1; undefined where it leads nowhere, or to several. */
export function writtenAt(project: Project, dial: Dial): Turn['value'] | undefined {
  if (dial.to === undefined) return standsAt(project, dial);
  const places = placesOfTurn(project, turnTo(dial, dial.to));
  return places.length === 1 ? (places[0].before as string | boolean) : undefined;
}

/** The quantity that a dial turns; undefined where it leads to none. */
export function dialQuantity(project: Project, dial: Dial): QuantityInfo | undefined {
  const field = placesOfTurn(project, turnTo(dial, 1))[0]?.field;
  return field?.kind === 'number' ? field.info : undefined;
}

/** A value at one of the dial's steps, between its ends. */
export function stepped({ low, high, step }: Pick<Dial, 'low' | 'high' | 'step'>, value: number): number {
  const at = step ? Math.round(value / step) * step : value;
  // 0.35 × 1.1 is not 0.38499999999999995 to whoever reads it.
  return Math.min(high, Math.max(low, Number(at.toPrecision(12))));
}

/** A tenth of where a dial stands; where it stands at 0, of how far it may go. */
export const tenthOf = ({ low, high }: Pick<Dial, 'low' | 'high'>, now: number): number =>
  NUDGE * (now === 0 ? Math.max(Math.abs(low), Math.abs(high)) : Math.abs(now));

/**
 * To what a dial is turned to see what it moves: a tenth more than is written, at least a step; a tenth less where it stands at
 * its upper end. Of 0 a tenth of the way to its end. A word or a yes-or-no to what it is put. Undefined where it can't be turned.
 */
export function nudged(project: Project, dial: Dial): Turn['value'] | undefined {
  if (dial.to !== undefined) return dial.to === writtenAt(project, dial) ? undefined : dial.to;
  const now = standsAt(project, dial);
  if (now === undefined || !(dial.high > dial.low)) return undefined;
  const by = tenthOf(dial, now);
  for (const way of [1, -1]) {
    const far = stepped(dial, now + way * Math.max(by, dial.step ?? 0));
    if (far !== now && Math.abs(far - now) >= by / 2) return far;
  }
  return undefined;
}

/** Steps that people write numbers in. */
function stepFor({ whole, unit }: QuantityInfo, now: number): number | undefined {
  if (whole) return 1;
  if (unit === 'hp') return now >= 4 ? 1 : 0.1;
  if (unit === 's') return 0.05;
  return undefined;
}

/** A dial for a number that is written, between half and one and a half times of it, as far as its field and those beside it go. */
export function dialFor(project: Project, path: string): Dial | undefined {
  const wide: Dial = { id: path, path, op: '=', low: 0, high: 0 };
  const info = dialQuantity(project, wide);
  const now = standsAt(project, wide);
  if (!info || now === undefined) return undefined;
  const step = stepFor(info, now);
  const to = (value: number) => (step ? Math.round(value / step) * step : Number(value.toPrecision(3)));
  const ends = now === 0 ? [0, Math.min(info.max, step ? 10 * step : 1)] : [now * RANGE.down, now * RANGE.up].sort((a, b) => a - b);
  const [low, high] = ends.map((end) => Math.min(info.max, Math.max(info.min, Number(to(end).toPrecision(12)))));
  return { ...wide, low: Math.min(low, now), high: Math.max(high, now), ...(step && { step }) };
}

/** A dial that puts a word or a yes-or-no to another; undefined where it leads to none, or to one that has no such word. */
export function wordDial(project: Project, path: string, to: string | boolean): Dial | undefined {
  const dial: Dial = { id: `${path}=${String(to)}`, path, op: '=', low: 0, high: 0, to };
  return placesOfTurn(project, turnTo(dial, to)).length === 1 && writtenAt(project, dial) !== undefined ? dial : undefined;
}

/** A common factor for all places of a path, from half to one and a half times; undefined where it leads to no number. */
export function factorDial(project: Project, path: string, role?: string): Dial | undefined {
  const dial: Dial = {
    id: `${role ?? ''}${path}×`,
    path,
    ...(role !== undefined && { role }),
    op: '×',
    low: RANGE.down,
    high: RANGE.up,
  };
  const places = placesOfTurn(project, turnTo(dial, 1));
  return places.some(({ field, before }) => field.kind === 'number' && before !== 0) ? dial : undefined;
}

/** The dial that a turn is of; undefined where it leads nowhere. */
export const dialOfTurn = (project: Project, { path, role, op, value }: Turn): Dial | undefined =>
  typeof value !== 'number' ? wordDial(project, path, value) : op === '×' ? factorDial(project, path, role) : dialFor(project, path);

/** A dial as it stands and as it is turned to see what it moves. */
export interface Nudge {
  dial: Dial;
  from: Turn['value'];
  to: Turn['value'];
}

/** Of a number: it has values between. */
export const isOfNumber = <N extends Nudge>(one: N): one is N & { from: number; to: number } =>
  typeof one.from === 'number' && typeof one.to === 'number';
