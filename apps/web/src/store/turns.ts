/** What an edit adds to fights in turns says there what it is in turns: the part that fills it in is fetched where it is needed. */
import type { Project } from '@insidia/core';

let fill: ((project: Project) => Project) | undefined;
let fetching = false;

const takesTurns = ({ encounters }: Project) => encounters.some(({ clock }) => clock === 'rounds');

/** Fetches that part where a document has such a fight; what an edit lacks before it has come, the rules refuse by name. */
export function readyForTurns(project: Project): void {
  if (fetching || !takesTurns(project)) return;
  fetching = true;
  void import('./turnsFilled').then(
    ({ withTurnsFilled }) => (fill = withTurnsFilled),
    () => (fetching = false),
  );
}

/** @returns the same object where nothing is lacking */
export const turnsFilled = (project: Project): Project => (fill && takesTurns(project) ? fill(project) : project);
