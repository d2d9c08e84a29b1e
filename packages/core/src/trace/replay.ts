/**
 * A run made ready to be looked at: where everybody is and what it is about at every step, what flies, what has been
 * announced, and the events in words. Recording changes nothing: the run's digest is the same with and without.
 */
import type { Outcome } from '../record/outcome';
import type { Fight } from '../engine/fight';
import { NOBODY, PHASE } from '../engine/numbers';
import { Runner } from '../engine/run';
import type { Compiled } from '../engine/tables';
import { Cells, type Tiling } from '../engine/rounds/cells';
import type { CompiledBoard } from '../engine/rounds/tables';
import { HEXAGON_ROW } from '../model/board-size';
import { clockOf } from '../record/clock';
import { SECOND, roundOf } from '../record/time';
import { lookedAt, pressureClock } from '../measures/clock';
import { partyLosses, pressureAt } from '../measures/pressure';
import { partyHealth } from '../measures/stream';
import { sentenceOf } from './sentences';
import { type TraceEvent, eventsOf, unitNames } from './trace';

/** Numbers kept of a unit at a step, in this order; its radius in m, for a body may grow. */
export const UNIT_COLUMNS = ['x', 'y', 'fx', 'fy', 'health', 'shield', 'phase', 'attack', 'until', 'state', 'target', 'radius'] as const;
export const UNIT_WIDTH = UNIT_COLUMNS.length;
/** Numbers kept of a shot: x, y, velocity x and y in m/s, its owner. */
export const SHOT_WIDTH = 5;
/** Numbers kept of an announced area: x, y, radius, angle of a cone in degrees (360: a circle), facing x and y, when it strikes (s), its owner. */
export const AREA_WIDTH = 8;

export interface ReplayUnit {
  name: string;
  /** The id of its kind. */
  kind: string;
  side: 'party' | 'enemy';
  wave?: string;
  /** m */
  radius: number;
  height: number;
  eye: number;
  muzzle: number;
  maxHealth: number;
  maxShield: number;
  attacks: { name: string; min: number; max: number; windup: number; active: number; recovery: number }[];
  states: string[];
}

/** How the cells of a board lie about the middle of the arena. */
export interface BoardShape {
  tiling: Tiling;
  columns: number;
  rows: number;
  /** m: side of a cell */
  side: number;
  /** m: the middle of each, row by row from the south-west */
  x: readonly number[];
  y: readonly number[];
}

export interface ReplayEvent extends TraceEvent {
  sentence: string;
}

export interface Replay {
  seed: number;
  digest: string;
  outcome: Outcome;
  /** s; or turns */
  length: number;
  /** s between two steps; where the fight takes turns every turn is one, told as a second */
  step: number;
  /** In a fight that takes turns: the round of each step, from 1. */
  rounds?: Int16Array;
  /** The board it is fought on; absent: in seconds, or without ground. */
  board?: BoardShape;
  units: ReplayUnit[];
  /** Where each step's rows begin; one more than there are steps. */
  unitAt: Int32Array;
  /** Which unit each row is of. */
  unitOf: Int16Array;
  unitData: Float32Array;
  shotAt: Int32Array;
  shotData: Float32Array;
  areaAt: Int32Array;
  areaData: Float32Array;
  events: ReplayEvent[];
  /** Pressure at each step, as a share of the party's full health a second. */
  pressure: Float32Array;
}

/** A list of numbers that grows. */
class Growing {
  private data = new Float32Array(4096);
  length = 0;

  add(...values: number[]): void {
    if (this.length + values.length > this.data.length) {
      const larger = new Float32Array(this.data.length * 2);
      larger.set(this.data);
      this.data = larger;
    }
    this.data.set(values, this.length);
    this.length += values.length;
  }

  taken(): Float32Array {
    return this.data.slice(0, this.length);
  }
}

/** Runs a seed and records it for looking at. */
export function replay(compiled: Compiled, seed: number): Replay {
  return replayWith(new Runner(compiled), seed);
}

