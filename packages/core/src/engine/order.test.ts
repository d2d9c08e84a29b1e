import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { runBatch } from '../analysis/batch';
import { arbitraryRounds } from '../testing/arbitrary-rounds';
import { casesOf } from '../testing/cases';
import { arbitraryWildFight } from '../testing/arbitrary-wild';
import { turnTablesTrusted } from '../testing/rounds';
import { compiledTrusted } from '../testing/builders';
import { demoProject } from '../testing/demo';
import { KEPT_WAYS } from './body/kept-ways';
import { compile } from './compile';
import { Fight } from './fight';
import { Runner, run } from './run';
import type { Compiled } from './tables';
import { WAYS_BYTES } from './tuning';

const cases = { numRuns: Math.ceil(casesOf(250) / 5) };
/** Seeds in an order of their own, some of them twice. */
const orders = fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 3, maxLength: 5 });

/** Every seed of an order gives on one runner, with what it keeps of the ground, what it gives on a fresh one that keeps nothing. */
function keepsNothing(tables: Compiled, seeds: readonly number[]): void {
  const runner = new Runner(tables);
  const alone = new Map<number, string>();
  KEPT_WAYS.limitTo(0);
  for (const seed of seeds) if (!alone.has(seed)) alone.set(seed, run(tables, seed).digest);
  KEPT_WAYS.limitTo(WAYS_BYTES);
  for (const seed of seeds) {
    if (runner.run(seed).digest !== alone.get(seed)) throw new Error(`seed ${seed} after others of ${seeds.join(', ')} is another fight`);
  }
}

describe('a run leaves nothing behind', () => {
  test('generated fights: in any order on one runner, the digests of fresh ones', () => {
    fc.assert(
      fc.property(arbitraryWildFight, orders, (sketch, seeds) => keepsNothing(compiledTrusted(sketch), seeds)),
      cases,
    );
  });

  test('generated fights in turns: the same', () => {
    fc.assert(
      fc.property(arbitraryRounds, orders, (sketch, seeds) => keepsNothing(turnTablesTrusted(sketch), seeds)),
      cases,
    );
  });

  const project = demoProject();
  const everywhere = project.encounters.flatMap(({ id: encounter }) => project.tiers.map(({ id: tier }) => ({ encounter, tier })));
  test.each(everywhere)('$encounter at $tier: in any order on one runner, the digests of fresh ones', ({ encounter, tier }) => {
    keepsNothing(compile(project, { encounter, tier, skill: 'regular' }), [3, 1, 2, 1]);
  });

  // Whatever a run may change and does not name among its columns would be found here.
  test('a fight made ready again is like a new one, in every column, list and count', () => {
    /** Made once for the tables, or kept because nothing depends on it: see where each is declared. */
    const kept = new Set(['compiled', 'ground', 'crowd', 'queue', 'log', 'shots', 'bursts', 'overTime', 'met', 'changed', 'observer']);
    const state = (fight: Fight) =>
      Object.fromEntries(
        Object.entries(fight)
          .filter(([key, value]) => !kept.has(key) && typeof value !== 'function')
          .map(([key, value]) => [key, key === 'board' ? standing(value) : lists(value)]),
      );
    /** A board without what it has looked up of its walls, costs and distances, which no run changes. */
    const standing = (board: object | null) => board && { ...board, cells: undefined, terrains: undefined, moves: undefined };
    /** The lists of units that there were are kept, empty. */
    const lists = (value: unknown) => (Array.isArray(value) && value.every((one) => Array.isArray(one) && one.length === 0) ? [] : value);
    fc.assert(
      fc.property(
        fc.oneof(
          arbitraryWildFight.map(compiledTrusted),
          arbitraryRounds.map((sketch) => turnTablesTrusted(sketch)),
        ),
        (tables) => {
          const used = new Runner(tables);
          used.run(1);
          used.fight.reset(2);
          const fresh = new Fight(tables);
          fresh.reset(2);
          const { empties: _, allLists: __, ...mine } = state(used.fight);
          const { empties: ___, allLists: ____, ...theirs } = state(fresh);
          expect(mine).toEqual(theirs);
        },
      ),
      { numRuns: 20 },
    );
  });
});

describe('a batch is the same however it is cut', () => {
  test('generated fights in shards of random sizes, in a thread of their own too', async () => {
    const tables = fc.oneof(
      arbitraryWildFight.map(compiledTrusted),
      arbitraryRounds.map((sketch) => turnTablesTrusted(sketch)),
    );
    const cuts = fc.sample(fc.tuple(tables, fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 4 })), {
      numRuns: 20,
      seed: 77,
    });
    const jobs = cuts.map(([own, first, second]) => ({ tables: own, shards: [first, second] }));
    const whole = jobs.map(({ tables, shards: [a, b] }) => runBatch(tables, 1, a + b).digest);
    const seedsOf = ({ tables, shards: [a, b] }: (typeof jobs)[number]) => [
      ...digestsOf(new Runner(tables), 1, a),
      ...digestsOf(new Runner(tables), 1 + a, b),
    ];
    const one = jobs.map(({ tables, shards: [a, b] }) => digestsOf(new Runner(tables), 1, a + b));
    expect(jobs.map(seedsOf)).toEqual(one);
    expect(jobs.map(({ tables, shards: [a, b] }) => runBatch(tables, 1, a + b).digest)).toEqual(whole);
    expect(await inThread(jobs)).toEqual(one);
  });
});

const digestsOf = (runner: Runner, first: number, count: number) => Array.from({ length: count }, (_, i) => runner.run(first + i).digest);

/** The shards of each job, worked off in a worker thread, the last ones first. */
function inThread(jobs: { tables: Compiled; shards: number[] }[]): Promise<unknown> {
  const code = `
    const { parentPort, workerData } = require('node:worker_threads');
    require(workerData.sources);
    const { Runner } = require(workerData.engine);
    const part = (tables, first, count) => {
      const runner = new Runner(tables);
      return Array.from({ length: count }, (_, i) => runner.run(first + i).digest);
    };
    parentPort.postMessage(workerData.jobs.map(({ tables, shards: [a, b] }) => {
      const last = part(tables, 1 + a, b);
      return [...part(tables, 1, a), ...last];
    }));`;
  const sources = join(__dirname, '../../../../scripts/jest/sources.cjs');
  return new Promise((done, fail) => {
    const worker = new Worker(code, { eval: true, workerData: { sources, engine: join(__dirname, 'run.ts'), jobs } });
    worker.once('message', done);
    worker.once('error', fail);
  });
}
