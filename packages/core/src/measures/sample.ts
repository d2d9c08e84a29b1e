/**
 * What is kept of a batch: of each run its digest and one value a measure, in columns. Parts that were run apart, in any
 * thread or on any machine, join to the same sample.
 */
import type { Compiled } from '../engine/tables';
import {
  ENCOUNTER_MEASURES,
  type EncounterMeasure,
  ROW_MEASURES,
  TYPE_MEASURES,
  type TypeMeasure,
  WAVE_MEASURES,
  type WaveMeasure,
} from './list';
import type { Row } from './row';

export interface Sample {
  firstSeed: number;
  runs: number;
  /** Of each run. */
  digests: string[];
  /** One value a run in each; NaN: the run has none; +∞: a survivor. */
  columns: Record<string, Float64Array>;
}

/** The name by which the digests of a sample are read as a column: of each run a number that is another where the fight was. */
export const DIGEST_COLUMN = 'digest';

/** The first 52 bits of a digest: what a number can hold. */
export const digestNumber = (digest: string): number => parseInt(digest.slice(0, 13), 16);

/** @param rows of seeds in a row, at least one */
export function sampleOf(compiled: Compiled, rows: readonly Row[]): Sample {
  const columns: Record<string, Float64Array> = {};
  const add = (name: string, of: (row: Row) => number) => (columns[name] = Float64Array.from(rows, of));
  for (const [name, { of }] of Object.entries(ROW_MEASURES)) add(name, of);
  for (const name of Object.keys(ENCOUNTER_MEASURES) as EncounterMeasure[]) add(name, (row) => row[name]);
  compiled.names.types.forEach((id, type) => {
    for (const name of Object.keys(TYPE_MEASURES) as TypeMeasure[]) add(`type ${id} ${name}`, ({ kinds }) => kinds[type][name]);
  });
  compiled.waves.forEach(({ id }, wave) => {
    for (const name of Object.keys(WAVE_MEASURES) as WaveMeasure[])
      add(`wave ${id} ${name}`, ({ waves }) => WAVE_MEASURES[name].of(waves[wave]));
  });
  return { firstSeed: rows[0].seed, runs: rows.length, digests: rows.map(({ digest }) => digest), columns };
}

/**
 * Joins samples of one compiled encounter.
 * @param parts at least one, in the order of their seeds
 * @throws Error where seeds are missing between two of them
 */
export function joinSamples(parts: readonly Sample[]): Sample {
  let seed = parts[0].firstSeed;
  for (const { firstSeed, runs } of parts) {
    if (firstSeed !== seed) throw new Error(`the next sample must begin at seed ${seed}: it begins at ${firstSeed}`);
    seed += runs;
  }
  const runs = seed - parts[0].firstSeed;
  const columns = Object.fromEntries(
    Object.keys(parts[0].columns).map((name) => {
      const whole = new Float64Array(runs);
      for (const part of parts) whole.set(part.columns[name], part.firstSeed - parts[0].firstSeed);
      return [name, whole];
    }),
  );
  return { firstSeed: parts[0].firstSeed, runs, digests: parts.flatMap(({ digests }) => digests), columns };
}
