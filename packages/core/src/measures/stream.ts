import { EVENT } from '../record/log';
import type { Run } from '../engine/run';
import { PARTY } from '../record/sides';
import type { Compiled } from '../engine/tables';
import type { CompiledUnit } from '../engine/unit-tables';

/** What a measure reads: a finished run and the tables it ran on. Times in the log are µs; measures report seconds. */
export interface Stream {
  compiled: Compiled;
  run: Run;
}

/** A unit number is on the party's side. */
export function isParty({ run }: Stream, unit: number): boolean {
  return unit >= 0 && run.sides[unit] === PARTY;
}

/** The type of a unit: those with traits and the grown count to their type. */
export function typeOf({ compiled, run }: Stream, unit: number): number {
  return compiled.kinds[run.kinds[unit]].type;
}

/** The plain kind of every type that may appear, by number of the type. */
export function typesOf({ kindOfType, kinds }: Compiled): CompiledUnit[] {
  return kindOfType.filter((kind) => kind >= 0).map((kind) => kinds[kind]);
}

/** A row of the log in which somebody is hurt: by a hit, by a tick of damage over time, by what stops it as it is pushed. */
export function isDamage(kind: number): boolean {
  return kind === EVENT.hit || kind === EVENT.tick || kind === EVENT.crush;
}

/** A unit's life ends: it dies, or goes down. */
export function isDown(kind: number): boolean {
  return kind === EVENT.death || kind === EVENT.down;
}

/** Full health and shield of all who are of the party, as they come: what shares of pressure are shares of. */
export function partyHealth({ compiled, run }: Stream): number {
  let sum = 0;
  for (let unit = 0; unit < run.units; unit++) {
    if (run.seats[unit] < 0) continue;
    const { maxHealth, shield } = compiled.kinds[run.kinds[unit]];
    sum += maxHealth + shield;
  }
  return sum;
}

/** A unit is of the party. */
export function isMember({ run }: Stream, unit: number): boolean {
  return unit >= 0 && run.seats[unit] >= 0;
}

/** The unit that has each of the party's seats; −1: nobody in this run. */
export function membersOf({ compiled, run }: Stream): Int32Array {
  const units = new Int32Array(compiled.seats.length).fill(-1);
  for (let unit = 0; unit < run.units; unit++) if (run.seats[unit] >= 0) units[run.seats[unit]] = unit;
  return units;
}

/** Health and shield lost in a row of the log. */
export function lostIn({ run: { log } }: Stream, i: number): number {
  return log.a[i] + log.d[i];
}
