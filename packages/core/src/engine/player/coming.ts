/** Where and when an announced attack will strike, as things stand, and what is out of it. */
import { microsecondsUp } from '../../record/time';
import { inReach } from '../body/reach';
import type { Fight } from '../fight';
import type { Burst } from '../harm/pools';
import { DASHING, NOBODY } from '../numbers';
import type { Threat } from '../records';
import { CLEARANCE_SHARE } from '../tuning';
import type { CompiledAttack, CompiledDash } from '../unit-tables';

/** m from a unit's edge to the edge of the area an attack will strike; below 0: inside it. */
export function outOfArea(fight: Fight, attacker: number, attack: CompiledAttack, member: number, use?: number): number {
  const [x, y] = middleOf(fight, attacker, attack, use);
  return fight.apartFrom(member, x, y) - fight.radius[member] - attack.areaRadius;
}

/** Where a use of an attack lies and waits for its time, if it does. */
const putDown = (fight: Fight, use: number): Burst | undefined => fight.bursts.all.find((burst) => burst.pending && burst.use === use);

/** It stays with its target until it strikes: nobody gets out of it. */
export const staysWithTarget = (fight: Fight, { areaAbout, areaDelay }: CompiledAttack, use: number): boolean =>
  areaAbout === 'target' && areaDelay === 0 && !putDown(fight, use);

/** The middle of what a use of an attack will strike: where it has been put down, a mark, its target, or its owner. */
export function middleOf(fight: Fight, attacker: number, attack: CompiledAttack, use = fight.use[attacker]): [number, number] {
  const down = putDown(fight, use);
  if (down) return [down.x, down.y];
  if (attack.areaAbout === 'mark') return [fight.markX[attacker], fight.markY[attacker]];
  if (attack.dash?.hurts === 'end') return landing(fight, attacker, attack.dash);
  // Once it is over nobody is its target any more.
  const target = fight.attackTarget[attacker];
  const about = attack.areaAbout === 'target' && target !== NOBODY ? target : attacker;
  return [fight.xAt(about, fight.now), fight.yAt(about, fight.now)];
}

/** Where a leap comes down: while it is under way that is settled; before, as things stand. To which side it goes nobody can tell. */
function landing(fight: Fight, attacker: number, dash: CompiledDash): [number, number] {
  if (fight.dashing[attacker] === DASHING.attack) return [fight.dashToX[attacker], fight.dashToY[attacker]];
  const { now } = fight;
  const x = fight.xAt(attacker, now);
  const y = fight.yAt(attacker, now);
  const target = fight.attackTarget[attacker];
  if (dash.way === 'sideways') return [x, y];
  let [dx, dy] = [fight.fx[attacker], fight.fy[attacker]];
  const apart = target === NOBODY || dash.way === 'ahead' ? 0 : fight.apart(attacker, target);
  if (apart > 0) [dx, dy] = [(fight.xAt(target, now) - x) / apart, (fight.yAt(target, now) - y) / apart];
  const metres = leapLength(fight, attacker, dash, target) * (dash.way === 'away' ? -1 : 1);
  return [x + dx * metres, y + dy * metres];
}

/** m: no farther than to touch its target, where it is told so. */
const leapLength = (fight: Fight, attacker: number, { way, upToTarget, distance }: CompiledDash, target: number): number =>
  way === 'target' && upToTarget && target !== NOBODY ? Math.min(distance, fight.gap(attacker, target)) : distance;

/** µs from the start of an attack until it no longer depends on its owner, or its first hit, as things stand. */
export function untilItLeaves(fight: Fight, attacker: number, { dash, windup }: CompiledAttack, member: number): number {
  if (dash === null || dash.hurts === 'no') return windup;
  const metres =
    dash.hurts === 'end'
      ? leapLength(fight, attacker, dash, fight.attackTarget[attacker])
      : Math.min(fight.gap(attacker, member), dash.distance);
  return dash.start + microsecondsUp(metres / dash.speed);
}

