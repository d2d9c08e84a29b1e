/** What this browser remembers of how far somebody is in a project's first steps. */
import type { Seen } from './firstSteps';

export interface Kept {
  begun: boolean;
  over: boolean;
  seen: Seen[];
}

const keyOf = (project: string) => `insidia first steps ${project}`;

/** As long as the page is open, where the browser keeps nothing. */
const memory = new Map<string, Kept>();

/** What this browser remembers of a project's first steps. */
export function keptSteps(project: string): Kept {
  const none: Kept = { begun: false, over: false, seen: [] };
  try {
    return memory.get(project) ?? { ...none, ...(JSON.parse(localStorage.getItem(keyOf(project)) ?? '{}') as Partial<Kept>) };
  } catch {
    return none;
  }
}

/** Told on the window whenever it changes. */
export const KEPT = 'first-steps';

export function keepSteps(project: string, kept: Kept): void {
  memory.set(project, kept);
  try {
    localStorage.setItem(keyOf(project), JSON.stringify(kept));
  } catch {
    // A full or closed store: it is remembered until the page is left.
  }
  dispatchEvent(new Event(KEPT));
}
