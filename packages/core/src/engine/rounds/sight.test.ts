import { expect, test } from '@jest/globals';
import { COLUMNS, ROWS, hallWalls } from '../../testing/hall';
import { turnTables } from '../../testing/rounds';
import { unit } from '../../testing/builders';
import { Fight } from '../fight';
import { runInstants } from '../instant';
import { begin } from '../waves/beginning';
import { middleOfBody, moverOf, standOn } from './places';
import { seesFrom } from './sight';

const body = (id: string, height: number, size: number) =>
  unit({
    id,
    body: { radius: size / 2, height, eyeHeight: height * 0.9, muzzleHeight: height * 0.8 },
    rounds: { size },
    attacks: [],
    states: [{ id: 'hold', name: 'hold', does: 'hold' }],
  });

test('lines that were looked up once are those that walls leave, for every cell, height and body, asked in any order', () => {
  const tables = turnTables({
    party: [unit({ id: 'ours', side: 'party', rounds: {} })],
    // A tall one looks over walls that hide a low one.
    enemies: [
      { unit: body('low', 0.6, 1), x: 5 },
      { unit: body('tall', 4, 1), x: 3 },
      { unit: body('broad', 1.2, 2), x: 1 },
    ],
    width: COLUMNS,
    depth: ROWS,
    arena: { walls: hallWalls(1.5) },
    encounter: { rounds: { ground: 'squares' } },
  });
  const fight = new Fight(tables);
  begin(fight, 1);
  runInstants(fight, 0);
  const { cells } = fight.board!;
  const units = [...fight.alive];
  expect(units).toHaveLength(4);
  const plain = (from: number, cell: number, other: number) => {
    const [own, theirs] = [moverOf(fight, from), moverOf(fight, other)];
    if (cells.gap(cell, own.size, fight.onCell[other], theirs.size) <= 1) return true;
    const [a, b] = [middleOfBody(fight, cell, own.size), middleOfBody(fight, fight.onCell[other], theirs.size)];
    return !fight.ground.blocked(a.x, a.y, fight.kinds[from].muzzle, b.x, b.y, fight.kinds[other].height / 2);
  };
  const seen = [0, 0];
  for (let place = 0; place < cells.count; place += 2) {
    for (const other of units) {
      const mover = moverOf(fight, other);
      if (!fight.board!.isFree(mover, place)) continue;
      standOn(fight, other, place);
      for (const from of units) {
        if (from === other) continue;
        const own = moverOf(fight, from);
        for (let cell = 0; cell < cells.count; cell++) {
          if (fight.board!.terrain(own).entry[cell] === Infinity) continue;
          const sees = seesFrom(fight, own, other)(cell);
          if (sees !== plain(from, cell, other)) throw new Error(`unit ${from} on ${cell}, ${other} on ${place}: ${sees}`);
          seen[Number(sees)]++;
        }
      }
    }
  }
  expect(Math.min(...seen)).toBeGreaterThan(1000);
});
