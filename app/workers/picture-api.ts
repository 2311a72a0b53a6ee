/**
 * What the worker that makes pictures does: it keeps the original unpacked and what it made of it, so that looking at a place or saving the
 * file is no new work. Everything that is looked at comes from the very bytes that are saved.
 */
import { linear } from "../core/models/film/colour";
import type { PictureWork } from "../core/explain/picture";
import { EDGE_AS_DRAWN, exposure, FINER, gainOf, held, shareOf, type Spot } from "../core/tone/gain";
import { screened, toLight, toScreen } from "../core/tone/light";
import { tooFine, type TooFine } from "../core/tone/fine";
import { lostAt } from "../core/tone/lost";
import type { Laid } from "../core/tone/resample";
import type { Sample } from "../core/tone/samples";
import { AS_IT_IS, seenIn, type Conditions } from "../core/tone/seen";
import { boxMean } from "../core/tone/blur";
import { beyond, type Beyond, coloured, dig } from "../core/tone/dig";
import { burn, burntAt, burntMostly, onGrid, type Paints, type Rendered, seenOfPower } from "../core/tone/render";
import { scan, scanWithin, type RowScan } from "../core/tone/scan";
import type { Pixels } from "../core/tone/source";
import type { Recipe } from "../core/tone/render";
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
  lost: LostHere | null;
  /** colours of the picture that a stack can’t make; null: no stack is dug */
  beyond: Beyond[] | null;
  /** the finished face, the original as it lies, what is burnt */
  looks: { finished: Shown; original: Shown; burnt: Shown };
}
/** What a step of two tones loses. */
export interface LostHere {
  /** which step */
  step: number;
  at: number;
  n: number;
  mm2: number;
  /** thresholds that bring back all dark parts, all light ones */
  dark: number | null;
  light: number | null;
  /** left, top, right, bottom, shares of the picture */
  boxes: number[][];
}
export interface MakeAsk {
  work: PictureWork;
  /** part that is watched, as shares of the picture */
  watched: number[] | null;
  /** longest side on the screen */
  px: number;
}

type Point = [number, number];
type Rgb = readonly [number, number, number];
const byte = (y: number): number => Math.round(255 * toScreen(y < 0 ? 0 : y > 1 ? 1 : y));

/** Outlines on the grid of what is made, or of a part of it. */
const onPixels = (rings: PictureWork["blank"], { recipe: r }: PictureWork, x0 = 0, y0 = 0): [number, number][][] =>
  rings.map((ring) => ring.map(([x, y]): [number, number] => [x / r.intervalMm - x0, y / r.intervalMm - y0]));

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
/** Which area lies where; later ones over earlier ones. @param x0, y0 upper left corner of the part that is asked about */
function areaRows(work: PictureWork, w: number, x0 = 0, y0 = 0): RowScan {
  const over = work.areas.map((a) => scan(onPixels(a.rings, work, x0, y0), w));
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
/** What each of the 256 greys of a file leaves where colours are dug: red, green, blue; null: they are not. */
function dugLooks({ recipe: r }: PictureWork): Rgb[] | null {
  const { levels } = r;
  if (!levels) return null;
  const codes = levels.map((l) => 255 - Math.round(255 * l.demand));
  const colours = levels.map((l) => linear(l.colour));
  const at = (v: number): number =>
    codes.reduce((m, code, k) => (Math.abs(code - v) < Math.abs(codes[m] - v) ? k : m), 0);
  return Array.from({ length: 256 }, (_v, v) => colours[at(v)]);
}
/** Share that is seen of a burnt share: by the power that its grey is given, else as much. */
function seenBy({ recipe: r }: PictureWork): (burnt: number) => number {
  if (r.render !== "grey" || !r.power) return (b) => b;
  const table = seenOfPower(r.power);
  return (b) => table[255 - Math.round(255 * b)];
}
const luminance = (c: Rgb): number => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];

