/**
 * M12 Registration: how closely a piece comes to lie again, what colours must overlap by, which zones can't be kept apart. mm.
 * Between two set-ups: r if one of them is the first, else √(r² + r²). Trap ≥ r + kerf/2, under the colour painted later.
 */
import type { Zone } from "../records/job";
import type { Context } from "../process/context";
import { own, type Step } from "../process/kinds";

/** return error by how it is placed, mm */
export const RETURN_MM: Record<string, { mm: number; name: string }> = {
  nest: { mm: 0.1, name: "a nest cut for it" },
  corner: { mm: 0.3, name: "a corner square" },
  pencil: { mm: 0.7, name: "pencil marks" },
  eye: { mm: 1.5, name: "eye" },
};
/** mm of a cut line in tape */
const KERF_MM = 0.1;
/** points of an outline looked at: enough for a tenth of a millimetre on ordinary artwork */
const POINTS = 400;

/** Vertices of an outline as rings, thinned; outlines are ours: M, L and Z only. */
function rings(path: string): [number, number][][] {
  const all = path
    .split(/[Mm]/)
    .filter((s) => s.trim())
    .map((s) =>
      [...s.matchAll(/(-?[\d.]+(?:e-?\d+)?)[ ,]+(-?[\d.]+(?:e-?\d+)?)/gi)].map(
        (m) => [Number(m[1]), Number(m[2])] as [number, number],
      ),
    );
  const n = all.reduce((a, r) => a + r.length, 0);
  const every = Math.max(1, Math.ceil(n / POINTS));
  return all.map((r) => r.filter((_p, i) => i % every === 0));
}
const toSegment = ([px, py]: [number, number], [ax, ay]: [number, number], [bx, by]: [number, number]): number => {
  const [dx, dy] = [bx - ax, by - ay];
  const l = dx * dx + dy * dy;
  const t = l > 0 ? Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / l)) : 0;
  return Math.hypot(px - ax - t * dx, py - ay - t * dy);
};
type Box = [x0: number, y0: number, x1: number, y1: number];
const boxed = (ring: [number, number][]): { ring: [number, number][]; box: Box } => ({
  ring,
  box: ring.reduce<Box>(
    ([x0, y0, x1, y1], [x, y]) => [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)],
    [Infinity, Infinity, -Infinity, -Infinity],
  ),
});
/** Distance between two boxes, mm; 0 where they overlap. */
const boxGap = (a: Box, b: Box): number =>
  Math.hypot(Math.max(0, a[0] - b[2], b[0] - a[2]), Math.max(0, a[1] - b[3], b[1] - a[3]));
/** By the outlines themselves: a job read anew has new zones, but the same outlines. */
const gaps = new Map<string, Map<string, number | null>>();
const GAPS_KEPT = 200;
/** Least distance between the outlines of two zones, mm; null: an outline is not known. */
export function gapBetween(a: Zone, b: Zone): number | null {
  if (!a.outline || !b.outline) return null;
  if (gaps.size > GAPS_KEPT) gaps.clear();
  const known = gaps.get(a.outline) ?? gaps.set(a.outline, new Map()).get(a.outline)!;
  const found = known.get(b.outline);
  if (found !== undefined) return found;
  const [ra, rb] = [rings(a.outline).map(boxed), rings(b.outline).map(boxed)];
  // Nearest pairs of rings first; what lies farther off than the least found is passed over.
  const pairs = ra.flatMap((x) => rb.map((y) => ({ x, y, off: boxGap(x.box, y.box) }))).sort((p, q) => p.off - q.off);
  let least = Infinity;
  for (const { x, y, off } of pairs) {
    if (off >= least) break;
    for (const [from, to] of [
      [x, y],
      [y, x],
    ])
      for (const p of from.ring) {
        if (boxGap([p[0], p[1], p[0], p[1]], to.box) >= least) continue;
        for (let i = 0; i < to.ring.length; i++)
          least = Math.min(least, toSegment(p, to.ring[i], to.ring[(i + 1) % to.ring.length]));
      }
  }
  const gap = Number.isFinite(least) ? least : null;
  known.set(b.outline, gap);
  return gap;
}

export interface Placement {
  /** how it is put back, in words */
  by: string;
  /** return error, mm */
  errorMm: number;
  /** it leaves the bed and comes back for a further visit */
  replaced: boolean;
  /** mm that a colour painted later runs under the one before it */
  trapMm: number;
  /** mm that the picture runs over the piece */
  overrunMm: number;
  /** degrees of rotation still hidden by that overrun */
  degrees: number;
  pairs: {
    a: string;
    b: string;
    nameA: string;
    nameB: string;
    gapMm: number | null;
    betweenMm: number;
    apart: boolean | null;
  }[];
}

/** How a job's pieces are placed and placed again. */
export function placement(c: Context, steps: Step[]): Placement {
  const id = c.job.choices.placedBy ?? "corner";
  const jig = (c.world.shop.gear ?? []).find((g) => g.id === id);
  const r = jig?.errorMm ?? RETURN_MM[id]?.mm ?? RETURN_MM.corner.mm;
  const visits =
    steps.filter((s) => own(s, "laser") !== null && ["engrave", "score-mask", "open-skin", "burn-in"].includes(s.kind))
      .length + (steps.some((s) => own(s, "method") === "laser") ? 1 : 0);
  const exact = c.school("overrun") === "exact";
  const zones = c.filled;
  const overrunMm = exact ? 0 : Math.max(r, 1);
  return {
    by: jig?.name ?? RETURN_MM[id]?.name ?? RETURN_MM.corner.name,
    errorMm: r,
    replaced: visits > 1,
    trapMm: r + KERF_MM / 2,
    overrunMm,
    degrees: rotationHidden(c.job.substrate.w, c.job.substrate.h, overrunMm),
    pairs:
      visits < 2 && !c.route?.phases.some((p) => p.do === "colours" && ["beside", "stencil", "reverse"].includes(p.how))
        ? []
        : zones.flatMap((a, i) =>
            zones
              .slice(i + 1)
              .filter((b) => b.productId !== a.productId)
              .map((b) => {
                const gapMm = gapBetween(a, b);
                const betweenMm = visits > 2 ? Math.SQRT2 * r : r;
                return {
                  a: a.id,
                  b: b.id,
                  nameA: a.name,
                  nameB: b.name,
                  gapMm,
                  betweenMm,
                  apart: visits < 2 || gapMm === null || c.job.choices.trap ? null : gapMm >= betweenMm,
                };
              }),
          ),
  };
}

/**
 * Largest rotation, degrees, at which a picture that runs over a w × h piece by `overrun` all round still covers it: the turned
 * piece's half extents, (w·cosθ + h·sinθ)/2 and (h·cosθ + w·sinθ)/2, stay inside the picture's. By halving; 0 without an overrun.
 */
export function rotationHidden(w: number, h: number, overrun: number): number {
  if (!(w > 0 && h > 0 && overrun > 0)) return 0;
  const covers = (deg: number): boolean => {
    const t = (deg * Math.PI) / 180;
    return w * Math.cos(t) + h * Math.sin(t) <= w + 2 * overrun && h * Math.cos(t) + w * Math.sin(t) <= h + 2 * overrun;
  };
  let [lo, hi] = [0, 45];
  for (let i = 0; i < 50; i++) {
    const mid = (lo + hi) / 2;
    if (covers(mid)) lo = mid;
    else hi = mid;
  }
  return lo;
}
