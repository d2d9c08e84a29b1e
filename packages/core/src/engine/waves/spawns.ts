/** How units come to be: the party at its start, waves at their spawn points, the summoned about their summoner. */
import { EVENT, GONE } from '../../record/log';
import { ENEMY, PARTY } from '../../record/sides';
import { bearAhead } from '../body/bearings';
import { face } from '../body/facing';
import { farEnough, inReach } from '../body/reach';
import { cosine, sine } from '../body/rotation';
import type { Fight } from '../fight';
import { depart } from '../harm/death';
import { addBoost } from '../harm/effects';
import { fillReadiness } from '../harm/readiness';
import { fillVitals } from '../harm/vitals';
import { takeOn } from '../mind/changes';
import { alert, openEyes } from '../mind/senses';
import { beginFirst } from '../mind/states';
import { bind, reconsiderAt, setTarget } from '../mind/wanted';
import { NOBODY } from '../numbers';
import { fillSupplies } from '../player/supplies';
import { comeOnto, freeAround, roomAnywhere, middleOfBody } from '../rounds/places';
import type { CompiledGroup } from '../tables';
import type { CompiledAttack, CompiledUnit } from '../unit-tables';
import { childKey, draw, PURPOSE } from '../time/chance';
import { DUE } from '../time/queue';
import { MOST_LIVE, PLACE_RETRY, PLACE_SEARCH_RADII, SCATTER_TRIES } from '../tuning';
import { belongTo, comeWith, COMINGS, countDefeated, enemiesLeft, joinWave, made, waveOf } from './counts';
import { putOff, queueOfWave } from './holding';
import { planGroup } from './plan';
import { enter, join, serve } from './roll';
import { endWait, waitKey } from './waiting';
import { checkWaves } from './waves';

/** One unit of a group is due: on its scatter disc, else the nearest free place, else again in a second. */
export function spawn(fight: Fight, code: number, ordinal: number): void {
  const number = code % COMINGS;
  const coming = Math.floor(code / COMINGS) % COMINGS;
  const wave = waveOf(code);
  if (fight.waves[wave].stopped || putOff(fight, DUE.spawn, code, ordinal)) return;
  const group = fight.compiled.waves[wave].groups[number];
  const key = unitKey(group, coming, ordinal);
  const entry = planGroup(fight, wave, coming, number)[ordinal];
  const kind = group.kinds[traitsDrawn(fight, group, key)][coming][entry];
  if (!hasRoom(fight, kind, group.side, wave, coming, code, ordinal)) return;
  endWait(fight, wave, code, ordinal);
  const { radius, ground } = fight.compiled.kinds[kind];
  const point = fight.compiled.points[choosePoint(fight, group, key, ordinal)];
  const place = findPlace(fight, key, point, radius, ground);
  if (!place) {
    fight.log.add(fight.now, EVENT.noPlace, NOBODY, NOBODY, kind);
    queueOfWave(fight, wave, PLACE_RETRY, DUE.spawn, code, ordinal);
    return;
  }
  made(fight, wave, coming, group.side);
  const { side } = group;
  const unit = appear(fight, kind, side, key, place.x, place.y, point.fx, point.fy, NOBODY, wave);
  comeWith(fight, unit, wave, coming, number);
  if (group.seats[coming] >= 0) join(fight, unit, group.seats[coming] + ordinal);
  if (group.alerted) alert(fight, unit);
  if (group.targetType >= 0 || group.targetRole >= 0) forceTarget(fight, unit, group);
}

/** Which of the traits of its group a unit has: a bit each. */
function traitsDrawn({ seed }: Fight, { shares }: CompiledGroup, key: number): number {
  return shares.reduce((drawn, share, i) => (draw(seed, key, PURPOSE.trait, i) < share ? drawn | (1 << i) : drawn), 0);
}

/** The caps on the living, which are of the enemies: one more waits in line, is left out, or takes the place of the one that has lived longest. */
function hasRoom(fight: Fight, kind: number, side: number, wave: number, coming: number, code: number, ordinal: number): boolean {
  const { aliveMost, aliveMostOfType, whenFull, kinds } = fight.compiled;
  const { type } = kinds[kind];
  const living = enemiesLeft(fight);
  const full = side === ENEMY && (living >= aliveMost || fight.aliveOfType[type] >= aliveMostOfType[type]);
  const hard = fight.alive.length >= MOST_LIVE || fight.count >= fight.compiled.capacity;
  if (!full && !hard) return true;
  if (full && !hard && whenFull === 'replace') {
    const same = fight.aliveOfType[type] >= aliveMostOfType[type];
    const oldest = fight.living[ENEMY].find((unit) => !fight.attacked[unit] && (!same || fight.kinds[unit].type === type));
    if (oldest !== undefined) depart(fight, oldest, GONE.replaced);
    return true;
  }
  const skipped = whenFull === 'skip' || fight.count >= fight.compiled.capacity;
  fight.log.add(fight.now, EVENT.capped, NOBODY, NOBODY, kind, skipped ? 1 : 0);
  if (skipped) {
    made(fight, wave, coming, side);
    countDefeated(fight, fight.waves[wave], coming);
    checkWaves(fight);
  } else {
    fight.waiting.push(code, ordinal);
    const key = waitKey(code, ordinal);
    if (!fight.waitingSince.has(key)) {
      fight.waitingSince.set(key, fight.now);
      fight.waves[wave].waited++;
    }
  }
  return false;
}

