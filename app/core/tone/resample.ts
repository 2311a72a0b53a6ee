/**
 * A picture on the grid that the laser works in: once, in linear light, by the area that each new pixel covers; where it grows, straight
 * between the old ones. Grey is mixed before, in numbers that have no steps: eight bits of linear light would band in the dark tones,
 * which is why no resizer of screen pixels serves here.
 */
import { EXIF_TURNS, greyRow, LUMINANCE, type Mix, type Pixels } from "./source";

/** Linear light 0-1, row by row; in double precision where nothing more is done to it than dots. */
export interface Field {
  w: number;
  h: number;
  y: Float32Array | Float64Array;
}
const field = (n: number, exact: boolean): Field["y"] => (exact ? new Float64Array(n) : new Float32Array(n));

/** What part of the picture, in its own upright pixels, is laid on a grid of so many pixels. */
export interface Window {
  x: number;
  y: number;
  w: number;
  h: number;
}

interface Taps {
  from: Int32Array;
  /** first weight of each, and one behind the last */
  at: Int32Array;
  k: Float64Array;
}
/** Which old pixels make each new one, and by how much; weights of one sum to 1. */
function taps(old: number, start: number, span: number, n: number): Taps {
  const scale = span / n;
  const from = new Int32Array(n);
  const at = new Int32Array(n + 1);
  const k: number[] = [];
  for (let i = 0; i < n; i++) {
    const row: [number, number][] = [];
    if (scale >= 1) {
      const [a, b] = [start + i * scale, start + (i + 1) * scale];
      for (let j = Math.floor(a); j < Math.ceil(b - 1e-9); j++) row.push([j, Math.min(b, j + 1) - Math.max(a, j)]);
    } else {
      const c = start + (i + 0.5) * scale - 0.5;
      const j = Math.floor(c);
      row.push([j, 1 - (c - j)], [j + 1, c - j]);
    }
    // what lies beyond the picture is its edge pixel again
    const first = Math.min(old - 1, Math.max(0, row[0][0]));
    const sum = row.reduce((s, r) => s + r[1], 0) || 1;
    from[i] = first;
    let last = -1;
    for (const [j, v] of row) {
      const o = Math.min(old - 1, Math.max(0, j)) - first;
      if (o === last) k[k.length - 1] += v / sum;
      else k.push(v / sum);
      last = o;
    }
    at[i + 1] = k.length;
  }
  return { from, at, k: Float64Array.from(k) };
}

/** Called now and then with the share done; it may throw to stop the work. */
export type Progress = (share: number) => void;

/**
 * @param win part of the picture as it lies in its file, pixels; may be broken ones
 * @throws RangeError when there is nothing to lay it on
 */
export function resample(
  p: Pixels,
  win: Window,
  w: number,
  h: number,
  opts: { mix?: Mix; ground?: number; exact?: boolean; progress?: Progress } = {},
): Field {
  if (!(w >= 1 && h >= 1 && win.w > 0 && win.h > 0)) throw new RangeError("A picture needs a pixel at least.");
  const across = taps(p.w, win.x, win.w, w);
  const down = taps(p.h, win.y, win.h, h);
  const grey = new Float64Array(p.w);
  // rows already narrowed that a new row may still want; old rows are asked for once, from the top
  const kept = new Map<number, Float64Array>();
  const spare: Float64Array[] = [];
  const narrowed = (y: number): Float64Array => {
    const got = kept.get(y);
    if (got) return got;
    greyRow(p, y, opts.mix ?? LUMINANCE, opts.ground ?? 1, grey);
    const row = spare.pop() ?? new Float64Array(w);
    for (let i = 0; i < w; i++) {
      let s = 0;
      for (let j = across.at[i], o = across.from[i]; j < across.at[i + 1]; j++, o++) s += across.k[j] * grey[o];
      row[i] = s;
    }
    kept.set(y, row);
    return row;
  };
  const out = field(w * h, opts.exact === true);
  const sum = new Float64Array(w);
  for (let r = 0; r < h; r++) {
    sum.fill(0);
    const first = down.from[r];
    for (const [y, row] of kept)
      if (y < first) {
        kept.delete(y);
        spare.push(row);
      }
    for (let j = down.at[r], y = first; j < down.at[r + 1]; j++, y++) {
      const row = narrowed(y);
      const k = down.k[j];
      for (let i = 0; i < w; i++) sum[i] += k * row[i];
    }
    out.set(sum, r * w);
    if (opts.progress && (r & 63) === 0) opts.progress(r / h);
  }
  return { w, h, y: out };
}

