/**
 * Digging a picture out of stacked colours: every place gets the level of the stack that comes nearest (OKLab, Ottosson 2020), and with it
 * the power that digs just there. What a place is off by is handed to its neighbours in linear light (weights of Floyd & Steinberg 1976),
 * so that levels side by side mix in the eye; or not, where flat areas are wanted.
 */
import { hex, labDifference, lab, linear, luminance, type Rgb } from "../models/film/colour";
import { screened, toLight } from "./light";
import { pixelsOf, type BurnOptions, type Recipe, type Rendered, aimed, MOST_MADE } from "./render";
import { oklab } from "./quantise";
import { laid, type Laid, type Progress } from "./resample";
import type { Mix, Pixels } from "./source";
import { tones } from "./steps";

/** What the stack shows at a power. */
export interface Level {
  /** `#rrggbb` */
  colour: string;
  /** 0-1 of the power that is set; 0: not burnt */
  demand: number;
}
/** most pixels that are dug: three colours of each are held at once */
export const MOST_DUG = MOST_MADE / 3;

/** The picture in colour on the grid, its tones made: linear light, three planes. */
export interface Coloured {
  w: number;
  h: number;
  planes: [Float32Array, Float32Array, Float32Array];
  /** its lightness as screen values, with tones and before any: what is told of its tones comes from these */
  field: Laid;
  before: Uint8Array;
}

