/**
 * A photo of a test plate read. Four or more marks tie the plate to the picture (a homography by least squares, Hartley and Zisserman
 * 2004, § 4.1); the colour of each cell is taken in linear light well within it; light that falls unevenly is a plane for each channel,
 * found together with what share of each cell is open, by turns: the colours of the stack are known.
 */
import { luminance, mix, type Rgb } from "../film/colour";
import type { PlateRead } from "../../records/ids";
import { phi } from "../film/reveal";
import { leastSquares } from "./linear";

export interface PhotoPixels {
  w: number;
  h: number;
  /** RGBA, 8 bit, sRGB */
  data: Uint8Array | Uint8ClampedArray;
}
export type Point = readonly [number, number];
/** Cells of a plate, mm from its own corner. */
export interface PlateGrid {
  rows: number;
  cols: number;
  /** left and upper edge of the first cell */
  x0: number;
  y0: number;
  cellMm: number;
  gapMm: number;
}
/** What lies in the stack, linear light: the dark top, what it is to show, what lies beneath that (null: nothing else). */
export interface StackColours {
  top: Rgb;
  under: Rgb;
  below: Rgb | null;
}
export interface PhotoCell {
  row: number;
  col: number;
  /** share of the top that is gone, of what lies beneath it that is gone */
  open: number;
  eaten: number;
  top: PlateRead;
  under: PlateRead | null;
  /** too near to another reading, or of no colour of this stack: to be looked at by eye */
  unsure: boolean;
}

/** Plate to picture: eight numbers of a homography. @returns null: the marks lie on one line, or are fewer than four */
export function homography(plate: readonly Point[], photo: readonly Point[]): ((p: Point) => Point) | null {
  if (plate.length < 4 || plate.length !== photo.length) return null;
  // numbers near to one, so that the sums are
  const k = 1 / Math.max(...plate.flat().map(Math.abs), 1);
  const rows: number[][] = [];
  const right: number[] = [];
  plate.forEach(([px, py], i) => {
    const [x, y, [u, v]] = [px * k, py * k, photo[i]];
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y], [0, 0, 0, x, y, 1, -v * x, -v * y]);
    right.push(u, v);
  });
  const h = leastSquares(rows, right);
  if (!h || h.some((v) => !Number.isFinite(v))) return null;
  return ([px, py]) => {
    const [x, y] = [px * k, py * k];
    const d = h[6] * x + h[7] * y + 1;
    return [(h[0] * x + h[1] * y + h[2]) / d, (h[3] * x + h[4] * y + h[5]) / d];
  };
}

/** The corners of the cells of a plate, mm: left above, right above, right below, left below. */
export function cornersOf(g: PlateGrid): Point[] {
  const side = (n: number): number => n * g.cellMm + (n - 1) * g.gapMm;
  const [x1, y1] = [g.x0 + side(g.cols), g.y0 + side(g.rows)];
  return [
    [g.x0, g.y0],
    [x1, g.y0],
    [x1, y1],
    [g.x0, y1],
  ];
}
export const cellAt = (g: PlateGrid, row: number, col: number): Point => [
  g.x0 + col * (g.cellMm + g.gapMm),
  g.y0 + row * (g.cellMm + g.gapMm),
];

/** samples along a side of a cell, and the part of the cell that they come from */
const SAMPLES = 14;
const INNER = 0.56;
const mean = (list: readonly Rgb[]): [number, number, number] => {
  const sum: [number, number, number] = [0, 0, 0];
  for (const c of list) for (let i = 0; i < 3; i++) sum[i] += c[i] / list.length;
  return sum;
};
const sampler =
  (p: PhotoPixels, light: ArrayLike<number>) =>
  ([u, v]: Point): Rgb | null => {
    const [x, y] = [Math.floor(u), Math.floor(v)];
    if (!(x >= 0 && y >= 0 && x < p.w && y < p.h)) return null;
    const at = 4 * (y * p.w + x);
    return [light[p.data[at]], light[p.data[at + 1]], light[p.data[at + 2]]];
  };

/** A patch of the plate, mm: its mean colour in linear light; null: it lies beyond the picture. */
function patch(
  look: (p: Point) => Rgb | null,
  to: (p: Point) => Point,
  x: number,
  y: number,
  w: number,
  h: number,
): Rgb | null {
  const all: Rgb[] = [];
  for (let j = 0; j < SAMPLES; j++)
    for (let i = 0; i < SAMPLES; i++) {
      const c = look(to([x + (w * (i + 0.5)) / SAMPLES, y + (h * (j + 0.5)) / SAMPLES]));
      if (c) all.push(c);
    }
  return all.length > (SAMPLES * SAMPLES) / 2 ? mean(all) : null;
}

