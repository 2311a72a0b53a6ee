/**
 * M5 Reading a test plate. For a boundary k a cell at E is read whole, partly or gone; the cuts between lie at ln Cₖ ∓ 1.96·s, with reading
 * noise σ. Priors: ln s ~ N(ln .12, .7), ln σ ~ N(ln .06, .5), ln(ln C₂ − ln C₁) ~ N(ln .85, 1), ln C₁ wide round the first estimate.
 * The posterior is taken on a grid; what is told of the window are its quantiles.
 */
import { PLATE_READS, type PlateRead } from "../../records/ids";
import { phi } from "../film/reveal";
import { solveRows } from "./linear";

/** A cell: the energy it got, how the top and, where it can be seen, what lies beneath came out. */
export interface CellRead {
  e: number;
  top: PlateRead | null;
  under: PlateRead | null;
}

/** the cuts between readings lie so many spreads from the middle of a boundary */
export const Z = 1.96;
export const PRIOR = {
  s: [Math.log(0.12), 0.7],
  noise: [Math.log(0.06), 0.5],
  gap: [Math.log(0.85), 1],
} as const;
/** how wide ln C₁ is thought to lie round its first estimate */
export const FIRST_SD = 0.7;
/** grid: steps of ln C and how far it reaches beyond the cells, values of s and of the noise */
const STEPS = 96;
const BEYOND = 0.9;
const AT_SD = [-2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2];
const NOISE_SD = [-1.6, -0.8, 0, 0.8, 1.6];

const normal = (x: number, [m, sd]: readonly [number, number]): number => -0.5 * ((x - m) / sd) ** 2;
const TINY = 1e-12;
/** ln of the chance of each reading. @param off ln E − ln C */
export function likelies(off: number, s: number, noise: number): Record<PlateRead, number> {
  const whole = phi((-Z * s - off) / noise);
  const gone = phi((off - Z * s) / noise);
  const ln = (p: number): number => Math.log(Math.max(TINY, p));
  return { whole: ln(whole), partly: ln(1 - whole - gone), gone: ln(gone) };
}
const likely = (read: PlateRead, off: number, s: number, noise: number): number => likelies(off, s, noise)[read];

export interface Interval {
  /** J/mm²: 5 %, middle, 95 % */
  low: number;
  mid: number;
  high: number;
}
export interface WindowFit {
  /** where the top is gone all over, and where what lies beneath begins to be touched; null: the plate says nothing of it */
  lo: Interval;
  hi: Interval | null;
  /** chance that there is a window at all */
  open: number;
  /** J/mm² to go by, and the chance that it lies within the window */
  best: number;
  sure: number;
  /** energies at which further cells would tell most */
  next: number[];
}

interface Grid {
  at: number[];
  s: number[];
  noise: number[];
}
const gridOf = (cells: readonly CellRead[], first: number | null): Grid => {
  const all = [...cells.map((c) => Math.log(c.e)), ...(first === null ? [] : [Math.log(first)])];
  const [lo, hi] = [Math.min(...all) - BEYOND, Math.max(...all) + BEYOND];
  return {
    at: Array.from({ length: STEPS }, (_v, i) => lo + ((hi - lo) * i) / (STEPS - 1)),
    s: AT_SD.map((z) => Math.exp(PRIOR.s[0] + z * PRIOR.s[1])),
    noise: NOISE_SD.map((z) => Math.exp(PRIOR.noise[0] + z * PRIOR.noise[1])),
  };
};

/** ln likelihood of one boundary over the grid, [s][noise][C]. */
function surface(cells: readonly { e: number; read: PlateRead }[], g: Grid): number[][][] {
  return g.s.map((s) =>
    g.noise.map((noise) => g.at.map((c) => cells.reduce((a, x) => a + likely(x.read, Math.log(x.e) - c, s, noise), 0))),
  );
}

