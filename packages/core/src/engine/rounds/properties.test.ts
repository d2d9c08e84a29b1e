/** What holds of every fight in rounds. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EVENT } from '../../record/log';
import { roundOf } from '../../record/time';
import { arbitraryRounds } from '../../testing/arbitrary-rounds';
import type { FightSketch } from '../../testing/builders';
import { turnTablesTrusted as turnTables } from '../../testing/rounds';
import { Runner } from '../run';

type Loose = Record<string, any>;

/** Everything a run says, but for where on the plane. */
function told(sketch: FightSketch, seed: number) {
  const { log } = new Runner(turnTables(sketch)).run(seed);
  return Array.from({ length: log.length }, (_, i) => {
    const spawns = log.kind[i] === EVENT.spawn;
    return [log.time[i], log.kind[i], log.actor[i], log.other[i], log.what[i], ...(spawns ? [] : [log.a[i], log.b[i], log.c[i], log.d[i]])];
  });
}

const turnedShape = (shape: Loose): Loose => ({ ...shape, corners: shape.corners.map(turnedPlace) });
const turnedPlace = ({ x, y }: { x: number; y: number }) => ({ x: 0 - y, y: x });

/** The stops of rounds lie about the home of whoever walks them. */
const turnedStops = (one: Loose): Loose => ({
  ...one,
  states: one.states.map((state: Loose) =>
    state.patrol
      ? { ...state, patrol: { ...state.patrol, points: state.patrol.points.map((p: Loose) => ({ ...p, ...turnedPlace(p as never) })) } }
      : state,
  ),
});

/** A quarter turn counter-clockwise. */
function turned(sketch: FightSketch): FightSketch {
  const { party, partyAt, enemies, arena } = sketch as Loose;
  return {
    ...sketch,
    party: party.map(turnedStops),
    partyAt: { ...turnedPlace(partyAt), facing: partyAt.facing + 90 },
    enemies: enemies.map((enemy: Loose) => ({
      ...enemy,
      unit: turnedStops(enemy.unit),
      ...turnedPlace(enemy as { x: number; y: number }),
      facing: enemy.facing + 90,
    })),
    arena: { walls: arena.walls.map(turnedShape), ground: arena.ground.map(turnedShape) },
  };
}

const seeds = fc.integer({ min: 1, max: 1e6 });

test('a board that is turned by 90° is fought alike', () => {
  fc.assert(
    fc.property(arbitraryRounds, seeds, (sketch, seed) => {
      expect(told(turned(sketch), seed)).toEqual(told(sketch, seed));
    }),
    { numRuns: 300 },
  );
});

test('the same seed is the same fight, whatever was run before it', () => {
  fc.assert(
    fc.property(arbitraryRounds, seeds, (sketch, seed) => {
      const tables = turnTables(sketch);
      const alone = new Runner(tables).run(seed).digest;
      const runner = new Runner(tables);
      for (const other of [seed + 1, seed + 2]) runner.run(other);
      expect(runner.run(seed).digest).toBe(alone);
    }),
    { numRuns: 40 },
  );
});

test('another name changes nothing', () => {
  fc.assert(
    fc.property(arbitraryRounds, seeds, (sketch, seed) => {
      const named = { ...sketch, party: sketch.party.map((one) => ({ ...one, name: `Another ${String(one.name)}` })) };
      expect(new Runner(turnTables(named)).run(seed).digest).toBe(new Runner(turnTables(sketch)).run(seed).digest);
    }),
    { numRuns: 20 },
  );
});

/** Every number of hit points twice as large. */
function doubled(value: unknown, key = ''): unknown {
  if (typeof value === 'number') return ['amount', 'max', 'flat', 'spread', 'threshold', 'crush'].includes(key) ? value * 2 : value;
  if (Array.isArray(value)) return value.map((one) => doubled(one, key));
  if (typeof value !== 'object' || value === null) return value;
  const own = value as Loose;
  return Object.fromEntries(
    Object.entries(own).map(([name, one]) => {
      // The spread of an order, and a boost of armour.
      if (name === 'rounds' && 'order' in (one as object) && 'moves' in (one as object))
        return [name, { ...(one as Loose), regen: 2 * (one as Loose).regen, shieldRegen: 2 * (one as Loose).shieldRegen }];
      // Energy is no hit points.
      if (name === 'energy' || name === 'drain') return [name, one];
      if (name === 'tweaks')
        return [name, (one as Loose[]).map((tweak) => (tweak.path === '/armour/flat' ? { ...tweak, value: 2 * tweak.value } : tweak))];
      return [name, doubled(one, name)];
    }),
  );
}

