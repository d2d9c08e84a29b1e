/** The movement of an attack: where it leads, whom it meets, what comes of its end. */
import { DASH_END, EVENT } from '../../record/log';
import { microsecondsUp } from '../../record/time';
import { inReach } from '../body/reach';
import type { Fight } from '../fight';
import { DASHING, PHASE } from '../numbers';
import type { CompiledAttack, CompiledDash } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { DUE } from '../time/queue';
import { settleHit } from './attack';
import { minds, sweepDash } from './dashes';
import { reelAtWall } from './effects';
import { settle } from './strike';

/** Its instant has come: it sets out, as things stand now. Who reels does not. */
export function beginDash(fight: Fight, unit: number): void {
  if (fight.phase[unit] === PHASE.idle || fight.now < fight.staggeredUntil[unit]) return;
  const number = fight.attack[unit];
  const dash = fight.attackOf(unit, number).dash!;
  const target = fight.attackTarget[unit];
  const speed = dash.speed * (1 - fight.slowed[unit]);
  if (speed <= 0) return;
  fight.stand(unit);
  const x = fight.x[unit];
  const y = fight.y[unit];
  const [dx, dy] = directionOf(fight, unit, dash, target);
  let wanted = dash.distance;
  if (dash.way === 'target' && dash.upToTarget && target !== unit && fight.isAlive[target])
    wanted = Math.min(wanted, fight.gap(unit, target));
  const { ground } = fight.kinds[unit];
  const most = fight.ground.straight(ground, x, y, dx, dy, wanted, fight.radius[unit], dash.over);
  fight.log.add(fight.now, EVENT.dash, unit, target, number, most, speed);
  const until = fight.now + microsecondsUp(most / speed);
  fight.fling(unit, DASHING.attack, dx * speed, dy * speed, x + dx * most, y + dy * most, until);
  fight.queue.push(until, DUE.dashEnds, unit, 0, most < wanted ? DASH_END.wall : DASH_END.done);
  sweepDash(fight, unit);
}

/** A unit vector. Without a target, or in its very place, the way it faces counts as the way to it. */
function directionOf(fight: Fight, unit: number, { way, distance }: CompiledDash, target: number): [number, number] {
  let tx = fight.fx[unit];
  let ty = fight.fy[unit];
  if (way !== 'ahead' && target !== unit && fight.isAlive[target]) {
    const dx = fight.xAt(target, fight.now) - fight.xAt(unit, fight.now);
    const dy = fight.yAt(target, fight.now) - fight.yAt(unit, fight.now);
    const apart = Math.sqrt(dx * dx + dy * dy);
    if (apart > 0) {
      tx = dx / apart;
      ty = dy / apart;
    }
  }
  if (way === 'target' || way === 'ahead') return [tx, ty];
  if (way === 'away') return [0 - tx, 0 - ty];
  const left = isClear(fight, unit, 0 - ty, tx, distance);
  const right = isClear(fight, unit, ty, 0 - tx, distance);
  const toLeft = left === right ? fight.chance(unit, PURPOSE.dash) < 0.5 : left;
  return toLeft ? [0 - ty, tx] : [ty, 0 - tx];
}

function isClear(fight: Fight, unit: number, dx: number, dy: number, distance: number): boolean {
  const x = fight.xAt(unit, fight.now);
  const y = fight.yAt(unit, fight.now);
  return fight.ground.straight(fight.kinds[unit].ground, x, y, dx, dy, distance, fight.radius[unit], 0) >= distance;
}

/** It touches a body: that is struck, where its movement hurts; and it ends there, where bodies stop it. */
export function meet(fight: Fight, unit: number, plan: number, other: number): void {
  if (!fight.dashing[unit] || fight.dashPlan[unit] !== plan || !fight.isAlive[other]) return;
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  touch(fight, unit, other, number, attack);
  if (!attack.dash!.stops) return sweepDash(fight, unit);
  fight.fallShort(unit, DASH_END.body);
  strikeAtEnd(fight, unit, attack);
}

function touch(fight: Fight, unit: number, other: number, number: number, attack: CompiledAttack): void {
  fight.meets(unit, other);
  if (!minds(fight, unit, other) || fight.struck[unit].length >= attack.limit) return;
  const x = fight.xAt(unit, fight.now);
  const y = fight.yAt(unit, fight.now);
  if (settle(fight, unit, other, number, attack, fight.use[unit], 0, x, y)) fight.strikes(unit, other);
}

/** It has come as far as it could: whoever it touches at its very end is met as well. */
export function arrive(fight: Fight, unit: number, why: number): void {
  if (!fight.dashing[unit] || fight.dashUntil[unit] !== fight.now) return;
  const toX = fight.dashToX[unit];
  const toY = fight.dashToY[unit];
  if (fight.dashing[unit] === DASHING.answer) return fight.land(unit, why);
  const number = fight.attack[unit];
  const attack = fight.attackOf(unit, number);
  const [vx, vy] = [fight.vx[unit], fight.vy[unit]];
  fight.land(unit, why);
  strikeAtEnd(fight, unit, attack);
  if (attack.dash!.hurts === 'way') {
    for (const other of [...fight.alive]) {
      if (other === unit || fight.dashMet[unit].includes(other) || !inReach(fight.gap(unit, other), 0)) continue;
      const ahead = (fight.xAt(other, fight.now) - toX) * vx + (fight.yAt(other, fight.now) - toY) * vy;
      if (ahead > 0) touch(fight, unit, other, number, attack);
    }
  }
  if (why === DASH_END.wall && attack.dash!.reels > 0) reelAtWall(fight, unit, number, attack.dash!.reels);
}

function strikeAtEnd(fight: Fight, unit: number, { dash }: CompiledAttack): void {
  if (dash!.hurts === 'end') settleHit(fight, unit, 0);
}
