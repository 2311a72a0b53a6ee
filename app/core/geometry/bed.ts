/**
 * Pieces on the bed: where each lies, whether a start leaves the bed, how square they lie by two readings, the nest that brings them back.
 * mm, from the bed’s upper left corner, y down.
 */
import type { Substrate } from "../records/job";
import type { Clip, Region } from "../vector/clip";
import { ellipse } from "../vector/outline";
import { blankOf } from "./blank";
import { rotationHidden } from "./registration";
import type { Point, Ring } from "./outline";

/** mm between pieces for clamps and fingers */
export const BED_GAP_MM = 5;
/** mm of air all round a blank in its nest */
export const NEST_CLEAR_MM = 0.1;
/** mm of the round that is cut out of a nest’s corners, so that a square corner seats */
const CORNER_MM = 1;
/** widest notch for a finger, mm, and as a share of the side it lies on */
const FINGER_MM = 18;
const FINGER_SHARE = 1 / 3;
/** how long the arms of a registration mark are, mm */
const MARK_MM = 6;
const FLAT_MM = 0.004;

export interface Place {
  piece: number;
  x: number;
  y: number;
}
export interface BedLayout {
  /** each piece turned by a quarter */
  turned: boolean;
  across: number;
  down: number;
  perLoad: number;
  loads: Place[][];
}

/**
 * Rows of pieces from the corner on, as many loads as it takes: as {@link bedLoads} counts them.
 * @returns null: not one lies on the bed
 */
export function bedLayout(
  n: number,
  { w, h }: Pick<Substrate, "w" | "h">,
  bed: { w: number; h: number },
  gap = BED_GAP_MM,
): BedLayout | null {
  const fit = (pw: number, ph: number): [number, number] => [
    Math.max(0, Math.floor((bed.w + gap) / (pw + gap) + 1e-9)),
    Math.max(0, Math.floor((bed.h + gap) / (ph + gap) + 1e-9)),
  ];
  const [plain, quarter] = [fit(w, h), fit(h, w)];
  const turned = quarter[0] * quarter[1] > plain[0] * plain[1];
  const [across, down] = turned ? quarter : plain;
  const perLoad = across * down;
  if (!perLoad) return null;
  const [pw, ph] = turned ? [h, w] : [w, h];
  // what is left over stands round them, so that a cut keeps off the edge
  const edge = (all: number, k: number, size: number): number => Math.min(gap, (all - k * size - (k - 1) * gap) / 2);
  const [x0, y0] = [edge(bed.w, across, pw), edge(bed.h, down, ph)];
  const loads: Place[][] = [];
  for (let i = 0; i < n; i++) {
    const k = i % perLoad;
    if (k === 0) loads.push([]);
    loads[loads.length - 1].push({
      piece: i + 1,
      x: x0 + (k % across) * (pw + gap),
      y: y0 + Math.floor(k / across) * (ph + gap),
    });
  }
  return { turned, across, down, perLoad, loads };
}

/** Pockets in rows, mm from the bed’s upper left corner. */
export interface PocketRows {
  across: number;
  down: number;
  w: number;
  h: number;
  gap: number;
  x: number;
  y: number;
}
/** Where a pocket’s upper left corner lies. @param n counted by rows from 1 */
export const pocketAt = (j: PocketRows, n: number): Point => [
  j.x + ((n - 1) % j.across) * (j.w + j.gap),
  j.y + Math.floor((n - 1) / j.across) * (j.h + j.gap),
];
/** How a piece lies in a pocket: as it is, or turned by a quarter; null: it is larger. */
export function inPocket({ w, h }: Pick<Substrate, "w" | "h">, j: PocketRows): { turned: boolean } | null {
  const fits = (a: number, b: number): boolean => a <= j.w + 1e-9 && b <= j.h + 1e-9;
  return fits(w, h) ? { turned: false } : fits(h, w) ? { turned: true } : null;
}
/** mm that a piece can be shifted in its pocket, the greater of both ways. */
export function looseIn({ w, h }: Pick<Substrate, "w" | "h">, j: PocketRows): number {
  const at = inPocket({ w, h }, j);
  return at === null ? 0 : Math.max(j.w - (at.turned ? h : w), j.h - (at.turned ? w : h));
}
/** Does the jig lie on the bed with all of its pockets? */
export function jigOnBed(j: PocketRows, bed: { w: number; h: number }): boolean {
  const [x, y] = pocketAt(j, j.across * j.down);
  return x + j.w <= bed.w + 1e-9 && y + j.h <= bed.h + 1e-9;
}
/** The pockets that are filled, in order. @param empty those left out */
export const filledPockets = (j: PocketRows, empty: readonly number[]): number[] =>
  Array.from({ length: j.across * j.down }, (_v, i) => i + 1).filter((n) => !empty.includes(n));

/**
 * Pieces in a jig’s pockets, each pushed into the pocket’s upper left corner, as many loads as it takes.
 * @param empty pockets left empty
 * @returns null: a piece is larger than a pocket, the jig reaches over the bed, or no pocket is left
 */
