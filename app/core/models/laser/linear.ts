/** Small systems of linear equations, and least squares by them. */
const NOTHING = 1e-12;

/**
 * Solves rows of [a₁ … aₙ, b] by Gauss and Jordan, the largest of a column first.
 * @returns null: they do not tell all unknowns apart
 */
export function solveRows(rows: readonly (readonly number[])[]): number[] | null {
  const m = rows.map((r) => [...r]);
  const n = m.length;
  for (let i = 0; i < n; i++) {
    let p = i;
    for (let r = i + 1; r < n; r++) if (Math.abs(m[r][i]) > Math.abs(m[p][i])) p = r;
    [m[i], m[p]] = [m[p], m[i]];
    if (Math.abs(m[i][i]) < NOTHING) return null;
    for (let r = 0; r < n; r++) {
      if (r === i) continue;
      const k = m[r][i] / m[i][i];
      for (let c = i; c <= n; c++) m[r][c] -= k * m[i][c];
    }
  }
  return m.map((r, i) => r[n] / r[i]);
}

/** Least squares of y over the columns of x, each row weighed. @returns null: the columns do not stand apart */
export function leastSquares(
  x: readonly (readonly number[])[],
  y: readonly number[],
  w: readonly number[] | null = null,
): number[] | null {
  const n = x[0]?.length ?? 0;
  const rows = Array.from({ length: n }, () => new Array<number>(n + 1).fill(0));
  x.forEach((row, k) => {
    const weight = w ? w[k] : 1;
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < n; j++) rows[i][j] += weight * row[i] * row[j];
      rows[i][n] += weight * row[i] * y[k];
    }
  });
  return solveRows(rows);
}