/** Whom a side comes against: the party's members, or the enemies but for what they have standing. */
export function opponents(fight: Fight, side: number): number[] {
  return side === ENEMY
    ? fight.living[PARTY].filter((unit) => fight.isMember[unit])
    : fight.living[ENEMY].filter((unit) => !fight.attacked[unit]);
}

/** Which of its points a group's unit uses. */
function choosePoint(fight: Fight, group: CompiledGroup, key: number, ordinal: number): number {
  const { points, rule } = group;
  if (points.length === 1) return points[0];
  const usable = group.leastDistance > 0 || group.outOfView ? points.filter((point) => isOut(fight, group, point)) : points;
  const from = usable.length > 0 ? usable : points;
  if (rule === 'random') return from[Math.min(from.length - 1, Math.floor(draw(fight.seed, key, PURPOSE.point, 0) * from.length))];
  if (rule === 'inTurn' || rule === 'each') return from[ordinal % from.length];
  let best = from[0];
  for (const point of from) {
    const [there, here] = [distanceToFoes(fight, group.side, point), distanceToFoes(fight, group.side, best)];
    if (rule === 'nearest' ? there < here : there > here) best = point;
  }
  return best;
}

function distanceToFoes(fight: Fight, side: number, point: number): number {
  const { x, y } = fight.compiled.points[point];
  return opponents(fight, side).reduce((least, foe) => Math.min(least, fight.apartFrom(foe, x, y)), Infinity);
}

/** Far enough from its foes, and out of their view where asked. */
function isOut(fight: Fight, { side, leastDistance, outOfView }: CompiledGroup, point: number): boolean {
  if (!farEnough(distanceToFoes(fight, side, point), leastDistance)) return false;
  if (!outOfView) return true;
  const { x, y } = fight.compiled.points[point];
  return !opponents(fight, side).some((foe) => {
    const kind = fight.kinds[foe];
    const distance = fight.apartFrom(foe, x, y);
    if (!inReach(distance, kind.sight)) return false;
    const [px, py] = [fight.xAt(foe, fight.now), fight.yAt(foe, fight.now)];
    const ahead = fight.fx[foe] * (x - px) + fight.fy[foe] * (y - py) >= kind.sightCosine * distance;
    return ahead && !fight.ground.blocked(px, py, kind.eye, x, y, 0);
  });
}

function forceTarget(fight: Fight, unit: number, { side, targetType, targetRole }: CompiledGroup): void {
  let best: number = NOBODY;
  for (const foe of fight.living[PARTY + ENEMY - side]) {
    const kind = fight.kinds[foe];
    if (kind.type !== targetType && kind.role !== targetRole) continue;
    if (best === NOBODY || fight.gap(unit, foe) < fight.gap(unit, best)) best = foe;
  }
  if (best === NOBODY || !fight.alerted[unit]) return;
  bind(fight, unit, Infinity);
  setTarget(fight, unit, best);
}

type Point = { x: number; y: number; scatter: number };

function findPlace(fight: Fight, key: number, point: Point, radius: number, ground: number): { x: number; y: number } | undefined {
  const { scatter } = point;
  if (scatter === 0 && isFree(fight, ground, point.x, point.y, radius)) return point;
  let n = 0;
  for (let tries = 0; tries < SCATTER_TRIES && scatter > 0; tries++) {
    // Uniform over the disc: points of the square outside it are drawn again.
    const dx = 2 * draw(fight.seed, key, PURPOSE.scatter, n++) - 1;
    const dy = 2 * draw(fight.seed, key, PURPOSE.scatter, n++) - 1;
    if (dx * dx + dy * dy > 1) continue;
    const x = point.x + dx * scatter;
    const y = point.y + dy * scatter;
    if (isFree(fight, ground, x, y, radius)) return { x, y };
  }
  return nearestFree(fight, ground, point.x, point.y, radius);
}

/** Sixteen directions, for rings about a place. */
const RING = Array.from({ length: 16 }, (_, way) => ({ x: cosine(way * 22.5), y: sine(way * 22.5) }));

/** In rings of half a radius, out to a bounded number of radii. */
export function nearestFree(fight: Fight, ground: number, x: number, y: number, radius: number): { x: number; y: number } | undefined {
  for (let ring = 1; ring <= 2 * PLACE_SEARCH_RADII; ring++) {
    for (let way = 0; way < RING.length; way++) {
      const px = x + (RING[way].x * ring * radius) / 2;
      const py = y + (RING[way].y * ring * radius) / 2;
      if (isFree(fight, ground, px, py, radius)) return { x: px, y: py };
    }
  }
  return undefined;
}