/** Weighted points of the posterior: where each boundary lies, how it spreads. */
interface Draws {
  c1: Float64Array;
  c2: Float64Array;
  s: Float64Array;
  noise: Float64Array;
  w: Float64Array;
}
/** points of the posterior that are kept */
const KEPT = 6000;

function posterior(cells: readonly CellRead[], first: number | null): { draws: Draws; two: boolean } {
  const g = gridOf(cells, first);
  const tops = cells.flatMap((c) => (c.top === null ? [] : [{ e: c.e, read: c.top }]));
  const unders = cells.flatMap((c) => (c.under === null ? [] : [{ e: c.e, read: c.under }]));
  const two = unders.length > 0;
  const [one, other] = [surface(tops, g), two ? surface(unders, g) : null];
  const prior1 = (c: number): number => (first === null ? 0 : normal(c, [Math.log(first), FIRST_SD]));
  const rows: [number, number, number, number, number][] = [];
  let most = -Infinity;
  for (let a = 0; a < g.s.length; a++)
    for (let b = 0; b < g.noise.length; b++) {
      const hyper = normal(Math.log(g.s[a]), PRIOR.s) + normal(Math.log(g.noise[b]), PRIOR.noise);
      for (let i = 0; i < STEPS; i++) {
        const base = hyper + one[a][b][i] + prior1(g.at[i]);
        if (base < most - 18) continue;
        if (!other) {
          rows.push([base, i, i, a, b]);
          most = Math.max(most, base);
          continue;
        }
        for (let j = i + 1; j < STEPS; j++) {
          const gap = g.at[j] - g.at[i];
          const w = base + other[a][b][j] + normal(Math.log(gap), PRIOR.gap) - Math.log(gap);
          if (w < most - 14) continue;
          rows.push([w, i, j, a, b]);
          most = Math.max(most, w);
        }
      }
    }
  const kept = rows
    .filter((r) => r[0] > most - 12)
    .sort((x, y) => y[0] - x[0])
    .slice(0, 40 * KEPT);
  const n = kept.length;
  const draws: Draws = {
    c1: new Float64Array(n),
    c2: new Float64Array(n),
    s: new Float64Array(n),
    noise: new Float64Array(n),
    w: new Float64Array(n),
  };
  let sum = 0;
  kept.forEach(([w, i, j, a, b], k) => {
    draws.c1[k] = g.at[i];
    draws.c2[k] = g.at[j];
    draws.s[k] = g.s[a];
    draws.noise[k] = g.noise[b];
    sum += draws.w[k] = Math.exp(w - most);
  });
  for (let k = 0; k < n; k++) draws.w[k] /= sum;
  return { draws, two };
}

/** Quantiles of weighted values. */
function quantiles(v: Float64Array, w: Float64Array, at: readonly number[]): number[] {
  const order = Array.from(v.keys()).sort((a, b) => v[a] - v[b]);
  const out: number[] = [];
  let sum = 0;
  let k = 0;
  for (const q of at) {
    while (k < order.length - 1 && sum + w[order[k]] < q) sum += w[order[k++]];
    // straight between neighbours, so that the grid's steps don't show
    const [x, y] = [v[order[Math.max(0, k - 1)]], v[order[k]]];
    const share = w[order[k]] > 0 ? Math.min(1, Math.max(0, (q - sum) / w[order[k]])) : 1;
    out.push(x + (y - x) * share);
  }
  return out;
}
const interval = (v: Float64Array, w: Float64Array): Interval => {
  const [low, mid, high] = quantiles(v, w, [0.05, 0.5, 0.95]).map(Math.exp);
  return { low, mid, high };
};

/** energies that are looked through for the best one and for the next cells */
const TRIED = 60;
const NEXT = 3;
/** next cells lie at least so far apart, ln E */
const APART = 0.08;
const entropy = (p: readonly number[]): number => -p.reduce((a, x) => a + (x > 0 ? x * Math.log(x) : 0), 0);

