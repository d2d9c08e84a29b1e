/** Least squares, as the searches need them. */

/**
 * Ordinary least squares without a constant, a little ridge beneath it (Hoerl & Kennard 1970, Technometrics 12) so that a design with
 * barely enough rows stays solvable: β = (XᵀX + λI)⁻¹ Xᵀy, standard errors from the residuals.
 *
 * @param rows one row a point
 * @param values one a row
 */
export function least(
  rows: readonly ArrayLike<number>[],
  values: readonly number[],
  ridge = 1e-6,
): { coefficients: Float64Array; errors: Float64Array } {
  const n = rows.length;
  const k = n ? rows[0].length : 0;
  const normal = Array.from({ length: k }, () => new Float64Array(k));
  const right = new Float64Array(k);
  for (let r = 0; r < n; r++) {
    const row = rows[r];
    for (let i = 0; i < k; i++) {
      right[i] += row[i] * values[r];
      const into = normal[i];
      for (let j = 0; j <= i; j++) into[j] += row[i] * row[j];
    }
  }
  for (let i = 0; i < k; i++) {
    normal[i][i] += ridge * Math.max(1, n);
    for (let j = 0; j < i; j++) normal[j][i] = normal[i][j];
  }
  const factor = cholesky(normal);
  const coefficients = solve(factor, right);
  let squares = 0;
  for (let r = 0; r < n; r++) {
    let fitted = 0;
    for (let i = 0; i < k; i++) fitted += rows[r][i] * coefficients[i];
    squares += (values[r] - fitted) ** 2;
  }
  const variance = squares / Math.max(1, n - k);
  const errors = new Float64Array(k);
  const unit = new Float64Array(k);
  for (let i = 0; i < k; i++) {
    unit.fill(0);
    unit[i] = 1;
    errors[i] = Math.sqrt(variance * solve(factor, unit)[i]);
  }
  return { coefficients, errors };
}

/** The lower factor of a positive definite matrix: L Lᵀ. */
export function cholesky(matrix: readonly Float64Array[]): Float64Array[] {
  const k = matrix.length;
  const lower = Array.from({ length: k }, () => new Float64Array(k));
  for (let i = 0; i < k; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i][j];
      for (let m = 0; m < j; m++) sum -= lower[i][m] * lower[j][m];
      lower[i][j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / lower[j][j];
    }
  }
  return lower;
}

export function solve(lower: readonly Float64Array[], right: ArrayLike<number>): Float64Array {
  const k = lower.length;
  const x = Float64Array.from(right);
  for (let i = 0; i < k; i++) {
    for (let m = 0; m < i; m++) x[i] -= lower[i][m] * x[m];
    x[i] /= lower[i][i];
  }
  for (let i = k - 1; i >= 0; i--) {
    for (let m = i + 1; m < k; m++) x[i] -= lower[m][i] * x[m];
    x[i] /= lower[i][i];
  }
  return x;
}
