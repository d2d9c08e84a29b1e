import { describe, expect, test } from '@jest/globals';
import { draw } from '../engine/time/chance';
import type { Scenario } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import { Batch } from '../analysis/batch';
import { sampleOf } from '../measures/sample';
import { demoProject } from '../testing/demo';
import { numbersOf } from './dials-of-fight';
import { lookAt } from './goal';
import { least } from './regression';
import { type Screened, Screening, coins, designFor, ofBoth, pairsOfDesign, runsOfScreening, secondDesign } from './screening';

describe('least squares', () => {
  test('find what was put in, with errors as large as the noise makes them', () => {
    const truth = [3, 0, -1.5, 0.25];
    const rows = Array.from({ length: 200 }, (_, r) => truth.map((_, i) => (draw(r, i, 0, 0) < 0.5 ? -1 : 1)));
    const noise = rows.map((_, r) => draw(r, 99, 0, 0) - 0.5);
    const { coefficients, errors } = least(
      rows,
      rows.map((row, r) => row.reduce((sum, x, i) => sum + x * truth[i], 0) + noise[r]),
    );
    truth.forEach((value, i) => {
      expect(Math.abs(coefficients[i] - value)).toBeLessThan(4 * errors[i]);
      // Even noise of width 1 has a standard deviation of 0.289: of 200 points 0.0204.
      expect(errors[i]).toBeCloseTo(0.0204, 2);
    });
  });
});

describe('a screening', () => {
  const project = demoProject();
  const cell: Scenario = { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 } };
  const compiled = compileScenario(project, cell);
  const dials = numbersOf(project, compiled);

  test('has points enough for its numbers, each coin even and of its own', () => {
    const design = designFor(dials, 1000);
    expect(2 * design.pairs).toBeGreaterThanOrEqual(4 * dials.length);
    expect(runsOfScreening(design)).toBeLessThanOrEqual(1000 + 4 * 2 * dials.length);
    const all = Array.from({ length: 400 }, (_, pair) => coins({ dials }, pair));
    for (let i = 0; i < dials.length; i += 7) expect(Math.abs(all.reduce((sum, row) => sum + row[i], 0))).toBeLessThan(90);
    const together = all.reduce((sum, row) => sum + row[0] * row[1], 0);
    expect(Math.abs(together)).toBeLessThan(90);
  });

  test('names what moves who wins: the pace of a crowd of Clippers first, whoever runs the pairs, in whatever order', () => {
    const batch = new Batch(compiled, 1, 60);
    batch.advance(60);
    const aims = [lookAt(cell, 'won')];
    const design = { ...designFor(dials, 600), pairs: 130, runs: 4 };
    const make = () => new Screening(project, cell, aims, design, sampleOf(compiled, batch.rows), 500);
    const [one, other] = [make(), make()];
    const ran = Array.from({ length: design.pairs }, (_, pair) => one.run(pair));
    ran.forEach((pair) => one.add(pair));
    [...ran].reverse().forEach((pair) => other.add(pair));
    expect(one.left).toBe(0);
    const found = one.result(0);
    expect(other.result(0)).toEqual(found);
    const first = found.slice(0, 6).map(({ dial }) => dial.path);
    expect(first).toContain('/units/clipper/movement/run');
    expect(first).toContain('/units/clipper/states/rush/paceFactor');
    // What is off or not there, such as armour's least damage, moves nothing that can be told from luck.
    expect(found.find(({ dial }) => dial.path === '/units/clipper/senses/memory')!.clarity).toBeLessThan(4);

    // What is clear stands still in the second half, whose pairs are others.
    const second = secondDesign(design, found);
    const paths = second.dials.map(({ path }) => path);
    expect(paths).not.toContain('/units/clipper/movement/run');
    expect(paths).toContain('/units/clipper/senses/memory');
    expect(pairsOfDesign(second)[0]).toBe(pairsOfDesign(design).at(-1)! + 1);
    const still = new Screening(project, cell, aims, second, sampleOf(compiled, batch.rows), 500);
    for (const { cell: asked } of still.asksOf(pairsOfDesign(second)[0]))
      expect(asked.turned!.map(({ path }) => path)).not.toContain('/units/clipper/movement/run');
  });

  test('of both halves is the mean by how sure each is; what stood still keeps what the first said', () => {
    const [a, b, c] = dials;
    const one = (dial: typeof a, size: number, error: number): Screened => ({ dial, size, error, clarity: Math.abs(size) / error });
    const found = ofBoth([one(a, 0.4, 0.05), one(b, 0.1, 0.04), one(c, 0.02, 0.04)], [one(c, -0.01, 0.04), one(b, 0.06, 0.02)]);
    expect(found.map(({ dial }) => dial)).toEqual([a, b, c]);
    expect(found[0]).toEqual(one(a, 0.4, 0.05));
    // (0.1 × 625 + 0.06 × 2500) ÷ 3125; 1 ÷ √3125
    expect(found[1].size).toBeCloseTo(0.068, 10);
    expect(found[1].error).toBeCloseTo(0.0178885, 6);
    expect(found[2].size).toBeCloseTo(0.005, 10);
  });
});
