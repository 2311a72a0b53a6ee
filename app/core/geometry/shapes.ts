/**
 * Arithmetic of outlines where it is looked for: crossing ones joined, cut, or kept where they share; a border round one; a group in the
 * middle. What comes of it is measured like a drawing’s own zones. mm.
 */
import type { Zone } from "../records/job";
import { measure, type Measures } from "../vector/measure";
import { area, bounds, pieces, type Clip, type Region } from "../vector/clip";
import { pathOf, ringsOf, type Point } from "./outline";

export const SHAPE_OPS = ["join", "cut", "share", "grow", "border"] as const;
export type ShapeOp = (typeof SHAPE_OPS)[number];

export interface Shaped extends Measures {
  outline: string;
}
export interface ShapeFound {
  /** null: nothing is left */
  shape: Shaped | null;
  /** mm² of each, of what they share, and of what comes of it */
  a: number;
  b: number;
  shared: number;
}
/** slivers are smaller than this, mm² */
const SLIVER_MM2 = 1e-3;

const regionOf = (outline: string, clip: Clip): Region => clip.fill(ringsOf(outline), "evenodd");
function shaped(r: Region, clip: Clip): Shaped | null {
  const parts = pieces(r).filter((p) => area(p) > SLIVER_MM2);
  if (!parts.length) return null;
  return { ...measure(clip, parts), outline: pathOf(parts.flat()) };
}

/**
 * What comes of two outlines, or of one and a width.
 * @param b the other one; empty where only one is meant @param mm of a border or of growing, below 0 inwards
 */
export function combine(op: ShapeOp, a: string, b: string, mm: number, clip: Clip): ShapeFound {
  const [x, y] = [regionOf(a, clip), b ? regionOf(b, clip) : []];
  const shared = y.length ? area(clip.intersect(x, y)) : 0;
  const ring = (): Region => (mm >= 0 ? clip.subtract(clip.grow(x, mm), x) : clip.subtract(x, clip.grow(x, mm)));
  const made: Record<ShapeOp, () => Region> = {
    join: () => clip.union(x, y),
    cut: () => clip.subtract(x, y),
    share: () => clip.intersect(x, y),
    grow: () => clip.grow(x, mm),
    border: ring,
  };
  return { shape: shaped(made[op](), clip), a: area(x), b: area(y), shared };
}

export interface Grouped {
  /** upright box round all of them, from the corner of the artwork */
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** mm by which they have to be moved so that its middle lies on a point, right and down */
  move: Point;
}
/** Zones as a group, and what brings the middle of the box round them to a point; null: none of them has an outline. */
export function groupMiddle(zones: readonly Pick<Zone, "outline">[], to: Point): Grouped | null {
  const box = bounds(zones.flatMap((z) => (z.outline ? ringsOf(z.outline) : [])));
  return box && { ...box, move: [to[0] - (box.x0 + box.x1) / 2, to[1] - (box.y0 + box.y1) / 2] };
}

/** What goes into a block of lettering: lines of so many em each, with so much between them, as large as the block lets it be. */
export interface Fitted {
  /** mm of an em */
  size: number;
  /** mm of a capital */
  capMm: number;
  /** mm from the foot of one line to that of the next */
  pitchMm: number;
  /** mm that each line is wide; which of them bounds the size; null: the height does */
  widths: number[];
  widest: number | null;
}
/**
 * The largest size at which lines fit a block (A26).
 * @param ems width of each line in em @param capEm height of a capital, em @param spacing foot to foot, em
 * @param most mm of an em at most
 * @throws RangeError where the block has no room at all
 */
export function fitLines(
  ems: readonly number[],
  capEm: number,
  spacing: number,
  w: number,
  h: number,
  most = Infinity,
): Fitted {
  if (!(w > 0 && h > 0)) throw new RangeError("A block has some width and height.");
  const longest = Math.max(...ems);
  const byWidth = longest > 0 ? w / longest : Infinity;
  const byHeight = h / (capEm + (ems.length - 1) * spacing);
  const size = Math.min(byWidth, byHeight, most);
  return {
    size,
    capMm: capEm * size,
    pitchMm: spacing * size,
    widths: ems.map((e) => e * size),
    widest: byWidth < byHeight && byWidth <= most ? ems.indexOf(longest) : null,
  };
}
