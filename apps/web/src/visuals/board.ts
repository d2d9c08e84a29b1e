/** The cells of a board on a plan, where an arrow key leads from one, and what is said of one. Pure. */
import type { BoardShape, GroundLook } from '@insidia/core';
import { cellName, fixed, withUnit } from '@insidia/core';
import type { PlanScale } from './plan';

/** Corners of a cell, px. */
export function cellCorners({ tiling, side, x, y }: BoardShape, cell: number, plan: PlanScale): [number, number][] {
  const around: readonly (readonly [number, number])[] = tiling === 'hexagons' ? HEXAGON : SQUARE;
  return around.map(([dx, dy]) => [plan.x(x[cell] + dx * side), plan.y(y[cell] + dy * side)]);
}

const SQUARE = [
  [-0.5, -0.5],
  [0.5, -0.5],
  [0.5, 0.5],
  [-0.5, 0.5],
] as const;
/** On a corner, with sides as far apart as the middles of a row. */
const OUT = 1 / Math.sqrt(3);
const HEXAGON = [
  [0, OUT],
  [0.5, OUT / 2],
  [0.5, -OUT / 2],
  [0, -OUT],
  [-0.5, -OUT / 2],
  [-0.5, OUT / 2],
] as const;

/** The cell at a place; undefined where there is none. @param place m */
export function cellAt({ side, x, y }: BoardShape, place: { x: number; y: number }): number | undefined {
  let best = -1;
  let least = Infinity;
  for (let cell = 0; cell < x.length; cell++) {
    const far = (x[cell] - place.x) ** 2 + (y[cell] - place.y) ** 2;
    if (far < least) [best, least] = [cell, far];
  }
  return best >= 0 && Math.abs(x[best] - place.x) <= 0.6 * side && Math.abs(y[best] - place.y) <= 0.6 * side ? best : undefined;
}

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** The cell that a key leads to; undefined: it leads nowhere, or is none of these. */
export function cellBeside({ columns, rows }: Pick<BoardShape, 'columns' | 'rows'>, cell: number, key: string): number | undefined {
  const [column, row] = [cell % columns, Math.floor(cell / columns)];
  if (key === 'Home') return row * columns;
  if (key === 'End') return row * columns + columns - 1;
  if (!(key in WAYS)) return undefined;
  const [right, up] = [column + WAYS[key][0], row + WAYS[key][1]];
  return right >= 0 && right < columns && up >= 0 && up < rows ? up * columns + right : undefined;
}

const harmWords = (hp: number) => `${fixed(hp, hp < 10 ? 1 : 0)} hp`;

/** What is to be said of a cell. @param there who stands on it */
export function cellWords(
  board: BoardShape,
  cell: number,
  name: string,
  ground: GroundLook | undefined,
  there: string | undefined,
): string {
  const place = cellName(board, cell);
  const said = [there ? `${there} stands there` : ''];
  if (ground) {
    const goes = ground.goes[cell];
    if (goes > 0) said.push(`${name} can come there for ${withUnit('rounds', fixed(goes, 0), 'm')} of way`);
    if (ground.strikes[cell]) said.push('whoever is there can be struck in its next turn');
    const harm = ground.harm[cell];
    if (Number.isNaN(harm)) said.push(there ? '' : 'it can’t stand there');
    else said.push(harm > 0 ? `${harmWords(harm)} are to be expected there until its turn` : 'nobody can strike it there before its turn');
  }
  const words = said.filter(Boolean).join('; ');
  return `${place.charAt(0).toUpperCase()}${place.slice(1)}${words ? `: ${words}` : ''}.`;
}

/** What is to be said of all cells at once. */
export function groundWords(board: BoardShape, name: string, { goes, strikes, harm }: GroundLook): string {
  const count = (cells: number) => `${cells} ${cells === 1 ? 'cell' : 'cells'}`;
  const comes = goes.reduce((sum, cost) => sum + (cost > 0 ? 1 : 0), 0);
  const struck = strikes.reduce((sum, one) => sum + one, 0);
  const worst = harm.reduce((best, value, cell) => (value > (best < 0 ? 0 : harm[best]) ? cell : best), -1);
  const most =
    worst < 0 ? 'nobody can strike it before that' : `before that at most ${harmWords(harm[worst])} of harm, in ${cellName(board, worst)}`;
  return `Next ${name} can come to ${count(comes)} and strike in ${struck}; ${most}.`;
}