interface Kept {
  work: PictureWork;
  made: Rendered;
  spot: Spot | null;
  /** its tones as they were burnt, and as they were before any step, a byte a pixel */
  field: Laid;
  before: Uint8Array;
}

/** The spot by which single dots are shown: as it is reckoned with, else as wide as it is known to be. */
const spotOf = (work: PictureWork): Spot | null => {
  const { recipe: r, spotMm } = work;
  if (r.render === "grey") return null;
  if (r.spot) return { ...r.spot, intervalMm: r.intervalMm };
  return spotMm ? { mm: spotMm, threshold: EDGE_AS_DRAWN, intervalMm: r.intervalMm } : null;
};

/** Burnt shares of a part as they look at four times the laser’s pixels. @param x0, y0 where the part’s corner lies, pixels */
function enlarged(
  work: PictureWork,
  burnt: Float32Array,
  w: number,
  h: number,
  [x0, y0]: Point,
  see: Conditions,
  upright = false,
): Shown {
  const spot = spotOf(work);
  const areas = areaRows(work, w, x0, y0);
  const left = linear(work.left);
  const colours = work.areas.map((a) => linear(a.burnt));
  const bits = spot && Uint8Array.from(burnt, (b) => Number(b >= 0.5));
  const lit =
    spot &&
    bits &&
    (upright
      ? turned(exposure(turnedBits(bits, w, h), h, w, spot).e, h * FINER, w * FINER)
      : exposure(bits, w, h, spot).e);
  const data = new Uint8ClampedArray(w * h * FINER * FINER * 4);
  const dug = dugLooks(work);
  const seen = seenBy(work);
  const wide = w * FINER;
  for (let j = 0; j < h * FINER; j++) {
    const b = Math.floor(j / FINER);
    const row = areas(b);
    for (let i = 0; i < wide; i++) {
      const a = Math.floor(i / FINER);
      const c = dug ? 1 : lit ? Number(lit[j * wide + i] > spot!.threshold) : seen(burnt[b * w + a]);
      const on = dug ? dug[255 - Math.round(255 * burnt[b * w + a])] : (colours[row[a]] ?? left);
      const o = (j * wide + i) * 4;
      for (let q = 0; q < 3; q++) data[o + q] = byte(seenIn(c * on[q] + (1 - c) * left[q], q, see));
      data[o + 3] = 255;
    }
  }
  return { w: wide, h: h * FINER, data };
}
function turned(v: Float32Array, w: number, h: number): Float32Array {
  const out = new Float32Array(v.length);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) out[x * h + y] = v[y * w + x];
  return out;
}
const turnedBits = (v: Uint8Array, w: number, h: number): Uint8Array =>
  Uint8Array.from(turned(Float32Array.from(v), w, h));

/** A part of the tones on a grid of its own: areas averaged in light where it is coarser, straight between pixels where it is finer. */
function part(f: Laid, x0: number, y0: number, n: number, times: number): Laid {
  const toned = f.y instanceof Float32Array;
  const y = toned ? new Float32Array(n * n) : new Float64Array(n * n);
  const px = (x: number, yy: number): number => {
    const v = f.y[Math.min(f.h - 1, Math.max(0, yy)) * f.w + Math.min(f.w - 1, Math.max(0, x))];
    return toned ? toLight(Math.min(1, Math.max(0, v))) : v;
  };
  const fine = Math.max(1, Math.ceil(times)) * 2;
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) {
      let sum = 0;
      for (let b = 0; b < fine; b++)
        for (let a = 0; a < fine; a++) {
          const [u, v] = [x0 + (i + (a + 0.5) / fine) * times - 0.5, y0 + (j + (b + 0.5) / fine) * times - 0.5];
          const [ux, vy] = times === 1 ? [x0 + i, y0 + j] : [Math.floor(u), Math.floor(v)];
          if (times >= 1) sum += px(times === 1 ? ux : Math.round(u), times === 1 ? vy : Math.round(v));
          else {
            const [fx, fy] = [u - ux, v - vy];
            sum +=
              (1 - fy) * ((1 - fx) * px(ux, vy) + fx * px(ux + 1, vy)) +
              fy * ((1 - fx) * px(ux, vy + 1) + fx * px(ux + 1, vy + 1));
          }
        }
      const mean = sum / (fine * fine);
      y[j * n + i] = toned ? toScreen(mean) : mean;
    }
  return { ...f, w: n, h: n, y, inside: { x0: 0, y0: 0, x1: n, y1: n } };
}
/** longest side of the grid that parts lost at a threshold are looked for on */
const LOST_PX = 1200;
/** pixels beside a sample that are made and not shown: dots settle there */
const SETTLE = 24;
/** a place is marked in this colour: red, green, blue, alpha */
const MARK = [181, 51, 31, 230];

