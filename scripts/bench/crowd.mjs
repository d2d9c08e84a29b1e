/** The crowds the engine is timed on: demo units whose health nobody can use up, on open ground, among walls, and in numbers. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';

export const CROWD_UNITS = 26;
export const CROWD_STEPS = 1200;

function undying() {
  const demo = JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));
  for (const unit of demo.units) {
    unit.health = { max: 1e6 };
    // A stagger that comes of damage would come all the time.
    delete unit.stagger;
    if (unit.player) Object.assign(unit.player, { down: undefined, healing: undefined, cover: undefined });
  }
  return JSON.parse(JSON.stringify({ ...demo, brief: undefined, tuning: undefined, tiers: [], skills: [], styles: [], variants: [] }));
}

const point = (id, x, y, scatter = 4) => ({ id, name: id, x, y, scatter });
const party = ['left', 'right'].map((id) => ({ id, unit: 'warden' }));
const KINDS = ['clipper', 'thistlejack', 'mulcher'];

/** Three demo enemies, eight of each, against two Wardens with all that a simulated player does. */
export function crowdProject({ parseProject }, { walled = false } = {}) {
  const demo = undying();
  const hall = demo.arenas.find(({ id }) => id === 'propagation-hall');
  const arena = walled
    ? { ...hall, id: 'court', name: 'Court', points: [], zones: [] }
    : { id: 'court', name: 'Court', width: 40, depth: 30, spawnPoints: [point('s4', 12, 0), point('s1', -12, 5), point('s3', 0, 11)] };
  const groups = KINDS.map((enemy, i) => ({
    id: enemy + '-group',
    enemy,
    count: { min: 8, max: 8 },
    at: [['s4', 's1', 's3'][i]],
    alerted: true,
  }));
  demo.arenas = [arena];
  demo.encounters = [{ id: 'crowd', name: 'Crowd', arena: 'court', limit: 60, party, waves: [{ id: 'all', name: 'All', groups }] }];
  return parseProject(demo);
}

/**
 * So many units at a constant density: camps of two Wardens and fourteen enemies, far enough apart that each keeps to itself.
 * A document's party ends at four, so the tables are made for one and its members set down in every camp.
 */
export function campsTables({ parseProject, compile }, units) {
  const demo = undying();
  const camps = units / 16;
  const columns = Math.ceil(Math.sqrt(camps));
  const at = (camp) => ({ x: ((camp % columns) - (columns - 1) / 2) * 50, y: (Math.floor(camp / columns) - (columns - 1) / 2) * 50 });
  for (const unit of demo.units) Object.assign(unit.senses, { sight: 18, lose: 24, interval: 0.2 });
  const spawnPoints = [];
  const groups = [];
  for (let camp = 0; camp < camps; camp++) {
    const { x, y } = at(camp);
    spawnPoints.push(point(`c${camp}`, x, y + 7, 5));
    KINDS.forEach((enemy, i) =>
      groups.push({ id: `g${camp}-${i}`, enemy, count: { min: [5, 5, 4][i], max: [5, 5, 4][i] }, at: [`c${camp}`], alerted: true }),
    );
  }
  const width = columns * 50 + 20;
  demo.arenas = [{ id: 'plain', name: 'Plain', width, depth: width, spawnPoints }];
  const waves = [];
  for (let from = 0; from < groups.length; from += 60)
    waves.push({ id: `w${from}`, name: `w${from}`, groups: groups.slice(from, from + 60) });
  demo.encounters = [{ id: 'camps', name: 'Camps', arena: 'plain', limit: 30, party, waves }];
  const project = parseProject(demo);
  project.encounters[0].party = Array.from({ length: 2 * camps }, (_, i) => ({ id: `m${i}`, unit: 'warden' }));
  const tables = compile(project, { encounter: 'camps' });
  tables.party.forEach((member, i) => {
    const { x, y } = at(Math.floor(i / 2));
    Object.assign(member, { x: x + (i % 2 ? 1 : -1), y: y - 4 });
  });
  return tables;
}

/** As many as there may be, for an hour, in the hall of Evening Shift: two of the party among 495 who press on them. */
export function hallTables({ parseProject, compile }) {
  const demo = undying();
  const shift = demo.encounters.find(({ id }) => id === 'evening-shift');
  const group = (enemy, at) => ({ ...shift.waves[0].groups[0], id: enemy, enemy, at, count: { min: 165, max: 165 }, spacing: 0 });
  const groups = KINDS.map((enemy, i) =>
    group(
      enemy,
      [
        ['s1', 's2'],
        ['s3', 's4', 's5'],
        ['s3', 's4', 's5'],
      ][i],
    ),
  );
  const alive = { most: 495, perType: [], full: 'wait' };
  demo.encounters = [{ ...shift, alive, events: [], waves: [{ ...shift.waves[0], groups }], limit: 3600 }];
  return compile(parseProject(demo), { encounter: 'evening-shift' });
}
