/** How many units of a wave there are to be, and how many are defeated. */
import { ENEMY } from '../../record/sides';
import type { WaveProgress } from '../records';
import type { Fight } from '../fight';
import { draw, PURPOSE } from '../time/chance';
import { watchHold } from './holding';

/** Comings of a wave that a queued event can tell apart. */
export const COMINGS = 64;

/** Which spawn: wave, coming and group in one number below 2^31. */
export function spawnCode(wave: number, coming: number, group: number): number {
  return (wave * COMINGS + coming) * COMINGS + group;
}

export function waveOf(code: number): number {
  return Math.floor(code / COMINGS / COMINGS);
}

/** A unit of a wave is dead or gone. */
export function defeat(fight: Fight, unit: number): void {
  const wave = fight.wave[unit];
  if (wave < 0) return;
  const progress = fight.waves[wave];
  progress.alive--;
  if (!fight.counted[unit]) return;
  fight.counted[unit] = 0;
  countDefeated(fight, progress, fight.coming[unit]);
}

/** Living enemies; what they have standing is none. */
export function enemiesLeft(fight: Fight): number {
  return fight.living[ENEMY].length - fight.thingsLeft;
}

/** One that was to come is there, or left out for good. */
export function made(fight: Fight, wave: number, coming: number, side: number): void {
  fight.waves[wave].toCome[coming]--;
  fight.waves[wave].toComeOf[side]--;
}

/** Nobody of a side is still to come. A wave that has not started holds that up, unless the fight may go on without it. */
export function allCame({ waves, compiled }: Fight, side: number): boolean {
  for (let number = 0; number < waves.length; number++) {
    const { optional, times, brings } = compiled.waves[number];
    const { started, due, comings, toComeOf } = waves[number];
    if (!brings[side]) continue;
    if (toComeOf[side] > 0 || due || (comings < times && (!optional || started))) return false;
  }
  return true;
}

/** One less to come of a wave, or left out of it. */
export function countDefeated(fight: Fight, progress: WaveProgress, coming: number): void {
  progress.defeated++;
  progress.defeatedOf[coming]++;
  progress.reached = Math.max(progress.reached, progress.defeated);
  watchHold(fight);
}

/** One that comes back must be defeated again, where its wave says so. */
export function undefeat(fight: Fight, unit: number): void {
  const wave = fight.wave[unit];
  if (wave < 0) return;
  const progress = fight.waves[wave];
  progress.alive++;
  if (!fight.compiled.waves[wave].countsRevived || fight.counted[unit]) return;
  fight.counted[unit] = 1;
  progress.defeated--;
  progress.defeatedOf[fight.coming[unit]]--;
  watchHold(fight);
}

/** A summoned unit belongs to its summoner's wave, where that counts it. */
export function joinWave(fight: Fight, unit: number, wave: number, coming: number): void {
  const progress = fight.waves[wave];
  belongTo(fight, unit, wave);
  fight.coming[unit] = coming;
  progress.alive++;
  fight.counted[unit] = 1;
  progress.planned++;
  progress.plannedOf[coming]++;
  watchHold(fight);
}

/** Where it comes from. */
export function belongTo(fight: Fight, unit: number, wave: number): void {
  fight.wave[unit] = wave;
}

/** It came with a wave. */
export function comeWith(fight: Fight, unit: number, wave: number, coming: number, group: number): void {
  fight.coming[unit] = coming;
  fight.group[unit] = group;
  fight.counted[unit] = 1;
  fight.waves[wave].alive++;
}

/** A draw of a group's own luck, not of any unit's. */
export function groupChance(fight: Fight, key: number, purpose: number, n: number): number {
  return draw(fight.seed, key, purpose, n);
}

/** How many a group brings: drawn uniformly between its least and its most. */
export function drawCount(fight: Fight, key: number, coming: number, min: number, max: number): number {
  const span = max - min + 1;
  return span > 1 ? min + Math.min(span - 1, Math.floor(groupChance(fight, key, PURPOSE.count, coming) * span)) : min;
}
