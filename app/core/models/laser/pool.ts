/**
 * Plates of one stack told together (M5): what another can says counts, but less, by how far cans lie from one another. Each plate gives
 * an edge ln C with its spread; cans scatter about a common one by τ, ln τ ~ N(ln .15, .5). The posterior of τ is taken on a grid, the
 * common edge by its precision (a normal model with a flat prior on the common mean: Gelman and others 2013, § 5.4).
 */
import { phi } from "../film/reveal";
import type { Interval } from "./plate";

const TAU = [Math.log(0.15), 0.5] as const;
const STEPS = 25;
/** standard deviations from the middle to the edge of nine in ten */
const NINE_IN_TEN = 1.6449;

interface Part {
  /** ln J/mm² */
  mean: number;
  sd: number;
  w: number;
}
const partOf = (i: Interval): { mean: number; sd: number } => ({
  mean: Math.log(i.mid),
  sd: Math.max(1e-3, (Math.log(i.high) - Math.log(i.low)) / (2 * NINE_IN_TEN)),
});

/** Middle and nine in ten of a mixture of normals, by halving. */
function told(parts: readonly Part[]): Interval {
  const below = (x: number): number => parts.reduce((sum, p) => sum + p.w * phi((x - p.mean) / p.sd), 0);
  const [from, to] = [
    Math.min(...parts.map((p) => p.mean - 6 * p.sd)),
    Math.max(...parts.map((p) => p.mean + 6 * p.sd)),
  ];
  const at = (q: number): number => {
    let [lo, hi] = [from, to];
    for (let k = 0; k < 60; k++) {
      const mid = (lo + hi) / 2;
      if (below(mid) < q) lo = mid;
      else hi = mid;
    }
    return Math.exp((lo + hi) / 2);
  };
  return { low: at(0.05), mid: at(0.5), high: at(0.95) };
}

/**
 * An edge as it may lie on the can that is at hand.
 * @param others what plates on other cans of the same stack say @param own what this can’s own plate says; null: there is none
 * @returns null: nothing is known
 */
export function pooled(others: readonly Interval[], own: Interval | null): Interval | null {
  if (!others.length) return own;
  const parts = others.map(partOf);
  const rows = Array.from({ length: STEPS }, (_v, k): Part => {
    const z = -2.5 + (5 * k) / (STEPS - 1);
    const tau = Math.exp(TAU[0] + z * TAU[1]);
    const precision = parts.map((p) => 1 / (p.sd ** 2 + tau ** 2));
    const sum = precision.reduce((a, b) => a + b, 0);
    const mean = parts.reduce((a, p, i) => a + p.mean * precision[i], 0) / sum;
    const fit = parts.reduce(
      (a, p, i) => a + 0.5 * Math.log(precision[i]) - 0.5 * precision[i] * (p.mean - mean) ** 2,
      0,
    );
    const spread = Math.sqrt(1 / sum + tau ** 2);
    let ln = -0.5 * z * z + fit - 0.5 * Math.log(sum);
    if (!own) return { mean, sd: spread, w: ln };
    // this can’s own plate, with what the others lead one to expect of it
    const mine = partOf(own);
    const both = spread ** 2 + mine.sd ** 2;
    ln -= 0.5 * Math.log(both) + (0.5 * (mine.mean - mean) ** 2) / both;
    const [a, b] = [1 / spread ** 2, 1 / mine.sd ** 2];
    return { mean: (a * mean + b * mine.mean) / (a + b), sd: Math.sqrt(1 / (a + b)), w: ln };
  });
  const most = Math.max(...rows.map((r) => r.w));
  const weights = rows.map((r) => Math.exp(r.w - most));
  const all = weights.reduce((a, b) => a + b, 0);
  return told(rows.map((r, i) => ({ ...r, w: weights[i] / all })));
}