export interface Patches {
  cells: { row: number; col: number; at: Point; seen: Rgb }[];
  /** what was not burnt, between the cells */
  gaps: { at: Point; seen: Rgb }[];
}
/**
 * The colours of cells and of the gaps between them.
 * @param marks where the corners of the cells lie in the picture, px, as {@link cornersOf} gives them
 * @param light linear light of each of the 256 steps of a channel
 * @throws RangeError in a sentence
 */
export function patchesOf(p: PhotoPixels, g: PlateGrid, marks: readonly Point[], light: ArrayLike<number>): Patches {
  const to = homography(cornersOf(g), marks);
  if (!to) throw new RangeError("The four corners lie on one line: pull them to the corners of the cells.");
  const look = sampler(p, light);
  const cells: Patches["cells"] = [];
  const gaps: Patches["gaps"] = [];
  const off = (g.cellMm * (1 - INNER)) / 2;
  const thin = 0.4 * g.gapMm;
  for (let row = 0; row < g.rows; row++)
    for (let col = 0; col < g.cols; col++) {
      const [x, y] = cellAt(g, row, col);
      const at: Point = [x + g.cellMm / 2, y + g.cellMm / 2];
      const seen = patch(look, to, x + off, y + off, g.cellMm * INNER, g.cellMm * INNER);
      if (!seen) throw new RangeError(`The cell in row ${row + 1}, column ${col + 1} lies beyond the picture.`);
      cells.push({ row, col, at, seen });
      if (g.gapMm <= 0 || col + 1 >= g.cols) continue;
      // the middle of the gap: blur carries the cells into its edges
      const gx = x + g.cellMm + (g.gapMm - thin) / 2;
      const gap = patch(look, to, gx, y + off, thin, g.cellMm * INNER);
      if (gap) gaps.push({ at: [gx + thin / 2, y + g.cellMm / 2], seen: gap });
    }
  return { cells, gaps };
}

const add = (a: Rgb, b: Rgb, k: number): [number, number, number] => [
  a[0] + k * b[0],
  a[1] + k * b[1],
  a[2] + k * b[2],
];
const less = (a: Rgb, b: Rgb): [number, number, number] => add(a, b, -1);
const dot = (a: Rgb, b: Rgb): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Shares of the top and of what lies beneath it that are gone. */
export interface Gone {
  open: number;
  eaten: number;
}
/** What shows where so much of each is gone. */
export const showing = (s: StackColours, g: Gone): Rgb => {
  const film = mix(s.top, s.under, g.open);
  // where that is gone too, the top was gone first
  return s.below ? add(film, less(s.below, s.under), Math.min(g.open, g.eaten)) : film;
};
const clamp = (v: number): number => Math.min(1, Math.max(0, v));
/** Where a colour lies between those of a stack: parts of under and below that go best, none of them below nothing. */
function goneIn(s: StackColours, c: Rgb): Gone {
  const [x, u] = [less(c, s.top), less(s.under, s.top)];
  const alone = clamp(dot(x, u) / Math.max(1e-9, dot(u, u)));
  if (!s.below) return { open: alone, eaten: 0 };
  const w = less(s.below, s.top);
  const [uu, uw, ww, xu, xw] = [dot(u, u), dot(u, w), dot(w, w), dot(x, u), dot(x, w)];
  const d = uu * ww - uw * uw;
  const [a, b] = d > 1e-9 ? [(xu * ww - xw * uw) / d, (xw * uu - xu * uw) / d] : [alone, 0];
  if (a < 0 || b < 0 || a + b > 1) {
    // beyond what the three can show: the nearer of the two ways along them
    const leg = less(s.below, s.under);
    const eaten = clamp(dot(less(c, s.under), leg) / Math.max(1e-9, dot(leg, leg)));
    const [one, two]: Gone[] = [
      { open: alone, eaten: 0 },
      { open: 1, eaten },
    ];
    return apartOf(c, showing(s, one)) <= apartOf(c, showing(s, two)) ? one : two;
  }
  return { open: a + b, eaten: b };
}

