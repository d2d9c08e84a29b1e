import { PURPOSE } from './chance';
import { within } from './facing';
import { type Fight, NOBODY } from './fight';
import { DOING, EVENT } from './log';
import { DUE } from './queue';
import { microsecondsUp } from './time';

/** Phase of a step: who notices foes, who still knows where they are, who has lost them. */
export function look(fight: Fight): void {
  const { alive, alerted, target, bearingLength, lose, lastSeen, now } = fight;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (alerted[unit]) {
      if (target[unit] >= 0 && bearingLength[unit] <= lose[unit]) lastSeen[unit] = now;
      else maybeLose(fight, unit);
    } else if (!fight.noticing[unit] && now >= fight.nextLook[unit]) lookAround(fight, unit);
  }
}

function lookAround(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  // Looks fall on the first step at or after birth + k × interval.
  if (kind.lookEvery > 0) {
    const done = Math.floor((fight.now - fight.bornAt[unit]) / kind.lookEvery);
    fight.nextLook[unit] = fight.bornAt[unit] + (done + 1) * kind.lookEvery;
  }
  if (!seesFoe(fight, unit)) return;
  const wait = microsecondsUp(fight.around(unit, PURPOSE.reaction, kind.reactionMean, kind.reactionSpread));
  if (wait === 0) return alert(fight, unit);
  fight.noticing[unit] = 1;
  fight.queue.push(fight.now + wait, DUE.notice, unit, 0, 0);
}

function seesFoe(fight: Fight, unit: number): boolean {
  const kind = fight.kinds[unit];
  const foes = fight.living[1 - fight.side[unit]];
  for (let i = 0; i < foes.length; i++) {
    if (withinCentres(fight, unit, foes[i], kind.sight) && within(fight, unit, foes[i], kind.sightCosine)) return true;
  }
  return false;
}

/** Centre to centre, in the plane. */
export function withinCentres(fight: Fight, a: number, b: number, distance: number): boolean {
  const dx = fight.xAt(b, fight.now) - fight.xAt(a, fight.now);
  const dy = fight.yAt(b, fight.now) - fight.yAt(a, fight.now);
  return dx * dx + dy * dy <= distance * distance;
}

/** From now on the unit acts on what it knows. Its attacks' initial delays run from its first alert. */
export function alert(fight: Fight, unit: number): void {
  fight.noticing[unit] = 0;
  if (fight.alerted[unit]) return;
  fight.alerted[unit] = 1;
  fight.lastSeen[unit] = fight.now;
  fight.log.add(fight.now, EVENT.notice, unit, NOBODY, 0);
  fight.sayDoing(unit, DOING.noTarget);
  const first = fight.nextReady[unit] < 0;
  if (!first) return;
  const { attacks } = fight.kinds[unit];
  const room = fight.compiled.attackRoom;
  fight.nextReady[unit] = Infinity;
  for (let a = 0; a < attacks.length; a++) {
    const { initialMin, initialMax } = attacks[a];
    const wait = initialMax > initialMin ? initialMin + (initialMax - initialMin) * fight.chance(unit, PURPOSE.delay) : initialMin;
    fight.readyAt[unit * room + a] = fight.now + microsecondsUp(wait);
    fight.nextReady[unit] = Math.min(fight.nextReady[unit], fight.readyAt[unit * room + a]);
  }
}

/** A foe beyond `lose` is pursued for as long as the memory lasts, then forgotten. */
function maybeLose(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  if (fight.now - fight.lastSeen[unit] < kind.memory) return;
  const foes = fight.living[1 - fight.side[unit]];
  for (let i = 0; i < foes.length; i++) if (withinCentres(fight, unit, foes[i], kind.lose)) return;
  fight.alerted[unit] = 0;
  fight.target[unit] = NOBODY;
  fight.log.add(fight.now, EVENT.lose, unit, NOBODY, 0);
  if (fight.phase[unit] === 0) fight.sayDoing(unit, DOING.unaware);
}
