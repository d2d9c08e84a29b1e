/** Announced attacks as a player sees them: what is coming, when, what could be done about it, and what came of it. */
import { EVENT, MISS, VERDICT } from '../../record/log';
import { microsecondsUp, SECOND } from '../../record/time';
import { within } from '../body/facing';
import { inReach } from '../body/reach';
import type { Landing, Threat } from '../records';
import type { Fight } from '../fight';
import { seesPast } from '../mind/senses';
import { setUrge } from '../mind/urges';
import { ANSWER, URGE } from '../numbers';
import type { CompiledAnswer, CompiledAttack } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { DUE } from '../time/queue';
import { longest, outAt, outOfArea, ranged, underWay, untilItLeaves, wayOut } from './coming';

/** Whether there is anybody who would read it, and anything in it to be answered. */
const isRead = (fight: Fight, { targets, traits }: CompiledAttack): boolean =>
  fight.compiled.hasPlayers && targets === 'foes' && traits.strikes;

/** An attack has begun: from its cue on it can be read. */
export function announce(fight: Fight, unit: number, attack: CompiledAttack): void {
  if (isRead(fight, attack)) fight.queue.push(fight.now + attack.cue, DUE.cue, unit, fight.serial[unit], 0);
}

/** The same for what the dead leave, whose use is its own. */
export function announceOfDead(fight: Fight, unit: number, number: number, attack: CompiledAttack): void {
  if (isRead(fight, attack)) fight.queue.push(fight.now + attack.cue, DUE.cue, unit, fight.use[unit], number + 1);
}

/** The cue of an attack has come: every player it threatens sees it, or does not. */
export function cue(fight: Fight, attacker: number): void {
  const attack = fight.attackOf(attacker, fight.attack[attacker]);
  const begunAt = fight.attackStart[attacker];
  for (const member of fight.players) {
    if (fight.side[member] === fight.side[attacker] || !fight.isAlive[member] || !threatens(fight, attacker, attack, member)) continue;
    const leavesAt = begunAt + untilItLeaves(fight, attacker, attack, member);
    const hitAt = leavesAt + underWay(fight, attacker, attack, member);
    perceive(fight, { attacker, use: fight.use[attacker], attack: fight.attack[attacker], begunAt, leavesAt, hitAt }, attack, member);
  }
}

/** The same of a death attack: it has left its owner, and strikes where that fell. */
export function cueOfDead(fight: Fight, attacker: number, use: number, number: number): void {
  const attack = fight.attackOf(attacker, number);
  const begunAt = fight.announced[use] - attack.cue;
  const what = { attacker, use, attack: number, begunAt, leavesAt: begunAt, hitAt: begunAt + attack.windup + attack.areaDelay };
  for (const member of fight.players) {
    if (fight.side[member] === fight.side[attacker] || !fight.isAlive[member]) continue;
    if (inReach(outOfArea(fight, attacker, attack, member, use), 0)) perceive(fight, what, attack, member);
  }
}

/** Whether an attack would strike a unit as things stand. */
function threatens(fight: Fight, attacker: number, attack: CompiledAttack, member: number): boolean {
  if (fight.attackTarget[attacker] === member) return true;
  const { escape } = attack.traits;
  if (escape === 'reach')
    return attack.limit > 1 && inReach(fight.gap(attacker, member), attack.rangeMax) && within(fight, attacker, member, attack.arcCosine);
  return escape === 'area' && inReach(outOfArea(fight, attacker, attack, member), 0);
}

/** What is coming, as it is announced. */
type Announced = Pick<Threat, 'attacker' | 'use' | 'attack' | 'begunAt' | 'leavesAt' | 'hitAt'>;

function perceive(fight: Fight, what: Announced, attack: CompiledAttack, member: number): void {
  const player = fight.kinds[member].player!;
  const { now } = fight;
  const { attacker, use, attack: number, begunAt, leavesAt, hitAt } = what;
  const threat: Threat = {
    attacker,
    use,
    attack: number,
    begunAt,
    leavesAt,
    hitAt,
    until: begunAt + longest(attack),
    off: false,
    answer: -1,
    verdict: VERDICT.notSeen,
    margin: (hitAt - now) / SECOND - player.reactionMean - quickest(fight, attacker, attack, member, use),
  };
  const threats = fight.threats[member];
  for (let i = threats.length - 1; i >= 0; i--) if (threats[i].until < now) threats.splice(i, 1);
  let followed = 0;
  for (const { verdict, off, hitAt: other } of threats) if (verdict !== VERDICT.notSeen && !off && other >= now) followed++;
  threats.push(threat);
  const seen = followed < player.follows && within(fight, member, attacker, player.viewCosine) && seesPast(fight, member, attacker);
  if (!seen) return say(fight, member, threat, -1, VERDICT.notSeen);
  if (player.mistakes > 0 && fight.chance(member, PURPOSE.mistake) < player.mistakes)
    return say(fight, member, threat, -1, VERDICT.mistake);
  threat.verdict = VERDICT.tooLate; // until it has reacted
  const reaction = microsecondsUp(fight.around(member, PURPOSE.answer, player.reactionMean, player.reactionSpread));
  threat.until = Math.max(threat.until, now + reaction);
  fight.queue.push(now + reaction, DUE.answer, member, 0, use);
}

