/** Whom a unit is after, or follows: nearest and nothing else by the short way, weighed criteria by the long one. */
import { CRITERIA_NAMES } from '../../model/targeting';
import { emptyList } from '../../record/columns';
import { takeBearings } from '../body/bearings';
import { squareInReach } from '../body/reach';
import type { Fight } from '../fight';
import { NOBODY } from '../numbers';
import type { CompiledCriterion, CompiledTargeting } from '../unit-tables';
import { PURPOSE } from '../time/chance';
import { thingToStrike, whomToStrike } from './assault';
import { mostHarm, wouldFell } from './promise';
import { withinCentres } from './senses';
import { reconsiderAt, setTarget } from './wanted';

/** Phase of a step: units whose time to reconsider has come look for a better target. */
export function chooseTargets(fight: Fight): void {
  const { alive, nextTarget, alerted, now, reconsidered } = fight;
  emptyList(reconsidered);
  for (let i = 0; i < alive.length; i++) {
    const unit = alive[i];
    if (now < nextTarget[unit] || !alerted[unit]) continue;
    chooseTarget(fight, unit);
    reconsidered.push(unit);
  }
  if (reconsidered.length) takeBearings(fight, reconsidered);
}

/**
 * The best foe that is known of; another is preferred to the present one only if it is better by the commitment's share.
 * A unit in the middle of an attack keeps the target of that attack besides.
 */
export function chooseTarget(fight: Fight, unit: number): void {
  const { targeting, lose } = fight.kinds[unit];
  reconsiderAt(fight, unit, fight.now + targeting.reconsider);
  const present = fight.target[unit];
  if (present !== NOBODY && fight.isAlive[present] && fight.now < fight.boundUntil[unit]) return;
  const thing = thingToStrike(fight, unit);
  const best =
    thing === NOBODY ? bestOf(fight, unit, fight.living[1 - fight.side[unit]], targeting, lose, present) : whomToStrike(fight, unit, thing);
  if (best === NOBODY && present !== NOBODY && fight.isAlive[present]) return; // remembered for as long as the memory lasts
  if (best === present) return;
  setTarget(fight, unit, best);
}

/** The target an entry of a choice asks for, where it has targeting of its own. */
export function targetFor(fight: Fight, unit: number, targeting: CompiledTargeting): number {
  const { lose } = fight.kinds[unit];
  return bestOf(fight, unit, fight.living[1 - fight.side[unit]], targeting, lose, NOBODY);
}

/** The friend that criteria ask for, however far. @param present whom it has */
export function bestFriend(fight: Fight, unit: number, targeting: CompiledTargeting, present: number): number {
  return bestOf(fight, unit, fight.living[fight.side[unit]], targeting, Infinity, present);
}

/** @param reach m, centre to centre; @param present whom it has, who is left only for a better one; NOBODY: nobody */
function bestOf(
  fight: Fight,
  unit: number,
  among: readonly number[],
  targeting: CompiledTargeting,
  reach: number,
  present: number,
): number {
  return targeting.nearestOnly
    ? nearest(fight, unit, among, targeting, reach, present)
    : weighed(fight, unit, among, targeting, reach, present);
}

function nearest(
  fight: Fight,
  unit: number,
  among: readonly number[],
  { allowed, commitment }: CompiledTargeting,
  reach: number,
  present: number,
): number {
  if (fight.inTurns) return nearestInRounds(fight, unit, among, allowed, commitment, reach, present);
  const { x, y, vx, vy, segmentStart, radius, now } = fight;
  const own = radius[unit];
  const px = fight.xAt(unit, now);
  const py = fight.yAt(unit, now);
  let best: number = NOBODY;
  let bestGap = Infinity;
  let presentGap = Infinity;
  for (let i = 0; i < among.length; i++) {
    const foe = among[i];
    if (foe === unit) continue;
    if (allowed !== null && !allowed[fight.kinds[foe].type]) continue;
    const elapsed = (now - segmentStart[foe]) * 1e-6;
    const dx = x[foe] + vx[foe] * elapsed - px;
    const dy = y[foe] + vy[foe] * elapsed - py;
    const square = dx * dx + dy * dy;
    // Farther than the best even if it were as wide as it: no root needed.
    const most = bestGap + own + radius[foe];
    if (!squareInReach(square, reach) || (square > most * most && foe !== present)) continue;
    const gap = Math.max(0, Math.sqrt(square) - own - radius[foe]);
    if (foe === present) presentGap = gap;
    if (gap < bestGap) {
      bestGap = gap;
      best = foe;
    }
  }
  return presentGap < Infinity && !(bestGap < presentGap * (1 - commitment)) ? present : best;
}

