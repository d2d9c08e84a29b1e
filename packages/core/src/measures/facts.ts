/** What measures are worked out from: what several of them need, found once in the record of a run. */
import { attackUse, type AttackUse, partyDamageByType } from './attack-use';
import { type Engaged, engaged } from './engaged';
import { type Fairness, fairness, joined } from './fairness';
import { firstStrikes } from './first-strike';
import { type Healing, energySpent, healing } from './healing';
import { lengthOf, pressureClock } from './clock';
import { LULL_LEVEL, type Loss, type Lulls, lulls, partyLosses, pressureOf } from './pressure';
import { type Score, scored } from './score';
import { type StateShare, mostChanges, stateShare } from './state-share';
import { type Stream, partyHealth, typeOf, typesOf } from './stream';
import { type Life, lives } from './time-to-kill';
import { type TimeSpent, timeSpent } from './time-use';
import { type TurnUse, turnUse } from './turn-use';
import { oddities } from './oddities';

/** What one run says of one type. */
export interface KindFacts {
  /** Its lives; a revived unit begins another. */
  lives: readonly Life[];
  /** s from noticing the party to the first strike, of its units that noticed; +∞ for one that never struck. */
  firstStrikes: readonly number[];
  spawned: number;
  killed: number;
  neverDamaged: number;
  /** Units that noticed the party and never struck at it. */
  neverStruck: number;
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
  turns: TurnUse;
  /** Spawns that found no place, and spawns a cap left out or lost. */
  noPlace: number;
  capped: number;
  /** Units of it that others called or raised, each time counted. */
  helped: number;
}

export interface RunFacts {
  stream: Stream;
  /** s */
  length: number;
  /** The party's full health. */
  full: number;
  losses: readonly Loss[];
  pressure: ReturnType<typeof pressureOf>;
  quiet: Lulls;
  engaged: Engaged;
  score: Score;
  time: TimeSpent;
  lives: readonly Life[];
  /** By number of the type; party types included. */
  kinds: KindFacts[];
  /** Of all attacks. */
  fairness: Fairness;
}

export function factsOf(stream: Stream): RunFacts {
  const full = partyHealth(stream);
  const losses = partyLosses(stream);
  const clock = pressureClock(stream);
  const length = lengthOf(stream);
  const found = lives(stream);
  const time = timeSpent(stream);
  const kinds = kindFacts(stream, found, time);
  return {
    stream,
    length,
    full,
    losses,
    pressure: pressureOf(losses, full, clock.window),
    quiet: lulls(losses, length, LULL_LEVEL * full, clock),
    engaged: engaged(stream),
    score: scored(stream),
    time,
    lives: found,
    kinds,
    fairness: joined(kinds.flatMap(({ fairness }) => fairness)),
  };
}

function kindFacts(stream: Stream, found: readonly Life[], { uses, alive }: TimeSpent): KindFacts[] {
  const strikes = firstStrikes(stream);
  const attacks = attackUse(stream);
  const fair = fairness(stream);
  const damage = partyDamageByType(stream);
  const states = stateShare(stream);
  const changes = mostChanges(stream);
  const healed = healing(stream);
  const spent = energySpent(stream);
  const odd = oddities(stream);
  const turns = turnUse(stream);
  const units = typesOf(stream.compiled).map((): number[] => []);
  for (let unit = 0; unit < stream.run.units; unit++) units[typeOf(stream, unit)].push(unit);
  return units.map((own, type): KindFacts => {
    const lived = found.filter((life) => life.type === type);
    const { gatesSkipped, noPlace, capped, helped } = odd[type];
    const struck = own.map((unit) => strikes[unit]).filter((value) => value === value);
    return {
      lives: lived,
      firstStrikes: struck,
      spawned: own.length,
      killed: lived.filter(({ lifetime }) => lifetime < Infinity).length,
      neverDamaged: lived.filter(({ timeToKill }) => timeToKill !== timeToKill).length,
      neverStruck: struck.filter((value) => value === Infinity).length,
      alive: alive[type],
      timeUse: Array.from(uses[type]),
      attacks: attacks[type],
      fairness: fair[type],
      partyDamage: damage[type],
      states: states[type],
      mostChanges: changes[type],
      healing: healed[type],
      energySpent: spent[type],
      gatesSkipped,
      turns: turns[type],
      noPlace,
      capped,
      helped,
    };
  });
}