/** Light that falls on a plate: its colour, and how much of it by place, a plane. */
interface Light {
  colour: Rgb;
  falls: readonly number[];
}
const lightAt = ({ colour, falls }: Light, [x, y]: Point): Rgb => {
  const level = Math.max(1e-3, falls[0] + falls[1] * x + falls[2] * y);
  return [colour[0] * level, colour[1] * level, colour[2] * level];
};
const ROUNDS = 40;
/** rounds from each guess, of which the best go on */
const FIRST_ROUNDS = 5;
const FINALISTS = 3;
/** by how much the two energies may lie otherwise than guessed */
const APART = [0.65, 1, 1.5];
/** no nearer than that in a round: it goes no further */
const STILL = 2e-5;
/** energies by which the first guess of what is open may be off */
const SCALES = [0.55, 0.7, 0.85, 1, 1.2, 1.45, 1.8];

/** How a layer opens with energy: share Φ((ln E − ln C)/s), as the films have it (M4). */
interface Curve {
  c: number;
  s: number;
}
const shareAt = (k: Curve, e: number): number => phi((Math.log(e) - k.c) / k.s);
const SPREADS = [0.04, 0.07, 0.1, 0.14, 0.19, 0.26];
const STEPS = 40;
const FINER = 4;
/** The curve that goes best through shares, by trying. */
function curveThrough(e: readonly number[], shares: readonly number[]): Curve {
  const le = e.map(Math.log);
  const [from, to] = [Math.min(...le) - 0.6, Math.max(...le) + 0.6];
  let best: Curve = { c: to, s: SPREADS[0] };
  let least = Infinity;
  const tried = (c: number, s: number): void => {
    let sum = 0;
    for (let k = 0; k < le.length && sum < least; k++) sum += (phi((le[k] - c) / s) - shares[k]) ** 2;
    if (sum < least) [least, best] = [sum, { c, s }];
  };
  let step = (to - from) / STEPS;
  for (let i = 0; i <= STEPS; i++) for (const s of SPREADS) tried(from + step * i, s);
  // and nearer, each time by a third
  let wide = 1.25;
  for (let n = 0; n < FINER; n++) {
    const at = best;
    for (let i = -3; i <= 3; i++) for (let j = -2; j <= 2; j++) tried(at.c + (step * i) / 3, at.s * wide ** (j / 2));
    step /= 3;
    wide = Math.sqrt(wide);
  }
  return best;
}

/** turns in which the colour of the light and how it falls are found by one another */
const TURNS = 3;
/** The light that goes best with what is shown: one colour, falling as a plane does. */
function lightOf(seen: readonly { at: Point; seen: Rgb }[], shown: readonly Rgb[]): Light | null {
  const places = seen.flatMap((p) => [0, 1, 2].map(() => p.at));
  const got = seen.flatMap((p) => p.seen);
  let falls = [1, 0, 0];
  let colour: Rgb = [1, 1, 1];
  for (let n = 0; n < TURNS; n++) {
    const level = ([x, y]: Point): number => falls[0] + falls[1] * x + falls[2] * y;
    const parts = [0, 1, 2].map((c) => {
      let [up, down] = [0, 1e-9];
      seen.forEach((p, i) => {
        const is = shown[i][c] * level(p.at);
        up += is * p.seen[c];
        down += is * is;
      });
      return Math.max(1e-4, up / down);
    });
    colour = parts as unknown as Rgb;
    const is = shown.flatMap((s) => [0, 1, 2].map((c) => s[c] * colour[c]));
    const next = leastSquares(
      is.map((v, i) => [v, v * places[i][0], v * places[i][1]]),
      got,
    );
    if (!next) return null;
    falls = next;
  }
  return { colour, falls };
}

/** Below so much open a top counts as whole, above so much as gone: where the model has its edges. */
const EDGE = 0.025;
/** so far off on the whole no cell is sure */
const POOR = 0.03;
/** unsure: so much about an edge, and colours so far from the stack’s */
const NEAR_EDGE = 0.02;
const STRANGE = 0.12;
const readOf = (share: number): PlateRead => (share < EDGE ? "whole" : share > 1 - EDGE ? "gone" : "partly");
const nearEdge = (share: number): boolean =>
  Math.abs(share - EDGE) < NEAR_EDGE / 2 || Math.abs(share - (1 - EDGE)) < NEAR_EDGE;

/**
 * What each cell of a plate shows.
 * @param guess shares that are gone by energy, as far as one knows: where the search begins; @param e energies, by cell
 * @returns null: the picture does not go with these colours
 */
