/** What an enemy's distances mean together: bands, where it stops, what nothing reaches. Pure; metres between edges. */
import { type Attack, dashOnPaper, type State, type Unit } from '@insidia/core';

export interface Reach {
  /** `carries`: m that its movement brings it nearer at its farthest; below 0: takes it away. */
  attacks: { id: string; name: string; min: number; max: number; carries: number }[];
  /** Bands and stops of its states. */
  keeps: { id: string; name: string; near: number; far: number }[];
  stops: { id: string; name: string; at: number; own: boolean }[];
  /** Stretches between the nearest and the farthest reach that no attack covers. */
  gaps: { from: number; to: number }[];
  /** A state that stops farther away than anything reaches. */
  outOfReach?: { state: string; stops: number; reaches: number };
}

/** @param stopShare share of the longest reach at which an approach stops unless its state says otherwise */
export function reachOf(unit: Unit, stopShare = 0.9): Reach {
  const chosen = new Set(unit.choice.priorities.flatMap(({ entries }) => entries.map(({ attack }) => attack)));
  const attacks = unit.attacks.map((attack) => ({
    id: attack.id,
    name: attack.name,
    min: attack.range.min,
    max: attack.range.max,
    carries: carries(attack),
  }));
  const used = attacks.filter(({ id }) => chosen.has(id));
  const reaches = used.reduce((most, { max }) => Math.max(most, max), 0);
  const keeps = unit.states
    .filter((s) => s.does === 'band' || s.does === 'strafe')
    .map(({ id, name, near = 0, far = 0 }) => ({ id, name, near, far }));
  const stops = unit.states
    .filter((s) => s.does === 'approach')
    .map((s: State) => ({ id: s.id, name: s.name, at: s.stopAt ?? stopShare * reaches, own: s.stopAt !== undefined }));
  const gaps: Reach['gaps'] = [];
  let covered = Infinity;
  for (const { min, max } of [...used].sort((a, b) => a.min - b.min)) {
    if (min > covered + 1e-9) gaps.push({ from: covered, to: min });
    covered = covered === Infinity ? max : Math.max(covered, max);
  }
  const far = [...stops.map(({ name, at }) => ({ name, at })), ...keeps.map(({ name, near }) => ({ name, at: near }))].find(
    ({ at }) => used.length > 0 && at > reaches,
  );
  return { attacks, keeps, stops, gaps, ...(far && { outOfReach: { state: far.name, stops: far.at, reaches } }) };
}

function carries(attack: Attack): number {
  const metres = dashOnPaper(attack, attack.range.max)?.metres ?? 0;
  const way = attack.dash?.way;
  return way === 'away' ? 0 - metres : way === 'sideways' ? 0 : metres;
}

/** Where the ruler breaks: everything up to here is drawn wider. Undefined: one scale serves. */
export function breakAt({ attacks, keeps, stops }: Reach, farthest: number): number | undefined {
  const near = Math.max(1, ...attacks.map(({ max }) => max), ...keeps.map(({ far }) => far), ...stops.map(({ at }) => at));
  return near * 2 < farthest ? Math.ceil(near * 1.1) : undefined;
}
