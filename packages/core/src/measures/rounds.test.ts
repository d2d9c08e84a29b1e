/** What measures say of fights in turns, by hand. */
import { describe, expect, test } from '@jest/globals';
import { runBatch } from '../analysis/batch';
import { Runner } from '../engine/run';
import { TIME_USES } from '../record/doing';
import { type FightSketch, unit } from '../testing/builders';
import { turnTables } from '../testing/rounds';
import { Curves } from './curves';
import { rowOf } from './row';

const strike = (amount: number, rounds = {}) => ({ id: 'strike', effects: { damage: { amount } }, rounds });
const fighter = (id: string, side: string, amount: number, health: number, more = {}) =>
  unit({ id, side, health: { max: health }, rounds: {}, attacks: [strike(amount)], ...more });

const measured = (sketch: FightSketch, seed = 1) => {
  const compiled = turnTables(sketch);
  return rowOf({ compiled, run: new Runner(compiled).run(seed) });
};
const kindsOf = ({ kinds }: ReturnType<typeof measured>) => ({ ours: kinds[0], theirs: kinds[1] });

describe('7 a round against 40 with armour 2, the party first', () => {
  // Five a strike: the eighth, in round 8, fells the enemy before it strikes for the eighth time.
  const row = measured({
    party: [fighter('ours', 'party', 7, 40, { armour: { flat: 2 } })],
    enemies: [{ unit: fighter('theirs', 'enemy', 7, 40, { armour: { flat: 2 } }), x: 1 }],
    encounter: { rounds: { ground: 'none' } },
  });

  test('rounds are counted, the first and the last among them', () => {
    const { ours, theirs } = kindsOf(row);
    expect([row.length, theirs.timeToKill, theirs.lifetime, theirs.timeToFirstStrike]).toEqual([8, 8, 8, 1]);
    expect([ours.timeToKill, row.timesToDown[0]]).toEqual([Infinity, Infinity]);
  });

  test('harm is told a round, as a share of forty', () => {
    expect([row.peakPressure, row.peakPressureShare, row.peakAt]).toEqual([5, 0.125, 1]);
    expect(row.dose).toBeCloseTo(35 / 40, 12);
    expect(row.bursts).toEqual([0.125]);
    // More than a tenth in each of the seven rounds in which it struck.
    expect(row.timeOverLevel).toBe(1);
    // Nothing in the eighth.
    expect([row.lulls, row.longestWithoutLull]).toEqual([1, 7]);
  });

  test('what means nothing in turns has no value, and a batch leaves it out', () => {
    expect([row.engagedMean, row.unanswerable, row.clashes, row.lossOfControl].every(Number.isNaN)).toBe(true);
    const compiled = turnTables({
      party: [fighter('ours', 'party', 7, 40)],
      enemies: [{ unit: fighter('theirs', 'enemy', 7, 40), x: 1 }],
      encounter: { rounds: { ground: 'none' } },
    });
    const summary = runBatch(compiled, 1, 5);
    expect(summary.clock).toBe('rounds');
    expect(Object.keys(summary.encounter)).not.toContain('engagedMean');
    expect(summary.encounter.length?.median).toBe(6);
  });

  test('every turn is an act', () => {
    const { ours, theirs } = kindsOf(row);
    expect([ours.turns.had, ours.turns.acts, theirs.turns.had, theirs.turns.acts]).toEqual([8, 8, 7, 7]);
    expect([theirs.acts, theirs.reach, theirs.idleTurns, theirs.answersUsed]).toEqual([1, 1, 0, 0]);
    expect(theirs.timeUse[TIME_USES.indexOf('active')]).toBe(7);
    expect(theirs.alive).toBe(7);
    expect(row.playerTime[0].reduce((sum, turns) => sum + turns)).toBe(8);
  });
});

test('turns that are wasted, and why: a cooldown of three leaves two turns of three, a way of eight cells its first', () => {
  const row = measured({
    party: [unit({ id: 'ours', side: 'party', health: { max: 100 }, attacks: [], rounds: {} })],
    partyAt: { x: 0, y: 0, facing: 0 },
    enemies: [
      {
        unit: fighter('theirs', 'enemy', 5, 40, {
          attacks: [strike(5, { cooldown: 3 })],
          states: [{ id: 'go', name: 'go', does: 'approach' }],
          rounds: { moves: 4 },
        }),
        x: 8,
        y: 0,
      },
    ],
    width: 21,
    depth: 21,
    encounter: { rounds: { ground: 'squares', limit: 8 } },
  });
  const { theirs } = kindsOf(row);
  // Seven steps to stand beside it: four, then three and the first strike; then a strike in every third turn: 2, 5, 8.
  const uses = (name: string) => theirs.timeUse[(TIME_USES as readonly string[]).indexOf(name)];
  expect([uses('active'), uses('cooldown'), uses('range')]).toEqual([3, 4, 1]);
  expect(theirs.idleTurns).toBe(5 / 8);
  // In its first turn nobody was within its four moves and one more; while it cooled down nothing was ready.
  expect([theirs.turns.free, theirs.turns.reached, theirs.turns.moved]).toEqual([8, 3, 7]);
  expect(theirs.timeToFirstStrike).toBe(2);
  expect(row.lulls).toBe(3);
  // Quiet: round 1; 3 and 4; 6 and 7. The longest stretch between is one round.
  expect(row.longestWithoutLull).toBe(1);
});

test('a counter and a guard are answers that were used', () => {
  const row = measured({
    party: [
      fighter('ours', 'party', 1, 100, {
        rounds: {
          reactions: [
            { id: 'ward', does: 'guard', uses: 1, reduces: 0.5 },
            { id: 'back', does: 'counter', uses: 1, attack: 'strike' },
          ],
        },
      }),
    ],
    enemies: [{ unit: fighter('theirs', 'enemy', 4, 100), x: 1 }],
    encounter: { rounds: { ground: 'none', limit: 5 } },
  });
  const { ours } = kindsOf(row);
  expect(ours.turns.reactions).toEqual([0, 5, 5]);
  expect(ours.answersUsed).toBe(10);
});

test('curves go by whole rounds', () => {
  const compiled = turnTables({
    party: [fighter('ours', 'party', 7, 40)],
    enemies: [{ unit: fighter('theirs', 'enemy', 10, 1000), x: 1 }],
    encounter: { rounds: { ground: 'none', limit: 6 } },
  });
  const curves = new Curves(compiled);
  curves.add(new Runner(compiled).run(1, curves.watch));
  const { times } = curves;
  // Ten a round: it is down with the fourth.
  const at = (round: number) => times.findIndex((time) => time > round - 0.5);
  expect([1, 2, 3, 4].map((round) => curves.rows.pressure[0][at(round)])).toEqual([0.25, 0.25, 0.25, 0.25]);
  expect(curves.lengths).toEqual([4]);
});

test('waves: their round, how long each lasts, for how many rounds two overlap', () => {
  const row = measured({
    party: [fighter('ours', 'party', 10, 1000)],
    enemies: [{ unit: fighter('theirs', 'enemy', 1, 40), x: 1 }],
    waves: [{ id: 'w2', name: 'Two', start: 'clock', at: 3, rounds: { at: 3 }, groups: [{ id: 'g', enemy: 'theirs', at: ['p0'] }] }],
    encounter: { rounds: { ground: 'none', limit: 20 } },
  });
  const [first, second] = row.waves;
  // Forty of ten each: the first falls in round 4, the second four strikes later in round 8.
  expect([first.started, first.span, second.started, second.span]).toEqual([1, 4, 3, 6]);
  expect(first.overlap).toBe(2);
});
