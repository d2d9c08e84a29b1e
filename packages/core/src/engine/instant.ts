/** What happens at instants: everything due at one time, in its order, in passes until nothing new is due. */
import { EVENT } from '../record/log';
import { ENEMY, PARTY } from '../record/sides';
import { OUTCOME } from '../record/outcome';
import type { Fight } from './fight';
import { endPhase, settleAid, settleHit } from './harm/attack';
import { applyHit } from './harm/damage';
import { arrive, beginDash, meet } from './harm/charge';
import { sweepDashes } from './harm/dashes';
import { bleedOut, die } from './harm/death';
import { expire } from './harm/effects';
import { applyJolt } from './harm/jolts';
import { tick } from './harm/over-time';
import { endShot, settleImpact, sweepAll } from './harm/shots';
import { settleBurst, touchWith } from './harm/strike';
import { tryAtInstant } from './mind/choice';
import { alert } from './mind/senses';
import { NOBODY, PHASE } from './numbers';
import { beginBlock, beginDodge, decide, stepOutNow } from './player/answers';
import { finishTask } from './player/tasks';
import { strikeBack } from './rounds/counter';
import { cue, cueOfDead } from './player/threats';
import { type Due, DUE } from './time/queue';
import { MOST_EVENTS, MOST_PASSES, MOST_WORK } from './tuning';
import { allCame, enemiesLeft } from './waves/counts';
import { spawn } from './waves/spawns';
import { startWave, timeOut } from './waves/waves';

/** Runs every instant up to and including `until`, or to the end of the fight. @throws Error for a loop within one instant */
export function runInstants(fight: Fight, until: number): void {
  while (!fight.over && fight.queue.next <= until) {
    const time = fight.queue.next;
    fight.now = time;
    for (let passes = 0; fight.queue.next === time; passes++) {
      if (passes === MOST_PASSES) throw new Error(loopMessage(fight, time));
      runPass(fight);
    }
    if (fight.shots.stale) {
      sweepAll(fight);
      if (fight.dashers.length) sweepDashes(fight);
    }
    judge(fight, time >= fight.compiled.limit);
  }
}

/**
 * One pass: the events that are due now, in the order of their classes. Hits are settled first and applied together;
 * what they jolt and whom they kill follows before anything else. What the pass creates at this instant is due in the next.
 */
function runPass(fight: Fight): void {
  const { queue, landings, jolts } = fight;
  const count = queue.takeDue();
  let next = 0;
  while (next < count && queue.due[next].kind < DUE.bleedOut) carryOut(fight, queue.due[next++]);
  if (landings.length) {
    for (let i = 0; i < landings.length; i++) applyHit(fight, landings[i]);
    landings.length = 0;
  }
  if (jolts.length) {
    for (let i = 0; i < jolts.length; i++) applyJolt(fight, jolts[i]);
    jolts.length = 0;
  }
  if (fight.dying.length) buryTheDead(fight);
  while (next < count) carryOut(fight, queue.due[next++]);
}

function carryOut(fight: Fight, { kind, unit, serial, detail }: Due): void {
  const current = fight.serial[unit] === serial && fight.isAlive[unit] === 1;
  switch (kind) {
    case DUE.tick:
      return tick(fight, detail, serial);
    case DUE.shotEnd:
      return endShot(fight, detail, serial);
    case DUE.expiry:
      return expire(fight, unit);
    case DUE.aid:
      if (current) settleAid(fight, unit, detail);
      return;
    case DUE.task:
      return finishTask(fight, unit, serial, detail);
    case DUE.hit:
      if (current) settleHit(fight, unit, detail);
      return;
    case DUE.impact:
      return settleImpact(fight, detail, serial);
    case DUE.burst:
      return settleBurst(fight, detail, serial);
    case DUE.contact:
      return touchWith(fight, unit, detail);
    case DUE.bleedOut:
      if (fight.serial[unit] === serial) bleedOut(fight, unit);
      return;
    case DUE.phaseEnd:
      if (current) endPhase(fight, unit, detail);
      return;
    case DUE.wave:
      return startWave(fight, detail, serial);
    case DUE.timeout:
      return timeOut(fight, detail);
    case DUE.notice:
      if (fight.isAlive[unit] && fight.noticing[unit]) {
        alert(fight, unit);
        tryAtInstant(fight, unit);
      }
      return;
    case DUE.cue:
      if (detail > 0) cueOfDead(fight, unit, serial, detail - 1);
      else if (current) cue(fight, unit);
      return;
    case DUE.answer:
      return decide(fight, unit, detail);
    case DUE.dodge:
      return beginDodge(fight, unit, serial, detail);
    case DUE.block:
      return beginBlock(fight, unit, serial);
    case DUE.stepOut:
      return stepOutNow(fight, unit, serial);
    case DUE.choice:
      if (current && fight.choiceAt[unit] === fight.now) {
        fight.awaitChoice(unit, -1);
        tryAtInstant(fight, unit);
      }
      return;
    case DUE.counter:
      return strikeBack(fight, unit, serial, detail);
    case DUE.dash:
      if (current) beginDash(fight, unit);
      return;
    case DUE.dashMeets:
      return meet(fight, unit, serial, detail);
    case DUE.dashEnds:
      return arrive(fight, unit, detail);
    case DUE.spawn:
      return spawn(fight, serial, detail);
  }
}

/** Who is at 0 when deaths are settled is dead; help of the same instant came before. */
function buryTheDead(fight: Fight): void {
  const dying = fight.dying.splice(0).sort((a, b) => a.unit - b.unit);
  for (const { unit, by, attack } of dying) {
    die(fight, unit, by, attack);
    if (fight.defended[unit]) fight.pointLost = true;
    if (fight.attacked[unit]) fight.thingsLeft--;
  }
}

/** The end: at one instant party down beats a loss, and a loss victory; the time limit comes last. */
function judge(fight: Fight, limitReached: boolean): void {
  const { compiled } = fight;
  if (fight.standing === 0 && (compiled.party.length > 0 || allCame(fight, PARTY))) end(fight, OUTCOME.partyDown);
  else if (fight.pointLost) end(fight, OUTCOME.lost);
  else if (compiled.winsDestroyed && fight.thingsLeft === 0) end(fight, OUTCOME.cleared);
  else if (compiled.winsCleared && enemiesLeft(fight) === 0 && allCame(fight, ENEMY)) end(fight, OUTCOME.cleared);
  else if (limitReached) end(fight, compiled.winsSurvive ? OUTCOME.survived : OUTCOME.timeOut);
  else if (fight.log.length > MOST_EVENTS || fight.work > MOST_WORK) end(fight, OUTCOME.runaway);
}

function end(fight: Fight, outcome: number): void {
  if (fight.over) return;
  fight.over = true;
  fight.outcome = outcome;
  fight.log.add(fight.now, EVENT.end, NOBODY, NOBODY, outcome);
}

function loopMessage(fight: Fight, time: number): string {
  const busy = fight.alive.filter((unit) => fight.phase[unit] !== PHASE.idle || fight.choiceAt[unit] === time);
  const names = [...new Set(busy.map((unit) => fight.kinds[unit].name))].join(', ');
  return `at ${time / 1e6} s the fight goes round in circles without time passing; look at the attacks of ${names || 'the units'}`;
}
