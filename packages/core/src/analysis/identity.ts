/** What makes one batch the same as another: everything that can change a result, and no names. */
import { Digest } from '../engine/digest';
import type { Compiled } from '../engine/tables';
import { HIGH_PRESSURE_LEVEL } from '../measures/encounter/time-over-level';
import { LULL_SECONDS, PRESSURE_WINDOW_SECONDS } from '../measures/clock';
import { LULL_LEVEL } from '../measures/pressure';

const PARAMETERS = [PRESSURE_WINDOW_SECONDS, LULL_LEVEL, LULL_SECONDS, HIGH_PRESSURE_LEVEL];

/**
 * The identity of a batch: sixteen hexadecimal digits over the compiled encounter (engine version and step among it), the
 * measures' parameters and the seeds. What people call things is left out: renaming makes nothing stale.
 */
export function batchIdentity(compiled: Compiled, firstSeed: number, runs: number): string {
  const text = JSON.stringify([compiled, PARAMETERS, firstSeed, runs], (key, value: unknown) => {
    if (key === 'name' || key === 'notes') return undefined;
    return value === Infinity ? 'Infinity' : value === -Infinity ? '-Infinity' : value;
  });
  const digest = new Digest();
  for (let i = 0; i < text.length; i++) digest.word(text.charCodeAt(i));
  return digest.toString();
}
