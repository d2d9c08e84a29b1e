/**
 * A new worker's first runs are slow: code that has not been run often is not compiled yet. While nothing is asked, it runs
 * other fights of the project through all that a readout does, and throws them away.
 */
import { type Project, type Scenario, unitHeads } from '@insidia/core';
import { breathe, workOf } from './gathering';

/** ms that a worker trains in all. */
export const TRAINING_MS = 700;
/** Runs between two looks at what may have been asked. */
const PORTION = { duel: 5, encounter: 1 };
/** Portions of one fight, before its figures are made and the next fight has its turn. */
const TURN = 4;

/** Duels of every enemy and every encounter in turns: what is met first is met by itself, and code learns from variety. */
export function trainingOf(project: Project): Scenario[] {
  const duels = unitHeads(project).flatMap(({ id, side }): Scenario[] => (side === 'enemy' ? [{ kind: 'duel', id }] : []));
  const encounters = project.encounters.map(({ id }): Scenario => ({ kind: 'encounter', id }));
  return Array.from({ length: Math.max(duels.length, encounters.length) }, (_, i) => [duels[i], encounters[i]])
    .flat()
    .filter((one) => one !== undefined);
}

/**
 * Trains until the time is used up or somebody asks.
 * @param left ms that may be used
 * @returns ms that were used
 */
export async function train(project: Project, left: number, asked: () => boolean): Promise<number> {
  const began = performance.now();
  const used = () => performance.now() - began;
  const fights = trainingOf(project);
  for (let round = 0; fights.length > 0 && used() < left; round++) {
    const scenario = fights[round % fights.length];
    try {
      const work = workOf(project, scenario, 1_000_001);
      for (let turn = 0; turn < TURN; turn++) {
        work.add(work.run(1_000_001 + work.count, PORTION[scenario.kind]));
        await breathe();
        if (asked()) return used();
        if (used() >= left) break;
      }
      work.result();
    } catch {
      // A fight that can't be run is told where it is looked at; nothing was asked here.
      fights.splice(round % fights.length, 1);
    }
  }
  return used();
}
