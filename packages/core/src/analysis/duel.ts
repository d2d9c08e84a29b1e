/** One enemy type against one party member on open ground: the encounter behind the readout of an enemy. */
import type { CompileOptions } from '../engine/compile';
import type { Lens } from '../model/effective';
import { effectiveUnit } from '../model/effective';
import { Arena, SpawnPoint } from '../model/arena';
import { Encounter, Wave, WaveGroup } from '../model/encounter';
import type { Project } from '../model/project';

export interface DuelOptions {
  enemy: string;
  against: string;
  /** 1 to 12 */
  copies?: number;
  /** m between the edges of the bodies at the start */
  distance?: number;
  /** s */
  limit?: number;
}

export const DUEL_DEFAULTS = { copies: 1, distance: 12, limit: 60 } as const;

/**
 * What to hand to `compile` for a duel: party member at the middle facing the enemy, enemies at the distance facing back.
 * Neither knows of the other until it looks. Ids in it are fixed, so the luck of a duel does not depend on names.
 * @throws Error for a unit that is not there or options out of range
 */
export function duelOptions(project: Project, lens: Lens, options: DuelOptions): CompileOptions {
  const { enemy, against, copies, distance, limit } = { ...DUEL_DEFAULTS, ...options };
  if (!Number.isInteger(copies) || copies < 1 || copies > 12)
    throw new Error(`copies must be a whole number from 1 to 12: it is ${copies}`);
  if (!(distance >= 0 && distance <= 200)) throw new Error(`distance must be from 0 to 200 m: it is ${distance}`);
  const near = effectiveUnit(project, enemy, lens).unit.body.radius;
  const radii = near + effectiveUnit(project, against, lens).unit.body.radius;
  const point = Object.assign(new SpawnPoint(), { id: 'duel-point', name: 'opposite', x: distance + radii });
  Object.assign(point, { scatter: copies > 1 ? near * 4 : 0, facing: 180 });
  const arena = Object.assign(new Arena(), { id: 'duel-ground', name: 'open ground', width: 1000, depth: 1000, spawnPoints: [point] });
  const group = Object.assign(new WaveGroup(), { id: 'duel-group', enemy, count: { min: copies, max: copies }, at: [point.id] });
  const wave = Object.assign(new Wave(), { id: 'duel-wave', name: 'duel', groups: [group] });
  const encounter = Object.assign(new Encounter(), { id: 'duel', name: 'duel', arena: arena.id, waves: [wave], limit });
  encounter.party = [{ id: 'duel-member', unit: against }];
  return { ...lens, encounter, arena };
}