/** The same with a fight that is made ready already. */
export function replayWith(runner: Runner, seed: number): Replay {
  const { compiled } = runner;
  const units = new Growing();
  const shots = new Growing();
  const areas = new Growing();
  const numbers: number[] = [];
  const unitAt: number[] = [];
  const shotAt: number[] = [];
  const areaAt: number[] = [];
  const turns = clockOf(compiled) === 'rounds';
  /** In turns: when each step is, and how many events there are by then. */
  const stepTimes: number[] = [];
  const told: number[] = [];
  const run = runner.run(seed, (fight, time) => {
    unitAt.push(numbers.length);
    shotAt.push(shots.length / SHOT_WIDTH);
    areaAt.push(areas.length / AREA_WIDTH);
    stepTimes.push(time);
    told.push(fight.log.length);
    for (const unit of fight.alive) {
      numbers.push(unit);
      addUnit(fight, unit, units);
      addArea(fight, unit, time, areas);
    }
    for (const number of fight.shots.flying) {
      const shot = fight.shots.all[number];
      const since = (time - shot.startedAt) / SECOND;
      if (since >= 0) shots.add(shot.x + shot.vx * since, shot.y + shot.vy * since, shot.vx, shot.vy, shot.owner);
    }
  });
  unitAt.push(numbers.length);
  shotAt.push(shots.length / SHOT_WIDTH);
  areaAt.push(areas.length / AREA_WIDTH);
  const names = unitNames(compiled, run);
  const stream = { compiled, run };
  const times = stepTimes.map((time) => time / SECOND);
  const step = turns ? 1 : compiled.step / SECOND;
  const last = stepTimes.length - 1;
  /** Which step an event belongs to: the first that has seen it; the log only grows. */
  let at = 0;
  const stepOfEvent = (i: number) => {
    while (at < last && told[at] <= i) at++;
    return at;
  };
  const full = partyHealth(stream);
  return {
    seed,
    digest: run.digest,
    outcome: run.outcome,
    length: turns ? last : run.length / SECOND,
    step,
    ...(compiled.rounds?.board && { board: shapeOf(compiled.rounds.board) }),
    ...(turns && { rounds: Int16Array.from(stepTimes, (time) => roundOf(time) + 1) }),
    units: names.map((name, unit) => unitOf(compiled, run.kinds[unit], name, run.sides[unit], run.waves[unit])),
    unitAt: Int32Array.from(unitAt),
    unitOf: Int16Array.from(numbers),
    unitData: units.taken(),
    shotAt: Int32Array.from(shotAt),
    shotData: shots.taken(),
    areaAt: Int32Array.from(areaAt),
    areaData: areas.taken(),
    events: eventsOf(compiled, run, names).map((event, i) => ({
      ...event,
      sentence: sentenceOf(event),
      ...(turns && { time: stepOfEvent(i) }),
    })),
    pressure: Float32Array.from(
      pressureAt(partyLosses(stream), lookedAt(stream, times), pressureClock(stream).window),
      (value) => value / full,
    ),
  };
}

const shapeOf = ({ tiling, columns, rows, side, x, y }: CompiledBoard): BoardShape => ({ tiling, columns, rows, side, x, y });

function addUnit(fight: Fight, unit: number, units: Growing): void {
  const kind = fight.kinds[unit];
  const phase = fight.phase[unit];
  const attack = phase === PHASE.idle ? -1 : fight.attack[unit];
  let until = 0;
  if (attack >= 0) {
    const { windup, active, recovery } = fight.attackOf(unit, attack);
    const ends = fight.attackStart[unit] + windup + (phase > PHASE.windup ? active : 0) + (phase > PHASE.active ? recovery : 0);
    until = (ends - fight.now) / SECOND;
  }
  units.add(
    fight.x[unit],
    fight.y[unit],
    fight.fx[unit],
    fight.fy[unit],
    fight.healthNow(unit) / kind.maxHealth,
    kind.shield > 0 ? fight.shieldNow(unit) / kind.shield : 0,
    fight.now < fight.staggeredUntil[unit] ? STAGGERED : phase,
    attack,
    until,
    fight.state[unit],
    fight.target[unit] === NOBODY ? -1 : fight.target[unit],
    // What stands on a board covers whole cells, whatever it measures.
    fight.board ? ((kind.turns?.size ?? 1) / 2) * metresOf(fight.compiled) : fight.radius[unit],
  );
}

/** Beside the phases of an attack: it reels. */
export const STAGGERED = 4;