/** Energies at which a further reading would say most of where the boundaries lie, by what it is expected to tell. */
function telling(d: Draws, two: boolean, from: number, to: number): number[] {
  // the heaviest points stand for all
  const order = Array.from(d.w.keys())
    .sort((a, b) => d.w[b] - d.w[a])
    .slice(0, 500);
  const all = order.reduce((a, k) => a + d.w[k], 0);
  const gain = (le: number): number => {
    let sum = 0;
    for (const c of two ? [d.c1, d.c2] : [d.c1]) {
      const mean = [0, 0, 0];
      let each = 0;
      for (const k of order) {
        const p = PLATE_READS.map((r) => Math.exp(likely(r, le - c[k], d.s[k], d.noise[k])));
        const w = d.w[k] / all;
        p.forEach((x, i) => (mean[i] += w * x));
        each += w * entropy(p);
      }
      sum += entropy(mean) - each;
    }
    return sum;
  };
  const tried = Array.from({ length: TRIED }, (_v, i) => from + ((to - from) * i) / (TRIED - 1))
    .map((le) => ({ le, gain: gain(le) }))
    .sort((a, b) => b.gain - a.gain);
  const out: number[] = [];
  for (const t of tried) if (out.length < NEXT && out.every((o) => Math.abs(o - t.le) >= APART)) out.push(t.le);
  return out.sort((a, b) => a - b).map(Math.exp);
}

/** how sure it is to be gone where nobody has looked at what lies beneath */
const GONE_FOR = 0.95;
/** The energy that most likely lies in the window; of those that are as likely, the middle one. */
function surest(
  lo: Float64Array,
  hi: Float64Array,
  w: Float64Array,
  from: number,
  to: number,
): { le: number; sure: number } {
  const all = Array.from({ length: TRIED * 2 }, (_v, i) => {
    const le = Math.min(from, to) + (Math.abs(to - from) * i) / (TRIED * 2 - 1);
    let sure = 0;
    for (let k = 0; k < w.length; k++) if (lo[k] <= le && le <= hi[k]) sure += w[k];
    return { le, sure };
  });
  const most = Math.max(...all.map((x) => x.sure));
  const same = all.filter((x) => x.sure >= most - 0.005);
  return { le: (same[0].le + same[same.length - 1].le) / 2, sure: most };
}

/**
 * The window that a plate shows.
 * @param first J/mm² at which the top is thought to go, by the films (M4); null: nobody knows
 * @returns null: no cell was read
 */
export function fitWindow(cells: readonly CellRead[], first: number | null): WindowFit | null {
  const read = cells.filter((c) => c.e > 0 && (c.top !== null || c.under !== null));
  if (!read.length) return null;
  const { draws: d, two } = posterior(read, first);
  const n = d.w.length;
  const lo = Float64Array.from({ length: n }, (_v, k) => d.c1[k] + Z * d.s[k]);
  const hi = Float64Array.from({ length: n }, (_v, k) => (two ? d.c2[k] - Z * d.s[k] : Infinity));
  let open = 0;
  for (let k = 0; k < n; k++) if (lo[k] < hi[k]) open += d.w[k];
  const [lowest] = quantiles(lo, d.w, [0.02]);
  const highest = two ? quantiles(hi, d.w, [0.98])[0] : quantiles(lo, d.w, [0.98])[0] + 0.5;
  const best = two ? surest(lo, hi, d.w, lowest, highest) : { le: quantiles(lo, d.w, [GONE_FOR])[0], sure: GONE_FOR };
  return {
    lo: interval(lo, d.w),
    hi: two ? interval(hi, d.w) : null,
    open: two ? open : 1,
    best: Math.exp(best.le),
    sure: best.sure,
    next: telling(d, two, lowest - 0.3, highest + 0.3),
  };
}

