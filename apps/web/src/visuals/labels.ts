/** Where labels go so that none is written over another, and how much of each there is room for. */
import { shortened } from '@insidia/core';

/** px: from one line of a label to the next */
const LINE = 12;
/** px: from the lower edge of a band to its label's foot */
const FOOT = 4;

/**
 * A label for each band, at its lower edge or, where another is written there, above that; undefined where the band has
 * no room for it.
 * @param bands px, downwards
 */
export function stacked(bands: readonly { high: number; low: number }[]): (number | undefined)[] {
  const feet = new Array<number | undefined>(bands.length).fill(undefined);
  const taken: number[] = [];
  const lowestFirst = bands.map((_, i) => i).sort((a, b) => bands[b].low - bands[a].low || bands[b].high - bands[a].high);
  for (const i of lowestFirst) {
    let foot = bands[i].low - FOOT;
    for (let below = clash(taken, foot); below !== undefined; below = clash(taken, foot)) foot = below - LINE;
    if (foot - bands[i].high < LINE - FOOT) continue;
    feet[i] = foot;
    taken.push(foot);
  }
  return feet;
}

/** On which line each label stands so that none touches another of its line: the first that is free, lowest first. px */
export function lines(labels: readonly { from: number; to: number }[]): number[] {
  const taken: { from: number; to: number }[][] = [];
  return labels.map((label) => {
    let line = taken.findIndex((others) => others.every((other) => label.to + 4 < other.from || other.to + 4 < label.from));
    if (line < 0) line = taken.push([]) - 1;
    taken[line].push(label);
    return line;
  });
}

/** How wide a label is, about. px */
export const wideAs = (words: string, letter = 6.2): number => letter * words.length;

/** As much of a name as there is room for. @param room px */
export const fitting = (name: string, room: number, letter = 6.2): string => shortened(name, Math.max(2, Math.floor(room / letter)));

export interface BesidePlace {
  /** Where its sign stands. */
  sign: number;
  /** Where its text begins, or ends. */
  text: number;
  anchor: 'start' | 'end';
  /** There is no room on the bar's line: it belongs on a line of its own. */
  under: boolean;
}

/**
 * Beside a bar, behind its end; before its beginning where there is no room behind; under the bar, against the right edge,
 * where there is none before it either. Never to the left of `left`.
 * @param wide of its words, px
 */
export function beside(bar: { from: number; to: number }, wide: number, left: number, right: number): BesidePlace {
  if (bar.to + 20 + wide < right) return { sign: bar.to + 3, text: bar.to + 17, anchor: 'start', under: false };
  if (bar.from - 20 - wide > left) return { sign: bar.from - 14, text: bar.from - 17, anchor: 'end', under: false };
  return { sign: right - wide - 18, text: right - wide - 4, anchor: 'start', under: true };
}

/** Where a label's words stand: their foot, and whether that is their beginning, middle or end. px */
export interface LabelPlace {
  x: number;
  y: number;
  anchor: 'start' | 'middle' | 'end';
}

export interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** px: what words stand above and below their foot */
const [RISES, HANGS] = [9, 3];

export function boxOf(words: string, { x, y, anchor }: LabelPlace, letter?: number): Box {
  const wide = wideAs(words, letter);
  const left = x - { start: 0, middle: wide / 2, end: wide }[anchor];
  return { left, right: left + wide, top: y - RISES, bottom: y + HANGS };
}

const meet = (a: Box, b: Box): boolean => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/**
 * Of each label the first of its places that lies within the bounds and over nothing that is taken: what is taken from the first,
 * and the labels before it. undefined where there is none.
 */
export function clearPlaces(
  labels: readonly { words: string; places: readonly LabelPlace[] }[],
  from: readonly Box[],
  bounds: Box,
): (LabelPlace | undefined)[] {
  const taken = [...from];
  return labels.map(({ words, places }) => {
    const place = places.find((each) => {
      const box = boxOf(words, each);
      const within = box.left >= bounds.left && box.right <= bounds.right && box.top >= bounds.top && box.bottom <= bounds.bottom;
      return within && !taken.some((other) => meet(box, other));
    });
    if (place) taken.push(boxOf(words, place));
    return place;
  });
}

function clash(taken: readonly number[], foot: number): number | undefined {
  return taken.find((other) => Math.abs(other - foot) < LINE);
}

/** Gives out places of one size, first come first served. */
export class Roomy {
  private readonly taken: [number, number][] = [];

  /** @param width px @param height px of every label */
  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {}

  /** Whether a label about this point stands clear of those before it; if so the place is taken. */
  take(x: number, y: number): boolean {
    if (this.taken.some(([left, top]) => Math.abs(left - x) < this.width && Math.abs(top - y) < this.height)) return false;
    this.taken.push([x, y]);
    return true;
  }
}