/** µs from then until it strikes a member, as things stand. */
export function underWay(
  fight: Fight,
  attacker: number,
  { dash, areaDelay, shotSpeed, shotRadius }: CompiledAttack,
  member: number,
): number {
  const flies = shotSpeed > 0 && (dash === null || dash.hurts === 'no');
  return areaDelay + (flies ? microsecondsUp(Math.max(0, fight.gap(attacker, member) - shotRadius) / shotSpeed) : 0);
}

/** µs from the start of an attack until nothing of it can strike any more, however far its target has gone since. */
export const longest = ({ windup, active, recovery, areaDelay, shotLifetime }: CompiledAttack): number =>
  windup + active + recovery + areaDelay + shotLifetime;

export function ranged(attack: CompiledAttack): boolean {
  return attack.traits.alongLine;
}

/** It comes straight at whom it is meant for: out of its way is to the side. */
export function comesStraight(attack: CompiledAttack): boolean {
  return ranged(attack) || attack.dash?.hurts === 'way';
}

/** µs from its start at which where it comes is settled: whoever goes before that takes it along. */
export function settledAfter({ dash, turns, windup, areaAbout, traits }: CompiledAttack): number {
  if (dash !== null && dash.hurts !== 'no') return dash.start;
  if (traits.escape === 'reach' || (traits.escape === 'area' && areaAbout === 'self')) return 0;
  // What lies about its target lies where that is as the wind-up ends, wherever its owner faces.
  return turns || areaAbout === 'target' ? windup : 0;
}

/** m that a unit must move to be out of what is coming; Infinity where moving does not help. @param turns its owner still turns with it */
export function wayOut(
  fight: Fight,
  attacker: number,
  attack: CompiledAttack,
  member: number,
  use = fight.use[attacker],
  turns = attack.turns,
): number {
  const own = fight.radius[member];
  const spare = own * CLEARANCE_SHARE;
  if (attack.dash?.hurts === 'way') return own + fight.radius[attacker] + spare;
  switch (attack.traits.escape) {
    case 'reach':
      return Math.max(0, attack.rangeMax - fight.gap(attacker, member)) + spare;
    case 'shot':
      return own + attack.shotRadius + spare;
    case 'line':
      return turns ? Infinity : own + spare;
    case 'area':
      return staysWithTarget(fight, attack, use) ? Infinity : Math.max(0, 0 - outOfArea(fight, attacker, attack, member, use)) + spare;
    case undefined:
      return Infinity;
  }
}

/** Whether a member would be out of what is coming if it stood somewhere else. */
export function outAt(
  fight: Fight,
  member: number,
  { attacker, use }: Pick<Threat, 'attacker' | 'use'>,
  attack: CompiledAttack,
  x: number,
  y: number,
): boolean {
  const own = fight.radius[member];
  const ax = fight.xAt(attacker, fight.now);
  const ay = fight.yAt(attacker, fight.now);
  if (comesStraight(attack)) {
    const tx = fight.xAt(member, fight.now) - ax;
    const ty = fight.yAt(member, fight.now) - ay;
    const length = Math.sqrt(tx * tx + ty * ty);
    const aside = length > 0 ? Math.abs(tx * (y - ay) - ty * (x - ax)) / length : 0;
    return aside > own + attack.shotRadius + (attack.dash?.hurts === 'way' ? fight.radius[attacker] : 0);
  }
  if (attack.traits.escape === 'reach') {
    const gap = Math.sqrt((x - ax) * (x - ax) + (y - ay) * (y - ay)) - own - fight.radius[attacker];
    return !inReach(gap, attack.rangeMax);
  }
  if (attack.traits.escape !== 'area' || staysWithTarget(fight, attack, use)) return false;
  const [mx, my] = middleOf(fight, attacker, attack, use);
  return !inReach(Math.sqrt((x - mx) * (x - mx) + (y - my) * (y - my)) - own, attack.areaRadius);
}
