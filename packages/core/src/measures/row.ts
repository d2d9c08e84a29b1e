import type { Outcome } from '../record/outcome';
import { EVENT } from '../record/log';
import { SECOND } from '../record/time';
import { type AttackUse, attackUse, partyDamageByType } from './attack-use';
import { type Engaged, engaged } from './engaged';
import { type Fairness, fairness, longestLossOfControl, suddenDowns } from './fairness';
import { firstStrikes } from './first-strike';
import { type Healing, energySpent, healing, raised } from './healing';
import { LULL_LEVEL, bursts, lulls, partyLosses, pressureOf, timeOverLevel } from './pressure';
import { quantileOf } from './quantile';
import { type StateShare, mostChanges, stateShare } from './state-share';
import { type Stream, partyHealth, typeOf, typesOf } from './stream';
import { lives, timesToDown } from './time-to-kill';
import { playerTime, timeAlive, timeUse } from './time-use';
import { type WaveSpan, waveSpans } from './wave-span';

/** Level of `timeOverLevel`, as a share of the party's full health per second. */
export const HIGH_PRESSURE_LEVEL = 0.1;

/** What one run says of one type. */
export interface KindRow {
  spawned: number;
  killed: number;
  neverDamaged: number;
  /** Units that noticed the party and never struck at it. */
  neverStruck: number;
  /** s; median of its lives that were damaged; NaN when none was */
  timeToKill: number;
  /** s; median of its lives */
  lifetime: number;
  /** s; median of its units that noticed; NaN when none did */
  timeToFirstStrike: number;
  /** s alive */
  alive: number;
  /** Seconds by TIME_USES. */
  timeUse: number[];
  /** By attack. */
  attacks: AttackUse[];
  fairness: Fairness[];
  /** Health and shield taken from the party. */
  partyDamage: number;
  states: StateShare;
  /** Most changes of state of one unit within 5 s. */
  mostChanges: number;
  healing: Healing;
  energySpent: number;
  /** Gates that were passed without their state having come. */
  gatesSkipped: number;
  /** Spawns that found no place, and spawns a cap left out or lost. */
  noPlace: number;
  capped: number;
}

/** One row a run: everything a batch is reduced from. Values that a run does not have are NaN. */
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
  timeOverLevel: number;
  lulls: number;
  longestWithoutLull: number;
  engaged: Engaged;
  /** Share of the party's full health that is left. */
  partyLeft: number;
  lossOfControl: number;
  suddenDowns: number;
  /** Enemies that were brought back. */
  raised: number;
  /** s by party member; +∞ for one that did not go down */
  timeToDown: number[];
  bursts: number[];
  /** Seconds by PLAYER_USES, by party member. */
  playerTime: number[][];
  waves: WaveSpan[];
  /** By number of the type; party types included. */
  kinds: KindRow[];
}

/** All measures of one run. */
export function rowOf(stream: Stream): Row {
  const { compiled, run } = stream;
  const full = partyHealth(compiled);
  const losses = partyLosses(stream);
  const { peak, peakShare, peakAt, dose } = pressureOf(losses, full);
  const length = run.length / SECOND;
  const rest = lulls(losses, length, LULL_LEVEL * full);
  const found = lives(stream);
  return {
    seed: run.seed,
    digest: run.digest,
    outcome: run.outcome,
    length,
    peakPressure: peak,
    peakPressureShare: peakShare,
    peakAt,
    dose,
    timeOverLevel: timeOverLevel(losses, HIGH_PRESSURE_LEVEL * full),
    lulls: rest.lulls.length,
    longestWithoutLull: rest.longestWithout,
    engaged: engaged(stream),
    partyLeft: run.partyLeft,
    lossOfControl: longestLossOfControl(stream),
    suddenDowns: suddenDowns(stream),
    raised: raised(stream),
    timeToDown: timesToDown(stream, found),
    bursts: bursts(stream),
    playerTime: playerTime(stream).map((row) => Array.from(row)),
    waves: waveSpans(stream, losses),
    kinds: kindRows(stream, found),
  };
}

function kindRows(stream: Stream, found: ReturnType<typeof lives>): KindRow[] {
  const strikes = firstStrikes(stream);
  const uses = timeUse(stream);
  const alive = timeAlive(stream);
  const attacks = attackUse(stream);
  const fair = fairness(stream);
  const damage = partyDamageByType(stream);
  const states = stateShare(stream);
  const changes = mostChanges(stream);
  const healed = healing(stream);
  const spent = energySpent(stream);
  const odd = oddities(stream);
  const units = typesOf(stream.compiled).map((): number[] => []);
  for (let unit = 0; unit < stream.run.units; unit++) units[typeOf(stream, unit)].push(unit);
  return units.map((own, type): KindRow => {
    const lived = found.filter((life) => life.type === type);
    const damaged = lived.filter(({ timeToKill }) => timeToKill === timeToKill);
    const struck = own.map((unit) => strikes[unit]).filter((value) => value === value);
    return {
      spawned: own.length,
      killed: lived.filter(({ lifetime }) => lifetime < Infinity).length,
      neverDamaged: lived.length - damaged.length,
      neverStruck: struck.filter((value) => value === Infinity).length,
      timeToKill: median(damaged.map(({ timeToKill }) => timeToKill)),
      lifetime: median(lived.map(({ lifetime }) => lifetime)),
      timeToFirstStrike: median(struck),
      alive: alive[type],
      timeUse: Array.from(uses[type]),
      attacks: attacks[type],
      fairness: fair[type],
      partyDamage: damage[type],
      states: states[type],
      mostChanges: changes[type],
      healing: healed[type],
      energySpent: spent[type],
      ...odd[type],
    };
  });
}

/** What a designer should be told of, by type. */
function oddities(stream: Stream): Pick<KindRow, 'gatesSkipped' | 'noPlace' | 'capped'>[] {
  const { compiled, run } = stream;
  const { log } = run;
  const table = typesOf(compiled).map(() => ({ gatesSkipped: 0, noPlace: 0, capped: 0 }));
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] === EVENT.gate && log.a[i] === 1) table[typeOf(stream, log.actor[i])].gatesSkipped++;
    else if (log.kind[i] === EVENT.noPlace) table[compiled.kinds[log.what[i]].type].noPlace++;
    else if (log.kind[i] === EVENT.capped && log.a[i] > 0) table[compiled.kinds[log.what[i]].type].capped++;
  }
  return table;
}

function median(values: number[]): number {
  return values.length ? quantileOf([...values].sort(ascending), 0.5) : NaN;
}

const ascending = (a: number, b: number) => a - b;
