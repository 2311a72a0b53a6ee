/** What there is to be told of a picture's tones: their histogram, what is cut off, how dark a marked part is. */
import { toScreen } from "./light";
import type { Field } from "./resample";
import { inRegion } from "./steps";

export const BINS = 64;
export interface ToneStats {
  /** pixels a bin, from black to white, as shares */
  histogram: number[];
  /** shares of pixels that are quite black, and quite white */
  black: number;
  white: number;
  /** share of the marked part that is darker than the middle; null: none is marked */
  watchedDark: number | null;
}
/** a pixel is cut off within this of the end */
const END = 1 / 512;
/** pixels that are looked at, at most: a share is known well enough from those */
const ENOUGH = 2_000_000;

/** @param f linear light in double precision, or screen values once tones were made @param watched ring of shares x, y by turns */
export function statsOf(f: Field, watched: readonly number[] | null): ToneStats {
  const toned = f.y instanceof Float32Array;
  const step = Math.max(1, Math.floor(Math.sqrt((f.w * f.h) / ENOUGH)));
  const histogram = new Array<number>(BINS).fill(0);
  let [n, black, white] = [0, 0, 0];
  for (let y = 0; y < f.h; y += step)
    for (let x = 0; x < f.w; x += step) {
      const raw = f.y[y * f.w + x];
      const v = Math.min(1, Math.max(0, toned ? raw : toScreen(raw)));
      histogram[Math.min(BINS - 1, Math.floor(v * BINS))]++;
      n++;
      if (v <= END) black++;
      if (v >= 1 - END) white++;
    }
  let watchedDark: number | null = null;
  if (watched && watched.length >= 6) {
    const ring = Array.from({ length: watched.length / 2 }, (_v, i) => [watched[2 * i], watched[2 * i + 1]] as const);
    const [w, h] = [Math.ceil(f.w / step), Math.ceil(f.h / step)];
    const inside = inRegion(ring, w, h);
    let [all, dark] = [0, 0];
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++)
        if (inside[y * w + x]) {
          const raw = f.y[y * step * f.w + x * step];
          all++;
          if ((toned ? raw : toScreen(raw)) < 0.5) dark++;
        }
    watchedDark = all ? dark / all : null;
  }
  return { histogram: histogram.map((v) => v / n), black: black / n, white: white / n, watchedDark };
}
