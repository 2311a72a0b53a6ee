/**
 * How much a test plate will tell, before it is burnt (M5): edges of the window, their spread and the noise of reading are drawn from the
 * priors, the cells are read as they would come out, and what the same draws say after the reading is how far the edges are known then.
 */
import { PLATE_READS } from "../../records/ids";
import { randomOf } from "../../units/random";
import { FIRST_SD, likelies, PRIOR, Z } from "./plate";

/** draws of the priors, and how many of them are taken for the truth in turn */
const DRAWS = 1000;
const TRUTHS = 160;
/** an edge is known at 90 % so many standard deviations either way */
const AT_90 = 1.645;
const SEED = 5;

/**
 * @param energies of the cells, J/mm² @param first J/mm² at which the top is thought to go; null: somewhere among the cells
 * @param two what lies beneath is read as well
 * @returns ln E either way in which the worse known edge lies at 90 %, in the middle of the trials
 */
export function expectedWidth(energies: readonly number[], first: number | null, two: boolean): number {
  const random = randomOf(SEED);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random.next())) * Math.cos(2 * Math.PI * random.next());
  const le = energies.map(Math.log);
  const [from, to] = [Math.min(...le), Math.max(...le)];
  const draws = Array.from({ length: DRAWS }, () => {
    const c1 = first === null ? from + (to - from) * random.next() : Math.log(first) + FIRST_SD * normal();
    const [s, noise, gap] = [PRIOR.s, PRIOR.noise, PRIOR.gap].map(([m, sd]) => Math.exp(m + sd * normal()));
    return { c1, c2: c1 + gap, s, noise, lo: c1 + Z * s, hi: c1 + gap - Z * s };
  });
  // what a reading of each cell says of each draw, for one edge after the other
  const edges = two ? (["c1", "c2"] as const) : (["c1"] as const);
  const told = edges.map((at) =>
    le.map((e) => {
      const of = PLATE_READS.map(() => new Float64Array(DRAWS));
      draws.forEach((d, k) => {
        const by = likelies(e - d[at], d.s, d.noise);
        PLATE_READS.forEach((r, i) => (of[i][k] = by[r]));
      });
      return of;
    }),
  );
  const widths: number[] = [];
  for (let t = 0; t < TRUTHS; t++) {
    const w = new Float64Array(DRAWS);
    for (const edge of told)
      for (const cell of edge) {
        let u = random.next();
        const read = cell.findIndex((r) => (u -= Math.exp(r[t])) < 0);
        const r = cell[read < 0 ? cell.length - 1 : read];
        for (let k = 0; k < DRAWS; k++) w[k] += r[k];
      }
    // the truth itself is none of those that are weighed
    w[t] = -Infinity;
    const most = w.reduce((a, x) => Math.max(a, x), -Infinity);
    widths.push(
      AT_90 *
        Math.max(
          ...(two ? (["lo", "hi"] as const) : (["lo"] as const)).map((at) => {
            let [n, mean, square] = [0, 0, 0];
            draws.forEach((d, k) => {
              const p = Math.exp(w[k] - most);
              n += p;
              mean += p * d[at];
              square += p * d[at] ** 2;
            });
            return Math.sqrt(Math.max(0, square / n - (mean / n) ** 2));
          }),
        ),
    );
  }
  return widths.sort((a, b) => a - b)[TRUTHS >> 1];
}

export interface Fewer {
  rows: number;
  cols: number;
  /** ln E either way, of it and of the whole plate */
  width: number;
  whole: number;
}
/** an edge that is known to a fifth either way is known well enough to go by: windows are mostly twice as wide */
export const WANTED = 0.2;
/**
 * The fewest cells over the same stretch that answer what a plate asks.
 * @param energies of so many rows and columns, J/mm² @returns null: all of them are wanted, or they are not enough
 */
export function fewestCells(
  rows: number,
  cols: number,
  energies: (rows: number, cols: number) => readonly number[],
  first: number | null,
  two: boolean,
): Fewer | null {
  const whole = expectedWidth(energies(rows, cols), first, two);
  if (whole > WANTED) return null;
  const pairs = Array.from({ length: rows * cols - 1 }, (_v, i) => i + 1)
    .filter((n) => n >= 3)
    .flatMap((n) => {
      // of so many cells, as near the plate's own shape as it goes
      const fits = Array.from({ length: Math.min(rows, n) }, (_v, i) => i + 1)
        .filter((r) => n % r === 0 && n / r <= cols)
        .map((r) => ({ r, c: n / r, off: Math.abs(Math.log(((n / r) * rows) / (r * cols))) }));
      return fits.length ? [fits.reduce((a, b) => (b.off < a.off ? b : a))] : [];
    });
  // more cells never tell less, but for what the trials scatter: halved between the least and the whole
  let [low, high, found]: [number, number, Fewer | null] = [0, pairs.length - 1, null];
  while (low <= high) {
    const mid = (low + high) >> 1;
    const { r, c } = pairs[mid];
    const width = expectedWidth(energies(r, c), first, two);
    if (width <= WANTED) [found, high] = [{ rows: r, cols: c, width, whole }, mid - 1];
    else low = mid + 1;
  }
  return found;
}
