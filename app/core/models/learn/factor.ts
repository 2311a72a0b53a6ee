/**
 * M19 What the log teaches: factor = exp(Σ clamp(ln(actual/predicted), ±ln 3)/(k+n)), k = 3, shown with n.
 * Predicted is the uncorrected figure; entries with predicted or actual ≤ 0 are passed over.
 */
const K = 3;
const LIMIT = Math.log(3);

export interface Pair {
  predicted: number | null;
  actual: number | null;
}

export function factor(pairs: Pair[]): { factor: number; n: number } {
  let sum = 0;
  let n = 0;
  for (const { predicted, actual } of pairs) {
    if (predicted === null || actual === null || !(predicted > 0) || !(actual > 0)) continue;
    sum += Math.min(LIMIT, Math.max(-LIMIT, Math.log(actual / predicted)));
    n++;
  }
  return { factor: Math.exp(sum / (K + n)), n };
}
