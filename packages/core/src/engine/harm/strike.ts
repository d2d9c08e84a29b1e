/** Whom a hit meets: in reach and arc, on a line, within an area, or by touch. Landings are collected, not applied. */
import { EVENT, MISS } from '../../record/log';
import { within } from '../body/facing';
import { inReach } from '../body/reach';
import type { Fight } from '../fight';
import { clearFrom } from '../mind/senses';
import { NOBODY } from '../numbers';
import { cellsFrom } from '../rounds/places';
import { UNANSWERED, react } from '../rounds/answering';
import { defends } from '../player/threats';
import type { CompiledAttack } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { DUE } from '../time/queue';
import { waitToTouch } from './readiness';

/** Melee: everyone in reach and arc, the target first, then the nearest. */
export function strikeMelee(fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number): void {
  const { met } = fight;
  met.clear();
  let walled = false;
  for (let side = 0; side < 2; side++) {
    if (side === fight.side[unit] && !attack.friendly) continue;
    const others = fight.living[side];
    for (let i = 0; i < others.length; i++) {
      const other = others[i];
      if (other === unit) continue;
      const gap = fight.gap(unit, other);
      if (!inReach(gap, attack.rangeMax) || !within(fight, unit, other, attack.arcCosine)) continue;
      if (attack.needsLine && !clearFrom(fight, unit, fight.kinds[unit].muzzle, other)) walled = true;
      else met.add(other, other === target ? -1 : gap);
    }
  }
  if (meet(fight, unit, number, attack, fight.use[unit], attack.limit, fight.xAt(unit, fight.now), fight.yAt(unit, fight.now))) return;
  const reach = fight.isAlive[target] && inReach(fight.gap(unit, target), attack.rangeMax);
  fight.log.add(fight.now, EVENT.miss, unit, target, number, walled ? MISS.wall : reach ? MISS.arc : MISS.reach);
}

/** Instant line: whom it meets, in order, until a wall ends it; friends only under friendly fire. */
export function strikeOnLine(fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number): void {
  const { met, now } = fight;
  met.clear();
  const x = fight.xAt(unit, now);
  const y = fight.yAt(unit, now);
  let walled = false;
  for (let side = 0; side < 2; side++) {
    if (side === fight.side[unit] && !attack.friendly) continue;
    const others = fight.living[side];
    for (let i = 0; i < others.length; i++) {
      const other = others[i];
      if (other === unit) continue;
      const dx = fight.xAt(other, now) - x;
      const dy = fight.yAt(other, now) - y;
      const along = fight.fx[unit] * dx + fight.fy[unit] * dy;
      const across = fight.fx[unit] * dy - fight.fy[unit] * dx;
      const r = fight.radius[other];
      if (along < 0 || across * across > r * r || !inReach(fight.gap(unit, other), attack.rangeMax)) continue;
      if (!clearFrom(fight, unit, fight.kinds[unit].muzzle, other)) walled = true;
      else met.add(other, along - Math.sqrt(r * r - across * across));
    }
  }
  if (meet(fight, unit, number, attack, fight.use[unit], attack.limit, x, y)) return;
  const reach = fight.isAlive[target] && inReach(fight.gap(unit, target), attack.rangeMax);
  fight.log.add(now, EVENT.miss, unit, target, number, walled ? MISS.wall : reach ? MISS.arc : MISS.reach);
}

/** In rounds, what is shot: at its target alone, each shot of a volley by itself. */
export function strikeTarget(fight: Fight, unit: number, number: number, attack: CompiledAttack, target: number): void {
  const x = fight.xAt(unit, fight.now);
  const y = fight.yAt(unit, fight.now);
  const reach = fight.isAlive[target] === 1 && inReach(fight.gap(unit, target), attack.rangeMax);
  if (!reach || !clearFrom(fight, unit, fight.kinds[unit].muzzle, target))
    return fight.log.add(fight.now, EVENT.miss, unit, target, number, reach ? MISS.wall : MISS.reach);
  const { met, use } = fight;
  // Shots that fly strike each by itself, whomever the others struck.
  for (let shot = 0; shot < attack.volley; shot++) settle(fight, unit, target, number, attack, use[unit], fight.gap(unit, target), x, y);
  if (attack.volley > 0) return;
  met.clear();
  met.add(target, 0);
  meet(fight, unit, number, attack, use[unit], 1, x, y);
}

/** Everyone whose edge is within the area, the nearest to its middle first. A cone opens the way it was faced. */
export function strikeArea(
  fight: Fight,
  unit: number,
  number: number,
  attack: CompiledAttack,
  use: number,
  ownSide: number,
  x: number,
  y: number,
  fx: number,
  fy: number,
): void {
  const { met, now, ground } = fight;
  met.clear();
  for (let side = 0; side < 2; side++) {
    if (side === ownSide && !attack.friendly) continue;
    const others = fight.living[side];
    for (let i = 0; i < others.length; i++) {
      const other = others[i];
      if (other === unit) continue;
      const dx = fight.xAt(other, now) - x;
      const dy = fight.yAt(other, now) - y;
      const distance = !fight.inTurns ? Math.sqrt(dx * dx + dy * dy) : cellsFrom(fight, x, y, other);
      if (!inReach(!fight.inTurns ? distance - fight.radius[other] : distance, attack.areaRadius)) continue;
      if (attack.areaCosine > -1 && fx * dx + fy * dy < attack.areaCosine * Math.sqrt(dx * dx + dy * dy) * (1 - 1e-12)) continue;
      const height = fight.kinds[unit].muzzle;
      if (attack.needsLine && ground.blocked(x, y, height, x + dx, y + dy, fight.kinds[other].height / 2)) continue;
      met.add(other, distance);
    }
  }
  if (!meet(fight, unit, number, attack, use, attack.limit, x, y)) fight.log.add(now, EVENT.miss, unit, NOBODY, number, MISS.reach);
}

