/** How the parts of a document refer to one another. */
import { briefProblems } from './brief-relations';
import { conditionProblems } from './condition-relations';
import type { Arena, Corner } from './arena';
import { Encounter, type EncounterEvent, type Wave, type WaveGroup } from './encounter';
import { type Report, fieldProblems } from './field-relations';
import { LIMITS } from './limits';
import { hasParty, plannedUnits } from './planned';
import { pointerOf } from './pointer';
import type { Problem } from './problem';
import { questionProblems } from './question-relations';
import { roundsSize } from './rounds-relations';
import { COLLECTIONS, Project } from './project';
import type { Tweak } from './tweak';
import { Unit } from './unit';
import { partProblems, tweakPaths } from './unit-relations';

export function relationProblems(project: Project): Problem[] {
  const problems = fieldProblems(Project, project, [], { project });
  const report: Report = (path, rule, value, message) => problems.push({ path, rule, value, message });
  uniqueEverywhere(project, report);
  for (const unit of project.units) partProblems(unit, ['units', unit.id], report);
  for (const { id, tweaks } of project.traits) tweakPaths(Unit, tweaks, report, 'traits', id, 'tweaks');
  for (const { id, tweaks } of project.variants) tweakPaths(Unit, tweaks, report, 'variants', id, 'tweaks');
  for (const arena of project.arenas) arenaProblems(arena, report);
  for (const encounter of project.encounters) encounterProblems(project, encounter, report);
  for (const list of ['tiers', 'skills', 'styles'] as const) {
    for (const { id, tweaks } of project[list]) scopedTweaks(tweaks, list !== 'tiers', report, list, id, 'tweaks');
  }
  briefProblems(project, report);
  questionProblems(project, report);
  return problems;
}

/** References are by id alone, so an id is used once in the whole project; and a variant's name is not a unit's. */
function uniqueEverywhere(project: Project, report: Report): void {
  const everyId = new Map<string, string>();
  for (const collection of COLLECTIONS) {
    for (const { id } of project[collection]) {
      const other = everyId.get(id);
      if (other && other !== collection)
        report(pointerOf(collection, id, 'id'), 'unique', id, `must be unique in the project; ${other} has it too`);
      everyId.set(id, collection);
    }
  }
  const names = new Set(project.units.map(({ name }) => name));
  for (const { id, name } of project.variants)
    if (names.has(name)) report(pointerOf('variants', id, 'name'), 'unique', name, 'must be unique among units and variants');
}

function scopedTweaks(tweaks: Tweak[], partyOnly: boolean, report: Report, ...at: string[]): void {
  tweaks.forEach((tweak, i) => {
    const here = pointerOf(...at, i);
    tweakPaths(
      tweak.scope === 'encounter' ? Encounter : Unit,
      [tweak],
      (path, ...rest) => report(path.replace('/0/', `/${i}/`), ...rest),
      ...at,
    );
    if (partyOnly && (tweak.scope === 'enemies' || tweak.scope === 'role' || tweak.scope === 'encounter'))
      report(`${here}/scope`, 'applies', tweak.scope, 'changes the party: party or one unit');
  });
}

function arenaProblems(arena: Arena, report: Report): void {
  const at = ['arenas', arena.id];
  for (const list of ['walls', 'ground', 'zones'] as const)
    for (const { id, corners } of arena[list]) shapeProblems(corners, report, ...at, list, id, 'corners');
  const cells = (arena.width / arena.grid) * (arena.depth / arena.grid);
  if ((arena.walls.length || arena.ground.length) && cells > LIMITS.gridCells)
    report(
      pointerOf(...at, 'grid'),
      'limit',
      arena.grid,
      `makes ${Math.ceil(cells)} cells; at most ${LIMITS.gridCells} are kept: widen the grid`,
    );
}

/** A shape has at least three corners, turns one way all round, and has an area. */
function shapeProblems(corners: Corner[], report: Report, ...at: string[]): void {
  if (corners.length < 3) {
    report(pointerOf(...at), 'required', corners.length, 'needs at least three corners');
    return;
  }
  let left = 0;
  let right = 0;
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length];
    const c = corners[(i + 2) % corners.length];
    const turn = (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
    if (turn > 0) left++;
    if (turn < 0) right++;
  });
  if ((left > 0 && right > 0) || left + right < corners.length)
    report(pointerOf(...at), 'convex', corners.length, 'must be the corners of a convex shape in order, none in line with its neighbours');
}

