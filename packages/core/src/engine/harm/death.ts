/** Dead is dead: what ends with a unit, what runs on without it, and how it may come back. */
import { DOING } from '../../record/doing';
import { BREAK, EVENT } from '../../record/log';
import { ENEMY } from '../../record/sides';
import type { Fight } from '../fight';
import { refit } from '../mind/changes';
import { lookAgain } from '../mind/senses';
import { startOver } from '../mind/states';
import { setUrge } from '../mind/urges';
import { bind, dropTarget, reconsiderAt } from '../mind/wanted';
import { NOBODY, PHASE, TASK, URGE } from '../numbers';
import { callOff } from '../player/called-off';
import { dropGuard } from '../player/guard';
import { loseLife } from '../player/supplies';
import { dropTask } from '../player/task';
import { announceOfDead, forgetThreats } from '../player/threats';
import { canComeBack } from '../rounds/places';
import { tryAgainAt } from '../time/again';
import { DUE } from '../time/queue';
import { defeat, undefeat } from '../waves/counts';
import * as roll from '../waves/roll';
import { admitWaiting } from '../waves/waiting';
import { checkWaves } from '../waves/waves';
import { closeWindows } from './damage';
import { interrupt, windingUp } from './interrupt';
import { clearAll, endAll } from './lasting';
import { endCooldowns } from './readiness';
import { freeSlots } from './slots';
import { markBurst } from './strike';
import { regenerateFrom, setHealth } from './vitals';

/** A unit at 0 health dies, or goes down where somebody may help it up. */
export function die(fight: Fight, unit: number, by: number, attack: number): void {
  const { player } = fight.kinds[unit];
  if (player !== null && player.downs && fight.livesLeft[unit] > 0 && fight.standing > 1) return goDown(fight, unit, by, attack);
  leaveField(fight, unit);
  fight.log.add(fight.now, EVENT.death, unit, by, attack);
  endOf(fight, unit);
  roll.die(fight, unit);
  const { revivableFor, revivals, deathAttack } = fight.kinds[unit];
  if (revivableFor > 0 && fight.revived[unit] < revivals) fight.fallen.push({ unit, until: fight.ends(unit, revivableFor) });
  if (deathAttack >= 0) deathThroes(fight, unit, deathAttack);
}

/** A unit leaves alive: home for good, too far away, replaced. */
export function depart(fight: Fight, unit: number, why: number): void {
  leaveField(fight, unit);
  fight.log.add(fight.now, EVENT.gone, unit, NOBODY, why);
  endOf(fight, unit);
}

/** What its leaving means to its wave, its summoner and those who wait for room. */
function endOf(fight: Fight, unit: number): void {
  roll.leave(fight, unit);
  defeat(fight, unit);
  // Those of a wave alone wait for room.
  if (fight.side[unit] === ENEMY || fight.wave[unit] >= 0) admitWaiting(fight);
  checkWaves(fight);
}

/** Its timers end; whoever was winding up against it alone breaks off and chooses anew. */
function leaveField(fight: Fight, unit: number): void {
  fight.stand(unit);
  roll.fall(fight, unit);
  fight.overTime.endOn(unit);
  endAll(fight, unit);
  if (fight.phase[unit] !== PHASE.idle) callOff(fight, unit);
  fight.ceases(unit);
  if (fight.task[unit] !== TASK.none) dropTask(fight, unit);
  freeSlots(fight, unit);
  forgetThreats(fight, unit);
  for (let i = 0; i < fight.alive.length; i++) {
    const other = fight.alive[i];
    if (fight.target[other] === unit) {
      dropTarget(fight, other);
      bind(fight, other, 0);
      if (fight.phase[other] === PHASE.idle && fight.alerted[other]) tryAgainAt(fight, other, fight.now);
    }
    if (fight.attackTarget[other] === unit && windingUp(fight, other) && isForOne(fight, other)) interrupt(fight, other, BREAK.targetDied);
  }
}

