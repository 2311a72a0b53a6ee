/** Lines as a head runs them: nothing twice, inner ones before what holds them, little travel between. mm. */
import { insideOf } from "./blank";
import type { Point, Ring } from "./outline";

export interface Path {
  points: Point[];
  closed: boolean;
}

/** two points nearer than this are one, mm */
export const HAIR_MM = 0.01;
/** beyond so many lines travel is only shortened as they are taken up */
const MOST_SWAPPED = 300;
const far = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** A ring without corners nearer than a hair to the one before; null: nothing is left that could be run. */
export function withoutHairs(r: Ring): Ring | null {
  const out: Ring = [];
  for (const p of r) if (!out.length || far(out[out.length - 1], p) >= HAIR_MM) out.push(p);
  while (out.length > 1 && far(out[0], out[out.length - 1]) < HAIR_MM) out.pop();
  return out.length >= 3 ? out : null;
}

const key = ([x, y]: Point): string => `${Math.round(x / HAIR_MM)} ${Math.round(y / HAIR_MM)}`;
/** Rings with every stretch that several share run once: what was run before is left out of later ones, which then lie open. */
export function once(rings: readonly Ring[]): Path[] {
  const run = new Set<string>();
  const out: Path[] = [];
  for (const ring of rings) {
    const fresh = ring.map((p, i) => {
      const [a, b] = [key(p), key(ring[(i + 1) % ring.length])];
      const edge = a < b ? `${a}|${b}` : `${b}|${a}`;
      const first = !run.has(edge);
      run.add(edge);
      return first;
    });
    if (fresh.every(Boolean)) {
      out.push({ points: ring, closed: true });
      continue;
    }
    const from = fresh.findIndex((f, i) => f && !fresh[(i + ring.length - 1) % ring.length]);
    let now: Point[] | null = null;
    for (let k = 0; from >= 0 && k < ring.length; k++) {
      const i = (from + k) % ring.length;
      if (!fresh[i]) {
        now = null;
        continue;
      }
      if (!now) out.push({ points: (now = [ring[i]]), closed: false });
      now.push(ring[(i + 1) % ring.length]);
    }
  }
  return out;
}

/** How many others a closed path lies in. */
const depth = (p: Path, all: readonly Path[]): number =>
  all.filter((o) => o !== p && o.closed && insideOf([o.points], p.points[0])).length;
const end = (p: Path): Point => (p.closed ? p.points[0] : p.points[p.points.length - 1]);
/** A path begun where it lies nearest to a point. */
function begunNear(p: Path, at: Point): Path {
  if (!p.closed) {
    const [a, b] = [p.points[0], p.points[p.points.length - 1]];
    return far(a, at) <= far(b, at) ? p : { ...p, points: [...p.points].reverse() };
  }
  let k = 0;
  p.points.forEach((q, i) => {
    if (far(q, at) < far(p.points[k], at)) k = i;
  });
  return { ...p, points: [...p.points.slice(k), ...p.points.slice(0, k)] };
}

/** mm that a head travels between paths, from a point on. */
export const travelOf = (paths: readonly Path[], from: Point): number =>
  paths.reduce<[number, Point]>(([sum, at], p) => [sum + far(at, p.points[0]), end(p)], [0, from])[0];

function nearestFirst(paths: readonly Path[], from: Point): Path[] {
  const left = [...paths];
  const out: Path[] = [];
  let at = from;
  while (left.length) {
    let [best, gap] = [0, Infinity];
    left.forEach((p, i) => {
      const d = p.closed
        ? Math.min(...p.points.map((q) => far(q, at)))
        : Math.min(far(p.points[0], at), far(end(p), at));
      if (d < gap) [best, gap] = [i, d];
    });
    const [p] = left.splice(best, 1);
    out.push(begunNear(p, at));
    at = end(out[out.length - 1]);
  }
  return out;
}
/** Stretches of the order turned over while that saves travel (2-opt). */
function untangled(paths: Path[], from: Point): Path[] {
  if (paths.length > MOST_SWAPPED) return paths;
  let best = paths;
  let length = travelOf(best, from);
  for (let won = true; won;) {
    won = false;
    for (let i = 0; i < best.length - 1; i++)
      for (let j = i + 1; j < best.length; j++) {
        const turned = best
          .slice(i, j + 1)
          .reverse()
          .map((p): Path => (p.closed ? p : { ...p, points: [...p.points].reverse() }));
        const next = [...best.slice(0, i), ...turned, ...best.slice(j + 1)];
        const l = travelOf(next, from);
        if (l < length - 1e-6) [best, length, won] = [next, l, true];
      }
  }
  return best;
}

/** Paths in the order that they are run: what lies within another before it, and among those as the head comes by. */
export function inRunningOrder(paths: readonly Path[], from: Point = [0, 0]): Path[] {
  const levels = new Map<number, Path[]>();
  for (const p of paths) {
    const d = depth(p, paths);
    levels.set(d, [...(levels.get(d) ?? []), p]);
  }
  const out: Path[] = [];
  let at = from;
  for (const d of [...levels.keys()].sort((a, b) => b - a)) {
    const level = untangled(nearestFirst(levels.get(d)!, at), at);
    out.push(...level);
    at = end(level[level.length - 1]);
  }
  return out;
}

/** mm that a cut begins beside its line, in what falls away */
const LEAD_MM = 2;
/**
 * Cuts with a lead-in each: a short line in the waste that ends where the outline begins, in the middle of its longest side; the outline
 * stays shut. Holes begin within, what is around others outside.
 */
export function withLeads(paths: readonly Path[]): Path[] {
  const inside = (k: number, at: Point): boolean => insideOf([paths[k].points], at);
  return paths.flatMap((p, i) => {
    if (!p.closed || p.points.length < 3) return [p];
    const hole = paths.filter((q, k) => k !== i && q.closed && inside(k, p.points[0])).length % 2 === 1;
    const n = p.points.length;
    const side = (k: number): number => far(p.points[k], p.points[(k + 1) % n]);
    let longest = 0;
    for (let k = 1; k < n; k++) if (side(k) > side(longest)) longest = k;
    const [a, b] = [p.points[longest], p.points[(longest + 1) % n]];
    const start: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    const points = [start, ...p.points.slice(longest + 1), ...p.points.slice(0, longest + 1)];
    const across: Point = [-(b[1] - a[1]) / side(longest), (b[0] - a[0]) / side(longest)];
    // as long as all of it lies in the waste
    for (let mm = LEAD_MM; mm > HAIR_MM; mm /= 2)
      for (const sign of [1, -1]) {
        const on = (k: number): Point => [start[0] + sign * k * mm * across[0], start[1] + sign * k * mm * across[1]];
        const waste = [0.25, 0.5, 0.75, 1, 1.25].every((k) => inside(i, on(k)) === hole);
        if (waste)
          return [
            { points: [on(1), start], closed: false },
            { points, closed: true },
          ];
      }
    return [p];
  });
}