export interface PeakFit {
  /** J/mm² at which it is deepest, and to go by: just before it pales */
  peak: number;
  best: number;
  /** cells that were fitted */
  n: number;
}
/** cells on either side of the peak that a fit needs, and cells that it takes at most */
const SIDE = 2;
const MOST_FITTED = 9;
/**
 * Darkening: D = D0 − A(ln E − ln E*)² through the cells round the deepest one.
 * @param cells marks from 0 (nothing) up @returns a sentence where the plate has to be extended
 */
export function fitPeak(cells: readonly { e: number; mark: number }[]): PeakFit | string {
  const all = [...cells].sort((a, b) => a.e - b.e);
  if (all.length < 2 * SIDE + 1) return `Mark ${2 * SIDE + 1} cells at least.`;
  const top = all.reduce((m, c, i) => (c.mark > all[m].mark ? i : m), 0);
  if (top < SIDE) return "The deepest lies at the weak end: extend the plate to less energy.";
  if (top > all.length - 1 - SIDE) return "The deepest lies at the strong end: extend the plate to more energy.";
  const half = Math.min(Math.floor(MOST_FITTED / 2), top, all.length - 1 - top);
  const near = all.slice(top - half, top + half + 1);
  // least squares through 1, x, x² about the middle, so that the sums stay small
  const mid = Math.log(all[top].e);
  const x = near.map((c) => Math.log(c.e) - mid);
  const y = near.map((c) => c.mark);
  const s = (k: number): number => x.reduce((a, v) => a + v ** k, 0);
  const t = (k: number): number => x.reduce((a, v, i) => a + v ** k * y[i], 0);
  const m = [
    [s(0), s(1), s(2), t(0)],
    [s(1), s(2), s(3), t(1)],
    [s(2), s(3), s(4), t(2)],
  ];
  const by = solveRows(m);
  if (!by) return "The cells lie too near to one another: spread them.";
  const [c0, c1, c2] = by;
  if (!(c2 < 0)) return "No cell stands out as deepest: spread the energies further apart.";
  const at = -c1 / (2 * c2);
  const d0 = c0 - (c1 * c1) / (4 * c2);
  const back = d0 > 0 ? Math.sqrt((0.02 * d0) / -c2) : 0;
  return { peak: Math.exp(mid + at), best: Math.exp(mid + at - back), n: near.length };
}

export interface DepthFit {
  /** mm per J/mm² above the threshold */
  perJ: number;
  /** how far the cells lie off the line, mm, root mean square */
  offMm: number;
  n: number;
}
/** Depth a pass by its energy, a line through the threshold (M10). @param cells depth in all passes @returns null: fewer than two */
export function fitDepth(
  cells: readonly { e: number; passes: number; mm: number }[],
  threshold: number,
): DepthFit | null {
  const dug = cells
    .map((c) => ({ x: c.passes * Math.max(0, c.e / c.passes - threshold), mm: c.mm }))
    .filter((c) => c.x > 0);
  if (dug.length < 2) return null;
  const perJ = dug.reduce((a, c) => a + c.x * c.mm, 0) / dug.reduce((a, c) => a + c.x * c.x, 0);
  const off = Math.sqrt(dug.reduce((a, c) => a + (c.mm - perJ * c.x) ** 2, 0) / dug.length);
  return perJ > 0 ? { perJ, offMm: off, n: dug.length } : null;
}

export const SPACINGS = ["geometric", "linear"] as const;
export type Spacing = (typeof SPACINGS)[number];
/** So many values from one to another, each as far from the last as the next: by ratio or by difference. @throws RangeError */
export function spaced(from: number, to: number, n: number, how: Spacing): number[] {
  if (!(from > 0 && to > 0)) throw new RangeError("Values lie above 0.");
  if (n < 1 || n > 30) throw new RangeError("A row has 1 to 30 cells.");
  if (n === 1) return [how === "linear" ? (from + to) / 2 : Math.sqrt(from * to)];
  return Array.from({ length: n }, (_v, i) =>
    how === "linear" ? from + ((to - from) * i) / (n - 1) : from * (to / from) ** (i / (n - 1)),
  );
}
