/** An enemy, alone or with others, against a party member or several: the encounter behind a readout. */
import type { Arena } from '../model/arena';
import { boardSize } from '../model/board-size';
import type { CompileOptions } from '../engine/compile';
import type { Lens } from '../model/effective';
import { effectiveUnit } from '../model/effective';
import { Encounter, Wave, WaveGroup } from '../model/encounter';
import { LIMITS } from '../model/limits';
import type { Project } from '../model/project';
import { CLOCKS } from '../record/clock';
import type { EncounterRounds } from '../model/rounds';
import { openBoard } from './duel-board';
import { clockOfDuel, duelRounds, mustTakeTurns, usualDistance } from './duel-clock';
import { openGround, within } from './duel-ground';
import { DUEL_DEFAULTS, DUEL_MOST, type DuelOptions, pointOf } from './duel-setup';

/**
 * What to hand to `compile` for a duel: party member at the middle, the enemies together at the distance, facing it. Neither
 * knows of the other until it looks. Ids in it are fixed, so the luck of a duel does not depend on names.
 * @throws Error for a unit that is not there or options out of range
 */
export function duelOptions(project: Project, lens: Lens, options: DuelOptions): CompileOptions {
  const { enemy, against, copies, from, limit, wall, company = [] } = { ...DUEL_DEFAULTS, ...options };
  const clock = clockOfDuel(project, options);
  if (!CLOCKS.includes(clock)) throw new Error(`clock must be one of ${CLOCKS.join(', ')}: it is ${String(clock)}`);
  const { distance = usualDistance(clock) } = options;
  counted('copies', copies);
  if (company.length > DUEL_MOST.kinds) throw new Error(`company must be at most ${DUEL_MOST.kinds} kinds: it is ${company.length}`);
  for (const { unit, count } of company) counted(`company of ${unit}`, count);
  if (!(distance >= 0 && distance <= 200)) throw new Error(`distance must be from 0 to 200 m: it is ${distance}`);
  const members = typeof against === 'string' ? [against] : against;
  if (members.length < 1 || members.length > LIMITS.party)
    throw new Error(`against must name 1 to ${LIMITS.party} party members: it names ${members.length}`);
  const kinds = [{ unit: enemy, count: copies }, ...company];
  const rounds = clock === 'rounds' ? { ...duelRounds(project, enemy), limit } : undefined;
  const arena = groundOf(project, lens, { ...options, distance, from, wall }, members[0], rounds);
  const point = arena.spawnPoints[0];
  const alone = copies === 1 && !company.length;
  const widest = Math.max(...kinds.map(({ unit }) => radiusOf(project, lens, unit, rounds)));
  const scatter = Math.max(alone ? 0 : widest * 4, pointOf(from) === undefined ? 0 : point.scatter);
  arena.spawnPoints = [{ ...point, scatter }];
  const groups = kinds.map(({ unit, count }, i) =>
    Object.assign(new WaveGroup(), {
      id: i === 0 ? 'duel-group' : `duel-group-${i + 1}`,
      enemy: unit,
      count: { min: count, max: count },
      at: [point.id],
    }),
  );
  const wave = Object.assign(new Wave(), { id: 'duel-wave', name: 'duel', groups });
  const encounter = Object.assign(new Encounter(), { id: 'duel', name: 'duel', arena: arena.id, waves: [wave], limit });
  encounter.party = members.map((unit, i) => ({ id: i === 0 ? 'duel-member' : `duel-member-${i + 1}`, unit }));
  if (rounds) {
    Object.assign(encounter, { clock, rounds });
    mustTakeTurns(project, encounter);
    mustFit(arena, rounds);
  }
  return { ...lens, encounter, arena };
}

/** Of a board made for the occasion nothing else says how large it may be. */
function mustFit(arena: Arena, { ground, cell }: EncounterRounds): void {
  if (ground === 'none') return;
  const { columns, rows } = boardSize(arena, cell, ground);
  const most = LIMITS.boardSide;
  if (columns > most || rows > most)
    throw new Error(`${arena.name} would be ${columns} × ${rows} cells: at most ${most} × ${most} are kept`);
}

/** m; in turns half of what its body covers. */
function radiusOf(project: Project, lens: Lens, id: string, rounds?: EncounterRounds): number {
  const { unit } = effectiveUnit(project, id, lens);
  return rounds ? ((unit.rounds?.size ?? 1) / 2) * rounds.cell : unit.body.radius;
}

function counted(what: string, count: number): void {
  if (!Number.isInteger(count) || count < 1 || count > DUEL_MOST.copies)
    throw new Error(`${what} must be a whole number from 1 to ${DUEL_MOST.copies}: it is ${count}`);
}

function groundOf(
  project: Project,
  lens: Lens,
  options: DuelOptions & Required<Pick<DuelOptions, 'distance' | 'from'>>,
  member: string,
  rounds: EncounterRounds | undefined,
): Arena {
  const { enemy, arena, distance, from, wall } = options;
  const point = pointOf(from);
  if (point === undefined && from !== 'ahead' && from !== 'behind')
    throw new Error(`from must be ahead, behind or a spawn point: it is ${from}`);
  const near = radiusOf(project, lens, enemy, rounds);
  const radii = near + radiusOf(project, lens, member, rounds);
  const apart = (rounds ? (distance - 1) * rounds.cell : distance) + radii;
  if (arena !== undefined) {
    if (wall !== undefined) throw new Error('a wall between stands on open ground: leave out the wall or the arena');
    return within(project, arena, apart, near, from);
  }
  if (point !== undefined) throw new Error(`the spawn point "${point}" is of an arena: say which`);
  if (rounds?.ground === 'none' && wall !== undefined) throw new Error('without ground there is no wall between: leave it out');
  if (!rounds || rounds.ground === 'none') return openGround(apart, distance, from, wall);
  const sizeOf = (id: string) => effectiveUnit(project, id, lens).unit.rounds?.size ?? 1;
  return openBoard(rounds, { distance, sizes: [sizeOf(member), sizeOf(enemy)], from, wall });
}
