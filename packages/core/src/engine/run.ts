/**
 * A whole fight: (compiled encounter, seed) → event stream and digest. No clock, no globals, no I/O.
 *
 * The parts, each a folder: `time` (the queue of what is due, chance), `body` (where units are, how they move, ground, walls
 * and lines), `mind` (what they sense, whom they want, their states, which attack they choose), `harm` (attacks, hits, damage,
 * what lasts, death), `waves` (who comes when and where, what the encounter does), `player` (what a player sees coming and
 * does about it), `rounds` (turns instead of steps, and the board they are fought on). Beside them: what is compiled
 * (`compile`, `tables`), the state of a fight (`fight`, `numbers`), the step (here) and what is due within it (`instant`). No
 * file's code is in a circle of imports.
 */
import type { EventLog } from '../record/log';
import { type Outcome, OUTCOME_NAMES } from '../record/outcome';
import { arrive } from './body/bearings';
import { move } from './body/movement';
import { Digest } from './digest';
import { Fight } from './fight';
import { touch } from './harm/strike';
import { runInstants } from './instant';
import { tryAttacks } from './mind/choice';
import { look } from './mind/senses';
import { changeStates } from './mind/states';
import { chooseTargets } from './mind/targets';
import { mindThemselves } from './player/tasks';
import { runRounds } from './rounds/scheduler';
import type { Compiled } from './tables';
import { begin } from './waves/beginning';
import { direct, isDirected } from './waves/director';

/** What a run leaves. The log belongs to the fight's buffers: read it before the next run, or copy it. */
export interface Run {
  seed: number;
  log: EventLog;
  /** µs */
  length: number;
  outcome: Outcome;
  /** Sixteen hexadecimal digits over the whole event stream and the final state: the same fight, the same digest. */
  digest: string;
  /** Kind of each unit that appeared, by its number; the party first, then allies and what is to be defended. */
  kinds: Int32Array;
  /** Wave of each unit; −1: none. */
  waves: Int32Array;
  sides: Uint8Array;
  /** Which of the party's seats each unit has; −1: none. */
  seats: Int32Array;
  units: number;
  /** Share of the party's full health that is left. */
  partyLeft: number;
}

/** Sees each step once it is worked out; changes nothing. */
export type Watcher = (fight: Fight, time: number) => void;

/** A fight made ready: allocate once, run many seeds. */
export class Runner {
  /** As the last run left it; the next run takes it over. */
  readonly fight: Fight;
  private readonly directed: boolean;
  private readonly touches: boolean;

  constructor(readonly compiled: Compiled) {
    this.fight = new Fight(compiled);
    this.directed = isDirected(this.fight);
    this.touches = compiled.kinds.some(({ contacts }) => contacts.length > 0);
  }

  /**
   * @param seed any 32-bit integer
   * @param watch sees each step once it is worked out
   * @param observe is told of every choice, before it is carried out
   */
  run(seed: number, watch?: Watcher, observe?: Fight['observer']): Run {
    const { fight } = this;
    begin(fight, seed);
    fight.observer = observe;
    runInstants(fight, 0);
    if (this.compiled.rounds) runRounds(fight, watch);
    for (let number = 0; !fight.over; number++) this.step(number * this.compiled.step, watch);
    return finish(fight, seed);
  }

  /**
   * One step: everyone arrives; senses; the encounter's own doings; states; targets; players mind themselves; touch; tries;
   * movement. Then every instant up to its end.
   */
  private step(time: number, watch?: Watcher): void {
    const { fight } = this;
    fight.now = time;
    fight.stepEnd = time + this.compiled.step;
    fight.work += fight.alive.length;
    arrive(fight);
    look(fight);
    if (this.directed) direct(fight);
    changeStates(fight);
    chooseTargets(fight);
    if (this.compiled.hasPlayers) mindThemselves(fight);
    if (this.touches) touch(fight);
    tryAttacks(fight);
    move(fight);
    watch?.(fight, time);
    runInstants(fight, fight.stepEnd);
  }
}

/** One run on its own. */
export function run(compiled: Compiled, seed: number, watch?: Watcher): Run {
  return new Runner(compiled).run(seed, watch);
}

function finish(fight: Fight, seed: number): Run {
  return {
    seed,
    log: fight.log,
    length: fight.now,
    outcome: OUTCOME_NAMES[fight.outcome],
    digest: digestOf(fight),
    kinds: fight.kindNumber,
    waves: fight.wave,
    sides: fight.side,
    seats: fight.seat,
    units: fight.count,
    partyLeft: partyLeft(fight),
  };
}

function partyLeft(fight: Fight): number {
  let left = 0;
  let full = 0;
  for (let unit = 0; unit < fight.count; unit++) {
    if (!fight.isMember[unit]) continue;
    full += fight.kinds[unit].maxHealth;
    if (fight.isAlive[unit]) left += fight.healthNow(unit);
  }
  return full > 0 ? left / full : 1;
}

function digestOf(fight: Fight): string {
  const digest = new Digest();
  const { log } = fight;
  for (let i = 0; i < log.length; i++) {
    digest.word((log.kind[i] << 24) ^ log.actor[i]);
    digest.word((log.other[i] << 12) ^ log.what[i]);
  }
  digest.column(log.time, log.length);
  digest.column(log.a, log.length);
  digest.column(log.b, log.length);
  digest.column(log.c, log.length);
  digest.column(log.d, log.length);
  for (let unit = 0; unit < fight.count; unit++) {
    digest.number(fight.xAt(unit, fight.now));
    digest.number(fight.yAt(unit, fight.now));
    digest.number(fight.healthNow(unit));
  }
  return digest.toString();
}
