/** What lasts: slows, taunts, marks, lent shields, boosts; and staggers. `jolts.ts` carries out what jolts. */
import type { CompiledBoost } from '../../model/effects/effect';
import { DOING } from '../../record/doing';
import { BREAK, EVENT } from '../../record/log';
import type { Jolt } from '../records';
import type { Fight } from '../fight';
import { refit } from '../mind/changes';
import { alert } from '../mind/senses';
import { bind, setTarget } from '../mind/wanted';
import { ILL, PHASE, TASK } from '../numbers';
import { dropTask } from '../player/task';
import { tryAgainAt } from '../time/again';
import { DUE } from '../time/queue';
import { interrupt } from './interrupt';
import { add, dropExpired, endReeling, reel, sumUp } from './lasting';

/** A stagger or a knockback waits until every hit of the instant is applied. */
export function jolt(
  fight: Fight,
  { by, unit, attack, x, y }: { by: number; unit: number; attack: number; x: number; y: number },
  stagger: number,
  knockback: number,
  crush: number,
): void {
  fight.jolts.push({ attacker: by, victim: unit, attack, stagger, knockback, crush, x, y, breaks: -1 });
}

/** One more thing that lasts. Of slows and marks the strongest counts, lent shields add up; so each is kept to its own end. */
export function addIll(fight: Fight, unit: number, what: number, value: number, lasts: number, by: number): void {
  const until = fight.ends(unit, lasts);
  add(fight, unit, { what, until, value, by });
  fight.queue.push(until, DUE.expiry, unit, 0, 0);
  sumUp(fight, unit);
}

/** The same boost again moves its end; one without an end stays. */
export function addBoost(fight: Fight, by: number, unit: number, attack: number, { id, lasts }: CompiledBoost): void {
  const until = lasts === 0 ? Infinity : fight.ends(unit, lasts);
  fight.log.add(fight.now, EVENT.boost, by, unit, attack, lasts);
  const present = fight.ills[unit].find(({ what, value }) => what === ILL.boost && value === id);
  if (present) present.until = Math.max(present.until, until);
  else add(fight, unit, { what: ILL.boost, until, value: id, by });
  if (until < Infinity) fight.queue.push(until, DUE.expiry, unit, 0, 0);
  if (!present) refit(fight, unit);
}

/** Must go for whoever struck it, for so long. */
export function taunt(fight: Fight, attacker: number, victim: number, lasts: number): void {
  bind(fight, victim, fight.ends(victim, lasts));
  alert(fight, victim);
  if (fight.alerted[victim] && fight.target[victim] !== attacker && fight.isAlive[attacker]) setTarget(fight, victim, attacker);
}

/** Something that lasted is over: a slow, a boost, a stagger. */
export function expire(fight: Fight, unit: number): void {
  if (!fight.isAlive[unit]) return;
  const boosts = dropExpired(fight, unit);
  sumUp(fight, unit);
  if (boosts) refit(fight, unit);
  if (fight.staggeredUntil[unit] > 0 && fight.now >= fight.staggeredUntil[unit]) {
    endReeling(fight, unit);
    fight.setMobility(unit);
    if (fight.alerted[unit] && fight.phase[unit] === PHASE.idle) tryAgainAt(fight, unit, fight.now);
  }
}

/** In wind-up or active; recovery runs on. */
export function breakable(fight: Fight, unit: number): boolean {
  return fight.phase[unit] === PHASE.windup || fight.phase[unit] === PHASE.active;
}

export function stagger(fight: Fight, { attacker, victim, attack, stagger: lasts }: Jolt): void {
  const { now } = fight;
  fight.log.add(now, EVENT.stagger, attacker, victim, attack, lasts);
  const until = fight.ends(victim, lasts);
  reel(fight, victim, until);
  fight.stand(victim);
  if (breakable(fight, victim) && fight.attackOf(victim, fight.attack[victim]).breakStagger) interrupt(fight, victim, BREAK.stagger);
  if (fight.task[victim] !== TASK.none) dropTask(fight, victim);
  fight.setMobility(victim);
  fight.queue.push(until, DUE.expiry, victim, 0, 0);
  if (fight.phase[victim] === PHASE.idle && fight.alerted[victim]) fight.sayDoing(victim, DOING.staggered);
}

/** A wall has stopped its charge: it breaks off and reels. @param lasts µs */
export function reelAtWall(fight: Fight, unit: number, attack: number, lasts: number): void {
  if (breakable(fight, unit)) interrupt(fight, unit, BREAK.wall);
  stagger(fight, { attacker: unit, victim: unit, attack, stagger: lasts, knockback: 0, crush: 0, x: 0, y: 0, breaks: -1 });
}
