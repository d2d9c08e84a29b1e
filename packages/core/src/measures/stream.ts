import { EVENT } from '../record/log';
import type { Run } from '../engine/run';
import { PARTY } from '../record/sides';
import { type Compiled, type CompiledUnit } from '../engine/tables';

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

/** A row of the log in which somebody is hurt: by a hit, or by a tick of damage over time. */
export function isDamage(kind: number): boolean {
  return kind === EVENT.hit || kind === EVENT.tick;
}

/** A unit's life ends: it dies, or goes down. */
export function isDown(kind: number): boolean {
  return kind === EVENT.death || kind === EVENT.down;
}

/** Full health and shield of the party at the start: what shares of pressure are shares of. */
export function partyHealth({ party, kinds }: Compiled): number {
  return party.reduce((sum, { kind }) => sum + kinds[kind].maxHealth + kinds[kind].shield, 0);
}

/** The party's members by unit number: they appear first. */
export function isMember({ compiled }: Stream, unit: number): boolean {
  return unit >= 0 && unit < compiled.party.length;
}

/** Health and shield lost in a row of the log. */
export function lostIn({ run: { log } }: Stream, i: number): number {
  return log.a[i] + log.d[i];
}
