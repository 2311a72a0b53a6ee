/**
 * What a pattern really uncovers. A burnt pixel is a short stroke of the spot: Gaussian of diameter d (1/e²) across, drawn along the row
 * by one interval. Where the energy of all of them together passes the film's threshold C₁ the film is gone. Laid over the pattern at
 * four times its pixels, for 21 densities: the gain curve; its inverse turns a wanted share into the density that gives it.
 */
import type { DotKind } from "../records/picture";
import { phi } from "../models/film/reveal";
import { dotMaker, type DotOptions, rowsOf } from "./kernels";

/** finer than the pixel by so much, each way */
export const FINER = 4;
const DENSITIES = 21;
const FIELD = 96;
/** pixels at the borders that are not counted: the pattern settles */
const SETTLES = 16;

/** an edge is uncovered just as it is drawn: taken where neither setting nor films are known */
export const EDGE_AS_DRAWN = 0.5;

/** a spot’s threshold is kept where a pattern can still be told from a field */
const [LEAST, MOST] = [0.2, 0.9];
export const held = (threshold: number): number => Math.min(MOST, Math.max(LEAST, threshold));

export interface Spot {
  /** 1/e² diameter, mm */
  mm: number;
  intervalMm: number;
  /** C₁ against the energy of a burnt area; half: an edge is uncovered just as it is drawn */
  threshold: number;
}

/** Shares of a stroke’s energy in each quarter pixel across and along it; they sum to 1 over all rows. */
function footprint(s: Spot): { along: Float64Array; across: Float64Array; reach: number } {
  const sigma = s.mm / 4 / s.intervalMm;
  const reach = Math.max(1, Math.ceil(3 * sigma + 0.5));
  const n = 2 * reach * FINER + FINER;
  const centre = (i: number): number => (i + 0.5) / FINER - reach;
  return {
    reach,
    // one pixel long, smeared by the spot
    along: Float64Array.from({ length: n }, (_v, i) => phi(centre(i) / sigma) - phi((centre(i) - 1) / sigma)),
    across: Float64Array.from(
      { length: n },
      (_v, i) => Math.exp(-((centre(i) - 0.5) ** 2) / (2 * sigma * sigma)) / (sigma * Math.sqrt(2 * Math.PI)),
    ),
  };
}

/**
 * Energy of a pattern against that of a burnt area, at four times its pixels.
 * @param bits 1 where it is burnt
 */
export function exposure(bits: Uint8Array, w: number, h: number, s: Spot): { w: number; h: number; e: Float32Array } {
  const { along, across, reach } = footprint(s);
  const [fw, fh] = [w * FINER, h * FINER];
  const rows = new Float64Array(fw * h);
  const span = along.length;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      if (bits[y * w + x]) {
        const from = (x - reach) * FINER;
        for (let k = 0; k < span; k++) {
          const at = from + k;
          if (at >= 0 && at < fw) rows[y * fw + at] += along[k];
        }
      }
  const e = new Float32Array(fw * fh);
  for (let y = 0; y < h; y++)
    for (let k = 0; k < span; k++) {
      const at = (y - reach) * FINER + k;
      if (at < 0 || at >= fh) continue;
      const f = across[k];
      for (let x = 0, o = at * fw, i = y * fw; x < fw; x++) e[o++] += f * rows[i++];
    }
  return { w: fw, h: fh, e };
}

/** Share that a pattern uncovers, its borders left out. */
export function uncovered(bits: Uint8Array, w: number, h: number, s: Spot, border = 0): number {
  const { w: fw, h: fh, e } = exposure(bits, w, h, s);
  const b = border * FINER;
  let n = 0;
  for (let y = b; y < fh - b; y++) for (let x = b; x < fw - b; x++) if (e[y * fw + x] > s.threshold) n++;
  return n / ((fw - 2 * b) * (fh - 2 * b));
}

/** Densities, and the share that each uncovers; both rise. */
export interface Gain {
  g: readonly number[];
  c: readonly number[];
}

const kept = new Map<string, Gain>();
/**
 * The gain curve of one kind of dots for a spot: 21 densities, closer together where few are burnt and the eye sees most; a kind with
 * fewer tones in just those.
 */
export function gainOf(kind: DotKind, o: DotOptions, s: Spot): Gain {
  const key = JSON.stringify([kind, o, s]);
  const got = kept.get(key);
  if (got) return got;
  const g: number[] = [];
  const c: number[] = [];
  const bits = new Uint8Array(FIELD * FIELD);
  const share = new Float64Array(FIELD);
  const row = new Uint8Array(FIELD);
  const own = dotMaker(kind).tones;
  const steps = own ?? DENSITIES - 1;
  for (let k = 0; k <= steps; k++) {
    const d = own ? k / own : (k / steps) ** 1.5;
    const make = rowsOf(kind, FIELD, o);
    share.fill(d);
    for (let y = 0; y < FIELD; y++) {
      make(share, row);
      bits.set(row, y * FIELD);
    }
    g.push(d);
    // more burnt never uncovers less: what a field of this size scatters is taken out
    c.push(Math.max(c[k - 1] ?? 0, uncovered(bits, FIELD, FIELD, s, SETTLES)));
  }
  const out = { g, c };
  if (kept.size > 60) kept.clear();
  kept.set(key, out);
  return out;
}

/** Straight between points; flat outside. @param xs rising */
function between(xs: readonly number[], ys: readonly number[], x: number): number {
  if (x <= xs[0]) return ys[0];
  const i = xs.findIndex((v) => v >= x);
  if (i < 0) return ys[ys.length - 1];
  const span = xs[i] - xs[i - 1];
  return span <= 0 ? ys[i] : ys[i - 1] + ((x - xs[i - 1]) / span) * (ys[i] - ys[i - 1]);
}
/** Share that a density uncovers. */
export const shareOf = (gain: Gain, density: number): number => between(gain.g, gain.c, density);

const INVERSE = 1024;
/** Density for each wanted share 0-1, in 1,024 even steps: 0 stays 0, and what can't be reached gets the nearest. */
export function inverse(gain: Gain): Float64Array {
  // where several densities uncover nothing the last of them is where it begins
  const first = gain.c.findLastIndex((c) => c <= 0);
  const [g, c] = [gain.g.slice(Math.max(0, first)), gain.c.slice(Math.max(0, first))];
  return Float64Array.from({ length: INVERSE + 1 }, (_v, i) => (i === 0 ? 0 : between(c, g, i / INVERSE)));
}
/** One wanted share through the table. */
export function density(table: Float64Array, share: number): number {
  const x = (share <= 0 ? 0 : share >= 1 ? 1 : share) * INVERSE;
  const k = x | 0;
  return k >= INVERSE ? table[INVERSE] : table[k] + (table[k + 1] - table[k]) * (x - k);
}