export const pictureApi = (unpack: (bytes: Uint8Array<ArrayBuffer>) => Promise<Pixels>) => {
  let source: Pixels | null = null;
  let last: Kept | null = null;

  /** The finished face where a pixel of the screen covers several of the laser's: what the spot uncovers of that density. */
  function look({ work, made, spot }: Kept, px: number, see: Conditions): { finished: Shown; burnt: Shown } {
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
    const dug = dugLooks(work);
    const seen = seenBy(work);
    for (let y = 0; y < sh; y++) {
      for (const a of [sum, red, green, blue, on]) a.fill(0);
      for (let j = 0; j < k; j++) {
        const row = areas(y * k + j);
        const may = inside(y * k + j);
        for (let x = 0; x < sw * k; x++) {
          const at = Math.floor(x / k);
          // made as for the laser: turned round it is looked at the other way
          const b = burntAt(made, r.mirror ? w - 1 - x : x, y * k + j);
          const c = dug ? dug[255 - Math.round(255 * b)] : (colours[row[x]] ?? left);
          sum[at] += seen(b);
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
      const c = dug ? 1 : gain ? shareOf(gain, eye[i]) : eye[i];
      for (let q = 0; q < 3; q++) finished[4 * i + q] = byte(seenIn(c * under[3 * i + q] + (1 - c) * left[q], q, see));
    }
    return { finished: { w: sw, h: sh, data: finished }, burnt: { w: sw, h: sh, data: burnt } };
  }

  /** The picture as it lies, tones untouched. */
  function original(p: Pixels, work: PictureWork, px: number): Shown {
    const { recipe: r } = work;
    const k = Math.max(r.widthMm, r.heightMm) / px;
    // where its colours are dug it is looked at in colour
    const mixes: Recipe["mix"][] = r.levels
      ? [
          [1, 0, 0],
          [0, 1, 0],
          [0, 0, 1],
        ]
      : [r.mix];
    const planes = mixes.map((mix) => onGrid(p, { ...r, intervalMm: k, tone: [], layOn: false, mix }));
    const [f] = planes;
    const data = new Uint8ClampedArray(f.w * f.h * 4);
    for (let i = 0; i < f.w * f.h; i++) {
      for (let q = 0; q < 3; q++) data[4 * i + q] = byte((planes[q] ?? f).y[i]);
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
      if (r.levels) {
        const c = coloured(source, r, r.levels, (s) => progress(0.7 * s));
        const made = dig(c, r, r.levels, { allowed: allowedOf(work, c.w), progress: (s) => progress(0.7 + 0.25 * s) });
        last = { work, made, spot: null, field: c.field, before: c.before };
        const seen = look(last, px, AS_IT_IS);
        progress(1);
        return {
          w: made.w,
          h: made.h,
          burnt: made.burnt,
          stats: statsOf(c.field, watched),
          lost: lostBy(source, work),
          beyond: beyond(c, r.levels),
          looks: { ...seen, original: original(source, work, px) },
        };
      }
      const f = onGrid(source, r, (s) => progress(0.5 * s));
      const field = f.y;
      const before = new Uint8Array(field.length);
      if (field instanceof Float32Array) {
        screened(field);
        for (let i = 0; i < field.length; i++) before[i] = Math.round(255 * field[i]);
        tones({ w: f.w, h: f.h, v: field }, r.tone, 1 / r.intervalMm, (s) => progress(0.5 + 0.2 * s));
      } else for (let i = 0; i < field.length; i++) before[i] = byte(field[i]);
      const stats = statsOf(f, watched);
      const paints: Paints | null =
        work.areas.length > 1
          ? { at: areaRows(work, f.w), colourY: work.areas.map((a) => luminance(linear(a.burnt))) }
          : null;
      const made = burn(f, r, { allowed: allowedOf(work, f.w), paints, progress: (s) => progress(0.7 + 0.25 * s) });
      const spot = r.spot && { ...r.spot, intervalMm: r.intervalMm };
      last = { work, made, spot, field: f, before };
      const seen = look(last, px, AS_IT_IS);
      progress(1);
      return {
        w: made.w,
        h: made.h,
        burnt: made.burnt,
        stats,
        lost: lostBy(source, work),
        beyond: null,
        looks: { ...seen, original: original(source, work, px) },
      };
    },
    /** The finished face in another light, or under a clear coat. */
    see(px: number, see: Conditions): Shown | null {
      return last && look(last, px, see).finished;
    },
    /** A place at four times its pixels, as the spot leaves it, and its tones before any step. @param x, y middle, shares of the picture */
    lens(x: number, y: number, size: number, see: Conditions = AS_IT_IS): { now: Shown; before: Shown } | null {
      if (!last) return null;
      const { work, made, before } = last;
      const { recipe: r } = work;
      const [x0, y0, w, h] = placeOf(made, x, y, size);
      const burnt = new Float32Array(w * h);
      const data = new Uint8ClampedArray(w * h * 4).fill(255);
      for (let j = 0; j < h; j++)
        for (let i = 0; i < w; i++) {
          burnt[j * w + i] = burntAt(made, r.mirror ? made.w - 1 - (x0 + i) : x0 + i, y0 + j);
          data.fill(before[(y0 + j) * made.w + x0 + i], (j * w + i) * 4, (j * w + i) * 4 + 3);
        }
      return { now: enlarged(work, burnt, w, h, [x0, y0], see), before: { w, h, data } };
    },
    /** The same place made in another way. */
    sample(s: Sample, x: number, y: number, size: number): Shown | null {
      if (!last || last.work.recipe.levels) return null;
      const { work, made, field } = last;
      const [x0, y0] = placeOf(made, x, y, size);
      const n = Math.max(1, Math.round(Math.min(size, made.w, made.h) / s.times));
      const all = n + 2 * SETTLE;
      const corner: Point = [x0 / s.times, y0 / s.times];
      const r = work.recipe;
      const spot =
        r.spot ?? (s.render !== "grey" && work.spotMm ? { mm: work.spotMm, threshold: EDGE_AS_DRAWN } : null);
      const recipe = {
        ...r,
        render: s.render,
        dots: s.dots,
        mirror: false,
        intervalMm: r.intervalMm * s.times,
        // lines nearer together put more energy on a place: the film opens sooner against it
        spot: spot && s.render !== "grey" ? { ...spot, threshold: held(spot.threshold * s.times) } : null,
      };
      const here = { ...work, recipe };
      const f = part(field, x0 - SETTLE * s.times, y0 - SETTLE * s.times, all, s.times);
      const paints: Paints | null =
        work.areas.length > 1
          ? {
              at: areaRows(here, all, corner[0] - SETTLE, corner[1] - SETTLE),
              colourY: work.areas.map((a) => luminance(linear(a.burnt))),
            }
          : null;
      const dots = burn(f, recipe, { paints });
      const burnt = new Float32Array(n * n);
      for (let j = 0; j < n; j++) for (let i = 0; i < n; i++) burnt[j * n + i] = burntAt(dots, SETTLE + i, SETTLE + j);
      return enlarged(here, burnt, n, n, corner, AS_IT_IS, s.upright);
    },
    /** What is drawn finer than the spot, in all of it or its watched part; null: no spot is known. @param px longest side of marks */
    fine(
      watched: number[] | null,
      px: number,
      progress?: (share: number) => void,
    ): { found: TooFine; marks: Shown } | null {
      if (!last?.work.spotMm || last.work.recipe.levels) return null;
      const { work, field: f } = last;
      const toned = f.y instanceof Float32Array;
      const burns = burntMostly(work.recipe);
      const k = Math.max(1, Math.ceil(Math.max(f.w, f.h) / px));
      const [w, h] = [Math.floor(f.w / k) || 1, Math.floor(f.h / k) || 1];
      const ring =
        watched && watched.length >= 6
          ? Array.from({ length: watched.length / 2 }, (_v, i): Point => [
              watched[2 * i] * f.w,
              watched[2 * i + 1] * f.h,
            ])
          : null;
      const counts = ring && rowsKept(scan([ring], f.w), f.w, f.h);
      const data = new Uint8ClampedArray(w * h * 4);
      const { x0, y0, x1, y1 } = f.inside;
      const found = tooFine(
        (x, y) => {
          if (x < x0 || x >= x1 || y < y0 || y >= y1 || (counts && !counts[y * f.w + x])) return 2;
          const v = f.y[y * f.w + x];
          return Number(burns(toned ? v : toScreen(v)));
        },
        f.w,
        f.h,
        work.spotMm! / work.recipe.intervalMm,
        (x, y) => data.set(MARK, 4 * (Math.min(h - 1, Math.floor(y / k)) * w + Math.min(w - 1, Math.floor(x / k)))),
        undefined,
        progress,
      );
      return { found, marks: { w, h, data } };
    },
    /** The file for the laser. */
    save(): Uint8Array<ArrayBuffer> | null {
      return last && png(last.made, last.work.recipe.intervalMm);
    },
  };
};
/** Corner and size of a place, kept within the picture. */
function placeOf(made: Rendered, x: number, y: number, size: number): [number, number, number, number] {
  const [w, h] = [Math.min(size, made.w), Math.min(size, made.h)];
  const from = (at: number, n: number, all: number): number =>
    Math.max(0, Math.min(all - n, Math.round(at * all) - (n >> 1)));
  return [from(x, w, made.w), from(y, h, made.h), w, h];
}
function rowsKept(rows: RowScan, w: number, h: number): Uint8Array {
  const out = new Uint8Array(w * h);
  for (let y = 0; y < h; y++) out.set(rows(y), y * w);
  return out;
}
/** Parts that two tones lose, by the first such step; boxes as shares of the picture. */
function lostBy(p: Pixels, { recipe: r, spotMm }: PictureWork): LostHere | null {
  const step = r.tone.findIndex((s) => s.do === "threshold" && !s.off);
  const cut = r.tone[step];
  if (cut?.do !== "threshold") return null;
  const mm = Math.max(r.intervalMm, Math.max(r.widthMm, r.heightMm) / LOST_PX);
  const f = onGrid(p, { ...r, intervalMm: mm, layOn: true });
  const v = screened(f.y as Float32Array);
  tones({ w: f.w, h: f.h, v }, r.tone.slice(0, step), 1 / mm);
  const least = Math.max(LEAST_LOST, ((spotMm ?? 0) / mm) ** 2);
  const { parts, dark, light } = lostAt(v, f.w, f.h, cut.at, least);
  return {
    step,
    at: cut.at,
    dark,
    light,
    n: parts.length,
    mm2: parts.reduce((a, x) => a + x.pixels * mm * mm, 0),
    boxes: parts.slice(0, MOST_BOXES).map((x) => [x.x0 / f.w, x.y0 / f.h, x.x1 / f.w, x.y1 / f.h]),
  };
}
/** pixels of a part that is told of, where the spot is not known */
const LEAST_LOST = 4;
/** parts that are outlined */
const MOST_BOXES = 200;

export type PictureApi = ReturnType<typeof pictureApi>;
/** pixels of the laser that the eye takes in as one at least */
const EYE_PX = 7;