test('with every number of hit points doubled the same happens', () => {
  const happens = (sketch: FightSketch, seed: number) => {
    const { log, outcome, length } = new Runner(turnTables(sketch)).run(seed);
    return [
      outcome,
      length,
      ...Array.from({ length: log.length }, (_, i) => [log.time[i], log.kind[i], log.actor[i], log.other[i], log.what[i]].join(' ')),
    ];
  };
  fc.assert(
    fc.property(arbitraryRounds, seeds, (sketch, seed) => {
      const twice = {
        ...sketch,
        party: doubled(sketch.party),
        enemies: doubled(sketch.enemies),
        others: doubled(sketch.others),
      } as FightSketch;
      expect(happens(twice, seed)).toEqual(happens(sketch, seed));
    }),
    { numRuns: 40 },
  );
});

test('nobody acts twice in a round beyond its actions, the dead do not act, and it ends with its limit', () => {
  fc.assert(
    fc.property(arbitraryRounds, seeds, (sketch, seed) => {
      const tables = turnTables(sketch);
      const run = new Runner(tables).run(seed);
      const { log } = run;
      const acts = new Map<string, number>();
      const dead = new Set<number>();
      for (let i = 0; i < log.length; i++) {
        const unit = log.actor[i];
        if (log.kind[i] === EVENT.death) dead.add(unit);
        if (log.kind[i] === EVENT.revive) dead.delete(log.other[i]);
        if (log.kind[i] !== EVENT.start) continue;
        expect(dead.has(unit)).toBe(false);
        const key = `${unit} ${roundOf(log.time[i])}`;
        acts.set(key, (acts.get(key) ?? 0) + 1);
        expect(acts.get(key)).toBeLessThanOrEqual(tables.kinds[run.kinds[unit]].turns!.actions);
      }
      expect(run.length).toBeLessThanOrEqual(12e6);
      expect(['cleared', 'partyDown', 'timeOut']).toContain(run.outcome);
    }),
    { numRuns: 60 },
  );
});

/** So many of them that a small board is full. */
const crowded = fc.tuple(arbitraryRounds, fc.integer({ min: 2, max: 9 }), fc.integer({ min: 2, max: 4 })).map(([sketch, width, depth]) => ({
  ...sketch,
  width,
  depth,
  partyAt: { x: 0, y: 0, facing: 0 },
  enemies: sketch.enemies.map((enemy) => ({ ...enemy, x: 0, y: 0 })),
  arena: { walls: [], ground: [] },
}));

test.each([
  ['of the board', arbitraryRounds],
  ['of a board that is full', crowded],
])('everyone stands on cells %s that are free of walls and of others, after every turn', (_which, arbitrary) => {
  fc.assert(
    fc.property(arbitrary, seeds, (sketch, seed) => {
      const tables = turnTables(sketch);
      if (!tables.rounds!.board) return;
      const members = sketch.party.length;
      const runner = new Runner(tables);
      const run = runner.run(seed, (fight) => {
        const board = fight.board!;
        const taken = new Map<number, number>();
        for (const unit of fight.alive) {
          const { size } = fight.kinds[unit].turns!;
          const { ground } = fight.kinds[unit];
          const at = fight.onCell[unit];
          // Who is there from the start and finds no cell waits for one.
          if (at < 0 && unit < members) continue;
          for (const cell of board.terrain({ size, ground }).prints[at] ?? [-1]) {
            expect(board.blocked[ground][cell]).toBe(0);
            expect(taken.get(cell)).toBeUndefined();
            taken.set(cell, unit);
            expect(board.standing[cell]).toBe(unit);
          }
        }
        expect(board.standing.filter((one) => one >= 0)).toHaveLength(taken.size);
      });
      expect(new Runner(tables).run(seed).digest).toBe(run.digest);
    }),
    { numRuns: 60 },
  );
});
