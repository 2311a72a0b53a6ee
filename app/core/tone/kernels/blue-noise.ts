/**
 * Blue noise by void and cluster (Ulichney 1993): a square that repeats without a seam, each rank put where it lies farthest from those
 * before it. Made once from a seed.
 */
import { randomOf } from "../../units/random";

/** side of the square, pixels */
export const BLUE_NOISE_PX = 64;
const SIGMA = 1.9;
const SEED = 20270113;

/** @returns ranks 0 to n²−1, row by row */
export function voidAndCluster(n: number, seed: number): Int32Array {
  const all = n * n;
  const near = new Float64Array(all);
  for (let y = 0; y < n; y++)
    for (let x = 0; x < n; x++) {
      const [dx, dy] = [Math.min(x, n - x), Math.min(y, n - y)];
      near[y * n + x] = Math.exp(-(dx * dx + dy * dy) / (2 * SIGMA * SIGMA));
    }
  const on = new Uint8Array(all);
  const energy = new Float64Array(all);
  const put = (i: number, sign: 1 | -1): void => {
    on[i] = sign > 0 ? 1 : 0;
    const [cx, cy] = [i % n, (i / n) | 0];
    for (let y = 0; y < n; y++) {
      const o = ((y - cy + n) % n) * n;
      for (let x = 0; x < n; x++) energy[y * n + x] += sign * near[o + ((x - cx + n) % n)];
    }
  };
  const find = (of: 0 | 1, most: boolean): number => {
    let best = -1;
    for (let i = 0; i < all; i++)
      if (on[i] === of && (best < 0 || (most ? energy[i] > energy[best] : energy[i] < energy[best]))) best = i;
    return best;
  };
  const { next } = randomOf(seed);
  const first = Math.max(1, Math.round(all / 10));
  for (let k = 0; k < first;) {
    const i = Math.floor(next() * all);
    if (!on[i]) {
      put(i, 1);
      k++;
    }
  }
  // the tightest moves to the widest gap until it would move back
  for (let guard = 0; guard < all; guard++) {
    const tight = find(1, true);
    put(tight, -1);
    const gap = find(0, false);
    put(gap, 1);
    if (gap === tight) break;
  }
  const rank = new Int32Array(all);
  const begun = on.slice();
  const kept = energy.slice();
  for (let k = first - 1; k >= 0; k--) {
    const i = find(1, true);
    put(i, -1);
    rank[i] = k;
  }
  on.set(begun);
  energy.set(kept);
  for (let k = first; k < all; k++) {
    const i = find(0, false);
    put(i, 1);
    rank[i] = k;
  }
  return rank;
}

let made: Int32Array[] | null = null;
/** The square that the app uses, by rows. */
export function blueNoise(): readonly Int32Array[] {
  if (made) return made;
  const flat = voidAndCluster(BLUE_NOISE_PX, SEED);
  return (made = Array.from({ length: BLUE_NOISE_PX }, (_r, y) =>
    flat.slice(y * BLUE_NOISE_PX, (y + 1) * BLUE_NOISE_PX),
  ));
}
