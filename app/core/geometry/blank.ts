/**
 * The blank's true outline within its width and height, for area, drawing, cut and rule alike: rectangle, rounded, oval, or a path of
 * its own; round holes besides. mm, from the blank's upper left corner, y down.
 */
import type { Blank, Hole, Job, Substrate } from "../records/job";
import { perimeter, ringArea } from "../vector/clip";
import { ellipse, rectangle } from "../vector/outline";
import { toSegment } from "./gap";
import { origin, pageBox } from "./origin";
import { pathOf, ringsOf, type Point, type Ring } from "./outline";

/** furthest that a curve drawn as straight lines strays, mm */
const FLAT_MM = 0.004;

const round = (cx: number, cy: number, rx: number, ry: number): Ring => ellipse(cx, cy, rx, ry, FLAT_MM);

const holeRing = (k: Hole): Ring => round(k.x, k.y, k.d / 2, k.d / 2);

function outer({ w, h, blank: b }: Substrate): Ring[] {
  if (b?.form === "oval") return [round(w / 2, h / 2, w / 2, h / 2)];
  if (b?.form === "path" && b.path) return ringsOf(b.path);
  const r = b?.form === "rounded" ? Math.min(b.cornerMm ?? 0, w / 2, h / 2) : 0;
  return [rectangle(0, 0, w, h, r, r, FLAT_MM)];
}

export interface BlankShape {
  /** outline and holes; inside by even and odd */
  rings: Ring[];
  areaMm2: number;
  /** length of all edges, holes with them */
  edgeMm: number;
  path: string;
  /** a plain rectangle without holes or margin */
  plain: boolean;
}

const crossing = (ring: Ring, [x, y]: Point): boolean => {
  let odd = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [xi, yi] = ring[i];
    const [xj, yj] = ring[j];
    if (yi > y !== yj > y && x < xi + ((xj - xi) * (y - yi)) / (yj - yi)) odd = !odd;
  }
  return odd;
};
/** Does a point lie inside rings by even and odd? */
export const insideOf = (rings: Ring[], p: Point): boolean => rings.reduce((odd, r) => odd !== crossing(r, p), false);

const toEdge = (rings: Ring[], p: Point): number =>
  rings.reduce(
    (least, r) => r.reduce((d, b, i) => Math.min(d, toSegment(p, [r[i ? i - 1 : r.length - 1], b])), least),
    Infinity,
  );

const plainArea = (r: Ring): number => Math.abs(ringArea(r));
/** Rings in one another count for and against by turns. */
export const ringsArea = (rings: Ring[]): number =>
  rings.reduce((sum, r, i) => {
    const around = rings.filter((o, k) => k !== i && crossing(o, r[0])).length;
    return sum + (around % 2 ? -1 : 1) * plainArea(r);
  }, 0);

const kept = new WeakMap<Substrate, BlankShape>();
/** The outline of a blank; a ball or cylinder is unrolled to its width and height. */
export function blankOf(s: Substrate): BlankShape {
  const found = kept.get(s);
  if (found) return found;
  const flat = !s.shape || s.shape === "flat";
  const edge = outer(flat ? s : { ...s, blank: undefined });
  // one that a later outline leaves outside is no hole of it
  const holes = flat ? (s.holes ?? []).map(holeRing).filter((r) => r.every((p) => insideOf(edge, p))) : [];
  const rings = [...edge, ...holes];
  const made = {
    rings,
    areaMm2: ringsArea(rings),
    edgeMm: perimeter(rings),
    path: pathOf(rings),
    plain: !flat || (!s.blank && !holes.length),
  };
  kept.set(s, made);
  return made;
}
/** Does a round hole lie within the outline, holes aside? */
export const holds = (s: Substrate, k: Hole): boolean => {
  const { rings } = blankOf({ ...s, holes: undefined });
  return holeRing(k).every((p) => insideOf(rings, p));
};
/** mm² of the face of one piece. */
export const faceMm2 = (s: Substrate): number => blankOf(s).areaMm2;

/** The outline in words, to stand behind the size; empty for a plain rectangle. */
export function blankWords(s: Substrate, length: (mm: number) => string): string {
  if (s.shape && s.shape !== "flat") return "";
  const { blank: b } = s;
  const holes = blankOf(s).rings.length - 1;
  const form =
    b?.form === "oval"
      ? s.w === s.h
        ? "round"
        : "oval"
      : b?.form === "path"
        ? "of its own outline"
        : b?.form === "rounded"
          ? `corners rounded by ${length(Math.min(b.cornerMm ?? 0, s.w / 2, s.h / 2))}`
          : "";
  const through = holes ? `${holes} ${holes === 1 ? "hole" : "holes"}` : "";
  return [form, through].filter(Boolean).join(", ");
}

type Laid = Pick<Job, "artwork" | "zones" | "substrate">;

