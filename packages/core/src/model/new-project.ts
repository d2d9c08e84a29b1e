/** What a new project begins with: somebody to fight, a ground to fight on, and how well may be played. All of it is plain and can be changed. */
import type { Project } from './project';
import { FORMAT, FORMAT_VERSION } from './project';
import { parseProject } from './validate';

/** Somebody of ordinary reflexes with an ordinary weapon: hits 5 × 0.9 twice a second within 15 m, takes a hundred, steps aside and dodges. */
const OPPONENT = {
  id: 'opponent',
  name: 'Opponent',
  side: 'party',
  role: 'opponent',
  glyph: 'diamond',
  colour: 'ink',
  notes: 'Somebody of ordinary reflexes, to have a fight from the start. Change it, or put your own party in its place.',
  health: { max: 100 },
  movement: { walk: 2, run: 5, turnRate: 540 },
  senses: { sight: 40, lose: 60, reaction: { mean: 0.3, spread: 0.08 } },
  attacks: [
    {
      id: 'shot',
      name: 'Shot',
      delivery: 'hitscan',
      range: { min: 0, max: 15 },
      facing: 15,
      beat: { windup: 0.1, recovery: 0.15, cooldown: 0.5, moving: 'slow' },
      effects: { damage: { amount: 5, spread: 1 } },
      hits: { limit: 1 },
      aim: { near: 0.9, far: 0.7 },
    },
  ],
  choice: { priorities: [{ entries: [{ attack: 'shot' }] }] },
  states: [{ id: 'keep-away', name: 'Keep away', does: 'band', pace: 'walk', near: 4, far: 10 }],
  player: {
    attention: { angle: 240, follows: 3, mean: 0.3, spread: 0.08, mistakes: 0.08 },
    answers: [
      { id: 'dodge', kind: 'dodge', window: 0.35, distance: 2, cooldown: 1.5 },
      { id: 'step', kind: 'stepOut' },
    ],
  },
};

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
    units: structuredClone([OPPONENT]),
    arenas: structuredClone([GROUND]),
    skills: structuredClone(SKILLS),
  });
}