export function isFree(fight: Fight, ground: number, x: number, y: number, radius: number): boolean {
  if (fight.inTurns) return roomAnywhere(fight, ground, radius);
  if (!fight.ground.isFree(ground, x, y, radius)) return false;
  for (let i = 0; i < fight.alive.length; i++) {
    const other = fight.alive[i];
    const dx = fight.xAt(other, fight.now) - x;
    const dy = fight.yAt(other, fight.now) - y;
    const apart = radius + fight.radius[other];
    if (dx * dx + dy * dy < apart * apart) return false;
  }
  return true;
}

/** A hit of a summoning: so many appear about the summoner, up to its cap and that on the living; the rest are lost. */
export function summon(fight: Fight, unit: number, attack: CompiledAttack): void {
  const { aliveMost, aliveMostOfType, kinds, capacity } = fight.compiled;
  const kind = kinds[attack.summonKind];
  for (let i = 0; i < attack.summonCount; i++) {
    const key = childKey(fight.key[unit], fight.summoned[unit]++);
    const side = fight.side[unit];
    const full =
      fight.helpers[unit] >= attack.summonCap ||
      fight.count >= capacity ||
      fight.alive.length >= MOST_LIVE ||
      (side === ENEMY && (enemiesLeft(fight) >= aliveMost || fight.aliveOfType[kind.type] >= aliveMostOfType[kind.type]));
    if (full) {
      fight.log.add(fight.now, EVENT.capped, unit, NOBODY, attack.summonKind, 2);
      continue;
    }
    const place = placeAbout(fight, unit, key, kind, attack.summonAround);
    if (!place) {
      fight.log.add(fight.now, EVENT.noPlace, unit, NOBODY, attack.summonKind);
      continue;
    }
    const helper = appear(fight, attack.summonKind, side, key, place.x, place.y, fight.fx[unit], fight.fy[unit], unit);
    serve(fight, unit);
    const wave = fight.wave[unit];
    if (wave >= 0 && fight.compiled.waves[wave].countsSummoned) joinWave(fight, helper, wave, fight.coming[unit]);
    if (fight.alerted[unit]) alert(fight, helper);
  }
}

/** Where one of those that a unit calls appears: drawn evenly, else the nearest free place. @param around m between their edges; in turns cells */
function placeAbout(fight: Fight, unit: number, key: number, { radius, ground, turns }: CompiledUnit, around: number) {
  const x = fight.xAt(unit, fight.now);
  const y = fight.yAt(unit, fight.now);
  if (!fight.inTurns) return findPlace(fight, key, { x, y, scatter: fight.radius[unit] + radius + around }, radius, ground);
  const cells = fight.board ? freeAround(fight, unit, { size: turns!.size, ground }, around) : [];
  if (cells.length === 0) return findPlace(fight, key, { x, y, scatter: 0 }, radius, ground);
  return middleOfBody(fight, cells[Math.floor(draw(fight.seed, key, PURPOSE.scatter, 0) * cells.length)], turns!.size);
}

export function appear(
  fight: Fight,
  kindNumber: number,
  side: number,
  key: number,
  x: number,
  y: number,
  fx: number,
  fy: number,
  summoner: number,
  wave = NOBODY,
): number {
  const unit = fight.nextUnit();
  const kind = fight.compiled.kinds[kindNumber];
  const { now } = fight;
  fight.kindNumber[unit] = kindNumber;
  fight.side[unit] = side;
  fight.key[unit] = key;
  fight.bornAt[unit] = now;
  fight.summoner[unit] = summoner;
  fight.homeX[unit] = x;
  fight.homeY[unit] = y;
  takeOn(fight, unit, kind);
  fight.moveTo(unit, x, y);
  face(fight, unit, fx, fy);
  if (fight.board) comeOnto(fight, unit);
  bearAhead(fight, unit);
  openEyes(fight, unit);
  reconsiderAt(fight, unit, now);
  fillVitals(fight, unit);
  fillReadiness(fight, unit);
  if (kind.player !== null) {
    fillSupplies(fight, unit);
    fight.players.push(unit);
  }
  if (wave !== NOBODY) belongTo(fight, unit, wave);
  enter(fight, unit);
  fight.log.add(now, EVENT.spawn, unit, summoner, kindNumber, fight.x[unit], fight.y[unit], wave, summoner);
  // Who is there from the start and finds no cell comes onto the board when there is one.
  if (fight.board && fight.onCell[unit] === NOBODY) fight.log.add(now, EVENT.noPlace, unit, NOBODY, kindNumber);
  beginFirst(fight, unit);
  for (const { type, id, tweaks } of fight.standingBoosts) {
    if (type === kind.type) addBoost(fight, NOBODY, unit, -1, fight.compiled.events[id].then[tweaks].boosts[type]!);
  }
  return unit;
}

/** The key of the n-th unit of a group at one of its wave's comings. */
function unitKey(group: CompiledGroup, coming: number, ordinal: number): number {
  return childKey(coming === 0 ? group.key : childKey(group.key, 2000 + coming), ordinal);
}
