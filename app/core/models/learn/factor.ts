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

/** Logarithms of how much longer or shorter each took, held to three times; what can't be told of is left out. */
export const offs = (pairs: readonly Pair[]): number[] =>
  pairs.flatMap(({ predicted, actual }) =>
    predicted === null || actual === null || !(predicted > 0) || !(actual > 0)
      ? []
      : [Math.min(LIMIT, Math.max(-LIMIT, Math.log(actual / predicted)))],
  );

export function factor(pairs: Pair[]): { factor: number; n: number } {
  const all = offs(pairs);
  return { factor: Math.exp(all.reduce((a, x) => a + x, 0) / (K + all.length)), n: all.length };
}

/** How far they lie from one another, as a share: one standard deviation of their logarithms; null with fewer than two. */
export function spreadOf(pairs: Pair[]): number | null {
  const all = offs(pairs);
  if (all.length < 2) return null;
  const mean = all.reduce((a, x) => a + x, 0) / all.length;
  return Math.exp(Math.sqrt(all.reduce((a, x) => a + (x - mean) ** 2, 0) / (all.length - 1))) - 1;
}