export function say(fight: Fight, member: number, threat: Threat, answer: number, verdict: number): void {
  threat.answer = answer;
  threat.verdict = verdict;
  fight.log.add(fight.now, EVENT.answer, member, threat.attacker, threat.attack, answer, verdict, threat.margin);
}

/**
 * s that the quickest answer needs which works against an attack and which the player has, whatever its cooldown; Infinity
 * where none works. A dodge or block takes no time; stepping out takes the way at a run; interrupting, the wind-up.
 */
function quickest(fight: Fight, attacker: number, attack: CompiledAttack, member: number, use = fight.use[attacker]): number {
  const kind = fight.kinds[member];
  let least = Infinity;
  for (const { kind: answer, protects, distance, window, way } of kind.player!.answers) {
    if (!(attack.answers & (1 << answer))) continue;
    if (answer === ANSWER.block || (answer === ANSWER.dodge && protects)) return 0;
    if (answer === ANSWER.dodge && dodgesOut(fight, { attacker, use }, attack, member, way, distance))
      least = Math.min(least, window / SECOND);
    if (answer === ANSWER.stepOut) least = Math.min(least, wayOut(fight, attacker, attack, member, use) / kind.run);
    if (answer === ANSWER.breakLine && fight.ground.walls.length > 0 && ranged(attack))
      least = Math.min(least, fight.radius[member] / kind.run);
    if (answer === ANSWER.interrupt) {
      for (const own of kind.attacks) if (breaks(own, attack)) least = Math.min(least, own.windup / SECOND);
    }
  }
  return least;
}

/** Whether a dodge that protects nobody by itself carries a member out of it, walls or not. */
function dodgesOut(
  fight: Fight,
  what: Pick<Threat, 'attacker' | 'use'>,
  attack: CompiledAttack,
  member: number,
  way: CompiledAnswer['way'],
  distance: number,
): boolean {
  const x = fight.xAt(member, fight.now);
  const y = fight.yAt(member, fight.now);
  const apart = fight.apart(member, what.attacker);
  const ux = apart > 0 ? (x - fight.xAt(what.attacker, fight.now)) / apart : 1;
  const uy = apart > 0 ? (y - fight.yAt(what.attacker, fight.now)) / apart : 0;
  const [dx, dy] = way === 'sideways' ? [0 - uy, ux] : way === 'away' ? [ux, uy] : [0 - ux, 0 - uy];
  return outAt(fight, member, what, attack, x + dx * distance, y + dy * distance);
}

export function breaks(own: CompiledAttack, attack: CompiledAttack): boolean {
  const { stagger, damage } = own.effects;
  return (stagger !== null && attack.breakStagger) || (damage?.amount ?? 0) - (damage?.spread ?? 0) >= attack.breakHit;
}

/** Whether a member's dodge or full block keeps a hit from landing: which miss it is then; −1: neither. */
export function defends(fight: Fight, victim: number, attack: CompiledAttack, x: number, y: number): number {
  const { now } = fight;
  if (now >= fight.dodgeFrom[victim] && now < fight.dodgeUntil[victim] && attack.answers & (1 << ANSWER.dodge)) return MISS.dodged;
  if (now < fight.blockUntil[victim] && fight.blockShare[victim] >= 1 && attack.answers & (1 << ANSWER.block) && ahead(fight, victim, x, y))
    return MISS.warded;
  return -1;
}

/** Share of a hit that a block takes off: only from ahead, and where the attack lets itself be blocked. */
export function blockedShare(fight: Fight, victim: number, { attacker, attack, x, y }: Landing): number {
  return fight.attackOf(attacker, attack).answers & (1 << ANSWER.block) && ahead(fight, victim, x, y) ? fight.blockShare[victim] : 0;
}

/** A place is on the side a unit faces. */
function ahead(fight: Fight, unit: number, x: number, y: number): boolean {
  return fight.fx[unit] * (x - fight.xAt(unit, fight.now)) + fight.fy[unit] * (y - fight.yAt(unit, fight.now)) >= 0;
}

/** A hit landed on a player: which answer was tried, and why it failed. Touch announces nothing and is left out. */
export function recordExposure(
  fight: Fight,
  { attacker, victim, attack: number, use }: Landing,
  attack: CompiledAttack,
  dealt: number,
): void {
  if (!attack.traits.chosen || fight.side[attacker] === fight.side[victim]) return;
  const threat = fight.threats[victim].find((one) => one.use === use && one.attacker === attacker);
  if (threat) {
    const verdict = threat.margin === -Infinity ? VERDICT.none : threat.verdict;
    fight.log.add(fight.now, EVENT.exposed, attacker, victim, number, threat.answer, verdict, threat.margin, dealt);
    return;
  }
  // It was not meant for it when it was announced: it came into its way since.
  const margin =
    (fight.now - fight.announced[use]) / SECOND - fight.kinds[victim].player!.reactionMean - quickest(fight, attacker, attack, victim);
  fight.log.add(
    fight.now,
    EVENT.exposed,
    attacker,
    victim,
    number,
    -1,
    margin === -Infinity ? VERDICT.none : VERDICT.notSeen,
    margin,
    dealt,
  );
}

/** A unit that is gone threatens nobody, and minds nothing. */
export function forgetThreats(fight: Fight, unit: number): void {
  fight.threats[unit].length = 0;
  if (fight.urge[unit] !== URGE.none) setUrge(fight, unit, URGE.none);
}
