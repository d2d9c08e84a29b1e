/**
 * What a hit does once it has landed, in this order: window → spread → weak point → crit → mark and block → resistance →
 * armour → least damage → shields → gates → health; then what it leaves behind.
 */
import { BREAK, EVENT } from '../../record/log';
import type { Landing } from '../records';
import type { Fight } from '../fight';
import { alert } from '../mind/senses';
import { PHASE, URGE } from '../numbers';
import { blockedShare, recordExposure } from '../player/threats';
import type { CompiledAttack, CompiledUnit } from '../unit-tables';
import { tryAgainAt } from '../time/again';
import { provoke } from '../rounds/answering';
import { PURPOSE } from '../time/chance';
import { DEAD_BELOW } from '../tuning';
import { remember, steady, takeLent } from './lasting';
import { leave } from './over-times';
import { leaveEffects } from './struck';
import { delayShield, regenerateFrom, setHealth, setShield } from './vitals';

/** A hit without damage still meets armour, windows and shields. */
const NO_DAMAGE = { amount: 0, spread: 0, type: -1, critChance: 0, critMultiplier: 1 };

export function applyHit(fight: Fight, landing: Landing): void {
  const { attacker, victim, attack: number } = landing;
  if (!fight.isAlive[victim]) return;
  if (fight.invulnerable[victim] || windowStops(fight, attacker, victim, number)) {
    fight.log.add(fight.now, EVENT.blocked, attacker, victim, number);
    return;
  }
  openWindow(fight, attacker, victim, number);
  const attack = fight.attackOf(attacker, number);
  const kind = fight.kinds[victim];
  const damage = attack.effects.damage ?? NO_DAMAGE;
  let amount = fight.around(attacker, PURPOSE.damage, damage.amount, damage.spread);
  if (kind.weakExposed !== 'never' && attack.weakShare > 0 && meetsWeakPoint(fight, attacker, victim, attack, kind)) {
    amount = kind.weakLethal ? Infinity : amount * kind.weakMultiplier;
  }
  if (damage.critChance > 0 && fight.chance(attacker, PURPOSE.crit) < damage.critChance) amount *= damage.critMultiplier;
  if (fight.marked[victim] !== 1) amount *= fight.marked[victim];
  if (landing.guarded > 0) amount *= 1 - landing.guarded;
  if (fight.blockUntil[victim] > fight.now) amount *= 1 - blockedShare(fight, victim, landing);
  const guarded = kind.guardCosine <= -1 || fromAhead(fight, victim, landing, kind.guardCosine);
  const dealt =
    amount === Infinity
      ? takeAll(fight, attacker, victim, number)
      : hurt(fight, EVENT.hit, attacker, victim, number, amount, damage.type, guarded);
  if (kind.player !== null) recordExposure(fight, landing, attack, dealt);
  fight.hurtBy[victim] = attacker;
  if (attack.effects.overTime) leave(fight, attacker, victim, number, attack.effects.overTime);
  if (fight.phase[victim] !== PHASE.idle && dealt >= fight.attackOf(victim, fight.attack[victim]).breakHit) {
    fight.jolts.push({
      attacker,
      victim,
      attack: number,
      stagger: 0,
      knockback: 0,
      crush: 0,
      x: landing.x,
      y: landing.y,
      breaks: BREAK.hit,
    });
  }
  leaveEffects(fight, landing, attack);
  if (!fight.alerted[victim] && (fight.urge[victim] !== URGE.home || kind.leashAnswers)) {
    alert(fight, victim);
    if (fight.alerted[victim]) tryAgainAt(fight, victim, fight.now);
  }
  if (fight.inTurns && !landing.counters) provoke(fight, landing);
}

function fromAhead(fight: Fight, unit: number, { x, y }: Landing, leastCosine: number): boolean {
  const dx = x - fight.xAt(unit, fight.now);
  const dy = y - fight.yAt(unit, fight.now);
  return fight.fx[unit] * dx + fight.fy[unit] * dy >= leastCosine * Math.sqrt(dx * dx + dy * dy) * (1 - 1e-12);
}

function meetsWeakPoint(fight: Fight, attacker: number, victim: number, attack: CompiledAttack, kind: CompiledUnit): boolean {
  return isExposed(fight, victim, kind) && fight.chance(attacker, PURPOSE.weakPoint) < attack.weakShare;
}

function isExposed(fight: Fight, victim: number, { weakExposed, weakStates }: CompiledUnit): boolean {
  switch (weakExposed) {
    case 'always':
      return true;
    case 'unshielded':
      return fight.shieldNow(victim) <= 0 && fight.lent[victim] <= 0;
    case 'staggered':
      return fight.now < fight.staggeredUntil[victim];
    case 'states':
      return weakStates[fight.state[victim]];
    case 'never':
      return false;
  }
}

/** A lethal weak point: all that is left of shields and health. */
function takeAll(fight: Fight, attacker: number, victim: number, attack: number): number {
  const absorbed = fight.shieldNow(victim) + takeLent(fight, victim, Infinity);
  const health = fight.healthNow(victim);
  setShield(fight, victim, 0);
  fight.log.add(fight.now, EVENT.hit, attacker, victim, attack, health, 0, health + absorbed, absorbed);
  note(fight, attacker, victim, health + absorbed);
  leaveHealth(fight, attacker, victim, attack, 0);
  return health + absorbed;
}

/**
 * Damage from resistance on; direct hits and ticks alike.
 * @returns dealt: after armour
 */
