/** How many cells an arena has, and what they are called. */
import type { Arena } from './arena';
import type { EncounterRounds } from './rounds';

/** A hexagon's rows lie closer than its columns, by half the root of three. */
export const HEXAGON_ROW = Math.sqrt(3) / 2;

/** Cells that a body covers: on squares size × size, on hexagons all that are fewer than its size away from its own. */
export const cellsCovered = (size: number, ground: EncounterRounds['ground']): number =>
  ground === 'hexagons' ? 3 * size * (size - 1) + 1 : size * size;

/** As many whole cells as the arena is wide and deep, one at least. @param side m, of a cell */
export function boardSize(
  { width, depth }: Pick<Arena, 'width' | 'depth'>,
  side: number,
  ground: EncounterRounds['ground'],
): { columns: number; rows: number } {
  const high = ground === 'hexagons' ? side * HEXAGON_ROW : side;
  return { columns: Math.max(1, Math.floor(width / side + 1e-9)), rows: Math.max(1, Math.floor(depth / high + 1e-9)) };
}

/** "column 4, row 7", from the south-west. */
export const cellName = ({ columns }: { columns: number }, cell: number): string =>
  `column ${(cell % columns) + 1}, row ${Math.floor(cell / columns) + 1}`;
