/** How far apart two zones lie: the least distance between their outlines, by a spatial index of segments. mm. */
import Flatbush from "flatbush";
import { ringsOf, type Point, type Ring } from "./outline";

interface Segments {
  index: Flatbush;
  ends: [Point, Point][];
  corners: Point[];
}

function segments(rings: Ring[]): Segments | null {
  const ends = rings.flatMap((r) => r.map((p, i): [Point, Point] => [p, r[(i + 1) % r.length]]));
  if (!ends.length) return null;
  const index = new Flatbush(ends.length);
  for (const [[ax, ay], [bx, by]] of ends)
    index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  index.finish();
  return { index, ends, corners: rings.flat() };
}

/** How far a point is from a segment. */
export function toSegment([px, py]: Point, [[ax, ay], [bx, by]]: [Point, Point]): number {
  const [dx, dy] = [bx - ax, by - ay];
  const l = dx * dx + dy * dy;
  const t = l > 0 ? Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / l)) : 0;
  return Math.hypot(px - ax - t * dx, py - ay - t * dy);
}

/** Least distance from the corners of one to the segments of the other that is below `than`. */
function nearer(from: Point[], to: Segments, than: number): number {
  const { index, ends } = to;
  let least = than;
  const take = (p: Point, i: number): void => {
    least = Math.min(least, toSegment(p, ends[i]));
  };
  for (const p of from) {
    const [x, y] = p;
    if (Math.hypot(Math.max(0, index.minX - x, x - index.maxX), Math.max(0, index.minY - y, y - index.maxY)) >= least)
      continue;
    // The nearest box bounds how far the others that matter can be.
    for (const i of index.neighbors(x, y, 1, least)) take(p, i);
    for (const i of index.neighbors(x, y, Infinity, least)) take(p, i);
  }
  return least;
}

/** By the outlines themselves: a job read anew has new zones, but the same outlines. */
const kept = new Map<string, Map<string, number | null>>();
const KEPT = 200;

/** Least distance between two outlines, mm, 0 where they meet; null: one of them is not known. */
export function gapBetween(a: { outline: string }, b: { outline: string }): number | null {
  if (!a.outline || !b.outline) return null;
  if (kept.size > KEPT) kept.clear();
  const known = kept.get(a.outline) ?? kept.set(a.outline, new Map()).get(a.outline)!;
  const found = known.get(b.outline);
  if (found !== undefined) return found;
  const [sa, sb] = [segments(ringsOf(a.outline)), segments(ringsOf(b.outline))];
  const gap = sa && sb ? nearer(sb.corners, sa, nearer(sa.corners, sb, Infinity)) : null;
  known.set(b.outline, gap);
  return gap;
}
