/** What an editor does to a choice, and what it says of one. Pure; lists are made anew. */
import { type Choice, type RuledOut, timeUseWords } from '@insidia/core';

export type Priority = Choice['priorities'][number];
export type Entry = Priority['entries'][number];

/** With more said of one priority; a condition that is taken away is gone. */
export function priorityChanged(priorities: readonly Priority[], p: number, more: Partial<Priority>): Priority[] {
  return priorities.map((one, i) => (i === p ? without({ ...one, ...more }, 'condition') : one));
}

/** With more said of one entry; what is taken away is gone. */
export function entryChanged(entries: readonly Entry[], e: number, more: Partial<Entry>): Entry[] {
  return entries.map((one, i) => (i === e ? without(without({ ...one, ...more }, 'condition'), 'targeting') : one));
}

function without<T extends object>(value: T, absent: keyof T): T {
  if (value[absent] === undefined) delete value[absent];
  return value;
}

/** An entry goes into another priority, or into a new one behind the last; one that is left empty by it goes. */
export function lifted(priorities: readonly Priority[], p: number, e: number, to: number): Priority[] {
  const entry = priorities[p].entries[e];
  const next = priorities.map((one, i) => ({
    ...one,
    entries: i === p ? one.entries.filter((_, j) => j !== e) : i === to ? [...one.entries, entry] : one.entries,
  }));
  if (to === priorities.length) next.push({ entries: [entry] });
  return next.filter(({ entries }, i) => entries.length > 0 || i !== p);
}

/**
 * The weight that gives an entry a share of the draw beside the others.
 * @param by share more than it has
 * @param others what the others weigh together
 */
export function weightAfter(weight: number, others: number, by: number): number {
  const wanted = Math.min(0.95, Math.max(0.02, weight / (weight + others || 1) + by));
  return Math.max(0.01, Number(((wanted / (1 - wanted)) * others).toPrecision(2)));
}

/** A key's step of a weight: one; ten with Shift, a tenth with Alt; never nothing. */
export function weightStepped(weight: number, way: number, { shiftKey, altKey }: { shiftKey: boolean; altKey: boolean }): number {
  return Math.max(0.01, Number((weight + way * (shiftKey ? 10 : altKey ? 0.1 : 1)).toFixed(2)));
}

/** "Chosen 31 %. Idle: range 46, cooldown 17". */
export function outcomeWords(share: number | undefined, causes: readonly RuledOut[]): string {
  const chosen = share === undefined ? 'Never used' : `Chosen ${Math.round(100 * share)} %`;
  const why = causes
    .filter((cause) => cause.share >= 0.02)
    .slice(0, 3)
    .map((cause) => `${timeUseWords(cause.by)} ${Math.round(100 * cause.share)}`);
  return `${chosen}.${why.length ? ` Idle: ${why.join(', ')}` : ''}`;
}
