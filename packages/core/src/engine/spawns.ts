/** How units come to be: the party at its start, waves at their spawn points, each where there is room. */
import { PURPOSE, draw } from './chance';
import { type Compiled, ENEMY, PARTY, unitKey } from './compile';
import { type Fight, NOBODY, PHASE } from './fight';
import { DOING, EVENT } from './log';
import { DUE } from './queue';
import { cosine, sine } from './rotation';
import { alert } from './senses';
import { takeUp } from './states';
import { PLACE_RETRY, PLACE_SEARCH_RADII, SCATTER_TRIES } from './tuning';

/** The party stands, and every wave's start is queued. */
export function begin(fight: Fight, seed: number): void {
  fight.reset(seed);
  const { party, waves, limit } = fight.compiled;
  for (const { kind, key, x, y, fx, fy } of party) appear(fight, kind, PARTY, key, x, y, fx, fy);
  waves.forEach((wave, number) => {
    fight.pending += 1; // the wave itself, until its counts are drawn
    fight.queue.push(wave.delay, DUE.wave, 0, 0, number);
  });
  fight.queue.push(limit, DUE.end, 0, 0, 0);
}

/** A wave starts: its counts are drawn and its units queued. */
export function startWave(fight: Fight, number: number): void {
  const wave = fight.compiled.waves[number];
  fight.pending -= 1;
  wave.groups.forEach((group, g) => {
    // A group's own luck, not any unit's: the count is the first draw of the group's key.
    const span = group.max - group.min + 1;
    const count = span > 1 ? group.min + Math.min(span - 1, Math.floor(groupChance(fight, group.key) * span)) : group.min;
    fight.pending += count;
    for (let i = 0; i < count; i++) fight.queue.push(fight.now + i * group.spacing, DUE.spawn, 0, (number << 8) | g, i);
  });
}

function groupChance(fight: Fight, key: number): number {
  return draw(fight.seed, key, PURPOSE.count, 0);
}

/** One unit of a group is due: on its scatter disc, else the nearest free place, else again in a second. */
export function spawn(fight: Fight, groupCode: number, ordinal: number): void {
  const group = fight.compiled.waves[groupCode >> 8].groups[groupCode & 255];
  const point = fight.compiled.points[group.points[ordinal % group.points.length]];
  const key = unitKey(group, ordinal);
  const radius = fight.compiled.kinds[group.kind].radius;
  const place = findPlace(fight, key, point, radius);
  if (!place) {
    fight.log.add(fight.now, EVENT.noPlace, NOBODY, NOBODY, group.kind);
    fight.queue.push(fight.now + PLACE_RETRY, DUE.spawn, 0, groupCode, ordinal);
    return;
  }
  fight.pending--;
  const unit = appear(fight, group.kind, ENEMY, key, place.x, place.y, point.fx, point.fy);
  if (group.alerted) alert(fight, unit);
}

function findPlace(fight: Fight, key: number, point: Compiled['points'][number], radius: number): { x: number; y: number } | undefined {
  const { scatter } = point;
  if (scatter === 0 && isFree(fight, point.x, point.y, radius)) return point;
  let n = 0;
  for (let tries = 0; tries < SCATTER_TRIES && scatter > 0; tries++) {
    // Uniform over the disc: points of the square outside it are drawn again.
    const dx = 2 * draw(fight.seed, key, PURPOSE.scatter, n++) - 1;
    const dy = 2 * draw(fight.seed, key, PURPOSE.scatter, n++) - 1;
    if (dx * dx + dy * dy > 1) continue;
    const x = point.x + dx * scatter;
    const y = point.y + dy * scatter;
    if (isFree(fight, x, y, radius)) return { x, y };
  }
  for (let ring = 1; ring <= 2 * PLACE_SEARCH_RADII; ring++) {
    for (let way = 0; way < 16; way++) {
      const x = point.x + (cosine(way * 22.5) * ring * radius) / 2;
      const y = point.y + (sine(way * 22.5) * ring * radius) / 2;
      if (isFree(fight, x, y, radius)) return { x, y };
    }
  }
  return undefined;
}

function isFree(fight: Fight, x: number, y: number, radius: number): boolean {
  const { halfWidth, halfDepth } = fight.compiled;
  if (Math.abs(x) > halfWidth - radius || Math.abs(y) > halfDepth - radius) return false;
  for (let i = 0; i < fight.alive.length; i++) {
    const other = fight.alive[i];
    const dx = fight.xAt(other, fight.now) - x;
    const dy = fight.yAt(other, fight.now) - y;
    const apart = radius + fight.radius[other];
    if (dx * dx + dy * dy < apart * apart) return false;
  }
  return true;
}

function appear(fight: Fight, kindNumber: number, side: number, key: number, x: number, y: number, fx: number, fy: number): number {
  const unit = fight.count++;
  const kind = fight.compiled.kinds[kindNumber];
  const { now } = fight;
  fight.kindNumber[unit] = kindNumber;
  fight.kinds[unit] = kind;
  fight.side[unit] = side;
  fight.key[unit] = key;
  fight.isAlive[unit] = 1;
  fight.x[unit] = x;
  fight.y[unit] = y;
  fight.fx[unit] = fx;
  fight.fy[unit] = fy;
  fight.vx[unit] = fight.vy[unit] = fight.speed[unit] = 0;
  fight.segmentStart[unit] = fight.turnedAt[unit] = fight.bornAt[unit] = fight.nextLook[unit] = now;
  fight.radius[unit] = kind.radius;
  fight.health[unit] = kind.maxHealth;
  fight.healthAt[unit] = fight.regenFrom[unit] = now;
  fight.shield[unit] = kind.shield;
  fight.shieldAt[unit] = fight.shieldFrom[unit] = now;
  fight.energy[unit] = kind.energyStart;
  fight.energyAt[unit] = now;
  fight.windowUntil[unit] = fight.nextTarget[unit] = fight.lastSeen[unit] = fight.pauseUntil[unit] = 0;
  fight.alerted[unit] = fight.noticing[unit] = 0;
  fight.target[unit] = fight.attack[unit] = fight.attackTarget[unit] = NOBODY;
  fight.state[unit] = kind.startsIn;
  takeUp(fight, unit);
  fight.phase[unit] = PHASE.idle;
  fight.moving[unit] = 1;
  fight.held[unit] = 0;
  fight.lose[unit] = kind.lose;
  fight.acceleration[unit] = kind.acceleration;
  fight.turnsAtOnce[unit] = kind.turnRate === 0 ? 1 : 0;
  fight.stepCosine[unit] = kind.stepCosine;
  fight.serial[unit] = 0;
  fight.choiceAt[unit] = fight.nextReady[unit] = -1;
  fight.doing[unit] = DOING.unaware;
  fight.alive.push(unit);
  fight.living[side].push(unit);
  fight.shots.stale = true;
  fight.crowd.clear();
  fight.log.add(now, EVENT.spawn, unit, NOBODY, kindNumber, x, y);
  return unit;
}
