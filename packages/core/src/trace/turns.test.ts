/** Fights in turns looked at: a step is a turn, times are turns and rounds, distances cells. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Runner } from '../engine/run';
import { reasonSentences } from './reasons';
import { reasonLook } from './reason-look';
import { arbitraryRounds } from '../testing/arbitrary-rounds';
import { type FightSketch, unit } from '../testing/builders';
import { turnTables, turnTablesTrusted } from '../testing/rounds';
import { UNIT_WIDTH, gapBetween, partAt, replay, rowOfUnit, stepAt } from './replay';
import { reasonsAt, trace } from './trace';

type Loose = Record<string, unknown>;

const warden = (more: Loose = {}) =>
  unit({ id: 'warden', side: 'party', health: { max: 1000 }, attacks: [], rounds: { order: 60 }, ...more });
const clipper = (bite: Loose = {}, more: Loose = {}) =>
  unit({
    id: 'clipper',
    health: { max: 100 },
    attacks: [{ id: 'bite', effects: { damage: { amount: 3 } }, ...bite, rounds: { cooldown: 3, ...(bite.rounds as Loose) } }],
    states: [{ id: 'go', name: 'go', does: 'approach' }],
    ...more,
    rounds: { moves: 2, ...(more.rounds as Loose) },
  });
/** The Clipper so many cells to the east of the Warden, on a long hall of squares of 1 m. */
const fight = (apart: number, enemy = clipper(), more: Partial<FightSketch> = {}): FightSketch => ({
  party: [warden()],
  partyAt: { x: -9, y: 0, facing: 0 },
  enemies: [{ unit: enemy, x: apart - 9, y: 0 }],
  width: 21,
  depth: 5,
  ...more,
  encounter: { rounds: { ground: 'squares', limit: 8 }, ...more.encounter },
});

