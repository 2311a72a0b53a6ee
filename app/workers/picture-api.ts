/**
 * What the worker that makes pictures does: it keeps the original unpacked and what it made of it, so that looking at a place or saving the
 * file is no new work. Everything that is looked at comes from the very bytes that are saved.
 */
import { linear } from "../core/models/film/colour";
import type { PictureWork } from "../core/explain/picture";
import { EDGE_AS_DRAWN, exposure, FINER, gainOf, shareOf, type Spot } from "../core/tone/gain";
import { screened, toScreen } from "../core/tone/light";
import { boxMean } from "../core/tone/blur";
import { burn, burntAt, onGrid, type Paints, type Rendered } from "../core/tone/render";
import { scan, scanWithin, type RowScan } from "../core/tone/scan";
import type { Pixels } from "../core/tone/source";
import { tones } from "../core/tone/steps";
import { statsOf, type ToneStats } from "../core/tone/stats";
import { png } from "../io/export/png";

/** A picture for the screen. */
export interface Shown {
  w: number;
  h: number;
  /** red, green, blue, alpha */
  data: Uint8ClampedArray<ArrayBuffer>;
}
export interface Made {
  w: number;
  h: number;
  /** share of the picture that is burnt */
  burnt: number;
  stats: ToneStats;
  /** the finished face, the original as it lies, what is burnt */
  looks: { finished: Shown; original: Shown; burnt: Shown };
}
export interface MakeAsk {
  work: PictureWork;
  /** part that is watched, as shares of the picture */
  watched: number[] | null;
  /** longest side on the screen */
  px: number;
}

type Rgb = readonly [number, number, number];
const byte = (y: number): number => Math.round(255 * toScreen(y < 0 ? 0 : y > 1 ? 1 : y));

/** Outlines on the grid of what is made. */
const onPixels = (rings: PictureWork["blank"], { recipe: r }: PictureWork): [number, number][][] =>
  rings.map((ring) => ring.map(([x, y]): [number, number] => [x / r.intervalMm, y / r.intervalMm]));

/** Where it may be burnt: within the blank, and only over the areas that the step works on. */
function allowedOf(work: PictureWork, w: number): (y: number) => Uint8Array {
  const inside = scanWithin(onPixels(work.blank, work), w, work.keepMm / work.recipe.intervalMm);
  if (!work.only) return inside;
  const over = work.areas.map((a) => scan(onPixels(a.rings, work), w));
  return (y) => {
    const row = inside(y);
    const mine = over.map((s) => s(y));
    for (let x = 0; x < w; x++) if (row[x] && !mine.some((m) => m[x])) row[x] = 0;
    return row;
  };
}
/** Which area lies where; later ones over earlier ones. */
function areaRows(work: PictureWork, w: number): RowScan {
  const over = work.areas.map((a) => scan(onPixels(a.rings, work), w));
  const row = new Uint8Array(w);
  return (y) => {
    row.fill(0);
    over.forEach((s, k) => {
      if (k === 0) return;
      const mine = s(y);
      for (let x = 0; x < w; x++) if (mine[x]) row[x] = k;
    });
    return row;
  };
}
/** Colour of bands at a pixel of the laser: where two lie over one another they run into one another; null: there are none. */
function blendOf(work: PictureWork, colours: Rgb[], left: Rgb): ((x: number, y: number) => Rgb) | null {
  const bands = work.areas.map((a) => a.band);
  if (bands.length < 2 || bands.some((b) => !b)) return null;
  const mm = work.recipe.intervalMm;
  return (x, y) => {
    let all = 0;
    const c = [0, 0, 0];
    bands.forEach((b, i) => {
      const at = x * mm * b!.u[0] + y * mm * b!.u[1];
      const [up, down] = [at - b!.from, b!.to - at];
      const cover = Math.max(
        0,
        b!.fadeMm > 0 ? Math.min(1, up / b!.fadeMm, down / b!.fadeMm) : Number(up >= 0 && down > 0),
      );
      all += cover;
      for (let q = 0; q < 3; q++) c[q] += cover * colours[i][q];
    });
    // less than a coat lets through what lies between
    const thin = Math.max(0, 1 - all);
    const whole = Math.max(1, all);
    return [0, 1, 2].map((q) => (c[q] + thin * left[q]) / whole) as unknown as Rgb;
  };
}
const luminance = (c: Rgb): number => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];

