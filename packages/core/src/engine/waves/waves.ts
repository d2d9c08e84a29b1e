/** When waves start, how far each is defeated, and what that sets going. */
import { EVENT } from '../../record/log';
import type { Trigger } from '../records';
import type { Fight } from '../fight';
import { holds } from '../mind/conditions';
import { NOBODY } from '../numbers';
import { DUE } from '../time/queue';
import { spawnCode } from './counts';
import { isHeldBack, putOff, queueOfWave, watchHold } from './holding';
import { planGroup } from './plan';
import { dropWaiting } from './waiting';

/** Every wave that time alone starts is queued; every timeout that runs from the beginning too. */
export function beginWaves(fight: Fight): void {
  fight.compiled.waves.forEach((wave, number) => {
    if (wave.timeout > 0 && wave.start !== 'with' && wave.start !== 'defeated') fight.queue.push(wave.timeout, DUE.timeout, 0, 0, number);
    if (wave.start === 'clock') fight.queue.push(wave.at, DUE.timeout, 0, 0, number);
  });
  checkWaves(fight);
}

/** Starts every wave whose time has come. Called whenever that may have changed: a death, a start, a timeout, a step. */
export function checkWaves(fight: Fight): void {
  const { waves, compiled } = fight;
  for (let number = 0; number < waves.length; number++) {
    const progress = waves[number];
    const wave = compiled.waves[number];
    if (progress.stopped || progress.due || (progress.started && progress.comings >= wave.times)) continue;
    if (progress.started) {
      if (
        wave.every === 0 &&
        isReached(progress.defeatedOf[progress.comings - 1], progress.plannedOf[progress.comings - 1], wave.againShare)
      )
        queueComing(fight, number, progress.comings, wave.pause);
    } else {
      const trigger = triggerOf(fight, number);
      if (trigger === 'none' || isHeldBack(fight, number)) continue;
      progress.trigger = trigger;
      queueComing(fight, number, 0, wave.delay);
    }
  }
}

function queueComing(fight: Fight, number: number, coming: number, delay: number): void {
  fight.waves[number].due = true;
  queueOfWave(fight, number, delay, DUE.wave, coming, number);
}

/** ⌈share × count − 1e-9⌉ of them, at least one. */
function isReached(defeated: number, planned: number, share: number): boolean {
  return defeated >= Math.max(planned > 0 ? 1 : 0, Math.ceil(share * planned - 1e-9));
}

/** What would start it now. */
function triggerOf(fight: Fight, number: number): Trigger {
  const { timedOut, called } = fight.waves[number];
  return startHolds(fight, number) ? 'start' : timedOut ? 'timeout' : called ? 'event' : 'none';
}

function startHolds(fight: Fight, number: number): boolean {
  const { start, at, after, share, when } = fight.compiled.waves[number];
  const other = fight.waves[after];
  switch (start) {
    case 'atOnce':
      return true;
    case 'clock':
      return fight.now >= at;
    case 'with':
      return other !== undefined && other.started;
    case 'defeated':
      return other !== undefined && other.started && isReached(other.reached, other.planned, share);
    case 'condition':
      return when !== null && holds(fight, NOBODY, when);
    case 'called':
      return false;
  }
}

/** A coming of a wave is due: its counts are drawn (all comings' at the first), its units queued. */
export function startWave(fight: Fight, number: number, coming: number): void {
  const wave = fight.compiled.waves[number];
  const progress = fight.waves[number];
  if (progress.stopped || putOff(fight, DUE.wave, coming, number)) return;
  progress.due = false;
  if (coming === 0) {
    progress.started = true;
    progress.startedAt = fight.now;
    for (let c = 0; c < wave.times; c++) {
      const planned = wave.groups.reduce((sum, group, g) => sum + planGroup(fight, number, c, g).length, 0);
      progress.plannedOf.push(planned);
      progress.defeatedOf.push(0);
      progress.planned += planned;
    }
    watchHold(fight);
    startFollowers(fight, number);
  }
  progress.comings = coming + 1;
  fight.log.add(fight.now, EVENT.wave, NOBODY, NOBODY, number, coming);
  wave.groups.forEach((group, g) => {
    const count = planGroup(fight, number, coming, g).length;
    progress.toComeOf[group.side] += count;
    progress.toCome[coming] = (progress.toCome[coming] ?? 0) + count;
    for (let i = 0; i < count; i++) queueOfWave(fight, number, i * group.spacing, DUE.spawn, spawnCode(number, coming, g), i);
  });
  if (wave.every > 0 && progress.comings < wave.times) queueComing(fight, number, progress.comings, wave.every);
  checkWaves(fight);
}

/**
 * A wave comes no more: what it still had to bring is left out of it, and out of what is to be defeated of it. Stopped before
 * it came it counts as one that brought nobody: what waits for it goes on.
 */
export function stopWave(fight: Fight, number: number): void {
  const progress = fight.waves[number];
  const { times } = fight.compiled.waves[number];
  if (progress.stopped || (progress.comings >= times && progress.toCome.every((left) => left === 0))) return;
  progress.stopped = true;
  let dropped = 0;
  for (let coming = 0; coming < progress.plannedOf.length; coming++) {
    const left = coming < progress.comings ? progress.toCome[coming] : progress.plannedOf[coming];
    progress.plannedOf[coming] -= left;
    dropped += left;
  }
  progress.due = false;
  progress.planned -= dropped;
  progress.toCome.fill(0);
  progress.toComeOf.fill(0);
  fight.log.add(fight.now, EVENT.stopped, NOBODY, NOBODY, number, dropped);
  dropWaiting(fight, number);
  if (!progress.started) {
    progress.started = true;
    progress.startedAt = fight.now;
    startFollowers(fight, number);
  }
  progress.comings = times;
  watchHold(fight);
  checkWaves(fight);
}

/** Timeouts of the waves that wait for this one run from its start. */
function startFollowers(fight: Fight, number: number): void {
  fight.compiled.waves.forEach((wave, other) => {
    if (wave.timeout > 0 && wave.after === number && (wave.start === 'with' || wave.start === 'defeated'))
      fight.queue.push(fight.now + wave.timeout, DUE.timeout, 0, 0, other);
  });
}

/** A wave's clock time or its timeout has come. */
export function timeOut(fight: Fight, number: number): void {
  const { start, at } = fight.compiled.waves[number];
  if (start !== 'clock' || fight.now > at) fight.waves[number].timedOut = true;
  checkWaves(fight);
}
