/**
 * Polygon regions as plain rings of [x, y] in mm, and the set operations on them. The arithmetic is Clipper2's (compiled
 * to WebAssembly); this file is the only one that touches its objects, each of which must be deleted by hand.
 */
import Flatbush from "flatbush";
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
const GRID = 10 ** PRECISION;
/** A ring as the kernel would give it back, corner by corner. */
export const onGrid = (ring: Ring): Ring =>
  ring.map(([x, y]): Point => [Math.round(x * GRID) / GRID, Math.round(y * GRID) / GRID]);
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

/** edges of a ring that a point is tried against in one stretch of its height */
const BAND_EDGES = 8;
const MOST_BANDS = 4096;

/** Asks whether points lie inside a ring (even-odd): its edges are sorted into bands by height, for rings that are asked often. */
function insideOf(ring: Ring): (p: Point) => boolean {
  const { y0, y1 } = ringBox(ring);
  const bands = Math.max(1, Math.min(MOST_BANDS, Math.floor(ring.length / BAND_EDGES)));
  const band = (y: number): number => Math.max(0, Math.min(bands - 1, Math.floor(((y - y0) / (y1 - y0)) * bands)));
  const edges: number[][] = Array.from({ length: bands }, () => []);
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [a, b] = [band(ring[i][1]), band(ring[j][1])];
    for (let k = Math.min(a, b); k <= Math.max(a, b); k++) edges[k].push(i);
  }
  return ([x, y]) => {
    let hit = false;
    for (const i of edges[band(y)]) {
      const [[xi, yi], [xj, yj]] = [ring[i], ring[i > 0 ? i - 1 : ring.length - 1]];
      if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) hit = !hit;
    }
    return hit;
  };
}

/** so few boxes are looked at one by one */
const FEW = 8;
/** Which of some boxes meet another, by number: by an index where there are many. */
export function finder(list: Box[]): (box: Box) => number[] {
  if (list.length <= FEW)
    return (b) => list.flatMap((a, i) => (a.x0 <= b.x1 && b.x0 <= a.x1 && a.y0 <= b.y1 && b.y0 <= a.y1 ? [i] : []));
  const index = new Flatbush(list.length);
  for (const { x0, y0, x1, y1 } of list) index.add(x0, y0, x1, y1);
  index.finish();
  return ({ x0, y0, x1, y1 }) => index.search(x0, y0, x1, y1);
}

/** Split a region into its separate pieces, each an outer ring with the holes that lie directly in it. The smallest come first. */
export function pieces(r: Region): Region[] {
  const sized = r.map((ring) => ({ ring, area: ringArea(ring) }));
  const sign = Math.sign(sized.reduce((most, x) => (Math.abs(x.area) > Math.abs(most) ? x.area : most), 0)) || 1;
  const outers = sized
    .filter((x) => x.area * sign > 0)
    .map(({ ring, area: size }) => ({ box: ringBox(ring), size: Math.abs(size), parts: [ring] as Region }));
  outers.sort((a, b) => a.size - b.size);
  const asks = new Map<number, (p: Point) => boolean>();
  const inside = (p: Point, k: number): boolean => {
    const ask = asks.get(k) ?? insideOf(outers[k].parts[0]);
    asks.set(k, ask);
    return ask(p);
  };
  const holes = sized.filter((x) => x.area * sign < 0);
  if (!holes.length) return outers.map((o) => o.parts);
  const find = finder(outers.map((o) => o.box));
  for (const { ring, area: size } of holes) {
    // A vertex of a hole may touch its outer ring: an edge's middle serves better as the witness.
    const mid: Point = [(ring[0][0] + ring[1][0]) / 2, (ring[0][1] + ring[1][1]) / 2];
    const round = find({ x0: mid[0], y0: mid[1], x1: mid[0], y1: mid[1] }).sort((a, b) => a - b);
    const k = round.find((o) => outers[o].size > Math.abs(size) && inside(mid, o));
    if (k !== undefined) outers[k].parts.push(ring);
  }
  return outers.map((o) => o.parts);
}
