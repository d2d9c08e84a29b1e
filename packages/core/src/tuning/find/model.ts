/** A goal's response near a point: a plane through what has been run, what is near and sure counting most; bent where there is enough to see it. */
import { cholesky, solve } from '../regression';
import type { DialPoint } from './problem';
import type { Response } from './response';

/** How far what has been run still speaks for a point: root mean square of the differences, in shares of ranges. */
const REACH = 0.22;
/** What a slope, and a bend, may be expected to be at most: on the goal's scale, along a dial's range. */
const PRIOR = { slope: 6, bend: 3 } as const;
/** How far a lump reaches: what one point was beside the plane, others so near to it are likely to be too. */
const LUMP = { reach: 0.05, doubt: 0.3 } as const;
/** Points for each dial from which bends are looked for. */
const BENT_FROM = 3;

export interface Measured {
  at: DialPoint;
  response: Response;
}

export interface Model {
  predict: (at: DialPoint) => { y: number; error: number };
  /** Along each dial, at its middle. */
  slopes: readonly number[];
}

/** @param middle near which it is to hold */
export function modelOf(measured: readonly Measured[], middle: DialPoint): Model | undefined {
  const k = middle.length;
  if (measured.length < 2) return undefined;
  const bent = measured.length >= BENT_FROM * k + 4;
  const features = (at: DialPoint): number[] => {
    const from = at.map((value, i) => value - middle[i]);
    return bent ? [1, ...from, ...from.map((value) => value * value)] : [1, ...from];
  };
  const rows = measured.map(({ at }) => features(at));
  const ys = measured.map(({ response }) => response.y);
  const near = measured.map(({ at }) => Math.exp(-0.5 * (spread(at, middle) / REACH) ** 2));
  const size = rows[0].length;
  const prior = (i: number) => (i === 0 ? 1e-6 : i <= k ? 1 / PRIOR.slope ** 2 : 1 / PRIOR.bend ** 2);
  let lump = 0;
  let factor: Float64Array[] = [];
  let beta: Float64Array = new Float64Array(size);
  // Lumps (steps of a shot, of a rhythm) are what the plane misses beyond the luck of the runs: found by going over it again.
  for (let round = 0; round < 3; round++) {
    const weights = measured.map(({ response: { error } }, r) => near[r] / (error * error + lump));
    const normal = Array.from({ length: size }, () => new Float64Array(size));
    const right = new Float64Array(size);
    rows.forEach((row, r) => {
      for (let i = 0; i < size; i++) {
        right[i] += weights[r] * row[i] * ys[r];
        for (let j = 0; j <= i; j++) normal[i][j] += weights[r] * row[i] * row[j];
      }
    });
    for (let i = 0; i < size; i++) {
      normal[i][i] += prior(i);
      for (let j = 0; j < i; j++) normal[j][i] = normal[i][j];
    }
    factor = cholesky(normal);
    beta = solve(factor, right);
    let misses = 0;
    let sum = 0;
    rows.forEach((row, r) => {
      const found = row.reduce((all, value, i) => all + value * beta[i], 0);
      misses += near[r] * ((ys[r] - found) ** 2 - measured[r].response.error ** 2);
      sum += near[r];
    });
    lump = Math.max(0, misses / Math.max(1e-9, sum));
  }
  const fitted = (row: readonly number[]) => row.reduce((all, value, i) => all + value * beta[i], 0);
  // Of what a point missed the plane by, as much as is not the luck of its own runs.
  const lumps = rows.map((row, r) => {
    const own = measured[r].response.error ** 2;
    return { by: ys[r] - fitted(row), sure: lump > 0 ? lump / (lump + own) : 0 };
  });
  return {
    slopes: Array.from({ length: k }, (_, i) => beta[1 + i]),
    predict: (at) => {
      const row = features(at);
      const back = solve(factor, row);
      const variance = row.reduce((all, value, i) => all + value * back[i], 0);
      let weight = 0;
      let beside = 0;
      if (lump > 0)
        measured.forEach((one, r) => {
          const own = lumps[r].sure * Math.exp(-0.5 * (spread(one.at, at) / LUMP.reach) ** 2);
          weight += own;
          beside += own * lumps[r].by;
        });
      const known = weight / (weight + LUMP.doubt);
      return {
        y: fitted(row) + (weight > 0 ? (known * beside) / weight : 0),
        error: Math.sqrt(Math.max(0, variance) + lump * (1 - known)),
      };
    },
  };
}

/** Root mean square of the differences of two points. */
export const spread = (a: DialPoint, b: DialPoint): number =>
  Math.sqrt(a.reduce((sum, value, i) => sum + (value - b[i]) ** 2, 0) / Math.max(1, a.length));
