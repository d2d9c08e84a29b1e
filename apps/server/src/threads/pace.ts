/** How fast this machine fights: learnt from what it has run, so that what is still to be run can be told in seconds. */
import { Batch, type Compiled, compile, parseProject, plannedWork } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Of the newest measurement, in what is told. */
const WEIGHT = 0.2;

let nsPerStep: number | undefined;

/** One more measurement: ms for so many steps of units. */
export function paced(work: number, ms: number): void {
  if (work < 1000) return;
  const now = (ms * 1e6) / work;
  nsPerStep = nsPerStep === undefined ? now : nsPerStep * (1 - WEIGHT) + now * WEIGHT;
}

/** s that so much takes with so many threads; undefined before anything has been measured. */
export function secondsFor(work: number, threads: number): number | undefined {
  return nsPerStep === undefined ? undefined : (work * nsPerStep) / 1e9 / threads;
}

/** A fight that is always at hand. */
export function usualFight(): Compiled {
  const demo = parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));
  return compile(demo, { encounter: 'first-bell', tier: 'bloom', skill: 'regular' });
}

/** The first measurement, of a fight that is always at hand. */
export function calibration(): { work: number; ms: number } {
  const compiled = usualFight();
  const batch = new Batch(compiled, 1, 60);
  batch.advance(20); // the compiler warms up
  const began = performance.now();
  batch.advance(40);
  return { work: plannedWork(compiled) * 40, ms: performance.now() - began };
}