export function pocketLayout(
  n: number,
  piece: Pick<Substrate, "w" | "h">,
  j: PocketRows,
  empty: readonly number[],
  bed: { w: number; h: number },
): BedLayout | null {
  const at = inPocket(piece, j);
  const filled = filledPockets(j, empty);
  if (!at || !filled.length || !jigOnBed(j, bed)) return null;
  const loads: Place[][] = [];
  for (let i = 0; i < n; i++) {
    const k = i % filled.length;
    if (k === 0) loads.push([]);
    const [x, y] = pocketAt(j, filled[k]);
    loads[loads.length - 1].push({ piece: i + 1, x, y });
  }
  return { ...at, across: j.across, down: j.down, perLoad: filled.length, loads };
}

/** A ring of a piece as it lies at its place; turned, its left edge comes to lie above. */
export const laidAt = (r: Ring, at: Point, turned: boolean, h: number): Ring =>
  r.map(([x, y]): Point => (turned ? [at[0] + h - y, at[1] + x] : [at[0] + x, at[1] + y]));

/** Where a start that stands by the head lies of what is burnt. */
export type Anchor = "corner" | "middle";
export interface Clear {
  /** mm that it reaches over each edge of the bed; 0: it does not */
  over: { left: number; top: number; right: number; bottom: number };
  clear: boolean;
  /** mm by which the start has to be moved, right and down, to lie on the bed; null: it is larger than the bed */
  move: Point | null;
}
/**
 * Does what is burnt from where the head stands leave the bed (B21)?
 * @param run mm that rows run past each end on both sides
 */
export function clearOfBed(
  art: { w: number; h: number },
  start: Point,
  anchor: Anchor,
  run: number,
  bed: { w: number; h: number },
): Clear {
  const [x0, y0] = anchor === "corner" ? start : [start[0] - art.w / 2, start[1] - art.h / 2];
  const [left, top] = [Math.max(0, run - x0), Math.max(0, -y0)];
  const [right, bottom] = [Math.max(0, x0 + art.w + run - bed.w), Math.max(0, y0 + art.h - bed.h)];
  const clear = !left && !top && !right && !bottom;
  const fits = art.w + 2 * run <= bed.w + 1e-9 && art.h <= bed.h + 1e-9;
  return {
    over: { left, top, right, bottom },
    clear,
    move: clear ? [0, 0] : fits ? [left - right, top - bottom] : null,
  };
}

export interface Square {
  /** ° by which the edge is turned from the axis, clockwise as it is looked at */
  degrees: number;
  /** mm that the far end has to be pushed, up or to the left where it is above 0 */
  pushMm: number;
  /** the picture’s overrun hides it as it is */
  hidden: boolean;
}
/**
 * How square a piece lies, by two readings of the head along the edge that should run with the x axis (B22).
 * @param overrun mm that the picture runs over the piece
 */
export function squareness(a: Point, b: Point, piece: { w: number; h: number }, overrun: number): Square | null {
  const [dx, dy] = a[0] <= b[0] ? [b[0] - a[0], b[1] - a[1]] : [a[0] - b[0], a[1] - b[1]];
  if (!(dx > 0)) return null;
  const angle = Math.atan2(dy, dx);
  const degrees = (angle * 180) / Math.PI;
  return {
    degrees,
    pushMm: Math.sin(angle) * piece.w,
    hidden: Math.abs(degrees) <= rotationHidden(piece.w, piece.h, overrun) + 1e-9,
  };
}

const disc = ([x, y]: Point, r: number): Region => [ellipse(x, y, r, r, FLAT_MM)];

/**
 * The opening of a nest for one piece: its outline with air round it, corners that seat, a notch for a finger. Holes are left standing.
 * @param clearMm air all round
 */
export function nestOf(s: Pick<Substrate, "w" | "h" | "blank">, clip: Clip, clearMm = NEST_CLEAR_MM): Region {
  const { rings } = blankOf({ ...s, holes: undefined } as Substrate);
  let open = clip.grow(clip.fill(rings, "evenodd"), clearMm);
  if (!s.blank)
    for (const p of [
      [0, 0],
      [s.w, 0],
      [0, s.h],
      [s.w, s.h],
    ] as Point[])
      open = clip.union(open, disc(p, CORNER_MM));
  const finger = Math.min(FINGER_MM, s.h * FINGER_SHARE);
  return clip.union(open, disc([s.w, s.h / 2], finger / 2));
}

/** Two crosses by which a bed with its nest is found again, at corners that lie across from each other. */
export function marks(bed: { w: number; h: number }): [Point, Point][] {
  const cross = ([x, y]: Point): [Point, Point][] => [
    [
      [x - MARK_MM / 2, y],
      [x + MARK_MM / 2, y],
    ],
    [
      [x, y - MARK_MM / 2],
      [x, y + MARK_MM / 2],
    ],
  ];
  const m = MARK_MM / 2 + 1;
  return [...cross([m, m]), ...cross([bed.w - m, bed.h - m])];
}
