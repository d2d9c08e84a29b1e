/** Dead is dead: what ends with a unit, what runs on without it, and how it may come back. */
import { DOING } from '../../record/doing';
import { BREAK, EVENT } from '../../record/log';
import { ENEMY } from '../../record/sides';
import type { Fight } from '../fight';
import { refit } from '../mind/changes';
import { begin } from '../mind/states';
import { NOBODY, PHASE, TASK } from '../numbers';
import { forgetThreats } from '../player/threats';
import { tryAgainAt } from '../time/again';
import { DUE } from '../time/queue';
import { defeat, undefeat } from '../waves/counts';
import { admitWaiting } from '../waves/waiting';
import { checkWaves } from '../waves/waves';
import { dropTask, interrupt, windingUp } from './interrupt';
import { freeSlots } from './slots';
import { markBurst } from './strike';

/** A unit at 0 health dies, or goes down where somebody may help it up. */
export function die(fight: Fight, unit: number, by: number, attack: number): void {
  const { player } = fight.kinds[unit];
  if (player !== null && player.downs && fight.livesLeft[unit] > 0 && fight.standing > 1) return goDown(fight, unit, by, attack);
  leaveField(fight, unit);
  fight.diedAt[unit] = fight.now;
  fight.log.add(fight.now, EVENT.death, unit, by, attack);
  endOf(fight, unit);
  const { revivableFor, revivals, deathAttack, type } = fight.kinds[unit];
  fight.killed[type]++;
  if (revivableFor > 0 && fight.revived[unit] < revivals) fight.fallen.push({ unit, until: fight.now + revivableFor });
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
  if (fight.summoner[unit] !== NOBODY) fight.helpers[fight.summoner[unit]]--;
  if (fight.isMember[unit]) fight.standing--;
  fight.aliveOfType[fight.kinds[unit].type]--;
  defeat(fight, unit);
  if (fight.side[unit] === ENEMY) admitWaiting(fight);
  checkWaves(fight);
}

/** Its timers end; whoever was winding up against it alone breaks off and chooses anew. */
function leaveField(fight: Fight, unit: number): void {
  fight.stand(unit);
  fight.isAlive[unit] = 0;
  fight.overTime.endOn(unit);
  fight.ills[unit].length = 0;
  fight.recent[unit].length = 0;
  fight.serial[unit]++;
  fight.phase[unit] = PHASE.idle;
  if (fight.task[unit] !== TASK.none) dropTask(fight, unit);
  fight.comboAttack[unit] = fight.owedAttack[unit] = NOBODY;
  freeSlots(fight, unit);
  forgetThreats(fight, unit);
  fight.shots.stale = true;
  fight.crowd.clear();
  remove(fight.alive, unit);
  remove(fight.living[fight.side[unit]], unit);
  for (let i = 0; i < fight.alive.length; i++) {
    const other = fight.alive[i];
    if (fight.target[other] === unit) {
      fight.target[other] = NOBODY;
      fight.boundUntil[other] = 0;
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
  fight.use[unit] = fight.nextUse(fight.now + attack.cue);
  fight.struck[unit].length = 0;
  const whole = { ...attack, areaDelay: attack.areaDelay + attack.windup };
  markBurst(fight, unit, number, whole, fight.x[unit], fight.y[unit]);
}

function goDown(fight: Fight, unit: number, by: number, attack: number): void {
  const player = fight.kinds[unit].player!;
  leaveField(fight, unit);
  fight.log.add(fight.now, EVENT.down, unit, by, attack);
  fight.isDown[unit] = 1;
  fight.livesLeft[unit]--;
  fight.standing--;
  fight.queue.push(fight.now + player.bleedOut, DUE.bleedOut, unit, fight.serial[unit], 0);
}

/** Nobody came in time. */
export function bleedOut(fight: Fight, unit: number): void {
  if (!fight.isDown[unit]) return;
  fight.isDown[unit] = 0;
  fight.diedAt[unit] = fight.now;
  fight.killed[fight.kinds[unit].type]++;
  fight.log.add(fight.now, EVENT.death, unit, fight.hurtBy[unit], -1);
}

/** A friend has helped it up. */
export function rescue(fight: Fight, helper: number, unit: number): void {
  if (!fight.isDown[unit]) return;
  fight.isDown[unit] = 0;
  fight.standing++;
  const kind = fight.kinds[unit];
  comeBack(fight, helper, unit, -1, (kind.player?.rescueHealth ?? 1) * kind.maxHealth);
}

/** A fallen unit stands again: health as set, effects and timers cleared, in its first state. */
export function revive(fight: Fight, reviver: number, unit: number, attack: number, health: number): void {
  fight.fallen.splice(
    fight.fallen.findIndex((one) => one.unit === unit),
    1,
  );
  fight.revived[unit]++;
  fight.aliveOfType[fight.kinds[unit].type]++;
  if (fight.summoner[unit] !== NOBODY) fight.helpers[fight.summoner[unit]]++;
  if (fight.isMember[unit]) fight.standing++;
  undefeat(fight, unit);
  comeBack(fight, reviver, unit, attack, health);
}

function comeBack(fight: Fight, by: number, unit: number, attack: number, health: number): void {
  const { now } = fight;
  fight.isAlive[unit] = 1;
  insert(fight.alive, unit);
  insert(fight.living[fight.side[unit]], unit);
  fight.crowd.clear();
  fight.shots.stale = true;
  fight.state[unit] = fight.kinds[unit].startsIn;
  fight.stateEntries[unit]++;
  fight.slowed[unit] = fight.lent[unit] = 0;
  fight.marked[unit] = 1;
  begin(fight, unit);
  refit(fight, unit);
  const kind = fight.kinds[unit];
  fight.health[unit] = Math.max(kind.maxHealth * 1e-6, Math.min(kind.maxHealth, health));
  fight.healthAt[unit] = fight.regenFrom[unit] = now;
  fight.staggeredUntil[unit] = fight.steadyUntil[unit] = fight.pauseUntil[unit] = 0;
  fight.windows[unit].length = fight.windowEnds[unit].length = 0;
  fight.dodgeUntil[unit] = fight.blockUntil[unit] = 0;
  fight.urge[unit] = 0;
  fight.target[unit] = fight.attack[unit] = fight.attackTarget[unit] = NOBODY;
  fight.boundUntil[unit] = 0;
  fight.nextTarget[unit] = now;
  fight.nextLook[unit] = now;
  fight.noticing[unit] = 0;
  fight.idle(unit);
  const room = fight.compiled.attackRoom;
  for (let a = 0; a < kind.attacks.length; a++) fight.readyAt[unit * room + a] = now;
  if (fight.nextReady[unit] >= 0) fight.nextReady[unit] = now;
  fight.log.add(now, EVENT.revive, by, unit, attack, fight.health[unit]);
  fight.doing[unit] = fight.alerted[unit] ? DOING.noTarget : DOING.unaware;
  fight.log.add(now, EVENT.doing, unit, NOBODY, fight.doing[unit]);
}

function remove(list: number[], unit: number): void {
  list.splice(list.indexOf(unit), 1);
}

/** Lists of the living are in order of their numbers. */
function insert(list: number[], unit: number): void {
  let at = list.length;
  while (at > 0 && list[at - 1] > unit) at--;
  list.splice(at, 0, unit);
}