/** The attack under way is for its target alone. */
function isForOne(fight: Fight, unit: number): boolean {
  const { traits, limit, areaAbout } = fight.attackOf(unit, fight.attack[unit]);
  switch (traits.forOne) {
    case 'always':
      return true;
    case 'limitedToOne':
      return limit === 1;
    case 'aboutTarget':
      return areaAbout === 'target';
    case 'never':
      return false;
  }
}

/** Its last attack, done where it fell by nobody: settled with whatever else hits at this instant's next pass. */
function deathThroes(fight: Fight, unit: number, number: number): void {
  const attack = fight.attackOf(unit, number);
  fight.beginUse(unit, fight.now + attack.cue);
  markBurst(fight, unit, number, attack.areaDelay + attack.windup, fight.x[unit], fight.y[unit]);
  announceOfDead(fight, unit, number, attack);
}

function goDown(fight: Fight, unit: number, by: number, attack: number): void {
  const player = fight.kinds[unit].player!;
  leaveField(fight, unit);
  fight.log.add(fight.now, EVENT.down, unit, by, attack);
  roll.goDown(fight, unit);
  loseLife(fight, unit);
  fight.queue.push(fight.ends(unit, player.bleedOut), DUE.bleedOut, unit, fight.serial[unit], 0);
}

/** Nobody came in time. */
export function bleedOut(fight: Fight, unit: number): void {
  if (!fight.isDown[unit]) return;
  roll.die(fight, unit);
  fight.log.add(fight.now, EVENT.death, unit, fight.hurtBy[unit], -1);
}

/** A friend has helped it up. */
export function rescue(fight: Fight, helper: number, unit: number): void {
  if (!fight.isDown[unit] || !hasRoom(fight, helper, unit)) return;
  roll.getUp(fight, unit);
  const kind = fight.kinds[unit];
  comeBack(fight, helper, unit, -1, (kind.player?.rescueHealth ?? 1) * kind.maxHealth);
}

/** A fallen unit stands again: health as set, effects and timers cleared, in its first state. */
export function revive(fight: Fight, reviver: number, unit: number, attack: number, health: number): void {
  if (!hasRoom(fight, reviver, unit)) return;
  fight.fallen.splice(
    fight.fallen.findIndex((one) => one.unit === unit),
    1,
  );
  roll.rejoin(fight, unit);
  undefeat(fight, unit);
  comeBack(fight, reviver, unit, attack, health);
}

/** Nobody stands again on top of another: where a board is full it lies on, and that is told. */
function hasRoom(fight: Fight, by: number, unit: number): boolean {
  if (canComeBack(fight, unit)) return true;
  fight.log.add(fight.now, EVENT.noPlace, by, unit, fight.kindNumber[unit]);
  return false;
}

function comeBack(fight: Fight, by: number, unit: number, attack: number, health: number): void {
  const { now } = fight;
  roll.rise(fight, unit);
  clearAll(fight, unit);
  startOver(fight, unit);
  refit(fight, unit);
  const kind = fight.kinds[unit];
  setHealth(fight, unit, Math.max(kind.maxHealth * 1e-6, Math.min(kind.maxHealth, health)));
  regenerateFrom(fight, unit, now);
  closeWindows(fight, unit);
  dropGuard(fight, unit);
  setUrge(fight, unit, URGE.none);
  dropTarget(fight, unit);
  bind(fight, unit, 0);
  reconsiderAt(fight, unit, now);
  lookAgain(fight, unit);
  fight.idle(unit);
  fight.pauseFor(unit, 0);
  endCooldowns(fight, unit);
  fight.log.add(now, EVENT.revive, by, unit, attack, fight.health[unit]);
  fight.setDoing(unit, fight.alerted[unit] ? DOING.noTarget : DOING.unaware);
  fight.log.add(now, EVENT.doing, unit, NOBODY, fight.doing[unit]);
}
