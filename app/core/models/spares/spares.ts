/**
 * M15 Enough pieces: the least N of which n come out good with a probability of 0.9. Losses are beta-binomial: a share lost counts as
 * much as the pieces it was seen on, the route's prior as eight, and what the shop has seen adds to it; with a share that is known for
 * certain it is binomial.
 */
export const PRIOR_PIECES = 8;
const SURE = 0.9;
const MOST_LOSS = 0.9;
const MOST_TIMES = 20;

/** ln Γ by Lanczos' series, good to 1e-10 for x > 0. */
export function lnGamma(x: number): number {
  const g = [
    76.18009172947146, -86.50532032941677, 24.01409824083091, -1.231739572450155, 0.001208650973866179,
    -0.000005395239384953,
  ];
  let sum = 1.000000000190015;
  g.forEach((c, i) => (sum += c / (x + 1 + i)));
  const t = x + 5.5;
  return (x + 0.5) * Math.log(t) - t + Math.log((2.5066282746310005 * sum) / x);
}
const lnBeta = (a: number, b: number): number => lnGamma(a) + lnGamma(b) - lnGamma(a + b);

/** Σ over k = 0 … most of a chance that is given at 0 and by how it goes on from k to k + 1, all in logarithms. */
function upTo(most: number, first: number, on: (k: number) => number): number {
  let sum = 0;
  for (let k = 0, ln = first; k <= most; ln += on(k), k++) sum += Math.exp(ln);
  return Math.min(1, sum);
}
/** P(good ≥ n of N) when the share of good ones is Beta(a, b): at most N − n are lost. */
export const chanceBeta = (N: number, n: number, a: number, b: number): number =>
  upTo(
    N - n,
    lnBeta(N + a, b) - lnBeta(a, b),
    (k) => Math.log((N - k) / (k + 1)) + Math.log((k + b) / (N - k - 1 + a)),
  );
/** P(good ≥ n of N) at a known share lost. */
export const chanceKnown = (N: number, n: number, loss: number): number =>
  upTo(
    N - n,
    N * Math.log(1 - loss),
    (k) => Math.log((N - k) / (k + 1)) + Math.log(Math.max(loss, 1e-300) / (1 - loss)),
  );

export interface Spares {
  pieces: number;
  chance: number;
}
/**
 * @param n good pieces wanted @param loss share lost @param worth pieces that share counts as much as; null: it is known for certain
 * @param seen pieces of this route besides, good and lost
 * @returns pieces to begin with, at most 20 n; null when n is no whole number above 0
 */
export function piecesToBegin(
  n: number,
  loss: number,
  worth: number | null = PRIOR_PIECES,
  seen: { good: number; lost: number } = { good: 0, lost: 0 },
): Spares | null {
  if (!Number.isInteger(n) || n < 1 || !Number.isFinite(loss)) return null;
  const f = Math.min(MOST_LOSS, Math.max(0, loss));
  const [a, b] = [(worth ?? 0) * (1 - f) + seen.good, (worth ?? 0) * f + seen.lost].map((x) => Math.max(1e-6, x));
  const chance = (N: number): number => (worth === null ? chanceKnown(N, n, f) : chanceBeta(N, n, a, b));
  // the chance only rises with N
  let [lo, hi] = [n, MOST_TIMES * n];
  while (lo < hi) {
    const mid = Math.floor((lo + hi) / 2);
    if (chance(mid) >= SURE) hi = mid;
    else lo = mid + 1;
  }
  return { pieces: lo, chance: chance(lo) };
}
