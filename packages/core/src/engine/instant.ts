/** What happens at instants: everything due at one time, in its order, in passes until nothing new is due. */
import { endPhase, settleHit } from './attack';
import { tryAtInstant } from './choice';
import { applyHit, die } from './damage';
import { type Fight, PHASE } from './fight';
import { EVENT, OUTCOME } from './log';
import { DUE, type Due } from './queue';
import { tick } from './over-time';
import { alert } from './senses';
import { endShot, settleImpact, sweepAll } from './shots';
import { spawn, startWave } from './spawns';
import { MOST_EVENTS, MOST_PASSES } from './tuning';

/** Runs every instant up to and including `until`, or to the end of the fight. @throws Error for a loop within one instant */
export function runInstants(fight: Fight, until: number): void {
  while (!fight.over && fight.queue.next <= until) {
    const time = fight.queue.next;
    fight.now = time;
    for (let passes = 0; fight.queue.next === time; passes++) {
      if (passes === MOST_PASSES) throw new Error(loopMessage(fight, time));
      runPass(fight);
    }
    if (fight.shots.stale) sweepAll(fight);
    judge(fight, time >= fight.compiled.limit);
  }
}

/**
 * One pass: the events that are due now, in the order of their classes. Hits are settled first and applied together;
 * deaths follow before anything else. What the pass creates at this instant is due in the next pass.
 */
function runPass(fight: Fight): void {
  const { queue, landings } = fight;
  const count = queue.takeDue();
  let next = 0;
  while (next < count && queue.due[next].kind <= DUE.shotEnd) carryOut(fight, queue.due[next++]);
  if (landings.length) {
    for (let i = 0; i < landings.length; i++) applyHit(fight, landings[i]);
    landings.length = 0;
  }
  if (fight.dying.length) buryTheDead(fight);
  while (next < count) carryOut(fight, queue.due[next++]);
}

function carryOut(fight: Fight, { kind, unit, serial, detail }: Due): void {
  const current = fight.serial[unit] === serial && fight.isAlive[unit] === 1;
  switch (kind) {
    case DUE.tick:
      tick(fight, detail, serial);
      break;
    case DUE.hit:
      if (current) settleHit(fight, unit, detail, fight.landings);
      break;
    case DUE.impact:
      settleImpact(fight, detail, serial, fight.landings);
      break;
    case DUE.shotEnd:
      endShot(fight, detail, serial);
      break;
    case DUE.phaseEnd:
      if (current) endPhase(fight, unit, detail);
      break;
    case DUE.wave:
      startWave(fight, detail);
      break;
    case DUE.notice:
      if (fight.isAlive[unit] && fight.noticing[unit]) {
        alert(fight, unit);
        tryAtInstant(fight, unit);
      }
      break;
    case DUE.choice:
      if (current && fight.choiceAt[unit] === fight.now) {
        fight.choiceAt[unit] = -1;
        tryAtInstant(fight, unit);
      }
      break;
    case DUE.spawn:
      spawn(fight, serial, detail);
      break;
  }
}

function buryTheDead(fight: Fight): void {
  const { dying } = fight;
  dying.sort((a, b) => a.unit - b.unit);
  for (let i = 0; i < dying.length; i++) die(fight, dying[i].unit, dying[i].by, dying[i].attack);
  dying.length = 0;
}

/** The end: at one instant party down beats victory; the time limit comes last. */
function judge(fight: Fight, limitReached: boolean): void {
  if (fight.living[0].length === 0) end(fight, OUTCOME.partyDown);
  else if (fight.living[1].length === 0 && fight.pending === 0) end(fight, OUTCOME.cleared);
  else if (limitReached) end(fight, OUTCOME.timeOut);
  else if (fight.log.length > MOST_EVENTS) end(fight, OUTCOME.runaway);
}

function end(fight: Fight, outcome: number): void {
  fight.over = true;
  fight.outcome = outcome;
  fight.log.add(fight.now, EVENT.end, -1, -1, outcome);
}

function loopMessage(fight: Fight, time: number): string {
  const busy = fight.alive.filter((unit) => fight.phase[unit] !== PHASE.idle || fight.choiceAt[unit] === time);
  const names = [...new Set(busy.map((unit) => fight.kinds[unit].name))].join(', ');
  return `at ${time / 1e6} s the fight goes round in circles without time passing; look at the attacks of ${names || 'the units'}`;
}
