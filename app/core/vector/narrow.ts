/**
 * M13 The narrowest width of a zone: 2ρ*, where ρ* is the least radius at which shrinking splits or removes a part or opens a hole, or
 * at which an opening (shrink, then grow) loses more than 1 % of the area beyond (1−π/4)ρ² for every convex corner.
 *
 * Shrinking for real is dear. So a piece is first asked whether it is sound at the width found so far, by its edges alone: moved inward
 * by ρ every edge keeps some length, and nothing of the outline comes nearer than ρ to where it then lies. Such a piece shrinks without
 * splitting, and what its corners lose has a formula. Only pieces that fail are shrunk; pieces of one shape are asked once.
 */
import Flatbush from "flatbush";
import { area, perimeter, pieces, type Clip, type Point, type Region, type Ring } from "./clip";

const OPENING_LOSS = 0.01;
const CORNER_LOSS = 1 - Math.PI / 4;
const BISECT_MM = 0.005;
/** a turn sharper than this is a corner, not a flattened curve */
const CORNER_RAD = (25 * Math.PI) / 180;
/**
 * How far the outline may stray while its narrowest width is sought, mm. Outlines of strokes have edges of a millionth of a
 * millimetre, on which shrinking goes astray; well inside the promised ± 0.05 mm they are taken out.
 */
const CLEAN_MM = 0.005;
/** and how far for a radius, as a share of it, up to so much, mm */
const COARSE = { share: 0.005, most: 0.02 };
/** parts that rounding leaves when a strip is shrunk to nearly nothing are smaller than this share of what is left */
const CRUMB = 0.002;

/** Twice the area, positive where the ring runs with its inside on the left. */
const turned = (ring: Ring): number => {
  let s = 0;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) s += ring[j][0] * ring[i][1] - ring[i][0] * ring[j][1];
  return s;
};
const turnAt = (ring: Ring, i: number): number => {
  const [ax, ay] = ring[(i + ring.length - 1) % ring.length];
  const [bx, by] = ring[i];
  const [cx, cy] = ring[(i + 1) % ring.length];
  return Math.atan2((bx - ax) * (cy - by) - (by - ay) * (cx - bx), (bx - ax) * (cx - bx) + (by - ay) * (cy - by));
};
const convexCorners = (r: Region): number =>
  r.reduce((sum, ring) => sum + ring.reduce((n, _p, i) => n + Number(turnAt(ring, i) > CORNER_RAD), 0), 0);

/** One connected piece, cleaned, with what is asked of it again and again. */
interface Piece {
  rings: Region;
  area: number;
  perimeter: number;
  corners: number;
}

function distance([px, py]: Point, a: Point, b: Point): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const l = dx * dx + dy * dy;
  const t = l > 0 ? Math.max(0, Math.min(1, ((px - a[0]) * dx + (py - a[1]) * dy) / l)) : 0;
  return Math.hypot(px - a[0] - t * dx, py - a[1] - t * dy);
}
const side = (a: Point, b: Point, p: Point): number => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
/** Least distance between two stretches, mm; 0 where they cross. */
function between(a: Point, b: Point, c: Point, d: Point): number {
  if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return 0;
  return Math.min(distance(a, c, d), distance(b, c, d), distance(c, a, b), distance(d, a, b));
}

/** a hair, for the rounding of edges that just touch the disc, mm */
const HAIR = 1e-6;
/** arcs round an inner corner are looked at in steps of so much */
const ARC_RAD = 0.2;

/** Edges of a piece with their boxes, for what lies near. */
class Edges {
  private readonly index: Flatbush;
  readonly list: { a: Point; b: Point; n: Point; length: number }[] = [];
  /** 1 where the inside lies on the left of every edge, those of holes too; −1: on the right */
  readonly sign: number;
  readonly turns: number[][];
  constructor(readonly piece: Piece) {
    const { rings } = piece;
    const sign =
      Math.sign(rings.reduce((most, r) => (Math.abs(turned(r)) > Math.abs(most) ? turned(r) : most), 0)) || 1;
    this.sign = sign;
    this.turns = rings.map((ring) => ring.map((_p, i) => sign * turnAt(ring, i)));
    const count = rings.reduce((n, r) => n + r.length, 0);
    this.index = new Flatbush(count);
    for (const ring of rings)
      ring.forEach((a, i) => {
        const b = ring[(i + 1) % ring.length];
        const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
        const k = length > 0 ? sign / length : 0;
        this.list.push({ a, b, length, n: [-(b[1] - a[1]) * k, (b[0] - a[0]) * k] });
        this.index.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
      });
    this.index.finish();
  }
  /** Does the outline, but for the edges that are passed over, keep its distance from a stretch? */
  clear(a: Point, b: Point, by: number, but: (edge: number) => boolean): boolean {
    const box = [
      Math.min(a[0], b[0]) - by,
      Math.min(a[1], b[1]) - by,
      Math.max(a[0], b[0]) + by,
      Math.max(a[1], b[1]) + by,
    ];
    let free = true;
    this.index.search(box[0], box[1], box[2], box[3], (e) => {
      if (free && !but(e) && between(a, b, this.list[e].a, this.list[e].b) < by - HAIR) free = false;
      return false;
    });
    return free;
  }
}

