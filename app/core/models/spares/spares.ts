/**
 * M15 Enough pieces: the least N of which n come out good with a probability of 0.9. Losses are beta-binomial: the route's prior share
 * counts as much as eight pieces, what the shop has seen adds to it; with a share that is known for certain it is binomial.
 */
const PRIOR_PIECES = 8;
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
const lnChoose = (n: number, k: number): number => lnGamma(n + 1) - lnGamma(k + 1) - lnGamma(n - k + 1);

/** P(good ≥ n of N) when the share of good ones is Beta(a, b). */
export function chanceBeta(N: number, n: number, a: number, b: number): number {
  let p = 0;
  for (let k = n; k <= N; k++) p += Math.exp(lnChoose(N, k) + lnBeta(k + a, N - k + b) - lnBeta(a, b));
  return Math.min(1, p);
}
/** P(good ≥ n of N) at a known share lost. */
export function chanceKnown(N: number, n: number, loss: number): number {
  let p = 0;
  for (let k = n; k <= N; k++)
    p += Math.exp(lnChoose(N, k) + k * Math.log(1 - loss) + (N - k) * Math.log(Math.max(loss, 1e-300)));
  return Math.min(1, p);
}

/**
 * @param n good pieces wanted @param loss prior share lost, or the known one @param seen pieces of this route so far, good and lost
 * @param known the share is certain @returns pieces to begin with, at most 20 n; null when n is no whole number above 0
 */
export function piecesToBegin(
  n: number,
  loss: number,
  seen: { good: number; lost: number } = { good: 0, lost: 0 },
  known = false,
): { pieces: number; chance: number } | null {
  if (!Number.isInteger(n) || n < 1 || !Number.isFinite(loss)) return null;
  const f = Math.min(MOST_LOSS, Math.max(0, loss));
  const chance = (N: number): number =>
    known
      ? f === 0
        ? 1
        : chanceKnown(N, n, f)
      : chanceBeta(
          N,
          n,
          Math.max(1e-6, PRIOR_PIECES * (1 - f) + seen.good),
          Math.max(1e-6, PRIOR_PIECES * f + seen.lost),
        );
  for (let N = n; N < MOST_TIMES * n; N++) {
    const p = chance(N);
    if (p >= SURE) return { pieces: N, chance: p };
  }
  return { pieces: MOST_TIMES * n, chance: chance(MOST_TIMES * n) };
}
