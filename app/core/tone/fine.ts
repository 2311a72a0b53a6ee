/**
 * What is drawn finer than the spot: strokes that are burnt, and gaps that are left. A place holds where a disc as wide as the spot lies
 * within the stroke and covers it (opening by a disc, Serra 1982); what no disc covers is too fine. Distances are exact: along each row
 * by runs, across rows by Pythagoras over as many as the disc reaches; tile by tile, so that a large picture takes little room.
 */
import type { Progress } from "./resample";

/** further along a row than any disc reaches */
const FAR = 65535;
/** Steps along its row from each pixel to the nearest that is set; at most {@link FAR}. */
function alongRows(set: Uint8Array, w: number, h: number): Uint16Array {
  const d = new Uint16Array(w * h);
  for (let y = 0; y < h; y++) {
    let n = FAR;
    for (let i = y * w; i < (y + 1) * w; i++) d[i] = n = set[i] ? 0 : Math.min(FAR, n + 1);
    n = FAR;
    for (let i = (y + 1) * w - 1; i >= y * w; i--) {
      n = set[i] ? 0 : Math.min(FAR, n + 1);
      if (n < d[i]) d[i] = n;
    }
  }
  return d;
}
/** Half the chords of a disc, row by row from its middle: how far along a row it reaches. @param strict less than that, not as far as */
const chords = (r: number, strict: boolean): Int32Array =>
  Int32Array.from({ length: Math.floor(r) + 1 }, (_v, dy) => {
    const c = Math.sqrt(Math.max(0, r * r - dy * dy));
    return strict ? Math.ceil(c - 1e-9) : Math.floor(c + 1e-9);
  });

/**
 * What of a shape no disc of this width covers.
 * @param shape 1 where it is @param width of the disc, pixels @returns 1 where the shape is finer
 */
export function finer(shape: Uint8Array, w: number, h: number, width: number): Uint8Array {
  // on a grid twice as fine every stroke is an even number of pixels wide: its middle lies as far from outside as it is half wide
  const [fw, fh] = [2 * w, 2 * h];
  const outside = new Uint8Array(fw * fh);
  for (let y = 0; y < fh; y++) for (let x = 0; x < fw; x++) outside[y * fw + x] = 1 - shape[(y >> 1) * w + (x >> 1)];
  const clear = alongRows(outside, fw, fh);
  const within = chords(width, true);
  const none = new Uint8Array(fw * fh).fill(1);
  for (let y = 0; y < fh; y++) {
    const [from, to] = [Math.max(0, y - within.length + 1), Math.min(fh - 1, y + within.length - 1)];
    for (let x = 0; x < fw; x++) {
      if (outside[y * fw + x]) continue;
      let yy = from;
      while (yy <= to && clear[yy * fw + x] >= within[yy < y ? y - yy : yy - y]) yy++;
      if (yy > to) none[y * fw + x] = 0;
    }
  }
  const core = alongRows(
    none.map((b) => 1 - b),
    fw,
    fh,
  );
  const reach = chords(width + SLACK, false);
  const covered = (x: number, y: number): boolean => {
    const [from, to] = [Math.max(0, y - reach.length + 1), Math.min(fh - 1, y + reach.length - 1)];
    for (let yy = from; yy <= to; yy++) if (core[yy * fw + x] <= reach[yy < y ? y - yy : yy - y]) return true;
    return false;
  };
  const out = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      if (!shape[y * w + x]) continue;
      const [a, b] = [2 * x, 2 * y];
      if (!none[b * fw + a]) continue;
      if (!covered(a, b) && !covered(a + 1, b) && !covered(a, b + 1) && !covered(a + 1, b + 1)) out[y * w + x] = 1;
    }
  return out;
}
/** half pixels: corners of a square are not thin strokes, though a disc leaves a little of each */
const SLACK = 2;

export interface TooFine {
  /** shares of what is burnt, and of what is left, that is too fine */
  burnt: number;
  left: number;
  /** enlarged so many times nearly all of it holds; 1: it does; null: eight times is not enough */
  enlarge: number | null;
}
const TILE = 512;
/** enlargements that are tried */
const TRIES = [1, 1.1, 1.25, 1.4, 1.6, 2, 2.5, 3, 4, 6, 8];
/** share that may be lost: specks that nobody misses */
const NEARLY = 0.002;

/**
 * Looks for what is finer than a spot.
 * @param at is a pixel burnt? 1, 0; 2: it does not count @param width of the spot, pixels
 * @param mark told of each pixel that is too fine @param sides what is looked at: 1 what is burnt, 0 what is left
 */
export function tooFine(
  at: (x: number, y: number) => number,
  w: number,
  h: number,
  width: number,
  mark: (x: number, y: number) => void = () => undefined,
  sides: readonly (0 | 1)[] = [1, 0],
  progress?: Progress,
): TooFine {
  const margin = Math.ceil(width) + 2;
  const widths = TRIES.map((k) => width / k);
  const lost = widths.map(() => [0, 0]);
  const all = [0, 0];
  for (let ty = 0; ty < h; ty += TILE)
    for (let tx = 0; tx < w; tx += TILE) {
      progress?.((ty + (Math.min(TILE, h - ty) * tx) / w) / h);
      const [x0, y0] = [Math.max(0, tx - margin), Math.max(0, ty - margin)];
      const [x1, y1] = [Math.min(w, tx + TILE + margin), Math.min(h, ty + TILE + margin)];
      const [tw, th] = [x1 - x0, y1 - y0];
      const here = new Uint8Array(tw * th);
      for (let y = 0; y < th; y++) for (let x = 0; x < tw; x++) here[y * tw + x] = at(x0 + x, y0 + y);
      const within = (x: number, y: number): boolean =>
        x0 + x >= tx && x0 + x < tx + TILE && y0 + y >= ty && y0 + y < ty + TILE;
      for (const side of sides) {
        // what does not count is neither stroke nor gap: it goes on as what stands beside it
        const shape = here.map((b) => Number(b === side || b === 2));
        if (!here.includes(side)) continue;
        for (let i = 0; i < here.length; i++)
          if (here[i] === side && within(i % tw, Math.floor(i / tw))) all[1 - side]++;
        for (let k = 0; k < widths.length; k++) {
          const thin = finer(shape, tw, th, widths[k]);
          let any = false;
          for (let y = 0; y < th; y++)
            for (let x = 0; x < tw; x++)
              if (thin[y * tw + x] && here[y * tw + x] === side && within(x, y)) {
                any = true;
                lost[k][1 - side]++;
                if (k === 0) mark(x0 + x, y0 + y);
              }
          if (!any) break;
        }
      }
    }
  const share = (k: number, side: number): number => (all[side] ? lost[k][side] / all[side] : 0);
  const holds = widths.findIndex((_v, k) => share(k, 0) <= NEARLY && share(k, 1) <= NEARLY);
  return { burnt: share(0, 0), left: share(0, 1), enlarge: holds < 0 ? null : TRIES[holds] };
}
