/** How the turns of a fight go, and the board it is fought on, as a run reads them. */
import type { Arena } from '../model/arena';
import { HEXAGON_ROW, boardSize } from '../model/board-size';
import type { Encounter } from '../model/encounter';
import type { Attack } from '../model/attack';
import type { GroundCost, UnitRounds } from '../model/rounds';
import { ENEMY, PARTY } from '../record/sides';
import { contains } from './body/clearance';
import { compileWall, shapeOf } from './compile-ground';
import { Cells, type Tiling } from './rounds/cells';
import { MOST_ORDER_SPREAD } from './rounds/turns';
import type { CompiledShape } from './tables';
import type { CompiledBoard, CompiledRounds, CompiledTurns } from './rounds/tables';

/** @param closed by class of ground, what is closed to it besides walls */
export function compileRounds(encounter: Encounter, arena: Arena, closed: CompiledShape[][]): CompiledRounds {
  const { order, first, drawn, ground, cell, rows, costs, zones } = encounter.rounds!;
  return {
    order,
    first: first === 'ours' ? PARTY : ENEMY,
    drawn,
    board: ground === 'none' ? null : compileBoard(ground, arena, cell, closed, costs),
    zonesPassed: ground !== 'none' && zones === 'pass',
    rows: ground === 'none' && rows,
  };
}

/** A cell is closed whose middle lies in a wall, or on ground that is closed. */
function compileBoard(tiling: Tiling, arena: Arena, side: number, closed: CompiledShape[][], costs: readonly GroundCost[]): CompiledBoard {
  const { columns, rows } = boardSize(arena, side, tiling);
  const { count } = new Cells(tiling, columns, rows);
  const walls = arena.walls.map(compileWall);
  const middles = Array.from({ length: count }, (_, cell) => middleOf({ tiling, columns, rows, side }, cell));
  const dear = arena.ground.flatMap(({ kind, corners }) =>
    costs.filter((one) => one.kind === kind).map(({ cost }) => ({ shape: shapeOf(corners), cost })),
  );
  return {
    tiling,
    columns,
    rows,
    side,
    blocked: closed.map((shapes) => middles.map(({ x, y }) => [...walls, ...shapes].some((shape) => contains(shape, x, y)))),
    cost: middles.map(({ x, y }) => dear.reduce((most, { shape, cost }) => (contains(shape, x, y) ? Math.max(most, cost) : most), 1)),
    x: middles.map(({ x }) => x),
    y: middles.map(({ y }) => y),
  };
}

/** m: the middle of a cell; the board lies about the middle of the arena. */
function middleOf(
  { tiling, columns, rows, side }: Pick<CompiledBoard, 'tiling' | 'columns' | 'rows' | 'side'>,
  cell: number,
): { x: number; y: number } {
  const row = Math.floor(cell / columns);
  const column = cell - row * columns;
  const aside = tiling === 'hexagons' ? (row & 1) / 2 - 0.25 : 0;
  const high = tiling === 'hexagons' ? side * HEXAGON_ROW : side;
  return { x: (column - (columns - 1) / 2 + aside) * side, y: (row - (rows - 1) / 2) * high };
}

/** @param attacks the unit's */
export function compileTurns(own: UnitRounds, attacks: readonly Attack[]): CompiledTurns {
  const ids = attacks.map(({ id }) => id);
  const { order, spread, actions, size, moves, moving, row, regen, shieldRegen, energyRegen } = own;
  return {
    order: Math.min(MOST_ORDER_SPREAD, order),
    spread: Math.min(MOST_ORDER_SPREAD, spread),
    actions,
    size,
    moves,
    moving,
    row,
    reactions: own.reactions.map(({ does, uses, reduces, attack = '' }) => ({ does, uses, reduces, attack: ids.indexOf(attack) })),
    senses: own.senses !== undefined,
    plays: own.plays ? { best: own.plays.best, ends: own.plays.ends } : null,
    lunges: attacks.map(({ rounds }) => rounds?.lunge ?? 0),
    regen,
    shieldRegen,
    energyRegen,
  };
}

/** Whether an encounter is fought in rounds. */
export const inRounds = ({ clock }: Pick<Encounter, 'clock'>): boolean => clock === 'rounds';
