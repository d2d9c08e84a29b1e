/**
 * A smooth picture of a sample: Gaussian kernels with Silverman's width, 0.9 min(sd, IQR / 1.34) n^−1/5, evaluated on a
 * grid. For looking at only; every number beside it is computed from the values themselves.
 */
export function density(values: readonly number[], from: number, to: number, points = 64): number[] {
  const sorted = values.filter(Number.isFinite).sort((a, b) => a - b);
  const n = sorted.length;
  if (!n) return new Array<number>(points).fill(0);
  const mean = sorted.reduce((a, b) => a + b, 0) / n;
  const sd = Math.sqrt(sorted.reduce((a, b) => a + (b - mean) ** 2, 0) / n);
  const spread = (sorted[Math.floor(0.75 * (n - 1))] - sorted[Math.floor(0.25 * (n - 1))]) / 1.34;
  const width = Math.max(0.9 * (spread > 0 ? Math.min(sd, spread) : sd) * n ** -0.2, (to - from) / 60, 1e-9);
  return Array.from({ length: points }, (_, i) => {
    const x = from + ((to - from) * i) / (points - 1);
    let sum = 0;
    for (const value of sorted) {
      const z = (x - value) / width;
      if (z > -4 && z < 4) sum += Math.exp(-0.5 * z * z);
    }
    return sum / (n * width * 2.5066);
  });
}