export function hurt(
  fight: Fight,
  event: number,
  attacker: number,
  victim: number,
  attack: number,
  amount: number,
  type: number,
  guarded: boolean,
): number {
  const kind = fight.kinds[victim];
  const { now } = fight;
  const { armour, minimumDamage, resist, shield } = kind;
  let dealt = amount;
  if (guarded) {
    const taken = type >= 0 && type < resist.length ? 1 - resist[type] : 1;
    dealt = taken <= 0 ? 0 : Math.max(amount * taken - armour, Math.min(amount * taken, minimumDamage), 0);
  }
  let absorbed = 0;
  if (fight.lent[victim] > 0 && dealt > 0) absorbed = takeLent(fight, victim, dealt);
  if (shield > 0 && dealt > absorbed) {
    const held = fight.shieldNow(victim);
    const stopped = Math.min(held, dealt - absorbed);
    // The two together never come to more than the hit, however they are rounded.
    absorbed = Math.min(dealt, absorbed + stopped);
    setShield(fight, victim, held - stopped);
    delayShield(fight, victim);
  }
  const through = dealt - absorbed;
  const health = fight.healthNow(victim);
  let left = health - through;
  if (kind.gates.length > 0 && through > 0) left = Math.max(left, gateAt(fight, victim, kind, health, left));
  if (left < DEAD_BELOW * kind.maxHealth) left = 0;
  const lost = health - left <= through ? health - left : through;
  fight.log.add(now, event, attacker, victim, attack, lost, through - lost, dealt, absorbed);
  if (dealt > 0) note(fight, attacker, victim, dealt);
  leaveHealth(fight, attacker, victim, attack, left);
  return dealt;
}

/**
 * Health at which a gate that holds stops the damage; −1 where none does. One that lies above its health already (it was
 * killed outright and came back with less) is behind it: damage never gives health.
 */
function gateAt(fight: Fight, victim: number, { gates }: CompiledUnit, health: number, left: number): number {
  for (let g = 0; g < gates.length; g++) {
    if (left >= gates[g].health || gates[g].health > health || fight.gatesPassed[victim] & (1 << g) || !gates[g].holds) continue;
    if (!(fight.gatesHeld[victim] & (1 << g))) {
      fight.gatesHeld[victim] |= 1 << g;
      fight.log.add(fight.now, EVENT.gate, victim, -1, g, 0);
    }
    return gates[g].health;
  }
  return -1;
}

/** What others will want to know: when it was hurt last, how much lately, by whom. Damage of the window may stagger it. */
function note(fight: Fight, attacker: number, victim: number, dealt: number): void {
  const { now } = fight;
  const kind = fight.kinds[victim];
  regenerateFrom(fight, victim, fight.ends(victim, kind.regenDelay));
  fight.hurtAt[victim] = now;
  fight.dealt[attacker] += dealt;
  if (kind.targeting.tracksHarm) {
    const pair = victim * fight.compiled.capacity + attacker;
    fight.harm.set(pair, (fight.harm.get(pair) ?? 0) + dealt);
  }
  if (kind.remembers === 0) return;
  remember(fight, victim, dealt);
  if (kind.staggerAt === 0 || now < fight.steadyUntil[victim]) return;
  const recent = fight.recent[victim];
  let sum = 0;
  for (let i = 0; i < recent.length; i += 2)
    if (recent[i] > now - kind.staggerWindow && recent[i] >= fight.steadyUntil[victim]) sum += recent[i + 1];
  if (sum < kind.staggerAt) return;
  steady(fight, victim, fight.ends(victim, kind.staggerFor + kind.staggerImmunity));
  fight.jolts.push({ attacker, victim, attack: -1, stagger: kind.staggerFor, knockback: 0, crush: 0, x: 0, y: 0, breaks: -1 });
}

function leaveHealth(fight: Fight, attacker: number, victim: number, attack: number, left: number): void {
  setHealth(fight, victim, left);
  if (left === 0 && fight.isAlive[victim] && !fight.dying.some(({ unit }) => unit === victim)) {
    fight.dying.push({ unit: victim, by: attacker, attack });
  }
}

/** What of a hit a victim's window looks at: nothing, whose it is, or which attack of whose: a number of its own for each. */
function windowKey(fight: Fight, attacker: number, victim: number, attack: number): number {
  const { attackRoom } = fight.compiled;
  switch (fight.kinds[victim].windowScope) {
    case 'any':
      return -1;
    case 'attacker':
      return attacker * (attackRoom + 1) + attackRoom;
    case 'attack':
      return attacker * (attackRoom + 1) + attack;
  }
}

function windowStops(fight: Fight, attacker: number, victim: number, attack: number): boolean {
  if (fight.kinds[victim].window === 0) return false;
  const windows = fight.windows[victim];
  const at = windows.indexOf(windowKey(fight, attacker, victim, attack));
  return at >= 0 && fight.now < fight.windowEnds[victim][at];
}

function openWindow(fight: Fight, attacker: number, victim: number, attack: number): void {
  const { window } = fight.kinds[victim];
  if (window === 0) return;
  const key = windowKey(fight, attacker, victim, attack);
  const windows = fight.windows[victim];
  const ends = fight.windowEnds[victim];
  let at = windows.indexOf(key);
  if (at < 0) at = ends.findIndex((end) => end <= fight.now); // one that is over makes room
  if (at < 0) at = ends.length;
  windows[at] = key;
  ends[at] = fight.ends(victim, window);
}

/** No window is open. */
export function closeWindows(fight: Fight, unit: number): void {
  fight.windows[unit].length = fight.windowEnds[unit].length = 0;
}