/** The same by cells. */
function nearestInRounds(
  fight: Fight,
  unit: number,
  among: readonly number[],
  allowed: readonly boolean[] | null,
  commitment: number,
  reach: number,
  present: number,
): number {
  let best: number = NOBODY;
  let least = Infinity;
  let presentGap = Infinity;
  for (const foe of among) {
    if (foe === unit || (allowed !== null && !allowed[fight.kinds[foe].type])) continue;
    const gap = fight.gap(unit, foe);
    if (gap > reach) continue;
    if (foe === present) presentGap = gap;
    if (gap >= least) continue;
    least = gap;
    best = foe;
  }
  return presentGap < Infinity && !(least < presentGap * (1 - commitment)) ? present : best;
}

const candidates: number[] = [];

const scores: number[] = [];

const values: number[] = [];

/**
 * Each criterion is brought to 0–1 over the candidates as a ratio to the best of them (least ÷ value where less is better,
 * value ÷ most where more is), weighed and averaged. So with "nearest" alone the rule is the short way's.
 */
function weighed(
  fight: Fight,
  unit: number,
  among: readonly number[],
  targeting: CompiledTargeting,
  reach: number,
  present: number,
): number {
  candidates.length = 0;
  for (let i = 0; i < among.length; i++) {
    if (among[i] === unit || (targeting.allowed !== null && !targeting.allowed[fight.kinds[among[i]].type])) continue;
    if (withinCentres(fight, unit, among[i], reach)) candidates.push(among[i]);
  }
  if (candidates.length === 0) return NOBODY;
  score(fight, unit, targeting);
  let best = 0;
  let kept = -1;
  for (let c = 0; c < candidates.length; c++) {
    if (scores[c] > scores[best]) best = c;
    if (candidates[c] === present) kept = c;
  }
  return kept >= 0 && !(scores[best] - scores[kept] > targeting.commitment) ? present : candidates[best];
}

function score(fight: Fight, unit: number, { criteria }: CompiledTargeting): void {
  let total = 0;
  scores.length = candidates.length;
  scores.fill(0);
  for (const criterion of criteria) {
    total += criterion.weight;
    const more = valuesOf(fight, unit, criterion);
    let extreme = more ? 0 : Infinity;
    for (let c = 0; c < candidates.length; c++) extreme = more ? Math.max(extreme, values[c]) : Math.min(extreme, values[c]);
    for (let c = 0; c < candidates.length; c++) {
      const share = more ? (extreme > 0 ? values[c] / extreme : 0) : values[c] > 0 ? extreme / values[c] : 1;
      scores[c] += criterion.weight * share;
    }
  }
  for (let c = 0; c < candidates.length; c++) scores[c] = total > 0 ? scores[c] / total : 0;
}

/** Of all its attacks that have any. */
function chargesLeft(fight: Fight, unit: number): number {
  const { attacks } = fight.kinds[unit];
  let left = 0;
  for (let number = 0; number < attacks.length; number++) if (attacks[number].charges > 0) left += fight.chargesNow(unit, number);
  return left;
}

/** Fills `values` for the candidates; whether more is better. */
function valuesOf(fight: Fight, unit: number, { by, of }: CompiledCriterion): boolean {
  const name = CRITERIA_NAMES[by];
  for (let c = 0; c < candidates.length; c++) {
    const foe = candidates[c];
    const kind = fight.kinds[foe];
    switch (name) {
      case 'nearest':
        values[c] = fight.gap(unit, foe);
        break;
      case 'lowestHealth':
        values[c] = fight.healthNow(foe);
        break;
      case 'lowestShare':
        values[c] = fight.healthNow(foe) / kind.maxHealth;
        break;
      case 'highestDamage':
        values[c] = fight.dealt[foe];
        break;
      case 'mostDamageToMe':
        values[c] = fight.harm.get(unit * fight.compiled.capacity + foe) ?? 0;
        break;
      case 'lastAttacker':
        values[c] = fight.hurtBy[unit] === foe ? 1 : 0;
        break;
      case 'role':
        values[c] = kind.role === of ? 1 : 0;
        break;
      case 'unit':
        values[c] = kind.type === of ? 1 : 0;
        break;
      case 'falls':
        values[c] = wouldFell(fight, unit, foe) ? 1 : 0;
        break;
      case 'mostHarm':
        values[c] = mostHarm(fight, unit, foe);
        break;
      case 'carries':
        values[c] = kind.carries.includes(of) ? 1 : 0;
        break;
      case 'mostCharges':
        values[c] = chargesLeft(fight, foe);
        break;
      default:
        values[c] = fight.chance(unit, PURPOSE.target);
    }
  }
  return name !== 'nearest' && name !== 'lowestHealth' && name !== 'lowestShare';
}
