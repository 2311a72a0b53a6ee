/** A flat logo made into a drawing of few colours: an SVG as a drawing program would save it, with borders that are shared. */
import { linear } from "../../core/models/film/colour";
import { tooFine } from "../../core/tone/fine";
import { CLEAR, coloursIn, despeckled, type Flat, type Lost, merged, quantised } from "../../core/tone/quantise";
import { EXIF_TURNS, type Pixels } from "../../core/tone/source";
import { traced } from "../../core/tone/trace";

/** pixels that are traced at most; of a larger one every second or third is taken */
const MOST = 4_000_000;

/** A picture upright and no larger than is traced, its rows held. */
function upright(p: Pixels, exif: number): Pixels {
  const k = Math.max(1, Math.ceil(Math.sqrt((p.w * p.h) / MOST)));
  const [w, h, c] = [Math.floor(p.w / k), Math.floor(p.h / k), p.channels];
  const { flip, quarters } = EXIF_TURNS[exif] ?? EXIF_TURNS[1];
  if (k === 1 && !flip && quarters === 0) return p;
  const [uw, uh] = quarters % 2 ? [h, w] : [w, h];
  const data = new Uint16Array(uw * uh * c);
  for (let b = 0; b < h; b++) {
    const row = p.row(b * k);
    for (let a = 0; a < w; a++) {
      const x = flip ? w - 1 - a : a;
      const [u, v] =
        quarters === 0
          ? [x, b]
          : quarters === 1
            ? [h - 1 - b, x]
            : quarters === 2
              ? [w - 1 - x, h - 1 - b]
              : [b, w - 1 - x];
      for (let q = 0; q < c; q++) data[(v * uw + u) * c + q] = row[a * k * c + q];
    }
  }
  return { w: uw, h: uh, channels: c, max: p.max, row: (y) => data.subarray(y * uw * c, (y + 1) * uw * c) };
}

export interface TraceAsk {
  /** null: as many as it seems to have */
  colours: number | null;
  widthMm: number;
  /** parts smaller than this go to their neighbour, mm² */
  leastMm2: number;
  /** `#rrggbb` that stay as they are; absent: none */
  locked?: readonly string[];
  /** colours that go with others: from, to */
  merged?: readonly (readonly [string, string])[];
  /** width of the spot, mm: what is drawn finer is marked; absent: not looked for */
  spotMm?: number | null;
}
/** A small picture of what was found: its colours, and in one of their own what was lost and what is too fine. */
export interface Preview {
  w: number;
  h: number;
  /** red, green, blue, alpha */
  data: Uint8ClampedArray<ArrayBuffer>;
}
export interface TraceFound {
  svg: string;
  colours: number;
  lost: Lost & { mm2: number };
  /** some of it is clear and becomes no zone */
  clear: boolean;
  /** its colours with their shares, the most frequent first */
  palette: { colour: string; share: number }[];
  /** share that is finer than the spot, and how much larger it would hold; null: not looked for */
  fine: { share: number; enlarge: number | null } | null;
  preview: Preview;
}

const PREVIEW_PX = 420;
const MARK = [181, 51, 31];
/** What each pixel of the preview shows. */
function preview(f: Flat, marked: Uint8Array): Preview {
  const k = Math.max(1, Math.ceil(Math.max(f.w, f.h) / PREVIEW_PX));
  const [w, h] = [Math.floor(f.w / k) || 1, Math.floor(f.h / k) || 1];
  const data = new Uint8ClampedArray(w * h * 4);
  const rgb = f.colours.map((c) => [1, 3, 5].map((i) => parseInt(c.slice(i, i + 2), 16)));
  for (let y = 0; y < h * k; y++)
    for (let x = 0; x < w * k; x++) {
      const i = y * f.w + x;
      const o = (Math.floor(y / k) * w + Math.floor(x / k)) * 4;
      if (marked[i]) data.set([...MARK, 255], o);
      // a mark is larger than its pixel: it stays
      else if (!(data[o + 3] === 255 && data[o] === MARK[0] && data[o + 1] === MARK[1]) && f.label[i] !== CLEAR)
        data.set([...rgb[f.label[i]], 255], o);
    }
  return { w, h, data };
}
/** What of each colour is finer than the spot. */
function finest(f: Flat, spotPx: number, marked: Uint8Array): { share: number; enlarge: number | null } {
  let lost = 0;
  let enlarge: number | null = 1;
  f.colours.forEach((_c, k) => {
    if (!f.pixels[k]) return;
    const found = tooFine(
      (x, y) => (f.label[y * f.w + x] === k ? 1 : f.label[y * f.w + x] === CLEAR ? 2 : 0),
      f.w,
      f.h,
      spotPx,
      (x, y) => (marked[y * f.w + x] = 1),
      [1],
    );
    lost += found.burnt * f.pixels[k];
    enlarge = enlarge === null || found.enlarge === null ? null : Math.max(enlarge, found.enlarge);
  });
  return { share: lost / f.pixels.reduce((a, b) => a + b, 0), enlarge };
}

/** @throws RangeError where nothing of it has a colour, or too many are asked for */
export function traceSvg(photo: Pixels, exif: number, ask: TraceAsk): TraceFound {
  const p = upright(photo, exif);
  const k = ask.colours ?? Math.max(1, coloursIn(p));
  const locked = (ask.locked ?? []).map((c): [number, number, number] => [...linear(c)]);
  const flat = quantised(p, Math.max(k, locked.length), locked);
  if (!flat.colours.length) throw new RangeError("All of the picture is clear: there is nothing to make zones of.");
  const mm = ask.widthMm / p.w;
  const palette = flat.colours.map((colour, i) => ({ colour, share: flat.pixels[i] / (p.w * p.h) }));
  for (const [from, to] of ask.merged ?? []) merged(flat, from, to);
  const marked = new Uint8Array(p.w * p.h);
  const lost = despeckled(flat, ask.leastMm2 / (mm * mm), (i) => (marked[i] = 1));
  const fine = ask.spotMm ? finest(flat, ask.spotMm / mm, marked) : null;
  const r = (v: number): number => Math.round(v * 1000) / 1000;
  const paths = traced(flat)
    .filter((t) => t.rings.length)
    .map((t) => {
      const d = t.rings.map((ring) => `M${ring.map(([x, y]) => `${r(x)} ${r(y)}`).join("L")}Z`).join("");
      return `<path fill="${t.colour}" fill-rule="evenodd" d="${d}"/>`;
    });
  const size = `width="${r(ask.widthMm)}mm" height="${r(p.h * mm)}mm"`;
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${p.w} ${p.h}">${paths.join("")}</svg>`,
    colours: paths.length,
    lost: { ...lost, mm2: lost.pixels * mm * mm },
    clear: flat.label.includes(CLEAR),
    palette,
    fine,
    preview: preview(flat, marked),
  };
}