describe('a replay', () => {
  test('has a step a turn, told by the round of each, and is the run of that seed', () => {
    const tables = turnTables(fight(8));
    const shown = replay(tables, 1);
    expect(shown.digest).toBe(new Runner(tables).run(1).digest);
    expect(shown.step).toBe(1);
    // Before the first turn, then two turns a round.
    expect(Array.from(shown.rounds!)).toEqual([1, ...[1, 2, 3, 4, 5, 6, 7, 8].flatMap((round) => [round, round])]);
    expect(shown.length).toBe(shown.rounds!.length - 1);
    expect(shown.unitAt).toHaveLength(shown.rounds!.length + 1);
  });

  test('by hand: it comes nearer by its moves, turn by turn, and an event stands at the turn that it happens in', () => {
    const shown = replay(turnTables(fight(8)), 1);
    const x = (step: number) => shown.unitData[rowOfUnit(shown, 1, step) * UNIT_WIDTH];
    // It stands 8 cells off at −1; its turns are the second of each round.
    expect([0, 1, 2, 3, 4, 5, 6, 7, 8].map(x)).toEqual([-1, -1, -3, -3, -5, -5, -7, -7, -8]);
    const bites = shown.events.filter(({ event }) => event === 'start');
    // Beside it in its fourth turn, step 8; then every third turn of its own, six steps.
    expect(bites.map(({ time }) => time)).toEqual([8, 14]);
    expect(bites.map(({ time }) => shown.rounds![stepAt(shown, time)])).toEqual([4, 7]);
    const hit = shown.events.find(({ event }) => event === 'hit')!;
    expect([hit.time, hit.sentence]).toEqual([8, expect.stringContaining('Warden'.toLowerCase())]);
  });

  test('of generated fights: whoever is shown is alive, every event has a step, and pressure is one number a step', () => {
    fc.assert(
      fc.property(arbitraryRounds, fc.integer({ min: 1, max: 1e6 }), (sketch, seed) => {
        const shown = replay(turnTablesTrusted(sketch), seed);
        const steps = shown.rounds!.length;
        expect(shown.pressure).toHaveLength(steps);
        // One look at each, for there are many.
        const wrong = shown.events.filter(
          ({ time }, i) => !Number.isInteger(time) || time >= steps || time < (shown.events[i - 1]?.time ?? 0),
        );
        expect(wrong).toEqual([]);
        expect(shown.rounds!.every((round, step) => step === 0 || round >= shown.rounds![step - 1])).toBe(true);
        expect(Array.from(shown.unitOf.keys()).filter((row) => !(shown.unitData[row * UNIT_WIDTH + 4] > 0))).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  test('of generated fights: units are as far apart as the fight has them, whatever the board', () => {
    fc.assert(
      fc.property(
        arbitraryRounds,
        fc.constantFrom(1, 1.25),
        fc.constantFrom('squares', 'diagonals', 'hexagons'),
        (sketch, cell, ground) => {
          const rounds = { ...(sketch.encounter!.rounds as Loose), ground, cell };
          const tables = turnTablesTrusted({ ...sketch, encounter: { ...sketch.encounter, rounds } });
          const shown = replay(tables, 1);
          let step = 0;
          new Runner(tables).run(1, (state) => {
            const [a, b] = [state.alive[0], state.alive[state.alive.length - 1]];
            if (state.onCell[a] >= 0 && state.onCell[b] >= 0)
              expect(gapBetween(shown, rowOfUnit(shown, a, step), rowOfUnit(shown, b, step))).toBe(a === b ? 0 : state.gap(a, b));
            step++;
          });
        },
      ),
      { numRuns: 30 },
    );
    expect(gapBetween(replay(turnTables(fight(8)), 1), 0, 1)).toBe(8);
  });

  test('two runs part at a turn; a run does not part from itself', () => {
    const tables = turnTables(fight(3, clipper({ effects: { damage: { amount: 9, spread: 5 } } })));
    const [a, b] = [replay(tables, 1), replay(tables, 2)];
    expect(partAt(a, a)).toBeUndefined();
    // The first bite, in round 1.
    expect(partAt(a, b)).toBe(2);
  });
});

describe('reasons', () => {
  /** In seconds as the instant of a turn is told: a round a second. */
  const told = (sketch: FightSketch, round: number, who = 1) =>
    reasonSentences(reasonsAt(turnTables(sketch), 1, who, round - 1 + 0.5)!).join('\n');

  test('cells too far, and whom it could not reach', () => {
    const lines = told(fight(9), 1);
    expect(lines).toContain('Its target is warden, 7 cells away.');
    expect(lines).toContain('Priority 1, bite: ruled out, 6 cells too far (reaches 1 cell, is at 7 cells).');
    expect(lines).toContain('could not reach anybody this turn: warden is 6 cells too far');
  });

  test('turns of cooldown, of recovery, of a wind-up under way', () => {
    expect(told(fight(1), 2)).toContain('Priority 1, bite: ruled out, 2 turns of cooldown left.');
    expect(told(fight(1, clipper({ rounds: { windup: 2 } })), 1)).toContain('in the middle of bite, 2 turns left');
    expect(told(fight(1, clipper({ rounds: { recovery: 2, cooldown: 1 } })), 1)).toMatch(/in the middle of bite, \d turns? left/);
  });

  test('charges and energy', () => {
    expect(told(fight(1, clipper({ charges: { count: 1 }, rounds: { cooldown: 1, recharge: 4 } })), 3)).toMatch(
      /bite: ruled out, no charge left; the next in \d turns?/,
    );
    const poor = clipper({ energy: 5, rounds: { cooldown: 1 } }, { energy: { max: 8, start: 6 } });
    expect(told(fight(1, poor), 2)).toContain('bite: ruled out, costs 5, has 1');
  });

  test('why a condition does not hold, in cells and turns', () => {
    const asks = (condition: Loose) => clipper({}, { choice: { priorities: [{ condition, entries: [{ attack: 'bite' }] }] } });
    const near = asks({ subject: 'distance', is: 'below', value: 9, rounds: { value: 3, within: 0 } });
    expect(told(fight(9, near), 1)).toContain('Priority 1 is passed over: the distance to its target is 7 cells, not below 3.');
    const late = asks({ subject: 'clock', is: 'above', value: 9, rounds: { value: 5, within: 0 } });
    expect(told(fight(1, late), 2)).toMatch(/Priority 1 is passed over: the clock is \d rounds?, not above 5\./);
  });

  test('without ground nothing is told of distances', () => {
    const open = fight(9, clipper(), { encounter: { rounds: { ground: 'none', limit: 8 } } });
    const lines = told(open, 1);
    expect(lines).toContain('Its target is warden.');
    expect(told(open, 4)).toContain('Priority 1, bite: ruled out, 3 turns of cooldown left.');
    const sentences = replay(turnTables(open), 1).events.map(({ sentence }) => sentence);
    expect(sentences).toContain('Round 1: clipper begins bite against warden.');
    expect([lines, ...sentences].filter((one) => /\bcells?\b/.test(one))).toEqual([]);
    const look = reasonLook(new Runner(turnTables(open)), 1, 1, 2)!;
    expect([look.targets, look.turn!.ground]).toEqual([[{ name: 'warden', chosen: true }], undefined]);
  });

  test('what would have been done if one thing were another', () => {
    // Two turns a round, the Clipper's the second; a turn is looked at by its number.
    const look = (sketch: FightSketch, round: number) =>
      reasonLook(new Runner(turnTables(sketch)), 1, 1, 2 * round)!
        .would.map(({ sentence }) => sentence)
        .join('\n');
    expect(look(fight(9), 1)).toContain('it moved 6 cells further');
    expect(look(fight(2, clipper({}, { rounds: { moves: 0 } })), 1)).toContain('it moved 1 cell further');
    expect(look(fight(1, clipper({ rounds: { to: 0 } })), 1)).toContain('it reached 1 cell, not 0');
    expect(look(fight(1), 2)).toMatch(/its cooldown were \d turns? shorter/);
  });

  test('asking changes nothing', () => {
    fc.assert(
      fc.property(arbitraryRounds, fc.integer({ min: 1, max: 50 }), fc.integer({ min: 0, max: 11 }), (sketch, seed, round) => {
        const tables = turnTablesTrusted(sketch);
        const runner = new Runner(tables);
        const { digest } = runner.run(seed);
        reasonLook(runner, seed, 0, round + 0.3);
        expect(runner.run(seed).digest).toBe(digest);
      }),
      { numRuns: 25 },
    );
  });
});

test('a trace in turns is the run, and no sentence of it speaks of seconds or metres', () => {
  fc.assert(
    fc.property(arbitraryRounds, fc.integer({ min: 1, max: 50 }), (sketch, seed) => {
      const tables = turnTablesTrusted(sketch);
      const { digest, events } = trace(tables, seed);
      expect(digest).toBe(new Runner(tables).run(seed).digest);
      expect(events.length).toBeGreaterThan(0);
      for (const { sentence } of replay(tables, seed).events) expect(sentence).not.toMatch(/\d (s|m|m\/s)\b|undefined|NaN/);
    }),
    { numRuns: 25 },
  );
});
