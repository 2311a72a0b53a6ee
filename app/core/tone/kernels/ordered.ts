/** Patterns that decide each pixel by its place: recursive squares, blue noise, clustered lines and dots. */

/** Threshold in 0-1 for a pixel: burnt where more than that is wanted. */
export type Threshold = (x: number, y: number) => number;

/** Recursive square of 4 or 8 (Bayer 1973): ranks 0 to n²−1. */
export function square(n: 4 | 8): number[][] {
  let m = [[0]];
  while (m.length < n) {
    const s = m.length;
    const two = [
      [0, 2],
      [3, 1],
    ];
    m = Array.from({ length: 2 * s }, (_r, y) =>
      Array.from({ length: 2 * s }, (_c, x) => 4 * m[y % s][x % s] + two[Math.floor(y / s)][Math.floor(x / s)]),
    );
  }
  return m;
}
/** Ranks as thresholds, half a rank off so that 0 burns nothing and 1 all. */
export function ranked(ranks: readonly ArrayLike<number>[]): Threshold {
  const n = ranks.length;
  const all = n * ranks[0].length;
  const t = ranks.map((r) => Float64Array.from(r, (v) => (v + 0.5) / all));
  return (x, y) => t[y % n][x % t[0].length];
}

/** Light at a place of a cell, 0 where its mark begins; equal areas for equal steps. */
function clustered(
  perCm: number,
  angle: number,
  intervalMm: number,
  spot: (u: number, v: number) => number,
): Threshold {
  const a = (angle * Math.PI) / 180;
  const k = (perCm / 10) * intervalMm;
  const [c, s] = [Math.cos(a) * k, Math.sin(a) * k];
  // how the values lie over one cell: the rank of each place is its threshold
  const N = 128;
  const order = Array.from({ length: N * N }, (_v, i) => i);
  const value = Float64Array.from(order, (i) => spot(((i % N) + 0.5) / N, (Math.floor(i / N) + 0.5) / N));
  order.sort((p, q) => value[p] - value[q] || p - q);
  const rank = new Float64Array(N * N);
  order.forEach((place, n) => (rank[place] = (n + 0.5) / (N * N)));
  const cell = (x: number): number => Math.floor((x - Math.floor(x)) * N);
  return (x, y) => rank[cell((y + 0.5) * c - (x + 0.5) * s) * N + cell((x + 0.5) * c + (y + 0.5) * s)];
}
const wave = (u: number): number => Math.abs(2 * u - 1);
/** Round dots that grow into one another. @param perCm lines of dots a cm @param angle ° */
export const dotScreen = (perCm: number, angle: number, intervalMm: number): Threshold =>
  clustered(
    perCm,
    angle,
    intervalMm,
    (u, v) => 2 - Math.cos(2 * Math.PI * (u - 0.5)) - Math.cos(2 * Math.PI * (v - 0.5)),
  );
/** Lines that swell. */
export const lineScreen = (perCm: number, angle: number, intervalMm: number): Threshold =>
  clustered(perCm, angle, intervalMm, (_u, v) => wave(v));
