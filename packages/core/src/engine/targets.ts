import { takeBearings } from './bearings';
import { type Fight, NOBODY } from './fight';
import { EVENT } from './log';
import { withinCentres } from './senses';

/** Phase of a step: units whose time to reconsider has come look for a better target. */
export function chooseTargets(fight: Fight): void {
  const { alive, nextTarget, alerted, now, reconsidered } = fight;
  reconsidered.length = 0;
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (now < nextTarget[unit] || !alerted[unit]) continue;
    chooseTarget(fight, unit);
    reconsidered.push(unit);
  }
  if (reconsidered.length) takeBearings(fight, reconsidered);
}

/**
 * The nearest foe that is known of, edge to edge; another is preferred to the present one only if it is nearer by the
 * commitment's share. A unit in the middle of an attack keeps the target of that attack besides.
 */
export function chooseTarget(fight: Fight, unit: number): void {
  const kind = fight.kinds[unit];
  fight.nextTarget[unit] = fight.now + kind.reconsider;
  const present = fight.target[unit];
  const foes = fight.living[1 - fight.side[unit]];
  let best: number = NOBODY;
  let bestGap = Infinity;
  let presentGap = Infinity;
  for (let i = 0; i < foes.length; i++) {
    const foe = foes[i];
    if (!withinCentres(fight, unit, foe, kind.lose)) continue;
    const gap = fight.gap(unit, foe);
    if (foe === present) presentGap = gap;
    if (gap < bestGap) {
      bestGap = gap;
      best = foe;
    }
  }
  if (best === NOBODY && present !== NOBODY && fight.isAlive[present]) return; // remembered for as long as the memory lasts
  if (presentGap < Infinity && !(bestGap < presentGap * (1 - kind.commitment))) best = present;
  if (best === present) return;
  fight.target[unit] = best;
  if (best !== NOBODY) fight.log.add(fight.now, EVENT.target, unit, best, 0);
}