const across = (r: Ring, k: 0 | 1): number => Math.max(...r.map((p) => p[k])) - Math.min(...r.map((p) => p[k]));
/** How far rings reach over the outline of a blank, or into its margin, mm; 0 or less: they lie free of it by so much. */
function reach(rings: Ring[], shape: BlankShape, margin: number): number {
  let most = -Infinity;
  for (const ring of rings)
    for (const p of ring) {
      const d = toEdge(shape.rings, p);
      most = Math.max(most, (insideOf(shape.rings, p) ? -d : d) + margin);
    }
  // what lies over a hole, or round a notch, without a corner of its own there: no farther over than the hole is wide
  shape.rings.forEach((ring, k) => {
    const widest = k ? Math.min(across(ring, 0), across(ring, 1)) : Infinity;
    for (const p of ring) if (insideOf(rings, p)) most = Math.max(most, Math.min(widest, toEdge(rings, p)));
  });
  return most;
}
const KEPT = 400;
const known = new Map<string, Map<string, number>>();
function reachOf(outline: string, at: Point, s: Substrate): number {
  const key = JSON.stringify([at, s.w, s.h, s.blank, s.holes, s.keepMm]);
  if (known.size > KEPT) known.clear();
  const mine = known.get(outline) ?? known.set(outline, new Map()).get(outline)!;
  const found = mine.get(key);
  if (found !== undefined) return found;
  const rings = ringsOf(outline).map((r) => r.map(([x, y]): Point => [x + at[0], y + at[1]]));
  const mm = reach(rings, blankOf(s), s.keepMm ?? 0);
  mine.set(key, mm);
  return mm;
}

/**
 * How far the artwork hangs over the blank or into its margin: the most of any zone, mm; 0 or less: it lies within. On a plain rectangle
 * it is the drawing's page that counts, as the laser moves over it.
 */
export function overhang({ artwork: a, zones, substrate: s }: Laid): { mm: number; zones: string[] } {
  const drawn = zones.filter((z) => z.outline);
  const at = origin({ artwork: a, substrate: s });
  const page = a && pageBox(a);
  const box =
    a && page
      ? Math.max((page[0] - s.w) / 2 + Math.abs(a.dx ?? 0), (page[1] - s.h) / 2 + Math.abs(a.dy ?? 0)) + (s.keepMm ?? 0)
      : -Infinity;
  if (blankOf(s).plain && !s.keepMm) return { mm: box, zones: [] };
  const each = drawn.map((z) => ({ id: z.id, mm: reachOf(z.outline, at, s) }));
  return {
    mm: each.length ? Math.max(...each.map((x) => x.mm)) : box,
    zones: each.filter((x) => x.mm > 1e-6).map((x) => x.id),
  };
}

/** A blank of another size: an outline of its own grows with it, holes keep their place in it. */
export function resized(s: Substrate, w: number, h: number): Substrate {
  const [kx, ky] = [w / s.w, h / s.h];
  const path = s.blank?.path && pathOf(ringsOf(s.blank.path).map((r) => r.map(([x, y]): Point => [x * kx, y * ky])));
  const holes = s.holes?.map((k) => ({ ...k, x: k.x * kx, y: k.y * ky }));
  return { ...s, w, h, ...(path ? { blank: { ...s.blank!, path } } : {}), ...(holes ? { holes } : {}) };
}

/** ends that are nearer than this are one, mm */
const JOIN_MM = 0.05;
const near = (a: Point, b: Point): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) <= JOIN_MM;

/** Lines that end where another begins are one; those that come round are rings. */
export function joined(lines: { points: Ring; closed: boolean }[]): { rings: Ring[]; open: number } {
  const rings: Ring[] = [];
  let left: Ring[] = [];
  for (const { points, closed } of lines) {
    if (closed || (points.length > 3 && near(points[0], points[points.length - 1]))) rings.push(points);
    else if (points.length > 1) left.push(points);
  }
  let open = 0;
  while (left.length) {
    let run = left[0];
    left = left.slice(1);
    for (;;) {
      const end = run[run.length - 1];
      if (run.length > 3 && near(run[0], end)) break;
      const k = left.findIndex((l) => near(l[0], end) || near(l[l.length - 1], end));
      if (k < 0) break;
      const next = near(left[k][0], end) ? left[k] : [...left[k]].reverse();
      left = left.filter((_, i) => i !== k);
      run = [...run, ...next.slice(1)];
    }
    if (run.length > 3 && near(run[0], run[run.length - 1])) rings.push(run.slice(0, -1));
    else open++;
  }
  return { rings, open };
}

export class BadOutline extends Error {}
/** corners of an outline, at most */
const MOST_CORNERS = 20_000;

/**
 * Lines of a file made into a blank's outline: the one that is around all others, and holes within it.
 * @throws BadOutline in one sentence
 */
export function outlineFrom(lines: { points: Ring; closed: boolean }[]): { w: number; h: number; blank: Blank } {
  const { rings: all, open } = joined(lines);
  const rings = all.filter((r) => plainArea(r) > 0.01);
  const openWords = open ? ` ${open === 1 ? "One line in it does" : `${open} lines in it do`} not come round.` : "";
  if (!rings.length) throw new BadOutline(`The file holds no line that comes round to where it began.${openWords}`);
  if (rings.reduce((n, r) => n + r.length, 0) > MOST_CORNERS)
    throw new BadOutline(`The outline has more than ${MOST_CORNERS} corners; simplify it in the drawing program.`);
  const [big, ...rest] = [...rings].sort((a, b) => plainArea(b) - plainArea(a));
  const beside = rest.find((r) => !crossing(big, r[0]));
  if (beside)
    throw new BadOutline("The file holds two shapes beside each other; a blank is one piece, with holes within it.");
  const [xs, ys] = [big.map((p) => p[0]), big.map((p) => p[1])];
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const [w, h] = [Math.max(...xs) - x0, Math.max(...ys) - y0];
  const at = ([x, y]: Point): Point => [x - x0, y - y0];
  return { w, h, blank: { form: "path", path: pathOf([big, ...rest].map((r) => r.map(at))) } };
}
