/**
 * From pixels to what the beam does: laid on the grid, its tones made, turned into the share that is to be uncovered or darkened, and that
 * into dots or power. In the file black is where the beam burns. The same recipe gives the same bytes.
 */
import type { Render } from "../records/picture";
import { lightness, ofLightness, screened, toLight } from "./light";
import { density, gainOf, inverse, type Spot } from "./gain";
import { type DotOptions, rowsOf } from "./kernels";
import { type Crop, type Fit, type Laid, laid, type Progress } from "./resample";
import { type Mix, type Pixels } from "./source";
import { tones, type ToneStep } from "./steps";

export interface Recipe {
  widthMm: number;
  heightMm: number;
  intervalMm: number;
  fit: Fit;
  quarters: number;
  exif: number;
  /** left for right as it is looked at */
  flip: boolean;
  crop: Crop | null;
  mix: Mix | null;
  /** linear light that shows through clear parts */
  ground: number;
  tone: readonly ToneStep[];
  render: Render;
  dots: Omit<DotOptions, "intervalMm">;
  /** the light places are burnt free; else the dark ones are burnt in */
  invert: boolean;
  /** turned round as the very last thing */
  mirror: boolean;
  /** corrected by what the spot really uncovers; null: not */
  spot: Omit<Spot, "intervalMm"> | null;
  /** luminance where it is burnt and where it is not, linear */
  colourY: number;
  topY: number;
  /** black and white of the picture laid on those two, by lightness: else what lies beyond them is cut off */
  layOn: boolean;
  /** greyscale power: the share of the power for each of even shares of what is to be seen; absent: as much */
  power?: readonly number[];
  /** the colours of a stack and the power that digs to each: the picture is made of these; absent: of one tone */
  levels?: readonly { colour: string; demand: number }[];
  /** neighbouring levels are mixed; absent: they are */
  diffuse?: boolean;
}

/** What is given to the laser. */
export interface Rendered {
  w: number;
  h: number;
  /** bits: packed, eight pixels a byte, 0 burns; grey: a byte a pixel, 0 burns most */
  depth: 1 | 8;
  data: Uint8Array;
  /** bytes a row */
  stride: number;
  /** mean share that is burnt, of all of it */
  burnt: number;
}

/** Pixels that a size takes. */
export const pixelsOf = (mm: number, intervalMm: number): number => Math.max(1, Math.round(mm / intervalMm));

/** Most pixels of what is made. */
export const MOST_MADE = 120_000_000;

/** Is anything done to the tones? Else they go straight into dots, in double precision. */
const plain = (r: Recipe): boolean => !r.layOn && r.tone.every((s) => s.off);

/** The picture as it lies on the grid, tones not yet made. @throws RangeError when it would be too many pixels */
export function onGrid(p: Pixels, r: Recipe, progress?: Progress): Laid {
  const w = pixelsOf(r.widthMm, r.intervalMm);
  const h = pixelsOf(r.heightMm, r.intervalMm);
  if (w * h > MOST_MADE)
    throw new RangeError(
      `${r.widthMm} × ${r.heightMm} mm at ${r.intervalMm} mm is ${w} × ${h} pixels; ${MOST_MADE / 1e6} million is the most that is made.`,
    );
  const f = laid(p, { w, h }, { ...r, mix: r.mix ?? undefined, exact: plain(r), progress });
  if (!r.flip) return f;
  for (let y = 0; y < h; y++) f.y.subarray(y * w, (y + 1) * w).reverse();
  return { ...f, inside: { ...f.inside, x0: w - f.inside.x1, x1: w - f.inside.x0 } };
}

/**
 * Share of a place that is burnt, for its luminance: c* = (Y − Y_top)/(Y_colour − Y_top) where the light is burnt free, what is left of
 * it where the dark is burnt in; clipped.
 */
export function wantedShare(y: number, r: Pick<Recipe, "colourY" | "topY" | "invert">): number {
  const span = r.colourY - r.topY;
  const c = Math.abs(span) < 1e-9 ? 0 : (y - r.topY) / span;
  const s = c < 0 ? 0 : c > 1 ? 1 : c;
  return r.invert ? s : 1 - s;
}

/** Luminance aimed at for a tone of the picture: its black and white laid on the darker and the lighter paint, evenly in lightness. */
export function aimed(y: number, r: Pick<Recipe, "colourY" | "topY" | "layOn">): number {
  if (!r.layOn) return y;
  const [dark, light] = [lightness(Math.min(r.colourY, r.topY)), lightness(Math.max(r.colourY, r.topY))];
  return ofLightness(dark + ((light - dark) * lightness(y)) / 100);
}

const TONES = 4096;
type Share = (value: number) => number;
/** Power for a share that is to be seen, straight between the steps of its table; without one the share itself. */
const byPower = (table: readonly number[] | undefined): Share => {
  if (!table) return (s) => s;
  const n = table.length - 1;
  return (s) => {
    const x = (s <= 0 ? 0 : s >= 1 ? 1 : s) * n;
    const k = Math.min(n - 1, x | 0);
    return table[k] + (table[k + 1] - table[k]) * (x - k);
  };
};
/** What is seen for each of the 256 greys of a file, 0-255: what its power leaves. */
export function seenOfPower(table: readonly number[] | undefined): Float32Array {
  const back = byPower(table);
  const out = new Float32Array(256);
  let s = 0;
  for (let v = 0; v < 256; v++) {
    const demand = v / 255;
    while (s < 1024 && back(s / 1024) < demand - 1e-9) s++;
    out[255 - v] = table ? s / 1024 : demand;
  }
  return out;
}
/** What is burnt of a wanted share: as much, or the density that uncovers it. */
function densityOf(r: Recipe): Share {
  if (r.render === "grey") return byPower(r.power);
  if (!r.spot) return (s) => s;
  const table = inverse(
    gainOf(r.render, { ...r.dots, intervalMm: r.intervalMm }, { ...r.spot, intervalMm: r.intervalMm }),
  );
  return (s) => density(table, s);
}
/** What is burnt of each screen value 0-1: by a table of 4,096 steps, straight between them. */
function ofTone(r: Recipe): Share {
  const back = densityOf(r);
  const t = Float64Array.from({ length: TONES + 2 }, (_v, i) =>
    back(wantedShare(aimed(toLight(Math.min(1, i / TONES)), r), r)),
  );
  return (v) => {
    const x = (v <= 0 ? 0 : v >= 1 ? 1 : v) * TONES;
    const k = x | 0;
    return t[k] + (t[k + 1] - t[k]) * (x - k);
  };
}

