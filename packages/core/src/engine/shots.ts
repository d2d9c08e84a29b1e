/** Shots in flight: launched along the shooter's facing, swept against the segments of those they may strike. */
import { type Landing, aimHolds } from './attack';
import { PURPOSE } from './chance';
import type { CompiledAttack } from './compile';
import { type Fight, NOBODY, type Shot } from './fight';
import { EVENT, MISS } from './log';
import { DUE } from './queue';
import { cosine, sine } from './rotation';
import { microsecondsUp } from './time';
import { SECOND } from './tuning';

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
  for (let i = 0; i < attack.volley; i++) {
    let fx = fight.fx[unit];
    let fy = fight.fy[unit];
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
    shot.startedAt = fight.now;
    shot.endsAt = fight.now + attack.shotLifetime;
    shot.x = fight.xAt(unit, fight.now) + fx * fight.radius[unit];
    shot.y = fight.yAt(unit, fight.now) + fy * fight.radius[unit];
    shot.vx = fx * attack.shotSpeed;
    shot.vy = fy * attack.shotSpeed;
    shot.radius = attack.shotRadius;
    fight.log.add(fight.now, EVENT.shot, unit, target, number);
    fight.queue.push(shot.endsAt, DUE.shotEnd, unit, shot.life, id);
    sweep(fight, id);
  }
}

/** Works out all contacts anew: segments have changed. */
export function sweepAll(fight: Fight): void {
  const { flying } = fight.shots;
  for (let i = 0; i < flying.length; i++) sweep(fight, flying[i]);
  fight.shots.stale = false;
}

/** Queues the first contact before the step ends, if there is one. An earlier plan for this shot is stale. */
function sweep(fight: Fight, id: number): void {
  const shot = fight.shots.all[id];
  const foes = fight.living[1 - shot.side];
  const until = Math.min(fight.stepEnd, shot.endsAt);
  let first = Infinity;
  let met: number = NOBODY;
  for (let i = 0; i < foes.length; i++) {
    if (shot.passed.includes(foes[i])) continue;
    const time = contactTime(fight, shot, foes[i]);
    if (time <= until && time < first) {
      first = time;
      met = foes[i];
    }
  }
  shot.contact = met;
  shot.plan++;
  if (met !== NOBODY) fight.queue.push(first, DUE.impact, shot.owner, shot.plan, id);
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

/** A contact is due. Accuracy is drawn here; a shot that fails it flies on. */
export function settleImpact(fight: Fight, id: number, plan: number, landings: Landing[]): void {
  const shot = fight.shots.all[id];
  if (!shot.flying || shot.plan !== plan) return;
  const victim = shot.contact;
  const attack = fight.attackOf(shot.owner, shot.attack);
  const dx = fight.xAt(victim, fight.now) - shot.x;
  const dy = fight.yAt(victim, fight.now) - shot.y;
  const travelled = Math.max(0, Math.sqrt(dx * dx + dy * dy) - fight.radius[victim]);
  if (aimHolds(fight, shot.owner, attack, travelled)) {
    landings.push({ attacker: shot.owner, victim, attack: shot.attack });
    fight.shots.end(id);
    return;
  }
  fight.log.add(fight.now, EVENT.miss, shot.owner, victim, shot.attack, MISS.aim);
  shot.missed = true;
  shot.passed.push(victim);
  sweep(fight, id);
}

/** A shot has flown its time. */
export function endShot(fight: Fight, id: number, life: number): void {
  const shot = fight.shots.all[id];
  if (!shot.flying || shot.life !== life) return;
  if (!shot.missed) fight.log.add(fight.now, EVENT.miss, shot.owner, shot.meant, shot.attack, MISS.flown);
  fight.shots.end(id);
}