/** Mirrored left for right if wished, then turned by quarters clockwise. */
export function turned(f: Field, quarters: number, flip = false): Field {
  const q = ((quarters % 4) + 4) % 4;
  if (q === 0 && !flip) return f;
  const [w, h] = q % 2 ? [f.h, f.w] : [f.w, f.h];
  const y = field(f.y.length, f.y instanceof Float64Array);
  for (let b = 0; b < f.h; b++)
    for (let a = 0; a < f.w; a++) {
      const x = flip ? f.w - 1 - a : a;
      const [u, v] =
        q === 0 ? [x, b] : q === 1 ? [f.h - 1 - b, x] : q === 2 ? [f.w - 1 - x, f.h - 1 - b] : [b, f.w - 1 - x];
      y[v * w + u] = f.y[b * f.w + a];
    }
  return { w, h, y };
}

export type Fit = "cover" | "contain" | "stretch";
export interface Laid extends Field {
  /** part of the grid that the picture covers, whole pixels; the rest is never burnt */
  inside: { x0: number; y0: number; x1: number; y1: number };
}
/** Part of an upright picture, as shares of its width and height. */
export interface Crop {
  x: number;
  y: number;
  w: number;
  h: number;
}

/**
 * The picture upright, cropped, turned, and fitted to a grid.
 * @param exif orientation 1-8 of the file @param quarters turned by the maker, clockwise
 */
export function laid(
  p: Pixels,
  grid: { w: number; h: number },
  how: {
    fit: Fit;
    quarters?: number;
    exif?: number;
    crop?: Crop | null;
    mix?: Mix;
    ground?: number;
    exact?: boolean;
    progress?: Progress;
  },
): Laid {
  const e = EXIF_TURNS[how.exif ?? 1] ?? EXIF_TURNS[1];
  // upright size, and that after the maker's own turn
  const [uw, uh] = e.quarters % 2 ? [p.h, p.w] : [p.w, p.h];
  const c = how.crop ?? { x: 0, y: 0, w: 1, h: 1 };
  let [cx, cy, cw, ch] = [c.x * uw, c.y * uh, c.w * uw, c.h * uh];
  const q = (((how.quarters ?? 0) % 4) + 4) % 4;
  const [tw, th] = q % 2 ? [ch, cw] : [cw, ch];
  let { w, h } = grid;
  if (how.fit === "cover") {
    // what hangs over is left away, the middle stays
    const k = Math.max(w / tw, h / th);
    const [keepW, keepH] = [w / k, h / k];
    const [dw, dh] = q % 2 ? [keepH, keepW] : [keepW, keepH];
    cx += (cw - dw) / 2;
    cy += (ch - dh) / 2;
    [cw, ch] = [dw, dh];
  } else if (how.fit === "contain") {
    const k = Math.min(w / tw, h / th);
    w = Math.max(1, Math.min(w, Math.round(tw * k)));
    h = Math.max(1, Math.min(h, Math.round(th * k)));
  }
  // back to the file's own pixels: the maker's turn, the EXIF turn and its flip undone
  const all = (e.quarters + q) % 4;
  const [fw, fh] = all % 2 ? [h, w] : [w, h];
  const file = fileWindow({ x: cx, y: cy, w: cw, h: ch }, p.w, p.h, e);
  const small = resample(p, file, fw, fh, how);
  const up = turned(small, all, e.flip);
  if (w === grid.w && h === grid.h) return { ...up, inside: { x0: 0, y0: 0, x1: w, y1: h } };
  const [x0, y0] = [Math.floor((grid.w - w) / 2), Math.floor((grid.h - h) / 2)];
  const y = field(grid.w * grid.h, how.exact === true).fill(1);
  for (let r = 0; r < h; r++) y.set(up.y.subarray(r * w, (r + 1) * w), (y0 + r) * grid.w + x0);
  return { w: grid.w, h: grid.h, y, inside: { x0, y0, x1: x0 + w, y1: y0 + h } };
}

/** A window of the upright picture as it lies in the file. */
function fileWindow(u: Window, w: number, h: number, e: { flip: boolean; quarters: number }): Window {
  let out: Window;
  if (e.quarters === 0) out = { ...u };
  // upright = file turned clockwise: a quarter puts the file's left edge on top
  else if (e.quarters === 1) out = { x: u.y, y: h - u.x - u.w, w: u.h, h: u.w };
  else if (e.quarters === 2) out = { x: w - u.x - u.w, y: h - u.y - u.h, w: u.w, h: u.h };
  else out = { x: w - u.y - u.h, y: u.x, w: u.h, h: u.w };
  return e.flip ? { ...out, x: w - out.x - out.w } : out;
}