/** What is burnt for a value of the field: linear light where nothing was done to it, else a screen value. */
function shareFor(r: Recipe): Share {
  if (!plain(r)) return ofTone(r);
  const back = densityOf(r);
  return (y) => back(wantedShare(y, r));
}

/** Is a place burnt rather than left, for its screen value: what a drawing without greys would be there. */
export const burntMostly =
  (r: Recipe) =>
  (v: number): boolean =>
    wantedShare(aimed(toLight(Math.min(1, Math.max(0, v))), r), r) >= 0.5;

/** Colours that lie under the picture: which of them at each pixel of a row, and the luminance each shows where it is burnt. */
export interface Paints {
  at(y: number): Uint8Array;
  colourY: readonly number[];
}
export interface BurnOptions {
  /** of a row, 1 where it may be burnt (the blank, less what stays free); null: everywhere */
  allowed?: ((y: number) => Uint8Array | null) | null;
  /** several colours; absent: the recipe’s one */
  paints?: Paints | null;
  progress?: Progress;
}

/** Which pixels of a row may be burnt: within the picture, and where the blank allows it. */
function mayBurn(f: Laid, allowed: BurnOptions["allowed"]): ((y: number) => Uint8Array | null) | null {
  const { x0, y0, x1, y1 } = f.inside;
  const whole = x0 === 0 && y0 === 0 && x1 === f.w && y1 === f.h;
  if (whole) return allowed ?? null;
  const none = new Uint8Array(f.w);
  return (y) => {
    if (y < y0 || y >= y1) return none;
    const row = allowed?.(y)?.slice() ?? new Uint8Array(f.w).fill(1);
    row.fill(0, 0, x0);
    row.fill(0, x1);
    return row;
  };
}

/** Tones into dots or power, and those into the rows of a file. @param f linear light, or screen values once tones were made */
export function burn(f: Laid, r: Recipe, opts: BurnOptions = {}): Rendered {
  const { w, h } = f;
  const shares = (opts.paints?.colourY ?? [r.colourY]).map((colourY) => shareFor({ ...r, colourY }));
  const [share] = shares;
  const { paints } = opts;
  const may = mayBurn(f, opts.allowed);
  const grey = r.render === "grey";
  const stride = grey ? w : Math.ceil(w / 8);
  const data = new Uint8Array(stride * h).fill(255);
  const wanted = new Float64Array(w);
  const bits = new Uint8Array(w);
  const make = r.render === "grey" ? null : rowsOf(r.render, w, { ...r.dots, intervalMm: r.intervalMm }, may);
  let sum = 0;
  for (let y = 0; y < h; y++) {
    const o = y * w;
    if (paints) {
      const under = paints.at(y);
      for (let x = 0; x < w; x++) wanted[x] = shares[under[x]](f.y[o + x]);
    } else for (let x = 0; x < w; x++) wanted[x] = share(f.y[o + x]);
    if (make) {
      make(wanted, bits);
      for (let x = 0; x < w; x++)
        if (bits[x]) {
          const at = r.mirror ? w - 1 - x : x;
          data[y * stride + (at >> 3)] &= ~(128 >> (at & 7));
          sum++;
        }
    } else {
      const row = may?.(y) ?? null;
      for (let x = 0; x < w; x++) {
        if (row && !row[x]) continue;
        const at = r.mirror ? w - 1 - x : x;
        data[y * stride + at] = 255 - Math.round(255 * wanted[x]);
        sum += wanted[x];
      }
    }
    if (opts.progress && (y & 63) === 0) opts.progress(y / h);
  }
  return { w, h, depth: grey ? 8 : 1, data, stride, burnt: sum / (w * h) };
}

/**
 * The picture made for the laser.
 * @throws RangeError when it would be too many pixels
 */
export function render(p: Pixels, r: Recipe, opts: BurnOptions = {}): Rendered {
  const part =
    (from: number, to: number): Progress =>
    (s) =>
      opts.progress?.(from + (to - from) * s);
  const f = onGrid(p, r, part(0, 0.4));
  // what is double precision has no tones to be made
  if (f.y instanceof Float32Array)
    tones({ w: f.w, h: f.h, v: screened(f.y) }, r.tone, 1 / r.intervalMm, part(0.4, 0.7));
  return burn(f, r, { ...opts, progress: part(0.7, 1) });
}

/** Is a pixel of what was made burnt, or how much. @returns 0-1 */
export const burntAt = (m: Rendered, x: number, y: number): number =>
  m.depth === 1 ? ((m.data[y * m.stride + (x >> 3)] >> (7 - (x & 7))) & 1) ^ 1 : 1 - m.data[y * m.stride + x] / 255;
