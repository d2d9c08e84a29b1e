import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Scenario } from '../analysis/scenario';
import type { Project } from '../model/project';
import { parseProject } from '../model/validate';
import { demoProject } from '../testing/demo';
import { type AskedFight, type AskedRuns, type Asking, PART_RUNS, joined, partsOf, runFights, thereOf, workThrough } from './asking';
import { compareWork } from './compare-work';
import { dialFor } from './dial';
import { findWork } from './find/work';
import { findProblem } from './find/problem';
import { lookAt } from './goal';
import { movesWork } from './moves-work';

const project = demoProject();
const cell: Scenario = { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 2 } };

/** The same work in parts, each run by itself, the last first, as threads that overtake one another do; and how many parts it was. */
function inParts<T>(work: Asking<T>): { found: T; parts: number } {
  let step = work.next();
  let count = 0;
  while (!step.done) {
    const { asks } = step.value;
    const parts = partsOf(asks);
    const came: (readonly (AskedRuns | { trouble: string })[])[] = [];
    for (let i = parts.length - 1; i >= 0; i--) came[i] = JSON.parse(JSON.stringify(parts[i].asks.map(runFights), infinities), back);
    count += parts.length;
    step = work.next(joined(asks, parts, came));
  }
  return { found: step.value, parts: count };
}
const infinities = (_: string, value: unknown) => (typeof value === 'number' && !Number.isFinite(value) ? `number ${value}` : value);
const back = (_: string, value: unknown) => (typeof value === 'string' && value.startsWith('number ') ? Number(value.slice(7)) : value);

describe('work that asks for fights', () => {
  test('is parted by seeds and put together again, whatever is asked for', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 260 }), { maxLength: 40 }), (sizes) => {
        const asks = sizes.map((runs, i): AskedFight => ({ project, cell, firstSeed: 1000 * i, runs, columns: ['won'] }));
        const parts = partsOf(asks);
        for (const { asks: own } of parts) expect(own.reduce((sum, { runs }) => sum + runs, 0)).toBeLessThanOrEqual(PART_RUNS);
        // Few more parts than there is need of: short asks go together.
        const all = sizes.reduce((sum, runs) => sum + runs, 0);
        expect(parts.length).toBeLessThanOrEqual(Math.ceil((2 * all) / PART_RUNS) + 1);
        const seeds = (first: number, runs: number) => Array.from({ length: runs }, (_, k) => first + k);
        const made = ({ firstSeed, runs }: AskedFight): AskedRuns => ({
          digests: seeds(firstSeed, runs),
          columns: { won: seeds(firstSeed, runs).map((seed) => seed / 7) },
        });
        expect(
          joined(
            asks,
            parts,
            parts.map(({ asks: own }) => own.map(made)),
          ),
        ).toEqual(asks.map(made));
      }),
    );
  });

  test('of a fight that is not there says why, and does not run', () => {
    const came = runFights({ project, cell: { ...cell, id: 'nobody' }, firstSeed: 1, runs: 2, columns: ['won'] });
    expect(came).toEqual({ trouble: expect.stringContaining('nobody') });
    expect(() => thereOf(came)).toThrow('nobody');
  });

  test('what moves a fight: screening, paired runs and pairs come to the same in parts as in one go', () => {
    const objectives = [lookAt(cell, 'won'), lookAt(cell, 'timeToKill')];
    const request = { cell, objectives, runs: 60, firstSeed: 1, strongest: 3, screen: 100, pairs: true };
    const told: { runs: number; of: number }[] = [];
    const straight = workThrough(movesWork(project, request), (step) => told.push(step));
    const { found, parts } = inParts(movesWork(project, request));
    expect(found).toEqual(straight);
    expect(parts).toBeGreaterThan(10);
    expect(straight.moved).toHaveLength(3);
    expect(straight.measured).toBe(5);
    expect(straight.together).toHaveLength(3);
    told.forEach(({ runs, of }, i) => {
      expect(runs).toBeLessThanOrEqual(of);
      if (i) expect(runs).toBeGreaterThan(told[i - 1].runs);
    });
  });

  test('two versions and their edits come to the same in parts as in one go; the goals are told first', () => {
    const change = (document: Project) => {
      const own = structuredClone(document) as any;
      const clipper = own.units.find(({ id }: { id: string }) => id === 'clipper');
      clipper.health.max *= 2;
      clipper.movement.turnRate *= 1.02;
      return parseProject(own);
    };
    const few = structuredClone(project);
    few.brief!.bands = few.brief!.bands.filter(({ scope, of }) => scope === 'role' && of === 'swarm');
    expect(few.brief!.bands.length).toBeGreaterThan(0);
    const versions = { before: few, after: change(few) };
    const asked = { runs: 60, axes: { tiers: ['bloom'], skills: ['regular'] }, byEdit: true };
    const goals: number[] = [];
    const straight = workThrough(compareWork(versions, asked, (all) => goals.push(all.length)));
    expect(goals).toEqual([straight.all.length]);
    expect(straight.rows!.length).toBe(2);
    const { found } = inParts(compareWork(versions, asked));
    expect(JSON.stringify(found)).toBe(JSON.stringify(straight));
    const { rows } = workThrough(compareWork(versions, { ...asked, byEdit: false }));
    expect(rows).toBeUndefined();
  });

  test('a search comes to the same in parts as in one go', () => {
    const objectives = [{ ...lookAt(cell, 'timeToKill'), band: { low: 1, high: 60 } }];
    const problem = findProblem(project, objectives, [dialFor(project, '/units/clipper/health/max')!], { budget: 4000 });
    const straight = workThrough(findWork(problem));
    const { found } = inParts(findWork(problem));
    expect(found.proposals).toEqual(straight.proposals);
    expect(found.progress).toEqual(straight.progress);
  });
});
