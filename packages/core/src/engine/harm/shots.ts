/** Shots in flight: launched along the shooter's facing, swept against the segments of those they may strike. */
import { EVENT, MISS } from '../../record/log';
import { microsecondsUp, SECOND } from '../../record/time';
import { turnedTowards } from '../body/facing';
import { CROSSING } from '../body/lines';
import { cosine, sine } from '../body/rotation';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import type { CompiledAttack } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { DUE } from '../time/queue';
import { MOST_SHOTS } from '../tuning';
import type { Shot } from './pools';
import { settle } from './strike';

/**
 * The direction to shoot in: at the target, moved on by the led share of its velocity for as long as the shot needs.
 * That time is the smallest root of |p + w t| = s t, with p the way to the target and w its velocity; where there is no
 * root the shot can't catch it and aims at where it is.
 */
export function aimOf(fight: Fight, unit: number, target: number, attack: CompiledAttack): [number, number] {
  const px = fight.xAt(target, fight.now) - fight.xAt(unit, fight.now);
  const py = fight.yAt(target, fight.now) - fight.yAt(unit, fight.now);
  const wx = fight.vx[target] * attack.lead;
  const wy = fight.vy[target] * attack.lead;
  const a = attack.shotSpeed * attack.shotSpeed - (wx * wx + wy * wy);
  const b = px * wx + py * wy;
  const c = px * px + py * py;
  const root = b * b + a * c;
  if (a <= 0 || root < 0) return [px, py];
  const time = (b + Math.sqrt(root)) / a;
  return [px + wx * time, py + wy * time];
}

export function launch(fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number): void {
  for (let i = 0; i < attack.volley && fight.shots.flying.length < MOST_SHOTS; i++) {
    let fx = fight.fx[unit];
    let fy = fight.fy[unit];
    const muzzle = attack.muzzles.length > 0 ? attack.muzzles[i % attack.muzzles.length] : null;
    const x = fight.xAt(unit, fight.now) + (muzzle === null ? fx * fight.radius[unit] : fx * muzzle.ahead - fy * muzzle.left);
    const y = fight.yAt(unit, fight.now) + (muzzle === null ? fy * fight.radius[unit] : fy * muzzle.ahead + fx * muzzle.left);
    if (attack.volleySpread > 0) {
      const degrees = (fight.chance(unit, PURPOSE.spread) - 0.5) * attack.volleySpread;
      const c = cosine(degrees);
      const s = sine(degrees);
      [fx, fy] = [c * fx - s * fy, s * fx + c * fy];
    }
    const id = fight.shots.take();
    const shot = fight.shots.all[id];
    shot.owner = unit;
    shot.attack = number;
    shot.side = fight.side[unit];
    shot.meant = target;
    shot.use = fight.use[unit];
    shot.pierces = attack.pierces;
    shot.startedAt = fight.now;
    shot.endsAt = shot.diesAt = fight.now + attack.shotLifetime;
    shot.x = x;
    shot.y = y;
    shot.vx = fx * attack.shotSpeed;
    shot.vy = fy * attack.shotSpeed;
    shot.radius = attack.shotRadius;
    shot.height = fight.kinds[unit].muzzle;
    shot.aimed = Math.max(fight.apartFrom(target, x, y), attack.shotRadius);
    shot.slope = (fight.kinds[target].height / 2 - shot.height) / shot.aimed;
    fight.log.add(fight.now, EVENT.shot, unit, target, number);
    stopAtWall(fight, shot, 0);
    fight.queue.push(shot.endsAt, DUE.shotEnd, unit, shot.life, id);
    sweep(fight, id);
  }
}

/**
 * A shot rises or falls evenly from its muzzle to half its target's height and then flies level; it ends at the first wall
 * that is higher than it there.
 * @param flown m it has come
 */
function stopAtWall(fight: Fight, shot: Shot, flown: number): void {
  shot.wall = false;
  if (fight.ground.walls.length === 0) return;
  const speed = Math.sqrt(shot.vx * shot.vx + shot.vy * shot.vy);
  const left = ((shot.endsAt - shot.startedAt) / SECOND) * speed;
  const rising = Math.min(left, Math.max(0, shot.aimed - flown));
  const ux = shot.vx / speed;
  const uy = shot.vy / speed;
  const at = (distance: number) => shot.height + shot.slope * Math.min(shot.aimed, flown + distance);
  for (let leg = 0, from = 0; leg < 2; leg++) {
    const to = leg === 0 ? rising : left;
    if (to <= from) continue;
    const hit = fight.ground.blocked(shot.x + ux * from, shot.y + uy * from, at(from), shot.x + ux * to, shot.y + uy * to, at(to));
    if (hit) {
      shot.endsAt = shot.startedAt + microsecondsUp((from + CROSSING.at * (to - from)) / speed);
      shot.wall = true;
      return;
    }
    from = to;
  }
}

/** Works out all contacts anew: segments have changed. */
export function sweepAll(fight: Fight): void {
  const { flying } = fight.shots;
  for (let i = 0; i < flying.length; i++) sweep(fight, flying[i]);
  fight.shots.stale = false;
}

