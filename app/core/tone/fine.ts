/**
 * What is drawn finer than the spot: strokes that are burnt, and gaps that are left. A place holds where a disc as wide as the spot lies
 * within the stroke and covers it (opening by a disc, Serra 1982); what no disc covers is too fine. Distances are exact (Felzenszwalb &
 * Huttenlocher 2012), tile by tile, so that a large picture takes little room.
 */

/** Squared distances of a row to the nearest seed: lower envelope of parabolas. @param f squared distance so far @param out written */
function envelope(f: Float64Array, n: number, out: Float64Array, v: Int32Array, z: Float64Array): void {
  let k = 0;
  v[0] = 0;
  z[0] = -Infinity;
  z[1] = Infinity;
  for (let q = 1; q < n; q++) {
    let s = 0;
    for (;;) {
      const p = v[k];
      s = (f[q] + q * q - (f[p] + p * p)) / (2 * q - 2 * p);
      if (s > z[k] || k === 0) break;
      k--;
    }
    if (s <= z[k]) {
      v[k] = q;
      z[k + 1] = Infinity;
      continue;
    }
    k++;
    v[k] = q;
    z[k] = s;
    z[k + 1] = Infinity;
  }
  k = 0;
  for (let q = 0; q < n; q++) {
    while (z[k + 1] < q) k++;
    out[q] = (q - v[k]) ** 2 + f[v[k]];
  }
}

/** further than anything in a tile */
const FAR = 1e12;
/** Squared distance in pixels from the middle of each pixel to the middle of the nearest one that is set. */
export function distances(set: Uint8Array, w: number, h: number): Float64Array {
  const d = Float64Array.from(set, (b) => (b ? 0 : FAR));
  const n = Math.max(w, h);
  const [f, out, v, z] = [new Float64Array(n), new Float64Array(n), new Int32Array(n), new Float64Array(n + 1)];
  for (let x = 0; x < w; x++) {
    for (let y = 0; y < h; y++) f[y] = d[y * w + x];
    envelope(f, h, out, v, z);
    for (let y = 0; y < h; y++) d[y * w + x] = out[y];
  }
  for (let y = 0; y < h; y++) {
    f.set(d.subarray(y * w, (y + 1) * w));
    envelope(f, w, out, v, z);
    d.set(out.subarray(0, w), y * w);
  }
  return d;
}

/**
 * What of a shape no disc of this width covers.
 * @param shape 1 where it is @param width of the disc, pixels @returns 1 where the shape is finer
 */
export function finer(shape: Uint8Array, w: number, h: number, width: number): Uint8Array {
  // on a grid twice as fine every stroke is an even number of pixels wide: its middle lies as far from outside as it is half wide
  const [fw, fh] = [2 * w, 2 * h];
  const fine = new Uint8Array(fw * fh);
  for (let y = 0; y < fh; y++) for (let x = 0; x < fw; x++) fine[y * fw + x] = 1 - shape[(y >> 1) * w + (x >> 1)];
  const from = distances(fine, fw, fh);
  const core = new Uint8Array(fw * fh);
  const least = width * width - 1e-9;
  for (let i = 0; i < core.length; i++) core[i] = from[i] >= least ? 1 : 0;
  const back = distances(core, fw, fh);
  const out = new Uint8Array(w * h);
  const most = (width + SLACK) ** 2;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = 2 * y * fw + 2 * x;
      const near = Math.min(back[i], back[i + 1], back[i + fw], back[i + fw + 1]);
      out[y * w + x] = shape[y * w + x] && near > most ? 1 : 0;
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
 * @param at is a pixel burnt? 1, 0; 2: it does not count @param width of the spot, pixels @param mark told of each pixel that is too fine
 */
export function tooFine(
  at: (x: number, y: number) => number,
  w: number,
  h: number,
  width: number,
  mark: (x: number, y: number) => void = () => undefined,
): TooFine {
  const margin = Math.ceil(width) + 2;
  const widths = TRIES.map((k) => width / k);
  const lost = widths.map(() => [0, 0]);
  const all = [0, 0];
  for (let ty = 0; ty < h; ty += TILE)
    for (let tx = 0; tx < w; tx += TILE) {
      const [x0, y0] = [Math.max(0, tx - margin), Math.max(0, ty - margin)];
      const [x1, y1] = [Math.min(w, tx + TILE + margin), Math.min(h, ty + TILE + margin)];
      const [tw, th] = [x1 - x0, y1 - y0];
      const here = new Uint8Array(tw * th);
      for (let y = 0; y < th; y++) for (let x = 0; x < tw; x++) here[y * tw + x] = at(x0 + x, y0 + y);
      const within = (x: number, y: number): boolean =>
        x0 + x >= tx && x0 + x < tx + TILE && y0 + y >= ty && y0 + y < ty + TILE;
      for (const side of [1, 0]) {
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
