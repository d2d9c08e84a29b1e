/** The crowd the engine is timed on: three demo enemies, eight of each, against two Wardens; nobody can die. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';

export const CROWD_UNITS = 26;
export const CROWD_STEPS = 1200;

export function crowdProject({ parseProject }) {
  const demo = JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));
  for (const unit of demo.units) unit.health = { max: 1e6 };
  demo.arenas = [
    {
      id: 'court',
      name: 'Court',
      width: 40,
      depth: 30,
      spawnPoints: [
        { id: 'east', name: 'East', x: 12, y: 0, scatter: 4 },
        { id: 'west', name: 'West', x: -12, y: 5, scatter: 4 },
        { id: 'north', name: 'North', x: 0, y: 11, scatter: 4 },
      ],
    },
  ];
  const groups = ['clipper', 'thistlejack', 'mulcher'].map((enemy, i) => ({
    id: enemy + '-group',
    enemy,
    count: { min: 8, max: 8 },
    at: [['east', 'west', 'north'][i]],
    alerted: true,
  }));
  const party = ['left', 'right'].map((id) => ({ id, unit: 'warden' }));
  demo.encounters = [{ id: 'crowd', name: 'Crowd', arena: 'court', limit: 60, party, waves: [{ id: 'all', name: 'All', groups }] }];
  return parseProject(demo);
}