/** Phase of a step: homing shots turn towards their targets, as far as a step lets them. */
export function steerShots(fight: Fight): void {
  const { shots, now } = fight;
  for (let i = 0; i < shots.flying.length; i++) {
    const shot = shots.all[shots.flying[i]];
    const { homing, shotSpeed } = fight.attackOf(shot.owner, shot.attack);
    if (homing === 0 || !fight.isAlive[shot.meant] || now <= shot.startedAt) continue;
    const elapsed = (now - shot.startedAt) / SECOND;
    shot.x += shot.vx * elapsed;
    shot.y += shot.vy * elapsed;
    const [fx, fy] = turnedTowards(
      shot.vx / shotSpeed,
      shot.vy / shotSpeed,
      fight.xAt(shot.meant, now) - shot.x,
      fight.yAt(shot.meant, now) - shot.y,
      homing * elapsed,
    );
    shot.vx = fx * shotSpeed;
    shot.vy = fy * shotSpeed;
    shot.slope = 0;
    shot.startedAt = now;
    shot.endsAt = Math.max(now, shot.diesAt);
    stopAtWall(fight, shot, shot.aimed);
    shot.life++;
    fight.queue.push(shot.endsAt, DUE.shotEnd, shot.owner, shot.life, shots.flying[i]);
  }
}

/** Queues the first contact before the step ends, if there is one. An earlier plan for this shot is stale. */
function sweep(fight: Fight, id: number): void {
  const shot = fight.shots.all[id];
  const until = Math.min(fight.stepEnd, shot.endsAt);
  const ahead = (until - fight.now) / SECOND;
  const flown = (fight.now - shot.startedAt) / SECOND;
  const x = shot.x + shot.vx * flown;
  const y = shot.y + shot.vy * flown;
  let first = Infinity;
  let met: number = NOBODY;
  for (let side = 0; side < 2; side++) {
    if (side === shot.side && !fight.attackOf(shot.owner, shot.attack).friendly) continue;
    const others = fight.living[side];
    for (let i = 0; i < others.length; i++) {
      const other = others[i];
      if (outOfTouch(fight, shot, other, x, y, ahead)) continue;
      if (other === shot.owner || (shot.passed.length > 0 && shot.passed.includes(other))) continue;
      const time = contactTime(fight, shot, other);
      if (time <= until && time < first) {
        first = time;
        met = other;
      }
    }
  }
  shot.contact = met;
  shot.plan++;
  if (met !== NOBODY) fight.queue.push(first, DUE.impact, shot.owner, shot.plan, id);
}

/** m: how far rounding may put two bodies that just touch */
const ROUNDING = 1e-6;

/** Whether a body is too far from a shot at (x, y) to be touched within so many s, by one of the two axes alone. */
function outOfTouch(fight: Fight, shot: Shot, other: number, x: number, y: number, ahead: number): boolean {
  const touch = shot.radius + fight.radius[other] + ROUNDING;
  const apartX = Math.abs(fight.xAt(other, fight.now) - x);
  if (apartX > touch + (Math.abs(shot.vx) + Math.abs(fight.vx[other])) * ahead) return true;
  const apartY = Math.abs(fight.yAt(other, fight.now) - y);
  return apartY > touch + (Math.abs(shot.vy) + Math.abs(fight.vy[other])) * ahead;
}

/** µs of the first touch of a shot and a body, both moving straight: the smaller root of |p + w t| = R, rounded up. */
function contactTime(fight: Fight, shot: Shot, foe: number): number {
  const elapsed = (fight.now - shot.startedAt) / SECOND;
  const px = shot.x + shot.vx * elapsed - fight.xAt(foe, fight.now);
  const py = shot.y + shot.vy * elapsed - fight.yAt(foe, fight.now);
  const wx = shot.vx - fight.vx[foe];
  const wy = shot.vy - fight.vy[foe];
  const reach = shot.radius + fight.radius[foe];
  const c = px * px + py * py - reach * reach;
  if (c <= 0) return fight.now;
  const b = px * wx + py * wy;
  const a = wx * wx + wy * wy;
  const root = b * b - a * c;
  if (b >= 0 || root < 0) return Infinity;
  return fight.now + microsecondsUp((0 - b - Math.sqrt(root)) / a);
}

/** A contact is due. A shot that is dodged or fails its accuracy flies on, and so does one that pierces. */
export function settleImpact(fight: Fight, id: number, plan: number): void {
  const shot = fight.shots.all[id];
  if (!shot.flying || shot.plan !== plan) return;
  const victim = shot.contact;
  const attack = fight.attackOf(shot.owner, shot.attack);
  const dx = fight.xAt(victim, fight.now) - shot.x;
  const dy = fight.yAt(victim, fight.now) - shot.y;
  const travelled = Math.max(0, Math.sqrt(dx * dx + dy * dy) - fight.radius[victim]);
  const landed = settle(fight, shot.owner, victim, shot.attack, attack, shot.use, travelled, shot.x, shot.y);
  shot.missed = true; // whatever becomes of it, its fate has been said
  if (landed && shot.pierces-- <= 0) return fight.shots.end(id);
  shot.passed.push(victim);
  sweep(fight, id);
}

/** A shot has flown its time, or meets a wall. */
export function endShot(fight: Fight, id: number, life: number): void {
  const shot = fight.shots.all[id];
  if (!shot.flying || shot.life !== life) return;
  if (!shot.missed) fight.log.add(fight.now, EVENT.miss, shot.owner, shot.meant, shot.attack, shot.wall ? MISS.wall : MISS.flown);
  fight.shots.end(id);
}
