import { expect, test } from '@jest/globals';
import { COLUMNS, HALL, ROWS, hallWalls, stepsFrom } from '../../testing/hall';
import { turnTables } from '../../testing/rounds';
import { unit } from '../../testing/builders';
import { Fight } from '../fight';
import { runInstants } from '../instant';
import { begin } from '../waves/beginning';
import { standOn } from './places';
import { holds } from '../mind/conditions';
import { canStrike } from './reach';
import { takeTurn } from './scheduler';

test('in a walled hall five moves and reach 1 strike exactly whoever is within 6 by way, and "can be struck" says so', () => {
  const attack = { id: 'strike', effects: { damage: { amount: 1 } }, rounds: {}, needsLine: true };
  const tables = turnTables({
    party: [unit({ id: 'ours', side: 'party', health: { max: 1e6 }, attacks: [], rounds: {} })],
    enemies: [
      { unit: unit({ id: 'theirs', rounds: { moves: 5 }, attacks: [attack], states: [{ id: 'go', name: 'go', does: 'approach' }] }), x: 5 },
    ],
    width: COLUMNS,
    depth: ROWS,
    arena: { walls: hallWalls(3) },
    encounter: { rounds: { ground: 'squares' } },
  });
  const fight = new Fight(tables);
  const free = [...Array(COLUMNS * ROWS).keys()].filter((cell) => tables.rounds!.board!.blocked[0][cell] === false);
  expect(free).toHaveLength([...HALL.join('')].filter((sign) => sign === '.').length);
  let struck = 0;
  for (const from of free) {
    const steps = stepsFrom(from);
    for (const foe of free) {
      if (foe === from) continue;
      begin(fight, 1);
      runInstants(fight, 0);
      const [ours, theirs] = [fight.living[0][0], fight.living[1][0]];
      // Out of each other's way first.
      standOn(fight, ours, foe === fight.onCell[theirs] ? from : foe);
      standOn(fight, theirs, from);
      standOn(fight, ours, foe);
      fight.now = 1;
      expect(canStrike(fight, theirs, holds)).toBe(steps[foe] <= 6);
      const before = fight.uses;
      takeTurn(fight, theirs);
      expect(fight.uses > before).toBe(steps[foe] <= 6);
      if (fight.uses > before) struck++;
    }
  }
  expect(struck).toBeGreaterThan(500);
});