/**
 * Does a piece shrink by ρ, and by all that is less, in one part with its holes, losing no more at its corners than it may? A no means
 * only that its edges alone don't say so.
 */
function sound(e: Edges, rho: number): boolean {
  const { piece } = e;
  let loss = 0;
  for (const turns of e.turns) for (const t of turns) if (t > 0) loss += rho * rho * (Math.tan(t / 2) - t / 2);
  if (!(loss <= OPENING_LOSS * piece.area + CORNER_LOSS * rho * rho * piece.corners)) return false;
  let at = 0;
  for (let k = 0; k < piece.rings.length; k++) {
    const [ring, turns, base] = [piece.rings[k], e.turns[k], at];
    const n = ring.length;
    at += n;
    const cut = (i: number): number => (turns[i] > 0 ? rho * Math.tan(turns[i] / 2) : 0);
    for (let i = 0; i < n; i++) {
      const edge = e.list[base + i];
      const [from, to] = [cut(i), cut((i + 1) % n)];
      if (!(edge.length > 0) || edge.length < from + to) return false;
      const [ux, uy] = [(edge.b[0] - edge.a[0]) / edge.length, (edge.b[1] - edge.a[1]) / edge.length];
      const move = ([x, y]: Point, along: number): Point => [
        x + edge.n[0] * rho + ux * along,
        y + edge.n[1] * rho + uy * along,
      ];
      if (!e.clear(move(edge.a, from), move(edge.b, -to), rho, (x) => x === base + i)) return false;
      if (turns[i] >= -ARC_RAD) continue;
      const before = e.list[base + ((i + n - 1) % n)];
      const steps = Math.ceil(-turns[i] / ARC_RAD);
      const first = Math.atan2(before.n[1], before.n[0]);
      for (let s = 1; s < steps; s++) {
        const angle = first + (e.sign * turns[i] * s) / steps;
        const p: Point = [ring[i][0] + rho * Math.cos(angle), ring[i][1] + rho * Math.sin(angle)];
        const mine = (x: number): boolean => x === base + i || x === base + ((i + n - 1) % n);
        if (!e.clear(p, p, rho * (1 + ARC_RAD / 2), mine)) return false;
      }
    }
  }
  return true;
}

/** edges from which a piece is shrunk on from where it was shrunk to before, since moving them all by much takes the square of them */
const MANY_EDGES = 400;
/** A piece shrunk so far: shrinking on from there is the same as shrinking from the beginning, but for rounding, with far fewer edges. */
interface Rung {
  rho: number;
  rings: Region;
}

/** The piece shrunk by ρ; null: it is split, opened, used up or worn away by that, when it grows again. */
function shrunkBy(clip: Clip, p: Piece, rho: number, low: Rung): Rung | null {
  const edges = p.rings.reduce((n, r) => n + r.length, 0);
  const from = edges > MANY_EDGES ? low : { rho: 0, rings: p.rings };
  const eps = Math.min(COARSE.most, COARSE.share * rho) * (from.rho > 0 ? 0.5 : 1);
  const rings = eps > CLEAN_MM ? clip.simplify(from.rings, eps) : from.rings;
  const shrunk = clip.grow(rings, from.rho - rho);
  const left = area(shrunk);
  const parts = pieces(shrunk).filter((x) => area(x) > CRUMB * left);
  if (parts.length !== 1 || parts[0].length < p.rings.length) return null;
  const lost = p.area - area(clip.grow(shrunk, rho));
  return lost > OPENING_LOSS * p.area + CORNER_LOSS * rho * rho * p.corners ? null : { rho, rings: parts[0] };
}