/** Settles a hit on those it meets, in their order; whether it came to anything (a landing, or a miss that is said). */
function meet(
  fight: Fight,
  unit: number,
  number: number,
  attack: CompiledAttack,
  use: number,
  limit: number,
  x: number,
  y: number,
): boolean {
  const { met } = fight;
  let struck = 0;
  let said = false;
  for (let i = 0; i < met.count && struck < limit; i++) {
    const victim = met.units[i];
    const once = !attack.everyHit && fight.use[unit] === use;
    if (once && fight.struck[unit].includes(victim)) {
      said = true;
      continue;
    }
    if (!settle(fight, unit, victim, number, attack, use, fight.gap(unit, victim), x, y)) {
      said = true;
      continue;
    }
    struck++;
    if (once) fight.strikes(unit, victim);
  }
  return struck > 0 || said;
}

/** Dodge, then accuracy: whether a hit that meets its victim lands; where not, the miss is said. */
export function settle(
  fight: Fight,
  unit: number,
  victim: number,
  number: number,
  attack: CompiledAttack,
  use: number,
  distance: number,
  x: number,
  y: number,
  counters = false,
): boolean {
  const reaction = !fight.inTurns || counters ? UNANSWERED : react(fight, victim, unit, attack);
  const defence = reaction.dodged ? MISS.dodged : fight.kinds[victim].player === null ? -1 : defends(fight, victim, attack, x, y);
  if (defence >= 0) {
    fight.log.add(fight.now, EVENT.miss, unit, victim, number, defence);
    return false;
  }
  if (!aimHolds(fight, unit, victim, attack, distance)) {
    fight.log.add(fight.now, EVENT.miss, unit, victim, number, MISS.aim);
    return false;
  }
  fight.landings.push({ attacker: unit, victim, attack: number, use, x, y, guarded: reaction.guarded, counters });
  return true;
}

/**
 * Accuracy changes linearly from touching to full range; a player's aim error besides: shots stray evenly within the error
 * to either side, so that share of them is within the body's half-width, r ÷ (d tan error), at most 1. Drawn once a contact.
 */
function aimHolds(fight: Fight, unit: number, victim: number, attack: CompiledAttack, distance: number): boolean {
  const along = attack.rangeMax > 0 ? Math.min(1, distance / attack.rangeMax) : 0;
  let accuracy = attack.accuracyNear + (attack.accuracyFar - attack.accuracyNear) * along;
  const { player } = fight.kinds[unit];
  if (player !== null && player.aimTangent > 0) {
    const centres = distance + fight.radius[unit] + fight.radius[victim];
    accuracy *= Math.min(1, fight.radius[victim] / (centres * player.aimTangent));
  }
  return accuracy >= 1 || (accuracy > 0 && fight.chance(unit, PURPOSE.aim) < accuracy);
}

/** Leaves a mark that bursts after the attack's delay. */
export function markBurst(fight: Fight, unit: number, number: number, delay: number, x: number, y: number): void {
  const id = fight.bursts.take();
  const burst = fight.bursts.all[id];
  burst.owner = unit;
  burst.attack = number;
  burst.side = fight.side[unit];
  burst.use = fight.use[unit];
  burst.x = x;
  burst.y = y;
  burst.fx = fight.fx[unit];
  burst.fy = fight.fy[unit];
  fight.queue.push(fight.ends(unit, delay), DUE.burst, unit, burst.life, id);
}

/** A mark's time has come. */
export function settleBurst(fight: Fight, id: number, life: number): void {
  const burst = fight.bursts.all[id];
  if (!burst.pending || burst.life !== life) return;
  burst.pending = false;
  const attack = fight.attackOf(burst.owner, burst.attack);
  strikeArea(fight, burst.owner, burst.attack, attack, burst.use, burst.side, burst.x, burst.y, burst.fx, burst.fy);
}

/** Phase of a step: whoever touches a foe with something that hurts by touch does so at once. */
export function touch(fight: Fight): void {
  const { alive, now } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    const { contacts } = fight.kinds[unit];
    for (let c = 0; c < contacts.length; c++) {
      if (now < fight.readyAt[unit * fight.compiled.attackRoom + contacts[c]]) continue;
      const { rangeMax } = fight.attackOf(unit, contacts[c]);
      if (fight.living[1 - fight.side[unit]].some((foe) => inReach(fight.gap(unit, foe), rangeMax))) {
        fight.queue.push(now, DUE.contact, unit, 0, contacts[c]);
      }
    }
  }
}

/** A touch is due: at a step, or at the instant at which the cooldown ends. While they touch it is due again. */
export function touchWith(fight: Fight, unit: number, number: number): void {
  const attack = fight.attackOf(unit, number);
  const at = unit * fight.compiled.attackRoom + number;
  if (!fight.isAlive[unit] || fight.now < fight.readyAt[at] || fight.now < fight.staggeredUntil[unit]) return;
  const foes = fight.living[1 - fight.side[unit]];
  fight.met.clear();
  for (let i = 0; i < foes.length; i++) {
    const gap = fight.gap(unit, foes[i]);
    if (inReach(gap, attack.rangeMax)) fight.met.add(foes[i], gap);
  }
  if (fight.met.count === 0) return;
  const ready = waitToTouch(fight, unit, number, attack);
  const x = fight.xAt(unit, fight.now);
  const y = fight.yAt(unit, fight.now);
  for (let i = 0; i < fight.met.count && i < attack.limit; i++) {
    settle(fight, unit, fight.met.units[i], number, attack, 0, fight.gap(unit, fight.met.units[i]), x, y);
  }
  fight.queue.push(ready, DUE.contact, unit, 0, number);
}
