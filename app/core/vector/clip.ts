/**
 * Polygon regions as plain rings of [x, y] in mm, and the set operations on them. The arithmetic is Clipper2's (compiled
 * to WebAssembly); this file is the only one that touches its objects, each of which must be deleted by hand.
 */
import type { MainModule, PathsD } from "clipper2-wasm/dist/clipper2z";

export type Point = [number, number];
export type Ring = Point[];
/** A region: outer rings positive, holes negative, as the kernel returns them. */
export type Region = Ring[];
export type FillRule = "nonzero" | "evenodd";

export interface Clip {
  /** the region that rings fill under a rule */
  fill(rings: Ring[], rule: FillRule): Region;
  union(a: Region, b: Region): Region;
  subtract(a: Region, b: Region): Region;
  intersect(a: Region, b: Region): Region;
  /** grow (d > 0) or shrink by a disc of radius |d| mm */
  grow(a: Region, d: number): Region;
  simplify(a: Region, epsilon: number): Region;
}

/** digits behind the point that the kernel keeps: 1e-5 mm */
const PRECISION = 5;
const ARC_TOLERANCE = 0.002;

/** Wrap a loaded kernel. */
export function clipOver(m: MainModule): Clip {
  const load = (rings: Ring[]): PathsD => {
    const all = new m.PathsD();
    const one = new m.PathD();
    for (const ring of rings) {
      if (ring.length < 3) continue;
      const flat = new Float64Array(ring.length * 3);
      ring.forEach(([x, y], i) => {
        flat[i * 3] = x;
        flat[i * 3 + 1] = y;
      });
      one.clear();
      one.assign(flat);
      all.push_back(one);
    }
    one.delete();
    return all;
  };
  const unload = (paths: PathsD): Region => {
    const out: Region = [];
    for (let i = 0; i < paths.size(); i++) {
      const p = paths.get(i);
      const v = p.view();
      const ring: Ring = [];
      for (let k = 0; k < v.length; k += 3) ring.push([v[k], v[k + 1]]);
      p.delete();
      out.push(ring);
    }
    paths.delete();
    return out;
  };
  const two =
    (op: (x: PathsD, y: PathsD) => PathsD) =>
    (a: Region, b: Region): Region => {
      const x = load(a);
      const y = load(b);
      const r = unload(op(x, y));
      x.delete();
      y.delete();
      return r;
    };
  const one = (a: Region, op: (x: PathsD) => PathsD): Region => {
    const x = load(a);
    const r = unload(op(x));
    x.delete();
    return r;
  };
  const rule = { nonzero: m.FillRule.NonZero, evenodd: m.FillRule.EvenOdd };
  return {
    fill: (rings, r) => one(rings, (x) => m.UnionSelfD(x, rule[r], PRECISION)),
    union: two((x, y) => m.UnionD(x, y, m.FillRule.NonZero, PRECISION)),
    subtract: two((x, y) => m.DifferenceD(x, y, m.FillRule.NonZero, PRECISION)),
    intersect: two((x, y) => m.IntersectD(x, y, m.FillRule.NonZero, PRECISION)),
    grow: (a, d) =>
      one(a, (x) => m.InflatePathsD(x, d, m.JoinType.Round, m.EndType.Polygon, 2, PRECISION, ARC_TOLERANCE)),
    simplify: (a, eps) => one(a, (x) => m.SimplifyPathsD(x, eps, true)),
  };
}

/** Signed area of a ring, mm² (shoelace). */
export function ringArea(ring: Ring): number {
  let s = 0;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++)
    s += (ring[j][0] - ring[i][0]) * (ring[j][1] + ring[i][1]);
  return s / 2;
}
export const area = (r: Region): number => Math.abs(r.reduce((s, ring) => s + ringArea(ring), 0));
export const perimeter = (r: Region): number =>
  r.reduce(
    (s, ring) =>
      s +
      ring.reduce(
        (t, p, i) => t + Math.hypot(p[0] - ring[(i + 1) % ring.length][0], p[1] - ring[(i + 1) % ring.length][1]),
        0,
      ),
    0,
  );
export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}
const boxes = new WeakMap<Ring, Box>();
/** The box round a ring, remembered: rings are never changed. */
export function ringBox(ring: Ring): Box {
  const known = boxes.get(ring);
  if (known) return known;
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of ring) {
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
  }
  const box = { x0, y0, x1, y1 };
  boxes.set(ring, box);
  return box;
}
/** The box round a region; null: there is nothing. */
export const bounds = (r: Region): Box | null => {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const ring of r) {
    const b = ringBox(ring);
    [x0, y0, x1, y1] = [Math.min(x0, b.x0), Math.min(y0, b.y0), Math.max(x1, b.x1), Math.max(y1, b.y1)];
  }
  return x1 >= x0 ? { x0, y0, x1, y1 } : null;
};

/** Is a point inside a ring (even-odd)? */
function inside([x, y]: Point, ring: Ring): boolean {
  let hit = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [xi, yi] = ring[i];
    const [xj, yj] = ring[j];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) hit = !hit;
  }
  return hit;
}

/** Split a region into its separate pieces, each an outer ring with the holes that lie directly in it. */
export function pieces(r: Region): Region[] {
  const sign =
    Math.sign(r.reduce((most, ring) => (Math.abs(ringArea(ring)) > Math.abs(most) ? ringArea(ring) : most), 0)) || 1;
  const outers = r
    .filter((ring) => ringArea(ring) * sign > 0)
    .map((ring) => ({ ring, size: Math.abs(ringArea(ring)), parts: [ring] as Region }));
  outers.sort((a, b) => a.size - b.size);
  for (const hole of r) {
    if (ringArea(hole) * sign >= 0) continue;
    // A vertex of a hole may touch its outer ring: an edge's middle serves better as the witness.
    const mid: Point = [(hole[0][0] + hole[1][0]) / 2, (hole[0][1] + hole[1][1]) / 2];
    const size = Math.abs(ringArea(hole));
    const holds = (o: { ring: Ring }): boolean => {
      const b = ringBox(o.ring);
      return mid[0] >= b.x0 && mid[0] <= b.x1 && mid[1] >= b.y0 && mid[1] <= b.y1 && inside(mid, o.ring);
    };
    outers.find((o) => o.size > size && holds(o))?.parts.push(hole);
  }
  return outers.map((o) => o.parts);
}
