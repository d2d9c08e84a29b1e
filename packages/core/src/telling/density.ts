/**
 * A smooth picture of a sample: Gaussian kernels with Silverman's width, 0.9 min(sd, IQR / 1.34) n^−1/5, evaluated on a
 * grid as far as four widths. For looking at only; every number beside it is computed from the values themselves.
 */
export function density(values: readonly number[], from: number, to: number, points = 64): number[] {
  const sorted = Float64Array.from(values.filter(Number.isFinite)).sort();
  const n = sorted.length;
  const sums = new Array<number>(points).fill(0);
  if (!n) return sums;
  const mean = sorted.reduce((a, b) => a + b, 0) / n;
  const sd = Math.sqrt(sorted.reduce((a, b) => a + (b - mean) ** 2, 0) / n);
  const spread = (sorted[Math.floor(0.75 * (n - 1))] - sorted[Math.floor(0.25 * (n - 1))]) / 1.34;
  const width = Math.max(0.9 * (spread > 0 ? Math.min(sd, spread) : sd) * n ** -0.2, (to - from) / 60, 1e-9);
  const step = (to - from) / (points - 1);
  const stride = step / width;
  const bend = Math.exp(-stride * stride);
  for (const value of sorted) {
    const first = Math.max(0, step > 0 ? Math.ceil((value - 4 * width - from) / step) : 0);
    const last = Math.min(points - 1, step > 0 ? Math.floor((value + 4 * width - from) / step) : points - 1);
    if (first > last) continue;
    // From one place of the grid to the next a kernel changes by a factor, and that factor by another, which is always the same.
    const z = (from + step * first - value) / width;
    let kernel = Math.exp(-0.5 * z * z);
    let factor = Math.exp(-stride * (z + 0.5 * stride));
    for (let i = first; i <= last; i++) {
      sums[i] += kernel;
      kernel *= factor;
      factor *= bend;
    }
  }
  return sums.map((sum) => sum / (n * width * 2.5066));
}
