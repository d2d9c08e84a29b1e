import { DOING, DOING_NAMES, TIME_USES, useOfDoing } from '../record/doing';
import { EVENT } from '../record/log';
import { SECOND } from '../record/time';
import { lengthOf, takesTurns } from './clock';
import { type Stream, isMember, typeOf, typesOf } from './stream';

const USE_OF_DOING = DOING_NAMES.map((_, doing) => useOfDoing(doing));

/** What a player's time goes into. */
export const PLAYER_USES = ['attacking', 'evading', 'reloading', 'mending', 'staggered', 'moving', 'down'] as const;
export type PlayerUse = (typeof PLAYER_USES)[number];

/** Seconds of one unit's doings, as they come. */
type Spend = (unit: number, doing: number, attack: number, span: number) => void;

/**
 * Tells every stretch of every unit's life by what it was about; attacking with which attack. What turns went into is noted
 * as each is over: see `eachTurn`.
 */
function eachStretch({ run }: Stream, spend: Spend): void {
  const { log } = run;
  const doing = new Int32Array(run.units).fill(GONE);
  const since = new Float64Array(run.units);
  const attack = new Int32Array(run.units);
  const turnTo = (unit: number, now: number, next: number, with_: number) => {
    if (now > since[unit]) spend(unit, doing[unit], attack[unit], now - since[unit]);
    since[unit] = now;
    doing[unit] = next;
    attack[unit] = with_;
  };
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    const unit = log.actor[i];
    if (kind === EVENT.doing) turnTo(unit, log.time[i], log.what[i], 0);
    else if (kind === EVENT.start) turnTo(unit, log.time[i], DOING.attacking, log.what[i]);
    else if (kind === EVENT.interrupted) turnTo(unit, log.time[i], DOING.noTarget, 0);
    else if (kind === EVENT.spawn) turnTo(unit, log.time[i], DOING.unaware, 0);
    else if (kind === EVENT.death || kind === EVENT.down || kind === EVENT.gone) turnTo(unit, log.time[i], GONE, 0);
  }
  for (let unit = 0; unit < run.units; unit++) turnTo(unit, run.length, GONE, 0);
}

const DOWN = PLAYER_USES.indexOf('down');
const MOVING = PLAYER_USES.indexOf('moving');
/** By doing: what is none of a player's uses is moving about. */
const PLAYER_USE_OF_DOING = DOING_NAMES.map((name) => {
  const use = (PLAYER_USES as readonly string[]).indexOf(name);
  return use < 0 ? MOVING : use;
});

function playerUseOf(use: number): PlayerUse {
  const name = TIME_USES[use];
  if (name === 'windup' || name === 'active' || name === 'recovery') return 'attacking';
  return name === 'staggered' ? 'staggered' : 'moving';
}

/** Tells every turn of every unit by what it went into, of TIME_USES; −1: it knew of no foe. */
function eachTurn({ run: { log } }: Stream, tell: (unit: number, use: number) => unknown): void {
  for (let i = 0; i < log.length; i++) if (log.kind[i] === EVENT.turn) tell(log.actor[i], log.what[i]);
}

/** No doing at all: dead, gone or down. */
const GONE = -1;

/** What the time of a run went into. Seconds, or turns. */
export interface TimeSpent {
  /**
   * Of alerted life, by type: rows of TIME_USES.length columns. While several things keep a unit from attacking, the farthest
   * hurdle counts (cooldown before energy before range before facing).
   */
  uses: Float64Array[];
  /** Of life, by type: from spawn to death, down or the end. */
  alive: Float64Array;
  /** By party member: rows of PLAYER_USES.length columns. What is neither fighting nor tending itself is moving about. */
  members: Float64Array[];
}

/** One pass over the record for all three. */
export function timeSpent(stream: Stream): TimeSpent {
  const { compiled, run } = stream;
  const types = typesOf(compiled).length;
  const uses = Array.from({ length: types }, () => new Float64Array(TIME_USES.length));
  const alive = new Float64Array(types);
  const members = compiled.seats.map(() => new Float64Array(PLAYER_USES.length));
  if (takesTurns(stream)) {
    eachTurn(stream, (unit, use) => {
      const type = typeOf(stream, unit);
      alive[type]++;
      if (use >= 0) uses[type][use]++;
      if (isMember(stream, unit)) members[run.seats[unit]][PLAYER_USES.indexOf(playerUseOf(use))]++;
    });
    // Rounds in which it had no turn.
    for (const row of members) row[DOWN] = Math.max(0, lengthOf(stream) - row.reduce((sum, turns) => sum + turns, 0));
    return { uses, alive, members };
  }
  eachStretch(stream, (unit, doing, attack, span) => {
    const type = typeOf(stream, unit);
    if (isMember(stream, unit)) members[run.seats[unit]][doing === GONE ? DOWN : PLAYER_USE_OF_DOING[doing]] += span / SECOND;
    if (doing === GONE) return;
    alive[type] += span / SECOND;
    const row = uses[type];
    if (doing === DOING.attacking) {
      const { windup, active } = compiled.kinds[run.kinds[unit]].attacks[attack];
      row[0] += Math.min(span, windup) / SECOND;
      row[1] += Math.min(Math.max(span - windup, 0), active) / SECOND;
      row[2] += Math.max(span - windup - active, 0) / SECOND;
    } else if (doing > DOING.unaware) row[USE_OF_DOING[doing]] += span / SECOND;
  });
  return { uses, alive, members };
}