const CHANNELS: readonly Mix[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** luminance under which a place has no colour that could be made lighter with it */
const BLACK = 1e-4;

/**
 * Laid on the grid a colour at a time, its tones made on its luminance; its black and white laid on the stack’s own.
 * @throws RangeError when it would be too many pixels
 */
export function coloured(p: Pixels, r: Recipe, levels: readonly Level[], progress?: Progress): Coloured {
  const size = { w: pixelsOf(r.widthMm, r.intervalMm), h: pixelsOf(r.heightMm, r.intervalMm) };
  if (size.w * size.h > MOST_DUG)
    throw new RangeError(
      `${r.widthMm} × ${r.heightMm} mm at ${r.intervalMm} mm is ${size.w} × ${size.h} pixels; ` +
        `${MOST_DUG / 1e6} million is the most that is dug in colours.`,
    );
  const all = CHANNELS.map((mix, q) =>
    laid(p, size, { ...r, mix, exact: false, progress: (s) => progress?.((q + s) / 4) }),
  );
  const planes = all.map((f) => f.y) as Coloured["planes"];
  if (r.flip) for (const y of planes) for (let o = 0; o < y.length; o += size.w) y.subarray(o, o + size.w).reverse();
  const n = size.w * size.h;
  const y = new Float32Array(n);
  for (let i = 0; i < n; i++) y[i] = 0.2126 * planes[0][i] + 0.7152 * planes[1][i] + 0.0722 * planes[2][i];
  screened(y);
  const before = new Uint8Array(n);
  for (let i = 0; i < n; i++) before[i] = Math.round(255 * y[i]);
  tones({ ...size, v: y }, r.tone, 1 / r.intervalMm, (s) => progress?.(0.75 + 0.25 * s));
  const lights = levels.map((l) => luminance(linear(l.colour)));
  const reach = { colourY: Math.max(...lights), topY: Math.min(...lights), layOn: r.layOn };
  for (let i = 0; i < n; i++) {
    const was = 0.2126 * planes[0][i] + 0.7152 * planes[1][i] + 0.0722 * planes[2][i];
    const to = aimed(toLight(Math.min(1, Math.max(0, y[i]))), reach);
    const k = was > BLACK ? to / was : 0;
    for (const c of planes) c[i] = was > BLACK ? c[i] * k : to;
  }
  const inside = r.flip
    ? { ...all[0].inside, x0: size.w - all[0].inside.x1, x1: size.w - all[0].inside.x0 }
    : all[0].inside;
  return { ...size, planes, field: { ...all[0], y, inside }, before };
}

/**
 * What neighbours are handed of an error at most: of its lightness as good as all, of its colour little, for a colour that no level comes
 * near would run up an error without end, and the lightness would go with it.
 */
const [MOST_LIGHT, MOST_COLOUR] = [1, 0.15];
const held = (v: number, most: number): number => Math.min(most, Math.max(-most, v));

/** The levels of a picture as power: 255 leaves, what is dug deeper is darker in the file. */
export function dig(f: Coloured, r: Recipe, levels: readonly Level[], opts: BurnOptions = {}): Rendered {
  const { w, h, planes } = f;
  const colours = levels.map((l) => linear(l.colour));
  const labs = colours.map((c) => oklab(...(c as [number, number, number])));
  const codes = levels.map((l) => 255 - Math.round(255 * l.demand));
  const data = new Uint8Array(w * h).fill(255);
  const hand = r.diffuse !== false;
  // errors of this row and the next, three a pixel, with a pixel to spare on either side
  let here = new Float64Array(3 * (w + 2));
  let next = new Float64Array(3 * (w + 2));
  const { x0, y0, x1, y1 } = f.field.inside;
  let sum = 0;
  const want = [0, 0, 0];
  const hue = [0, 0, 0];
  for (let y = 0; y < h; y++) {
    const may = opts.allowed?.(y) ?? null;
    const back = r.dots.serpentine === true && y % 2 === 1;
    const to = back ? -1 : 1;
    next.fill(0);
    for (let s = 0; s < w; s++) {
      const x = back ? w - 1 - s : s;
      const i = y * w + x;
      // what is not burnt keeps the top and hands nothing on
      if (x < x0 || x >= x1 || y < y0 || y >= y1 || (may && !may[x])) continue;
      const e = 3 * (x + 1);
      for (let q = 0; q < 3; q++) want[q] = planes[q][i] + here[e + q];
      const [l, a, b] = oklab(want[0], want[1], want[2]);
      let best = 0;
      let least = Infinity;
      for (let k = 0; k < labs.length; k++) {
        const d = (l - labs[k][0]) ** 2 + (a - labs[k][1]) ** 2 + (b - labs[k][2]) ** 2;
        if (d < least) [best, least] = [k, d];
      }
      data[y * w + (r.mirror ? w - 1 - x : x)] = codes[best];
      sum += Number(levels[best].demand > 0);
      if (!hand) continue;
      const got = colours[best];
      const light = held(
        0.2126 * (want[0] - got[0]) + 0.7152 * (want[1] - got[1]) + 0.0722 * (want[2] - got[2]),
        MOST_LIGHT,
      );
      for (let q = 0; q < 3; q++) hue[q] = held(want[q] - got[q] - light, MOST_COLOUR);
      const rest = 0.2126 * hue[0] + 0.7152 * hue[1] + 0.0722 * hue[2];
      for (let q = 0; q < 3; q++) {
        const off = (light + hue[q] - rest) / 16;
        here[e + 3 * to + q] += 7 * off;
        next[e - 3 * to + q] += 3 * off;
        next[e + q] += 5 * off;
        next[e + 3 * to + q] += off;
      }
    }
    [here, next] = [next, here];
    if (opts.progress && (y & 63) === 0) opts.progress(y / h);
  }
  return { w, h, depth: 8, data, stride: w, burnt: sum / (w * h) };
}

/** A colour of the picture that the stack does not come near. */
export interface Beyond {
  /** as the picture has it, and the nearest that levels side by side make of it */
  colour: string;
  nearest: string;
  /** CIEDE2000 between them */
  off: number;
  /** share of the picture that has it */
  share: number;
}
const BINS = 6;
/** places that are looked at, at most; steps of a mix; share of the picture from which a colour counts; colours that are told */
const [LOOKED, STEPS, COUNTS, TOLD] = [60_000, 20, 0.005, 4];
/** CIEDE2000 from which another colour is seen */
export const BEYOND = 10;

/** Every mix of levels in steps of a twentieth, linear light. */
function mixes(colours: readonly Rgb[]): Rgb[] {
  const out: Rgb[] = [];
  const go = (k: number, left: number, c: Rgb): void => {
    const [r, g, b] = colours[k];
    const add = (n: number): Rgb => [c[0] + (n / STEPS) * r, c[1] + (n / STEPS) * g, c[2] + (n / STEPS) * b];
    if (k === colours.length - 1) out.push(add(left));
    else for (let n = 0; n <= left; n++) go(k + 1, left - n, add(n));
  };
  go(0, STEPS, [0, 0, 0]);
  return out;
}

/** Which colours of the picture the levels can’t make, mixed as fine as the eye takes them together; those that are seen most first. */
export function beyond(f: Coloured, levels: readonly Level[]): Beyond[] {
  const { x0, y0, x1, y1 } = f.field.inside;
  const step = Math.max(1, Math.floor(Math.sqrt(((x1 - x0) * (y1 - y0)) / LOOKED)));
  const bins = new Map<number, { n: number; c: [number, number, number] }>();
  let all = 0;
  for (let y = y0; y < y1; y += step)
    for (let x = x0; x < x1; x += step) {
      const i = y * f.w + x;
      const c = f.planes.map((p) => Math.min(1, Math.max(0, p[i])));
      const key = c.reduce((k, v) => k * BINS + Math.min(BINS - 1, Math.floor(Math.sqrt(v) * BINS)), 0);
      const bin = bins.get(key) ?? { n: 0, c: [0, 0, 0] };
      bin.n++;
      for (let q = 0; q < 3; q++) bin.c[q] += c[q];
      bins.set(key, bin);
      all++;
    }
  const made = mixes(levels.map((l) => linear(l.colour))).map((c) => ({ c, at: oklab(c[0], c[1], c[2]) }));
  return [...bins.values()]
    .filter((b) => b.n >= COUNTS * all)
    .map((b) => {
      const c: Rgb = [b.c[0] / b.n, b.c[1] / b.n, b.c[2] / b.n];
      const at = oklab(c[0], c[1], c[2]);
      const dist = (p: Rgb): number => (p[0] - at[0]) ** 2 + (p[1] - at[1]) ** 2 + (p[2] - at[2]) ** 2;
      const nearest = made.reduce((m, x) => (dist(x.at) < dist(m.at) ? x : m)).c;
      return { colour: hex(c), nearest: hex(nearest), off: labDifference(lab(c), lab(nearest)), share: b.n / all };
    })
    .filter((b) => b.off >= BEYOND)
    .sort((a, b) => b.off * b.share - a.off * a.share)
    .slice(0, TOLD);
}