/** What an attack under way will strike, or is striking. */
function addArea(fight: Fight, unit: number, time: number, areas: Growing): void {
  const phase = fight.phase[unit];
  if (phase !== PHASE.windup && phase !== PHASE.active) return;
  const attack = fight.attackOf(unit, fight.attack[unit]);
  const strikes = (fight.attackStart[unit] + attack.windup + attack.areaDelay - time) / SECOND;
  if (attack.traits.escape === 'reach') {
    const angle = (2 * Math.acos(Math.max(-1, attack.arcCosine)) * 180) / Math.PI;
    const reach = (fight.radius[unit] + attack.rangeMax) * metresOf(fight.compiled);
    areas.add(fight.x[unit], fight.y[unit], reach, angle, fight.fx[unit], fight.fy[unit], strikes, unit);
  } else if (attack.traits.escape === 'area') {
    const about = attack.areaAbout === 'target' ? fight.attackTarget[unit] : unit;
    const [x, y] = attack.areaAbout === 'mark' ? [fight.markX[unit], fight.markY[unit]] : [fight.x[about], fight.y[about]];
    const angle = attack.areaAbout === 'self' ? (2 * Math.acos(Math.max(-1, attack.areaCosine)) * 180) / Math.PI : 360;
    // In turns a body is struck that has a cell so near: half a cell farther.
    const radius = fight.inTurns ? (attack.areaRadius + 0.5) * metresOf(fight.compiled) : attack.areaRadius;
    areas.add(x, y, radius, angle, fight.fx[unit], fight.fy[unit], strikes, unit);
  }
}

/** m: what a length of the tables is, a metre or a cell. */
const metresOf = ({ rounds }: Compiled): number => rounds?.board?.side ?? 1;

function unitOf(compiled: Compiled, kind: number, name: string, side: number, wave: number): ReplayUnit {
  const { id, radius, height, eye, muzzle, maxHealth, shield, attacks, states } = compiled.kinds[kind];
  const metres = metresOf(compiled);
  return {
    name,
    kind: id,
    side: side === 0 ? 'party' : 'enemy',
    ...(wave >= 0 && { wave: compiled.waves[wave].name }),
    radius: radius * metres,
    height,
    eye,
    muzzle,
    maxHealth,
    maxShield: shield,
    attacks: attacks.map((attack) => ({
      name: attack.name,
      min: attack.rangeMin * metres,
      max: attack.rangeMax * metres,
      windup: attack.windup / SECOND,
      active: attack.active / SECOND,
      recovery: attack.recovery / SECOND,
    })),
    states: states.map((state) => state.name),
  };
}

/** The step that an instant lies in. */
export function stepAt({ step, unitAt }: Replay, seconds: number): number {
  return Math.min(Math.max(Math.floor(seconds / step + 1e-9), 0), unitAt.length - 2);
}

/** The row of a unit at a step; −1 where it is not there. */
export function rowOfUnit({ unitAt, unitOf: units }: Replay, unit: number, step: number): number {
  for (let row = unitAt[step]; row < unitAt[step + 1]; row++) if (units[row] === unit) return row;
  return -1;
}

/**
 * How far two units are from one another at a step, edge to edge: in m; where the fight takes turns in cells by its board, and
 * without ground 0.
 * @param a row of one, as `rowOfUnit` gives it; @param b row of the other
 */
export function gapBetween({ board, rounds, unitData }: Replay, a: number, b: number): number {
  const at = (row: number, column: (typeof UNIT_COLUMNS)[number]) => unitData[row * UNIT_WIDTH + UNIT_COLUMNS.indexOf(column)];
  const [ax, ay, bx, by] = [a, b].flatMap((row) => [at(row, 'x'), at(row, 'y')]);
  if (!rounds) return Math.max(0, Math.hypot(bx - ax, by - ay) - at(a, 'radius') - at(b, 'radius'));
  if (!board) return 0;
  const [one, other] = [a, b].map((row) => Math.round((2 * at(row, 'radius')) / board.side));
  const cells = new Cells(board.tiling, board.columns, board.rows);
  return cells.gap(ownCell(board, ax, ay, one), one, ownCell(board, bx, by, other), other);
}

/** The cell that a body of a size says it is on, from where its middle is, m. */
function ownCell({ tiling, columns, rows, side }: BoardShape, x: number, y: number, size: number): number {
  const hexagons = tiling === 'hexagons';
  const off = hexagons ? 0 : ((size - 1) / 2) * side;
  const row = Math.round((y - off) / (hexagons ? side * HEXAGON_ROW : side) + (rows - 1) / 2);
  const aside = hexagons ? (row & 1) / 2 - 0.25 : 0;
  return row * columns + Math.round((x - off) / side + (columns - 1) / 2 - aside);
}

/** The first event at which two runs differ; undefined where one is the beginning of the other or they are the same. */
export function partAt(a: Replay, b: Replay): number | undefined {
  const shorter = Math.min(a.events.length, b.events.length);
  for (let i = 0; i < shorter; i++) {
    const [one, two] = [a.events[i], b.events[i]];
    if (one.sentence !== two.sentence || Math.abs(one.time - two.time) > 1e-9) return Math.min(one.time, two.time);
  }
  if (a.events.length === b.events.length) return undefined;
  return (a.events[shorter] ?? b.events[shorter]).time;
}
