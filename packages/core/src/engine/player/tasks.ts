/** What a player does besides fighting: reloading, a healing item, helping a friend up, taking cover, running. */
import { farEnough, inReach } from '../body/reach';
import { cosine, sine } from '../body/rotation';
import { forgetWay } from '../body/route';
import type { Fight } from '../fight';
import { rescue } from '../harm/death';
import { heal } from '../harm/healing';
import { setPace } from '../mind/changes';
import { setUrge, urgeTowards } from '../mind/urges';
import { NOBODY, PHASE, TASK, URGE } from '../numbers';
import type { CompiledPlayer } from '../unit-tables';
import { tryAgainAt } from '../time/again';
import { RETHINK } from '../tuning';
import { endEvasion } from './answers';
import { reload, takeDose } from './supplies';
import { beginTask, dropTask, intend } from './task';

/** Phase of a step: every player that stands looks after itself and its friends. */
export function mindThemselves(fight: Fight): void {
  for (const member of fight.players) {
    if (!fight.isAlive[member] || fight.now < fight.staggeredUntil[member]) continue;
    const player = fight.kinds[member].player!;
    if (fight.urge[member] === URGE.evade && fight.now >= fight.urgeUntil[member]) endEvasion(fight, member);
    if (fight.urge[member] === URGE.evade) continue;
    choosePace(fight, member, player);
    if (fight.task[member] === TASK.rescue) watchRescue(fight, member);
    if (fight.task[member] !== TASK.none || fight.phase[member] !== PHASE.idle) continue;
    if (wantsDose(fight, member, player)) beginTask(fight, member, TASK.dose, player.doseTakes, NOBODY);
    else if (wantsReload(fight, member, player)) beginTask(fight, member, TASK.reload, player.reload, NOBODY);
    else if (player.rescuesWithin > 0 && seeToTheFallen(fight, member, player)) continue;
    else if (player.coverBelow > 0) mindCover(fight, member, player);
  }
}

function choosePace(fight: Fight, member: number, { runsWithin }: CompiledPlayer): void {
  if (runsWithin < 0) return;
  const kind = fight.kinds[member];
  const near = fight.target[member] !== NOBODY && fight.bearingGap[member] < runsWithin;
  setPace(fight, member, near || fight.urge[member] !== URGE.none ? kind.run : kind.walk);
}

function wantsDose(fight: Fight, member: number, { doseBelow }: CompiledPlayer): boolean {
  return fight.doses[member] > 0 && fight.healthNow(member) < doseBelow * fight.kinds[member].maxHealth;
}

/** Empty, or not full with nobody to shoot at. */
function wantsReload(fight: Fight, member: number, { rounds }: CompiledPlayer): boolean {
  if (rounds === 0) return false;
  return fight.rounds[member] === 0 || (fight.rounds[member] < rounds && fight.target[member] === NOBODY);
}

export function finishTask(fight: Fight, member: number, serial: number, task: number): void {
  if (!fight.isAlive[member] || fight.taskSerial[member] !== serial) return;
  const player = fight.kinds[member].player!;
  const other = fight.taskOf[member];
  dropTask(fight, member);
  if (task === TASK.reload) reload(fight, member);
  else if (task === TASK.dose) {
    takeDose(fight, member);
    heal(fight, member, member, -1, player.doseAmount + player.doseShare * fight.kinds[member].maxHealth);
  } else rescue(fight, member, other);
  if (fight.alerted[member]) tryAgainAt(fight, member, fight.now);
}

/** Goes to the nearest friend who is down, unless a foe is too near; helps once in reach. */
function seeToTheFallen(fight: Fight, member: number, player: CompiledPlayer): boolean {
  let fallen: number = NOBODY;
  let least = player.rescuesWithin;
  for (const other of fight.players) {
    if (!fight.isDown[other] || fight.side[other] !== fight.side[member]) continue;
    const gap = fight.gap(member, other);
    if (gap > least) continue;
    least = gap;
    fallen = other;
  }
  const going = fight.urge[member] === URGE.goTo && fight.taskOf[member] === fallen;
  if (fallen === NOBODY || (!going && tooClose(fight, member, player.rescueSafe))) {
    if (fight.urge[member] === URGE.goTo && fight.coverUntil[member] <= fight.now) setUrge(fight, member, URGE.none);
    return false;
  }
  if (inReach(least, fight.kinds[fallen].player!.rescueReach)) {
    setUrge(fight, member, URGE.still);
    beginTask(fight, member, TASK.rescue, fight.kinds[fallen].player!.rescueTakes, fallen);
    return true;
  }
  intend(fight, member, fallen);
  goTo(fight, member, fight.x[fallen], fight.y[fallen], Infinity);
  return true;
}

function tooClose(fight: Fight, member: number, least: number): boolean {
  return fight.living[1 - fight.side[member]].some((foe) => !farEnough(fight.gap(member, foe), least));
}

/** Whoever is helped may have died, or been pushed away. */
function watchRescue(fight: Fight, member: number): void {
  const other = fight.taskOf[member];
  if (!fight.isDown[other] || !inReach(fight.gap(member, other), fight.kinds[other].player!.rescueReach * 1.5)) dropTask(fight, member);
}

function goTo(fight: Fight, member: number, x: number, y: number, until: number): void {
  if (fight.urge[member] !== URGE.goTo || fight.urgeX[member] !== x || fight.urgeY[member] !== y) forgetWay(fight, member);
  urgeTowards(fight, member, URGE.goTo, x, y, fight.kinds[member].run, until);
}

/** Low on health, it looks for a place where none of those who are after it has a line to it, and stays for a while. */
function mindCover(fight: Fight, member: number, player: CompiledPlayer): void {
  const { now } = fight;
  if (fight.urge[member] === URGE.goTo) {
    if (now >= fight.urgeUntil[member]) {
      setUrge(fight, member, URGE.none);
      fight.nextCover[member] = now + player.coverStays;
    }
    return;
  }
  const { ground } = fight;
  const kind = fight.kinds[member];
  if (now < fight.nextCover[member] || ground.walls.length === 0 || fight.healthNow(member) >= player.coverBelow * kind.maxHealth) return;
  fight.nextCover[member] = now + RETHINK;
  const after = fight.living[1 - fight.side[member]].filter((foe) => fight.target[foe] === member);
  if (after.length === 0) return;
  const x = fight.xAt(member, now);
  const y = fight.yAt(member, now);
  for (let ring = 0; ring <= 3; ring++) {
    for (let way = 0; way < (ring === 0 ? 1 : 12); way++) {
      const toX = x + (cosine(way * 30) * player.coverRadius * ring) / 3;
      const toY = y + (sine(way * 30) * player.coverRadius * ring) / 3;
      if (!ground.isFree(kind.ground, toX, toY, fight.radius[member])) continue;
      if (
        after.some((foe) => !ground.blocked(fight.xAt(foe, now), fight.yAt(foe, now), fight.kinds[foe].muzzle, toX, toY, kind.height / 2))
      )
        continue;
      fight.coverUntil[member] = now + player.coverStays;
      return goTo(fight, member, toX, toY, fight.coverUntil[member]);
    }
  }
}
