/** A flat logo made into a drawing of few colours: an SVG as a drawing program would save it, with borders that are shared. */
import { CLEAR, coloursIn, despeckled, type Lost, quantised } from "../../core/tone/quantise";
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
}
export interface TraceFound {
  svg: string;
  colours: number;
  lost: Lost & { mm2: number };
  /** some of it is clear and becomes no zone */
  clear: boolean;
}

/** @throws RangeError where nothing of it has a colour, or too many are asked for */
export function traceSvg(photo: Pixels, exif: number, ask: TraceAsk): TraceFound {
  const p = upright(photo, exif);
  const k = ask.colours ?? Math.max(1, coloursIn(p));
  const flat = quantised(p, k);
  if (!flat.colours.length) throw new RangeError("All of the picture is clear: there is nothing to make zones of.");
  const mm = ask.widthMm / p.w;
  const lost = despeckled(flat, ask.leastMm2 / (mm * mm));
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
  };
}
