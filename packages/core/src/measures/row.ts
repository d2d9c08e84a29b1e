import type { Outcome } from '../engine/log';
import { SECOND } from '../engine/tuning';
import { type AttackUse, attackUse } from './attack-use';
import { firstStrikes } from './first-strike';
import { pressure } from './pressure';
import { quantileOf } from './quantile';
import { type Stream } from './stream';
import { lives } from './time-to-kill';
import { timeUse } from './time-use';

/** What one run says of one enemy type. */
export interface KindRow {
  spawned: number;
  killed: number;
  neverDamaged: number;
  /** s; median of its units that were damaged; NaN when none was */
  timeToKill: number;
  /** s; median of its units */
  lifetime: number;
  /** s; median of its units that noticed; NaN when none did */
  timeToFirstStrike: number;
  /** Seconds by TIME_USES. */
  timeUse: number[];
  /** By attack. */
  attacks: AttackUse[];
}

/** One row a run: everything a batch is reduced from. */
export interface Row {
  seed: number;
  digest: string;
  outcome: Outcome;
  /** s */
  length: number;
  peakPressure: number;
  peakPressureShare: number;
  peakAt: number;
  dose: number;
  /** s by party member; +∞ for one that did not go down */
  timeToDown: number[];
  /** By number of the kind in the compiled encounter; party kinds included (for their attacks). */
  kinds: KindRow[];
}

/** All measures of one run. Values that a run does not have are NaN. */
export function rowOf(stream: Stream): Row {
  const { compiled, run } = stream;
  const found = lives(stream);
  const strikes = firstStrikes(stream);
  const uses = timeUse(stream);
  const attacks = attackUse(stream);
  const { peak, peakShare, peakAt, dose } = pressure(stream);
  const kinds = compiled.kinds.map((_, kind): KindRow => {
    const own = found.filter((life) => life.kind === kind);
    const damaged = own.filter(({ timeToKill }) => timeToKill === timeToKill);
    return {
      spawned: own.length,
      killed: own.filter(({ lifetime }) => lifetime < Infinity).length,
      neverDamaged: own.length - damaged.length,
      timeToKill: median(damaged.map(({ timeToKill }) => timeToKill)),
      lifetime: median(own.map(({ lifetime }) => lifetime)),
      timeToFirstStrike: median(own.map(({ unit }) => strikes[unit]).filter((value) => value === value)),
      timeUse: Array.from(uses[kind]),
      attacks: attacks[kind],
    };
  });
  return {
    seed: run.seed,
    digest: run.digest,
    outcome: run.outcome,
    length: run.length / SECOND,
    peakPressure: peak,
    peakPressureShare: peakShare,
    peakAt,
    dose,
    // Never damaged and never down are the same for the party: it stands.
    timeToDown: compiled.party.map((_, member) => (found[member].lifetime < Infinity ? found[member].timeToKill : Infinity)),
    kinds,
  };
}

function median(values: number[]): number {
  return values.length ? quantileOf([...values].sort(ascending), 0.5) : NaN;
}

const ascending = (a: number, b: number) => a - b;
