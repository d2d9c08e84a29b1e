/** A whole fight: (compiled encounter, seed) → event stream and digest. No clock, no globals, no I/O. */
import { arrive } from './bearings';
import { tryAttacks } from './choice';
import type { Compiled } from './compile';
import { Digest } from './digest';
import { Fight } from './fight';
import { runInstants } from './instant';
import { type EventLog, OUTCOME_NAMES, type Outcome } from './log';
import { move } from './movement';
import { look } from './senses';
import { begin } from './spawns';
import { changeStates } from './states';
import { chooseTargets } from './targets';

/** What a run leaves. The log belongs to the fight's buffers: read it before the next run, or copy it. */
export interface Run {
  seed: number;
  log: EventLog;
  /** µs */
  length: number;
  outcome: Outcome;
  /** Sixteen hexadecimal digits over the whole event stream and the final state: the same fight, the same digest. */
  digest: string;
  /** Kind of each unit that appeared, by its number; the party first. */
  kinds: Int32Array;
  sides: Uint8Array;
  units: number;
}

/** Sees each step once it is worked out; changes nothing. */
export type Watcher = (fight: Fight, time: number) => void;

/** A fight made ready: allocate once, run many seeds. */
export class Runner {
  private readonly fight: Fight;

  constructor(readonly compiled: Compiled) {
    this.fight = new Fight(compiled);
  }

  /** @param seed any 32-bit integer */
  run(seed: number, watch?: Watcher): Run {
    const { fight } = this;
    begin(fight, seed);
    runInstants(fight, 0);
    for (let number = 0; !fight.over; number++) step(fight, number * this.compiled.step, watch);
    return finish(fight, seed);
  }
}

/** One run on its own. */
export function run(compiled: Compiled, seed: number, watch?: Watcher): Run {
  return new Runner(compiled).run(seed, watch);
}

/** One step: arrival, senses, states, targets, tries, movement; then every instant up to its end. */
function step(fight: Fight, time: number, watch?: Watcher): void {
  fight.now = time;
  fight.stepEnd = time + fight.compiled.step;
  arrive(fight);
  look(fight);
  changeStates(fight);
  chooseTargets(fight);
  tryAttacks(fight);
  move(fight);
  watch?.(fight, time);
  runInstants(fight, fight.stepEnd);
}

function finish(fight: Fight, seed: number): Run {
  return {
    seed,
    log: fight.log,
    length: fight.now,
    outcome: OUTCOME_NAMES[fight.outcome],
    digest: digestOf(fight),
    kinds: fight.kindNumber,
    sides: fight.side,
    units: fight.count,
  };
}

function digestOf(fight: Fight): string {
  const digest = new Digest();
  const { log } = fight;
  for (let i = 0; i < log.length; i++) {
    digest.number(log.time[i]);
    digest.word((log.kind[i] << 24) ^ log.actor[i]);
    digest.word((log.other[i] << 12) ^ log.what[i]);
    digest.number(log.a[i]);
    digest.number(log.b[i]);
    digest.number(log.c[i]);
    digest.number(log.d[i]);
  }
  for (let unit = 0; unit < fight.count; unit++) {
    digest.number(fight.xAt(unit, fight.now));
    digest.number(fight.yAt(unit, fight.now));
    digest.number(fight.healthNow(unit));
  }
  return digest.toString();
}