export function readPatches(
  p: Patches,
  stack: StackColours,
  guess: (e: number) => Gone,
  e: (row: number, col: number) => number,
): { cells: PhotoCell[]; off: number } | null {
  const known = p.gaps.map(() => stack.top);
  const energies = p.cells.map((c) => e(c.row, c.col));
  /** Rounds from one guess on: what is open all over pins how bright the light is, so shares go by their energies meanwhile. */
  const search = (begin: readonly Gone[], rounds: number): { model: Gone[]; light: Light; off: number } | null => {
    let model = [...begin];
    let light: Light | null = null;
    let off = Infinity;
    for (let r = 0; r < rounds; r++) {
      const next = lightOf([...p.cells, ...p.gaps], [...model.map((g) => showing(stack, g)), ...known]);
      if (!next) break;
      light = next;
      const shown = p.cells.map((c) => shownBy(c, next));
      const gone = shown.map((c) => goneIn(stack, c));
      const curve = (of: (g: Gone) => number): Curve => curveThrough(energies, gone.map(of));
      const open = curve((g) => g.open);
      const eaten = stack.below ? curve((g) => g.eaten) : null;
      model = energies.map((x) => {
        const o = shareAt(open, x);
        return { open: o, eaten: eaten ? Math.min(o, shareAt(eaten, x)) : 0 };
      });
      const was = off;
      const cells = Math.sqrt(
        shown.reduce((sum, c, i) => sum + apartOf(c, showing(stack, model[i])) ** 2, 0) / shown.length,
      );
      // light of nothing explains all of it: what is whole must show what is known to be whole
      const dark = p.gaps.reduce((sum, x) => sum + apartOf(shownBy(x, next), stack.top), 0) / (p.gaps.length || 1);
      off = cells + dark;
      if (Math.abs(was - off) < STILL) break;
    }
    return light && { model, light, off };
  };
  const begins = SCALES.flatMap((k) =>
    (stack.below ? APART : [1]).map((j) =>
      energies.map((x): Gone => {
        const { open } = guess(x * k);
        return { open, eaten: Math.min(open, guess(x * k * j).eaten) };
      }),
    ),
  );
  const best = begins
    .flatMap((g) => search(g, FIRST_ROUNDS) ?? [])
    .sort((x, y) => x.off - y.off)
    .slice(0, FINALISTS)
    .flatMap((x) => search(x.model, ROUNDS) ?? [])
    .reduce<{ light: Light; off: number } | null>((x, y) => (!x || y.off < x.off ? y : x), null);
  if (!best) return null;
  const { light, off } = best;
  const cells = p.cells.map((c): PhotoCell => {
    const shown = shownBy(c, light);
    const { open, eaten } = goneIn(stack, shown);
    const under = stack.below ? readOf(eaten) : null;
    return {
      row: c.row,
      col: c.col,
      open,
      eaten,
      top: readOf(open),
      under,
      unsure:
        off > POOR ||
        apartOf(shown, showing(stack, { open, eaten })) > STRANGE ||
        nearEdge(open) ||
        (stack.below !== null && nearEdge(eaten)),
    };
  });
  return { cells, off };
}
const shownBy = (c: { at: Point; seen: Rgb }, light: Light): Rgb => {
  const l = lightAt(light, c.at);
  return [c.seen[0] / l[0], c.seen[1] / l[1], c.seen[2] / l[2]];
};
const apartOf = (a: Rgb, b: Rgb): number => {
  const d = less(a, b);
  return Math.sqrt(dot(d, d));
};

/** How dark each mark is against the bare body beside it, 0 to 10: of the darkest, 10. */
export function marksOf(p: Patches): { row: number; col: number; mark: number }[] {
  const bare = leastSquares(
    p.gaps.map((g) => [1, g.at[0], g.at[1]]),
    p.gaps.map((g) => luminance(g.seen)),
  );
  const deep = p.cells.map((c) => {
    const l = bare
      ? bare[0] + bare[1] * c.at[0] + bare[2] * c.at[1]
      : Math.max(...p.cells.map((x) => luminance(x.seen)));
    return Math.max(0, 1 - luminance(c.seen) / Math.max(1e-4, l));
  });
  const most = Math.max(...deep, 1e-6);
  return p.cells.map((c, i) => ({ row: c.row, col: c.col, mark: Math.round((100 * deep[i]) / most) / 10 }));
}