function encounterProblems(project: Project, encounter: Encounter, report: Report): void {
  const at = ['encounters', encounter.id];
  const arena = project.arenas.find(({ id }) => id === encounter.arena);
  if (!hasParty(encounter))
    report(pointerOf(...at, 'party'), 'required', encounter.party, 'needs a member, or a group of its side in a wave that must come');
  encounter.waves.forEach((wave, number) => waveProblems(encounter, wave, number, report));
  encounter.bySize.forEach(({ tweaks }, i) => scopedTweaks(tweaks, false, report, ...at, 'bySize', String(i), 'tweaks'));
  for (const event of encounter.events) eventProblems(encounter, event, report);
  const { ends } = encounter;
  for (const list of ['defend', 'destroy', 'also'] as const)
    ends[list].forEach((id, i) => {
      if (arena?.points.some((point) => point.id === id && point.health === undefined))
        report(pointerOf(...at, 'ends', list, i), 'reference', id, 'must be a point of the arena that has health');
      if (list !== 'destroy' && ends.destroy.includes(id))
        report(
          pointerOf(...at, 'ends', list, i),
          'applies',
          id,
          'must not stand on both sides: it is among those that the fight is won with',
        );
    });
}

/** What must hold of an encounter's numbers, whatever tweaks made of them. */
export function encounterOrderProblems(project: Project, encounter: Encounter, at: string[]): Problem[] {
  const problems: Problem[] = [];
  const report: Report = (path, rule, value, message) => problems.push({ path, rule, value, message });
  for (const { id: wave, groups } of encounter.waves) {
    for (const { id, count } of groups) {
      if (count.min > count.max)
        report(pointerOf(...at, 'waves', wave, 'groups', id, 'count', 'min'), 'order', count.min, `must be at most ${count.max}`);
    }
  }
  sizeProblems(encounter, report, at);
  roundsSize(project, encounter, at, report);
  return problems;
}

function sizeProblems(encounter: Encounter, report: Report, at: string[]): void {
  const planned = plannedUnits(encounter);
  const { alive } = encounter;
  if (planned > LIMITS.plannedUnits)
    report(pointerOf(...at, 'waves'), 'limit', planned, `may bring at most ${LIMITS.plannedUnits} units over the whole fight`);
  else if (!alive && planned > LIMITS.liveUnits)
    report(
      pointerOf(...at, 'waves'),
      'limit',
      planned,
      `may bring at most ${LIMITS.liveUnits} living units, the party among them; or set a cap on the living`,
    );
  else if (alive && alive.most + plannedUnits(encounter, 'ours') > LIMITS.liveUnits)
    report(pointerOf(...at, 'alive', 'most'), 'limit', alive.most, `with the party must be at most ${LIMITS.liveUnits}`);
}

function waveProblems(encounter: Encounter, wave: Wave, number: number, report: Report): void {
  const at = ['encounters', encounter.id, 'waves', wave.id];
  if (wave.after === wave.id) report(pointerOf(...at, 'after'), 'reference', wave.after, 'must be another wave of the encounter');
  if ((wave.start === 'with' || wave.start === 'defeated') && wave.after === undefined && number === 0)
    report(pointerOf(...at, 'after'), 'required', undefined, 'must name a wave: there is none before the first');
  if (wave.when) conditionProblems(wave.when, 'encounter', [...at, 'when'], report);
  if (wave.repeat) tweakPaths(Unit, wave.repeat.tweaks, report, ...at, 'repeat', 'tweaks');
  if (circular(encounter, wave)) report(pointerOf(...at, 'after'), 'circular', wave.after, 'waits for a wave that waits for it');
  for (const group of wave.groups) groupProblems(group, [...at, 'groups', group.id], report);
}

/** Whether a wave waits, at however many removes, for itself. */
function circular({ waves }: Encounter, wave: Wave): boolean {
  const waitsFor = (one: Wave) =>
    one.start === 'with' || one.start === 'defeated' ? (one.after ?? waves[waves.indexOf(one) - 1]?.id) : undefined;
  const seen = new Set<string>();
  for (let at = waitsFor(wave); at !== undefined && !seen.has(at);) {
    if (at === wave.id) return true;
    seen.add(at);
    const next = waves.find(({ id }) => id === at);
    at = next && waitsFor(next);
  }
  return false;
}

function groupProblems(group: WaveGroup, here: string[], report: Report): void {
  if ((group.enemy === undefined) === (group.pool.length === 0))
    report(pointerOf(...here, 'enemy'), 'required', group.enemy, 'a group has either one enemy or a pool');
  if (group.pool.length && !group.pool.some(({ weight }) => weight > 0))
    report(pointerOf(...here, 'pool'), 'required', group.pool.length, 'needs an entry with a weight above 0');
  if (group.draws === 'budget' && group.budget <= 0)
    report(pointerOf(...here, 'budget'), 'required', group.budget, 'must be above 0 to be spent');
}

function eventProblems(encounter: Encounter, event: EncounterEvent, report: Report): void {
  const at = ['encounters', encounter.id, 'events', event.id];
  conditionProblems(event.when, 'encounter', [...at, 'when'], report);
  event.then.forEach((act, i) => {
    const here = [...at, 'then', String(i)];
    scopedTweaks(act.tweaks, false, report, ...here, 'tweaks');
    act.tweaks.forEach((tweak, t) => {
      if (tweak.scope === 'encounter')
        report(pointerOf(...here, 'tweaks', t, 'scope'), 'applies', tweak.scope, 'changes units while the fight runs');
    });
  });
}