/** the first radius that is tried where edges say nothing, as a share of what a strip of that area and outline would hold */
const FIRST = 1 / 8;
/** each further one is larger by this, or by less where a part was used up on the way */
const STEP = 1.2;

/** corners that shrinking may add where an outline bends inward */
const SPARE_CORNERS = 4;
/** Was a whole part used up between two radii? Then a neck may have broken in between, and the test has healed since. */
function skipped(clip: Clip, p: Piece, low: Rung, high: Rung): boolean {
  const by = high.rho - low.rho;
  const lost = area(low.rings) - area(clip.grow(high.rings, by));
  return lost > CRUMB * p.area + CORNER_LOSS * by * by * (p.corners + SPARE_CORNERS);
}

/** Least radius at which a piece breaks, mm; null: it does not up to `most`. */
function breaksAt(clip: Clip, p: Piece, edges: Edges, most: number): number | null {
  const strip = Math.max(1e-3, (2 * p.area) / Math.max(p.perimeter, 1e-9));
  // so far its edges alone vouch for it
  const vouched = [1, 1 / 2, 1 / 4, FIRST].map((k) => Math.min(strip * k, most)).find((r) => sound(edges, r)) ?? 0;
  if (vouched >= most) return null;
  let low: Rung = { rho: 0, rings: p.rings };
  let [lo, hi] = [vouched, vouched > 0 ? vouched : Math.min(strip * FIRST, most)];
  for (;;) {
    const next = shrunkBy(clip, p, hi, low);
    if (!next) break;
    if (low.rho > 0 && hi - lo > 2 * BISECT_MM && skipped(clip, p, low, next)) hi = (lo + hi) / 2;
    else if (hi >= most) return null;
    else {
      [low, lo] = [next, hi];
      hi = Math.min(most, hi * STEP);
    }
  }
  while (hi - lo > BISECT_MM) {
    const mid = (lo + hi) / 2;
    const next = shrunkBy(clip, p, mid, low);
    if (next) [low, lo] = [next, mid];
    else hi = mid;
  }
  return (lo + hi) / 2;
}

/** What two pieces of one shape have in common, wherever they lie: their edges in thousandths of a millimetre, lowest corner first. */
function shapeOf(r: Region): string {
  return r
    .map((ring) => {
      let low = 0;
      ring.forEach(([x, y], i) => {
        const [lx, ly] = ring[low];
        if (y < ly - 1e-4 || (Math.abs(y - ly) <= 1e-4 && x < lx)) low = i;
      });
      return ring
        .map((_p, k) => {
          const [a, b] = [ring[(low + k) % ring.length], ring[(low + k + 1) % ring.length]];
          return `${Math.round((b[0] - a[0]) * 1000)},${Math.round((b[1] - a[1]) * 1000)}`;
        })
        .join(" ");
    })
    .join("|");
}

/** Pieces smaller than this have no width that anything can be done with: as narrow as their area and outline say, mm². */
const CRUMB_MM2 = 0.01;

/**
 * Narrowest width of a region, mm; Infinity where there is nothing.
 * @param parts its separate pieces @param progress share done
 */
export function narrowest(clip: Clip, parts: Region[], progress: (share: number) => void = () => {}): number {
  let least = Infinity;
  const left: Piece[] = [];
  const asked = new Set<string>();
  for (const fine of parts) {
    const [whole, round] = [area(fine), perimeter(fine)];
    const key = fine.length < 20 && fine[0].length < 500 ? shapeOf(fine) : null;
    if (key !== null && asked.has(key)) continue;
    if (key !== null) asked.add(key);
    const rings =
      whole > CRUMB_MM2 ? clip.simplify(fine, CLEAN_MM).filter((r) => area([r]) > CLEAN_MM * perimeter([r])) : [];
    if (!rings.length) least = Math.min(least, (2 * whole) / Math.max(round, 1e-9));
    else left.push({ rings, area: area(rings), perimeter: perimeter(rings), corners: convexCorners(fine) });
  }
  // the likeliest first: the others have only to be no narrower
  left.sort((a, b) => a.area / a.perimeter - b.area / b.perimeter);
  left.forEach((p, i) => {
    if (least > 2 * BISECT_MM) {
      const edges = new Edges(p);
      const rho = breaksAt(clip, p, edges, least / 2);
      if (rho !== null) least = Math.min(least, 2 * rho);
    }
    if (i % 16 === 0) progress(i / left.length);
  });
  return least;
}
