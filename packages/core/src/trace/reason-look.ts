/** Everything that can be said of one unit at one instant of a run: its reasons, what stands in its line, what would have done. */
import { type Fight } from '../engine/fight';
import { NOBODY } from '../engine/numbers';
import { CROSSING } from '../engine/body/lines';
import type { Runner } from '../engine/run';
import { clockOf } from '../record/clock';
import { SECOND } from '../record/time';
import { type Reasons, nameOf, reasonSentences, reasonsOf, withoutGround } from './reasons';
import { unitNames } from './trace';
import { type TurnLook, turnLook } from './turn-look';
import { type WouldHave, wouldHave } from './would-have';

/** A line from a muzzle or an eye to a target, and the wall that it meets. */
export interface SightLine {
  from: { x: number; y: number; height: number };
  to: { x: number; y: number; height: number };
  /** m between the middles of the two bodies */
  long: number;
  /** The wall in the way; absent: none is. */
  wall?: { name: string; height: number; /** share of the way at which it is met */ at: number; /** m */ excess: number };
}

export interface Timer {
  name: string;
  /** s left; 0: ready */
  left: number;
  /** s of which it is a part */
  of: number;
}

export interface ReasonLook {
  reasons: Reasons;
  sentences: string[];
  line?: SightLine;
  timers: Timer[];
  /** Every foe with how far it is. */
  targets: { name: string; /** m between edges, or cells; absent: a fight without ground */ gap?: number; chosen: boolean }[];
  would: WouldHave[];
  energy?: { now: number; max: number };
  /** In a fight that takes turns: what comes next. */
  turn?: TurnLook;
}

/** The seed is run again up to the last step before the instant, in turns up to the turn of that number; undefined where the unit is not there then. */
export function reasonLook(runner: Runner, seed: number, unit: number, seconds: number): ReasonLook | undefined {
  let found: ReasonLook | undefined;
  const upTo = seconds + 1e-9;
  const turns = clockOf(runner.compiled) === 'rounds';
  let step = -1;
  const run = runner.run(seed, (fight, time) => {
    step++;
    if (turns) {
      // Each turn is a step.
      if (step <= upTo && step > upTo - 1 && fight.alive.includes(unit)) found = lookAt(fight, unit);
      return;
    }
    // Only the last look counts; a look costs little beside a step of a crowd, but two are enough.
    if (time / SECOND > upTo || time / SECOND <= upTo - (2 * runner.compiled.step) / SECOND) return;
    if (fight.alive.includes(unit)) found = lookAt(fight, unit);
  });
  if (!found) return undefined;
  const names = unitNames(runner.compiled, run);
  found.reasons.name = names[unit];
  if (found.reasons.target) found.reasons.target.name = names[found.reasons.target.unit];
  found.reasons.candidates?.forEach((candidate) => (candidate.name = names[candidate.unit]));
  found.sentences = reasonSentences(found.reasons);
  return found;
}

function lookAt(fight: Fight, unit: number): ReasonLook {
  const reasons = reasonsOf(fight, unit);
  const kind = fight.kinds[unit];
  const target = fight.target[unit];
  return {
    reasons,
    sentences: [],
    ...(target !== NOBODY && { line: lineOf(fight, unit, target) }),
    timers: timersOf(fight, unit),
    targets: fight.living[1 - fight.side[unit]]
      .map((foe) => ({ name: nameOf(fight, foe), gap: fight.gap(unit, foe), chosen: foe === target }))
      .sort((a, b) => a.gap - b.gap)
      // Without ground there is none to tell.
      .map(({ gap, ...one }) => ({ ...one, ...(!withoutGround(fight) && { gap }) })),
    would: wouldHave(fight, unit),
    ...(fight.inTurns && { turn: turnLook(fight, unit) }),
    ...(kind.energy > 0 && { energy: { now: fight.energyNow(unit), max: kind.energy } }),
  };
}

function lineOf(fight: Fight, unit: number, target: number): SightLine {
  const { now, ground } = fight;
  const from = { x: fight.xAt(unit, now), y: fight.yAt(unit, now), height: fight.kinds[unit].muzzle };
  const to = { x: fight.xAt(target, now), y: fight.yAt(target, now), height: fight.kinds[target].height / 2 };
  const blocked = ground.blocked(from.x, from.y, from.height, to.x, to.y, to.height);
  const wall = blocked ? ground.walls[CROSSING.wall] : undefined;
  return {
    from,
    to,
    long: Math.hypot(to.x - from.x, to.y - from.y),
    ...(wall && { wall: { name: wall.name, height: wall.height, at: CROSSING.at, excess: CROSSING.excess } }),
  };
}

function timersOf(fight: Fight, unit: number): Timer[] {
  const { now } = fight;
  const kind = fight.kinds[unit];
  const timers = kind.attacks.map((attack, number): Timer => {
    const ready = fight.readyAt[unit * fight.compiled.attackRoom + number];
    return { name: attack.name, left: Math.max(0, ready - now) / SECOND, of: attack.cooldown / SECOND };
  });
  const more = (name: string, at: number, of: number) => {
    if (at > now) timers.push({ name, left: (at - now) / SECOND, of: Math.max(of / SECOND, (at - now) / SECOND) });
  };
  more('pause', fight.pauseUntil[unit], kind.pauseMax);
  more('reels', fight.staggeredUntil[unit], 0);
  more('next look', fight.nextLook[unit], 0);
  more('next look for a target', fight.nextTarget[unit], 0);
  return timers;
}
