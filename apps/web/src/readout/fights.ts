/** Readouts that are kept: what an edit is compared with, and what is undone, is asked for again and again. */
import type { Compiled, EncounterReadout, Project, Readout, Scenario } from '@insidia/core';
import { POLICIES, type Work, workOf } from './gathering';

/** A readout, as far as it has come. */
export interface OneFight {
  key: string;
  project: Project;
  scenario: Scenario;
  firstSeed: number;
  compiled: Compiled;
  work: Work;
  /** What it comes to by now; absent: nothing yet. */
  result?: Readout | EncounterReadout;
  /** The runs of its first figures are in: it has been shown, and not only been run to see how far a measure goes. */
  ready?: boolean;
  /** More runs would add little. */
  enough?: boolean;
}

/** Works that keep their rows, so that they can be gone on with: what is looked at, what was before it, the ends of the tiers. */
const GOING = 6;

export class Fights {
  private readonly held: Record<Scenario['kind'], Map<string, OneFight>> = { duel: new Map(), encounter: new Map() };

  /** The fight, as far as it has come. @throws Error for what is not there */
  of(project: Project, scenario: Scenario, firstSeed: number): OneFight {
    const work = workOf(project, scenario, firstSeed);
    const kept = this.held[scenario.kind];
    const found = kept.get(work.key);
    if (!found) return { key: work.key, project, scenario, firstSeed, compiled: work.compiled, work };
    // The newest stay.
    kept.delete(work.key);
    kept.set(work.key, found);
    return found;
  }

  /** The same where it may be that it can't be run. */
  known(project: Project, scenario: Scenario, firstSeed: number): OneFight | undefined {
    try {
      return this.of(project, scenario, firstSeed);
    } catch {
      return undefined;
    }
  }

  /** Keeps one that is a readout from now on. */
  ready(fight: OneFight): void {
    fight.ready = true;
    this.keep(fight);
  }

  keep(fight: OneFight): void {
    const kept = this.held[fight.scenario.kind];
    kept.delete(fight.key);
    kept.set(fight.key, fight);
    if (kept.size > POLICIES[fight.scenario.kind].kept) kept.delete(kept.keys().next().value as string);
    // Rows are large: those that were shown longest ago are run again should they be gone on with.
    for (const old of [...kept.values()].slice(0, -GOING))
      if (old.work.count > 0) old.work = workOf(old.project, old.scenario, old.firstSeed);
  }
}