interface Kept {
  work: PictureWork;
  made: Rendered;
  spot: Spot | null;
}

export const pictureApi = (unpack: (bytes: Uint8Array<ArrayBuffer>) => Promise<Pixels>) => {
  let source: Pixels | null = null;
  let last: Kept | null = null;

  /** The finished face where a pixel of the screen covers several of the laser's: what the spot uncovers of that density. */
  function look({ work, made, spot }: Kept, px: number): { finished: Shown; burnt: Shown } {
    const { w, h } = made;
    const k = Math.max(1, Math.ceil(Math.max(w, h) / px));
    const [sw, sh] = [Math.floor(w / k) || 1, Math.floor(h / k) || 1];
    const finished = new Uint8ClampedArray(sw * sh * 4);
    const burnt = new Uint8ClampedArray(sw * sh * 4);
    const areas = areaRows(work, w);
    const inside = scan(onPixels(work.blank, work), w);
    const colours = work.areas.map((a) => linear(a.burnt));
    const left = linear(work.left);
    const { recipe: r } = work;
    const gain = spot && r.render !== "grey" ? gainOf(r.render, { ...r.dots, intervalMm: r.intervalMm }, spot) : null;
    const sum = new Float64Array(sw);
    const red = new Float64Array(sw);
    const green = new Float64Array(sw);
    const blue = new Float64Array(sw);
    const on = new Float64Array(sw);
    const under = new Float32Array(3 * sw * sh);
    // densities of a few dots say little: at arm's length the eye takes in that many and more at once
    const dense = new Float32Array(sw * sh);
    const blend = blendOf(work, colours, left);
    for (let y = 0; y < sh; y++) {
      for (const a of [sum, red, green, blue, on]) a.fill(0);
      for (let j = 0; j < k; j++) {
        const row = areas(y * k + j);
        const may = inside(y * k + j);
        for (let x = 0; x < sw * k; x++) {
          const at = Math.floor(x / k);
          const c = colours[row[x]] ?? left;
          // made as for the laser: turned round it is looked at the other way
          sum[at] += burntAt(made, r.mirror ? w - 1 - x : x, y * k + j);
          red[at] += c[0];
          green[at] += c[1];
          blue[at] += c[2];
          on[at] += may[x];
        }
      }
      const n = k * k;
      for (let x = 0; x < sw; x++) {
        const o = (y * sw + x) * 4;
        dense[y * sw + x] = sum[x] / n;
        under.set(blend?.((x + 0.5) * k, (y + 0.5) * k) ?? [red[x] / n, green[x] / n, blue[x] / n], 3 * (y * sw + x));
        finished[o + 3] = Math.round((255 * on[x]) / n);
        burnt[o] = burnt[o + 1] = burnt[o + 2] = Math.round(255 * (1 - sum[x] / n));
        burnt[o + 3] = 255;
      }
    }
    const eye = r.render === "grey" ? dense : boxMean(dense, sw, sh, Math.ceil((EYE_PX / k - 1) / 2));
    for (let i = 0; i < sw * sh; i++) {
      const c = gain ? shareOf(gain, eye[i]) : eye[i];
      for (let q = 0; q < 3; q++) finished[4 * i + q] = byte(c * under[3 * i + q] + (1 - c) * left[q]);
    }
    return { finished: { w: sw, h: sh, data: finished }, burnt: { w: sw, h: sh, data: burnt } };
  }

  /** The picture as it lies, tones untouched. */
  function original(p: Pixels, work: PictureWork, px: number): Shown {
    const { recipe: r } = work;
    const k = Math.max(r.widthMm, r.heightMm) / px;
    const f = onGrid(p, { ...r, intervalMm: k, tone: [], layOn: false });
    const data = new Uint8ClampedArray(f.w * f.h * 4);
    for (let i = 0; i < f.w * f.h; i++) {
      data[4 * i] = data[4 * i + 1] = data[4 * i + 2] = byte(f.y[i]);
      data[4 * i + 3] = 255;
    }
    return { w: f.w, h: f.h, data };
  }

  return {
    async open(bytes: Uint8Array<ArrayBuffer>): Promise<void> {
      source = await unpack(bytes);
      last = null;
    },
    make({ work, watched, px }: MakeAsk, progress: (share: number) => void): Made {
      if (!source) throw new Error("There is no picture open.");
      const r = work.recipe;
      const f = onGrid(source, r, (s) => progress(0.5 * s));
      if (f.y instanceof Float32Array)
        tones({ w: f.w, h: f.h, v: screened(f.y) }, r.tone, 1 / r.intervalMm, (s) => progress(0.5 + 0.2 * s));
      const stats = statsOf(f, watched);
      const paints: Paints | null =
        work.areas.length > 1
          ? { at: areaRows(work, f.w), colourY: work.areas.map((a) => luminance(linear(a.burnt))) }
          : null;
      const made = burn(f, r, { allowed: allowedOf(work, f.w), paints, progress: (s) => progress(0.7 + 0.25 * s) });
      const spot = r.spot && { ...r.spot, intervalMm: r.intervalMm };
      last = { work, made, spot };
      const seen = look(last, px);
      progress(1);
      return {
        w: made.w,
        h: made.h,
        burnt: made.burnt,
        stats,
        looks: { ...seen, original: original(source, work, px) },
      };
    },
    /** A place of what was made at four times its pixels, as the spot leaves it. @param x, y middle, shares of the picture */
    lens(x: number, y: number, size: number): Shown | null {
      if (!last) return null;
      const { work, made } = last;
      const { recipe: r } = work;
      const spot =
        last.spot ?? (work.spotMm ? { mm: work.spotMm, threshold: EDGE_AS_DRAWN, intervalMm: r.intervalMm } : null);
      const [cx, cy] = [Math.round(x * made.w), Math.round(y * made.h)];
      const [x0, y0] = [
        Math.max(0, Math.min(made.w - size, cx - (size >> 1))),
        Math.max(0, Math.min(made.h - size, cy - (size >> 1))),
      ];
      const [w, h] = [Math.min(size, made.w), Math.min(size, made.h)];
      const bits = new Uint8Array(w * h);
      const grey = new Float32Array(w * h);
      for (let j = 0; j < h; j++)
        for (let i = 0; i < w; i++) {
          const px = r.mirror ? made.w - 1 - (x0 + i) : x0 + i;
          grey[j * w + i] = burntAt(made, px, y0 + j);
          bits[j * w + i] = grey[j * w + i] >= 0.5 ? 1 : 0;
        }
      const areas = areaRows(work, made.w);
      const left = linear(work.left);
      const colours = work.areas.map((a) => linear(a.burnt));
      const lit = spot && r.render !== "grey" ? exposure(bits, w, h, spot) : null;
      const out = new Uint8ClampedArray(w * h * FINER * FINER * 4);
      for (let j = 0; j < h * FINER; j++) {
        const row = areas(y0 + Math.floor(j / FINER));
        for (let i = 0; i < w * FINER; i++) {
          const [a, b] = [Math.floor(i / FINER), Math.floor(j / FINER)];
          const c = lit ? Number(lit.e[j * w * FINER + i] > spot!.threshold) : grey[b * w + a];
          const on = colours[row[x0 + a]] ?? left;
          const o = (j * w * FINER + i) * 4;
          for (let q = 0; q < 3; q++) out[o + q] = byte(c * on[q] + (1 - c) * left[q]);
          out[o + 3] = 255;
        }
      }
      return { w: w * FINER, h: h * FINER, data: out };
    },
    /** The file for the laser. */
    save(): Uint8Array<ArrayBuffer> | null {
      return last && png(last.made, last.work.recipe.intervalMm);
    },
  };
};
export type PictureApi = ReturnType<typeof pictureApi>;
/** pixels of the laser that the eye takes in as one at least */
const EYE_PX = 7;
