import { expect, test } from '@jest/globals';
import { compile } from '../engine/compile';
import { Runner } from '../engine/run';
import { EVENT } from '../record/log';
import { archiveProject, demoProject } from '../testing/demo';
import { Batch } from '../analysis/batch';
import { BAND_MEASURES, GOAL_MEASURES, columnOf } from './list';
import { rowOf } from './row';
import { joinSamples, sampleOf } from './sample';

const compiled = compile(demoProject(), { encounter: 'cellar-beat', tier: 'bloom', skill: 'regular' });
const rows = (first: number, runs: number) => {
  const batch = new Batch(compiled, first, runs);
  batch.advance(runs);
  return batch.rows;
};

test('parts that were run apart join to the sample of the whole, whatever the cut; a gap is refused', () => {
  const whole = sampleOf(compiled, rows(1, 9));
  const parts = [rows(1, 2), rows(3, 4), rows(7, 3)].map((part) => sampleOf(compiled, part));
  expect(joinSamples(parts)).toEqual(whole);
  expect(whole.digests).toHaveLength(9);
  expect(() => joinSamples([parts[0], parts[2]])).toThrow('the next sample must begin at seed 3: it begins at 7');
});

test('what is measured of a run does not depend on what was run before it', () => {
  for (const tables of [
    compiled,
    compile(demoProject(), { encounter: 'evening-shift', tier: 'bramble', skill: 'novice' }),
    compile(archiveProject(), { encounter: 'cold-core', tier: 'dormant' }),
  ]) {
    const used = new Runner(tables);
    const measured = (runner: Runner, seed: number) => JSON.stringify(rowOf({ compiled: tables, run: runner.run(seed) }));
    for (const seed of [5, 1, 4, 2, 3]) expect(measured(used, seed)).toBe(measured(new Runner(tables), seed));
  }
});

test('every measure that a brief may speak of has its column, of everybody of whom it is measured', () => {
  const { columns } = sampleOf(compiled, rows(1, 2));
  for (const measure of BAND_MEASURES)
    for (const subject of GOAL_MEASURES[measure].of) {
      const id = subject === 'wave' ? compiled.waves[0].id : subject === 'enemy' ? 'briar-hound' : undefined;
      expect([measure, subject, columns[columnOf(measure, subject, id)]?.length]).toEqual([measure, subject, 2]);
    }
});

test('parts join wherever their seeds begin', () => {
  const part = (firstSeed: number, values: number[]) => ({
    firstSeed,
    runs: values.length,
    digests: values.map(String),
    columns: { won: Float64Array.from(values) },
  });
  expect(joinSamples([part(51, [1, 2]), part(53, [3])])).toEqual({
    firstSeed: 51,
    runs: 3,
    digests: ['1', '2', '3'],
    columns: { won: Float64Array.from([1, 2, 3]) },
  });
});

test('nothing is read beyond the end of a log', () => {
  const run = new Runner(compiled).run(1);
  const { log } = run;
  const measured = () => JSON.stringify(rowOf({ compiled, run }));
  const clean = measured();
  expect(log.length).toBeLessThan(log.kind.length);
  // What an earlier, longer run could have left there: a member struck hard at the last instant.
  log.kind[log.length] = EVENT.hit;
  log.time[log.length] = run.length;
  log.actor[log.length] = run.units - 1;
  log.other[log.length] = log.what[log.length] = 0;
  for (const column of [log.a, log.b, log.c, log.d]) column[log.length] = 1e6;
  expect(measured()).toBe(clean);
});
