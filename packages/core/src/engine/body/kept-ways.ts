/**
 * What has been worked out of a ground (how much room each cell has, the ways around) and is the same for all runs on it: kept
 * for every runner of a thread, by the shapes alone, least used goes first. Changes no result: a field depends on nothing but
 * the shapes, the width and the goal.
 */
import type { CompiledShape } from '../tables';
import { WAYS_BYTES } from '../tuning';
import { type Clearance } from './clearance';
import { DistanceField, Passages } from './ways';

/** One class of ground of one arena. */
export interface Ways {
  readonly clearance: Clearance;
  /** By width, in half cells. */
  readonly passages: Map<number, Passages>;
  readonly fields: Map<number, DistanceField>;
  bytes: number;
}

/** Bytes that a cell of a clearance and of its passages takes. */
const CELL_BYTES = { clearance: 8, passages: 2, field: 2 };

export class KeptWays {
  private readonly kept = new Map<string, Ways>();
  private bytes = 0;
  /** What was used last: most questions are about the same ground as the one before. */
  private newest: { key: string; ways: Ways } | undefined;

  /** @param cap bytes that may be kept in all */
  constructor(private cap: number) {}

  /** Another cap from now on; nothing that is kept goes before more is added. */
  limitTo(cap: number): void {
    this.cap = cap;
  }

  /** How much is kept. @returns bytes, and of how many grounds */
  get size(): { bytes: number; grounds: number } {
    return { bytes: this.bytes, grounds: this.kept.size };
  }

  /** What is known of a ground, made where nothing is; from now on the one that was used last. */
  of(key: string, make: () => Clearance): Ways {
    if (this.newest?.key === key) return this.newest.ways;
    const known = this.kept.get(key);
    if (known) {
      this.kept.delete(key);
      this.kept.set(key, known);
      this.newest = { key, ways: known };
      return known;
    }
    const ways: Ways = { clearance: make(), passages: new Map(), fields: new Map(), bytes: 0 };
    this.kept.set(key, ways);
    this.newest = { key, ways };
    this.grew(ways, ways.clearance.cells * CELL_BYTES.clearance);
    return ways;
  }

  /** Ways to a goal for bodies that need so much room. @param width the same in half cells */
  field(ways: Ways, width: number, least: number, goal: number, size: number): DistanceField {
    const { clearance, passages, fields } = ways;
    const key = (width * clearance.cells + goal) * 2 + (size > 1 ? 1 : 0);
    const known = fields.get(key);
    if (known) return known;
    let open = passages.get(width);
    if (!open) {
      open = new Passages(clearance, least);
      passages.set(width, open);
      this.grew(ways, clearance.cells * CELL_BYTES.passages);
    }
    const made = new DistanceField(open, goal, size);
    fields.set(key, made);
    this.grew(ways, clearance.cells * CELL_BYTES.field);
    return made;
  }

  /** Counts what was added, and lets go of what was used longest ago; of the only one, of its fields. */
  private grew(ways: Ways, by: number): void {
    ways.bytes += by;
    this.bytes += by;
    for (const [key, oldest] of this.kept) {
      if (this.bytes <= this.cap || oldest === ways) break;
      this.kept.delete(key);
      if (this.newest?.key === key) this.newest = undefined;
      this.bytes -= oldest.bytes;
    }
    if (this.bytes <= this.cap) return;
    const fields = ways.fields.size * ways.clearance.cells * CELL_BYTES.field;
    ways.fields.clear();
    ways.bytes -= fields;
    this.bytes -= fields;
  }
}

/** What all runners of this thread share. */
export const KEPT_WAYS = new KeptWays(WAYS_BYTES);

/** A class of ground, told from any other: its size, its cells, and what is closed. */
export const groundKey = (halfWidth: number, halfDepth: number, cell: number, shapes: readonly CompiledShape[]): string =>
  JSON.stringify([halfWidth, halfDepth, cell, shapes.map(({ xs, ys }) => [Array.from(xs), Array.from(ys)])]);
