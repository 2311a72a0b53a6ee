/**
 * A flat picture in few colours: k-means in OKLab (Ottosson 2020) over a histogram of 15 bits, begun from the same places each time. How
 * many colours there are is proposed where one more hardly helps.
 */
import { lightTable, toScreen } from "./light";
import type { Pixels } from "./source";

type Three = [number, number, number];
/** linear red, green, blue to OKLab */
export function oklab(r: number, g: number, b: number): Three {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/** label of a pixel that is clear */
export const CLEAR = 255;
/** alpha under which a pixel is clear */
const HALF = 0.5;
const MOST_COLOURS = 24;
const BITS = 5;
const BINS = 1 << (3 * BITS);

interface Bin {
  lab: Three;
  rgb: Three;
  n: number;
}
/** What colours there are, and where each pixel's stands; clear ones have none. */
function counted(p: Pixels): { bins: Bin[]; at: Int32Array } {
  const t = lightTable(p.max);
  const [w, h, c] = [p.w, p.h, p.channels];
  const sum = new Float64Array(BINS * 4);
  const at = new Int32Array(w * h);
  const shift = p.max === 255 ? 8 - BITS : 16 - BITS;
  for (let y = 0; y < h; y++) {
    const row = p.row(y);
    for (let x = 0; x < w; x++) {
      const i = x * c;
      const alpha = c === 2 || c === 4 ? row[i + c - 1] / p.max : 1;
      if (alpha < HALF) {
        at[y * w + x] = -1;
        continue;
      }
      const [r, g, b] = c < 3 ? [row[i], row[i], row[i]] : [row[i], row[i + 1], row[i + 2]];
      const k = ((r >> shift) << (2 * BITS)) | ((g >> shift) << BITS) | (b >> shift);
      at[y * w + x] = k;
      sum[4 * k] += t[r];
      sum[4 * k + 1] += t[g];
      sum[4 * k + 2] += t[b];
      sum[4 * k + 3]++;
    }
  }
  const index = new Int32Array(BINS).fill(-1);
  const bins: Bin[] = [];
  for (let k = 0; k < BINS; k++) {
    const n = sum[4 * k + 3];
    if (!n) continue;
    const rgb: Three = [sum[4 * k] / n, sum[4 * k + 1] / n, sum[4 * k + 2] / n];
    index[k] = bins.push({ lab: oklab(...rgb), rgb, n }) - 1;
  }
  for (let i = 0; i < at.length; i++) if (at[i] >= 0) at[i] = index[at[i]];
  return { bins, at };
}

const off = (a: Three, b: Three): number => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2;
/** Means of so many groups: each begins where most is farthest from those before it. @param locked colours that stay as they are */
function means(bins: Bin[], k: number, locked: readonly Three[]): { mean: Three[]; of: Int32Array; error: number } {
  const mean: Three[] = locked.slice(0, k).map((m) => [...m]);
  if (!mean.length) mean.push([...bins.reduce((a, b) => (b.n > a.n ? b : a)).lab]);
  while (mean.length < k) {
    let [best, far] = [bins[0], -1];
    for (const b of bins) {
      const d = Math.min(...mean.map((m) => off(b.lab, m))) * b.n;
      if (d > far) [best, far] = [b, d];
    }
    if (far <= 0) break;
    mean.push([...best.lab]);
  }
  const of = new Int32Array(bins.length);
  let error = 0;
  for (let round = 0; round < 40; round++) {
    let moved = 0;
    error = 0;
    const sum = mean.map(() => [0, 0, 0, 0]);
    bins.forEach((b, i) => {
      let [at, least] = [0, Infinity];
      mean.forEach((m, j) => {
        const d = off(b.lab, m);
        if (d < least) [at, least] = [j, d];
      });
      if (of[i] !== at || round === 0) moved++;
      of[i] = at;
      error += least * b.n;
      for (let q = 0; q < 3; q++) sum[at][q] += b.lab[q] * b.n;
      sum[at][3] += b.n;
    });
    if (!moved) break;
    mean.forEach((m, j) => {
      if (j < locked.length || !sum[j][3]) return;
      for (let q = 0; q < 3; q++) m[q] = sum[j][q] / sum[j][3];
    });
  }
  return { mean, of, error };
}

export interface Flat {
  w: number;
  h: number;
  /** which colour each pixel has; {@link CLEAR}: none */
  label: Uint8Array;
  /** `#rrggbb`, the most frequent first */
  colours: string[];
  /** pixels of each */
  pixels: number[];
}
const hexOf = (c: Three): string =>
  `#${c
    .map((v) =>
      Math.round(255 * toScreen(Math.min(1, Math.max(0, v))))
        .toString(16)
        .padStart(2, "0"),
    )
    .join("")}`;

/** share of what a single colour is off by, under which one more colour no longer pays */
const KNEE = 0.012;
/** How many colours a flat picture has: the first number that leaves hardly anything over. */
export function coloursIn(p: Pixels): number {
  const { bins } = counted(p);
  if (!bins.length) return 0;
  const all = means(bins, 1, []).error;
  if (all < 1e-9) return 1;
  for (let k = 2; k <= 12; k++) if (means(bins, k, []).error / all < KNEE) return k;
  return 12;
}

/**
 * @param k colours wanted, 1 to 24 @param locked colours that are kept as they are, linear red, green, blue
 * @throws RangeError when k is no such number
 */
export function quantised(p: Pixels, k: number, locked: readonly Three[] = []): Flat {
  if (!(k >= 1 && k <= MOST_COLOURS)) throw new RangeError(`Between 1 and ${MOST_COLOURS} colours can be told apart.`);
  const { bins, at } = counted(p);
  const label = new Uint8Array(p.w * p.h).fill(CLEAR);
  if (!bins.length) return { w: p.w, h: p.h, label, colours: [], pixels: [] };
  const { mean, of } = means(
    bins,
    Math.round(k),
    locked.map((c) => oklab(...c)),
  );
  // a group is shown by its most frequent colour: that is the one that was drawn, the rest are its soft edges
  const most = mean.map(() => -1);
  const n = mean.map(() => 0);
  bins.forEach((b, i) => {
    n[of[i]] += b.n;
    if (most[of[i]] < 0 || b.n > bins[most[of[i]]].n) most[of[i]] = i;
  });
  const order = mean
    .map((_m, i) => i)
    .filter((i) => n[i] > 0)
    .sort((a, b) => n[b] - n[a]);
  const to = new Uint8Array(mean.length);
  order.forEach((i, j) => (to[i] = j));
  for (let i = 0; i < at.length; i++) if (at[i] >= 0) label[i] = to[of[at[i]]];
  return {
    w: p.w,
    h: p.h,
    label,
    colours: order.map((i) => (i < locked.length ? hexOf(locked[i]) : hexOf(bins[most[i]].rgb))),
    pixels: order.map((i) => n[i]),
  };
}

/** One colour becomes another: both are one area then. In place; what is not there stays away. */
export function merged(f: Flat, from: string, to: string): void {
  const [a, b] = [f.colours.indexOf(from), f.colours.indexOf(to)];
  if (a < 0 || b < 0 || a === b) return;
  for (let i = 0; i < f.label.length; i++) if (f.label[i] === a) f.label[i] = b;
  f.pixels[b] += f.pixels[a];
  f.pixels[a] = 0;
}

export interface Lost {
  /** parts that were smaller than what is kept */
  parts: number;
  pixels: number;
}
/**
 * Parts smaller than so many pixels go to the neighbour that they touch most. In place.
 * @param gone told of each pixel that goes @returns what was lost by it
 */
export function despeckled(f: Flat, least: number, gone: (pixel: number) => void = () => undefined): Lost {
  const { w, h, label } = f;
  const lost: Lost = { parts: 0, pixels: 0 };
  if (least <= 1) return lost;
  const seen = new Uint8Array(w * h);
  const part = new Int32Array(w * h);
  for (let s = 0; s < w * h; s++) {
    if (seen[s]) continue;
    const mine = label[s];
    let [n, head] = [0, 0];
    part[n++] = s;
    seen[s] = 1;
    const touch = new Map<number, number>();
    while (head < n) {
      const i = part[head++];
      const x = i % w;
      const step = (j: number): void => {
        if (label[j] !== mine) touch.set(label[j], (touch.get(label[j]) ?? 0) + 1);
        else if (!seen[j]) {
          seen[j] = 1;
          part[n++] = j;
        }
      };
      if (x > 0) step(i - 1);
      if (x < w - 1) step(i + 1);
      if (i >= w) step(i - w);
      if (i < w * (h - 1)) step(i + w);
    }
    if (n >= least || !touch.size) continue;
    const to = [...touch].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0][0];
    for (let i = 0; i < n; i++) {
      label[part[i]] = to;
      gone(part[i]);
    }
    lost.parts++;
    lost.pixels += n;
  }
  return lost;
}
