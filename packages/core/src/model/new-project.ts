/** What a new project begins with: somebody to fight, a ground to fight on, and how well may be played. All of it is plain and can be changed. */
import { ordinaryOpponent } from './beginnings/opponent';
import type { Project } from './project';
import { FORMAT, FORMAT_VERSION } from './project';
import { parseProject } from './validate';

const party = (path: string, op: '×' | '+' | '=', value: number) => ({ scope: 'party', path, op, value });

const SKILLS = [
  {
    id: 'novice',
    name: 'novice',
    tweaks: [
      party('/player/attention/mean', '×', 1.5),
      party('/player/attention/mistakes', '×', 2.5),
      party('/player/attention/follows', '=', 1),
      party('/attacks/*/aim/near', '×', 0.75),
      party('/attacks/*/aim/far', '×', 0.7),
    ],
  },
  { id: 'regular', name: 'regular', tweaks: [] },
  {
    id: 'expert',
    name: 'expert',
    tweaks: [
      party('/player/attention/mean', '×', 0.75),
      party('/player/attention/mistakes', '×', 0.3),
      party('/player/attention/follows', '+', 2),
      party('/attacks/*/aim/near', '×', 1.1),
      party('/attacks/*/aim/far', '×', 1.3),
    ],
  },
];

const GROUND = {
  id: 'ground',
  name: 'Ground',
  width: 40,
  depth: 30,
  partyStart: { x: -8, y: 0, facing: 0 },
  spawnPoints: [
    { id: 'east', name: 'East', x: 12, y: 0, scatter: 2, facing: 180 },
    { id: 'north', name: 'North', x: 4, y: 10, scatter: 2, facing: 270 },
    { id: 'south', name: 'South', x: 4, y: -10, scatter: 2, facing: 90 },
  ],
};

/** @throws InvalidDocument for a name or an id that no project may have */
export function newProject(id: string, name: string): Project {
  return parseProject({
    format: FORMAT,
    version: FORMAT_VERSION,
    id,
    name,
    units: [ordinaryOpponent()],
    arenas: structuredClone([GROUND]),
    skills: structuredClone(SKILLS),
  });
}
