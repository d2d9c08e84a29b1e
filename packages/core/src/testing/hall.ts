/** A hall with doors, nooks and a pillar, for whoever goes over cells; and how many steps each cell is from another, worked out apart. */

/** From north to south: # a wall of one cell, . free. */
export const HALL = [
  '............',
  '.####.#####.',
  '.#....#...#.',
  '.#.####.#.#.',
  '.#........#.',
  '.#.##.#####.',
  '.....#......',
  '.###...####.',
  '............',
];
export const COLUMNS = HALL[0].length;
export const ROWS = HALL.length;

/** Steps from a cell to every other that is free, breadth first, from the drawing. */
export function stepsFrom(start: number): number[] {
  const isFree = (column: number, row: number) => HALL[ROWS - 1 - row]?.[column] === '.';
  const steps = new Array<number>(COLUMNS * ROWS).fill(Infinity);
  steps[start] = 0;
  for (let front = [start], far = 1; front.length; far++) {
    front = front.flatMap((cell) => {
      const [column, row] = [cell % COLUMNS, Math.floor(cell / COLUMNS)];
      const beside = [
        [column + 1, row],
        [column - 1, row],
        [column, row + 1],
        [column, row - 1],
      ];
      return beside.flatMap(([c, r]) => {
        const next = r * COLUMNS + c;
        if (!isFree(c, r) || steps[next] < Infinity) return [];
        steps[next] = far;
        return [next];
      });
    });
  }
  return steps;
}

/** As walls of an arena, one cell each. @param height m */
export const hallWalls = (height: number) =>
  HALL.flatMap((line, i) =>
    [...line].flatMap((sign, column) => {
      if (sign !== '#') return [];
      const [x, y] = [column - COLUMNS / 2, ROWS / 2 - 1 - i];
      const corners = [
        { x, y },
        { x: x + 1, y },
        { x: x + 1, y: y + 1 },
        { x, y: y + 1 },
      ];
      return [{ id: `w${column}-${i}`, name: `w${column}-${i}`, height, corners }];
    }),
  );
