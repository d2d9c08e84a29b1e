/**
 * From a document, an encounter and a lens to the tables that a run reads. Compile once, run many. The result is plain
 * data and may be sent to a worker.
 */
import { LIMITS } from '../model/limits';
import type { Arena } from '../model/arena';
import { effectiveEncounter, type Lens } from '../model/effective';
import { encounterInRounds } from '../model/in-rounds';
import type { Encounter } from '../model/encounter';
import { plannedUnits } from '../model/planned';
import type { Project } from '../model/project';
import { PARTY } from '../record/sides';
import { microseconds } from '../record/time';
import { cosine, sine } from './body/rotation';
import { compileCondition, type ConditionScope, numberIn } from './compile-condition';
import { compileWall, shapeOf } from './compile-ground';
import { compileRounds, inRounds } from './compile-rounds';
import { compileConsequence, compileWave, seated } from './compile-waves';
import { Kinds, standsIn } from './kinds';
import type { Compiled } from './tables';
import { DEFAULT_STEP_SECONDS, ENGINE_VERSION, MOST_UNITS, SUMMON_ROOM } from './tuning';
import { leaveOut } from './without';

export interface CompileOptions extends Lens {
  /** An encounter of the project, or one made for the occasion (a duel). */
  encounter: string | Encounter;
  /** The arena of an encounter made for the occasion. */
  arena?: Arena;
  /** `wave:ID` or `unit:ID`: the encounter without it. */
  without?: string;
  /** s; movement, senses and transitions advance this often */
  stepSeconds?: number;
}

/** @throws Error when the project has no such encounter, tier, skill or style */
export function compile(project: Project, options: CompileOptions): Compiled {
  const wanted = typeof options.encounter === 'string' ? project.encounters.find(({ id }) => id === options.encounter) : options.encounter;
  if (!wanted) throw new Error(`there is no encounter "${String(options.encounter)}" in ${project.name}`);
  mustExist(project.tiers, options.tier, 'tier', project.name);
  mustExist(project.skills, options.skill, 'skill', project.name);
  mustExist(project.styles, options.style, 'style', project.name);
  const { players, stepSeconds = DEFAULT_STEP_SECONDS } = options;
  if (players !== undefined && !(Number.isInteger(players) && players >= 1 && players <= LIMITS.party))
    throw new Error(`players must be a whole number from 1 to ${LIMITS.party}: it is ${players}`);
  if (!(stepSeconds >= 0.001 && stepSeconds <= 1)) throw new Error(`step must be between 0.001 and 1 s: it is ${stepSeconds}`);
  const whole = effectiveEncounter(project, wanted, options).unit;
  const left = options.without === undefined ? whole : leaveOut(whole, options.without);
  const turns = inRounds(left);
  if (turns && options.stepSeconds !== undefined) throw new Error(`${left.name} takes turns: it has no step`);
  const encounter = turns ? encounterInRounds(left) : left;
  const arena = options.arena ?? project.arenas.find(({ id }) => id === encounter.arena);
  if (!arena) throw new Error(`there is no arena "${encounter.arena}" in ${project.name}`);

  const kinds = new Kinds(project, options, encounter, arena, stepSeconds);
  const { names } = kinds;
  const members = encounter.party.slice(0, players ?? encounter.party.length);
  const party = kinds.lineUp(members, 'party', arena, 0);
  const allies = kinds.lineUp(encounter.allies, 'allies', arena, 1);
  const scope: ConditionScope = { names, attacks: [], nodes: { count: 0 } };
  const waves = encounter.waves.map((wave, number) => compileWave(wave, number, encounter, arena, kinds, scope));
  const seats = members.length ? party.map(({ kind }) => ({ kind })) : seated(waves);
  const places = arena.points.map((point) => ({
    id: point.id,
    x: point.x,
    y: point.y,
    kind:
      point.health !== undefined && standsIn(encounter, point.id)
        ? kinds.ofPoint(point.id, point.name, point.radius, point.height, point.health)
        : -1,
    defended: encounter.ends.defend.includes(point.id),
    enemies: encounter.ends.destroy.includes(point.id),
  }));
  const events = encounter.events.map(({ id, name, when, then }) => ({
    id,
    name,
    when: compileCondition(when, scope),
    then: then.map((act, i) => compileConsequence(act, `event/${id}/${i}`, kinds)),
  }));
  const zones = arena.zones.map(({ id, corners, flag, by, role }) => ({
    id,
    shape: shapeOf(corners),
    middleX: corners.reduce((sum, { x }) => sum + x, 0) / corners.length,
    middleY: corners.reduce((sum, { y }) => sum + y, 0) / corners.length,
    flag: numberIn(names.flags, flag),
    party: by !== 'enemies',
    enemies: by !== 'party',
    role: role === undefined ? -1 : numberIn(names.roles, role),
  }));
  kinds.finish();
  const summons = kinds.all.some(({ attacks }) => attacks.some(({ summonKind }) => summonKind >= 0));
  const ours = waves
    .flatMap(({ groups }) => groups.filter(({ side }) => side === PARTY).flatMap((group) => group.kinds.flat(2)))
    .map((kind) => ({ kind }));
  const standing = places.filter(({ kind }) => kind >= 0).length;
  const closed = kinds.closedGround();
  return {
    engine: ENGINE_VERSION,
    rounds: turns ? compileRounds(encounter, arena, closed) : null,
    step: microseconds(stepSeconds),
    limit: microseconds(encounter.limit),
    halfWidth: arena.width / 2,
    halfDepth: arena.depth / 2,
    grid: arena.grid,
    walls: arena.walls.map(compileWall),
    groundRules: kinds.context.groundRules,
    closed,
    zones,
    points: arena.spawnPoints.map(({ id, x, y, scatter, facing: f }) => ({ id, x, y, scatter, fx: cosine(f), fy: sine(f) })),
    places,
    names,
    kinds: kinds.all,
    kindOfType: names.types.map((type) => kinds.plainKind(type)),
    roleOfType: kinds.context.roleOfType,
    keepSource: kinds.context.keepSource,
    party,
    seats,
    allies,
    waves,
    events,
    counters: encounter.counters.map(({ start }) => start),
    counterNames: encounter.counters.map(({ name }) => name),
    pools: encounter.slots.map(({ id, size, perTarget, gap }) => ({ id, size, perTarget, gap: microseconds(gap) })),
    aliveMost: encounter.alive?.most ?? Infinity,
    aliveMostOfType: names.types.map((type) => encounter.alive?.perType.find(({ unit }) => unit === type)?.most ?? Infinity),
    whenFull: encounter.alive?.full ?? 'wait',
    winsCleared: encounter.ends.cleared,
    winsSurvive: encounter.ends.survive,
    winsDestroyed: places.some(({ kind, enemies }) => enemies && kind >= 0),
    capacity: Math.min(MOST_UNITS, plannedUnits(encounter) + standing + (summons ? SUMMON_ROOM : 0)),
    attackRoom: kinds.all.reduce((most, { attacks }) => Math.max(most, attacks.length), 1),
    hasPlayers: [...party, ...allies, ...ours].some(({ kind }) => kinds.all[kind].player !== null),
    hasStrayers: waves.some(({ groups }) => groups.some(({ leavesBeyond }) => leavesBeyond < Infinity)),
  };
}

function mustExist(list: { id: string }[], id: string | undefined, what: string, project: string): void {
  if (id !== undefined && !list.some((item) => item.id === id)) throw new Error(`there is no ${what} "${id}" in ${project}`);
}
