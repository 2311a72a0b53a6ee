/**
 * M13 Measures of a zone: area, perimeter, pieces, holes, narrowest width, and row extents for the run time.
 * narrowest = 2ρ*, where ρ* is the least radius at which shrinking splits or removes a part or opens a hole, or at which
 * an opening (shrink, then grow) loses more than 1 % of the area beyond (1−π/4)ρ² for every convex corner.
 */
import { area, bounds, perimeter, pieces, type Clip, type Region } from "./clip";

export interface Measures {
  areaMm2: number;
  perimeterMm: number;
  narrowestMm: number;
  pieces: number;
  holes: number;
  smallestMm2: number;
  /** y0, y1, then from, to of {@link SLICES} equal slices; from > to where a slice is empty */
  rows: number[];
}

export const SLICES = 64;
const OPENING_LOSS = 0.01;
const BISECT_MM = 0.005;
/** a turn sharper than this is a corner, not a flattened curve */
const CORNER_RAD = (25 * Math.PI) / 180;

const convexCorners = (r: Region): number =>
  r.reduce((sum, ring) => {
    let n = 0;
    for (let i = 0; i < ring.length; i++) {
      const [ax, ay] = ring[(i + ring.length - 1) % ring.length];
      const [bx, by] = ring[i];
      const [cx, cy] = ring[(i + 1) % ring.length];
      const turn = Math.atan2(
        (bx - ax) * (cy - by) - (by - ay) * (cx - bx),
        (bx - ax) * (cx - bx) + (by - ay) * (cy - by),
      );
      if (turn > CORNER_RAD) n++;
    }
    return sum + n;
  }, 0);

/**
 * How far the outline may stray while its narrowest width is sought, mm. Outlines of strokes have edges of a millionth of a
 * millimetre, on which shrinking goes astray; well inside the promised ± 0.05 mm they are taken out.
 */
const CLEAN_MM = 0.005;
/** parts that rounding leaves when a strip is shrunk to nearly nothing are smaller than this share of what is left */
const CRUMB = 0.002;

/** Narrowest width of one connected piece, mm. */
function narrowest(clip: Clip, fine: Region): number {
  const corners = convexCorners(fine);
  const piece = clip.simplify(fine, CLEAN_MM).filter((r) => area([r]) > CLEAN_MM * perimeter([r]));
  if (!piece.length) return (2 * area(fine)) / Math.max(perimeter(fine), 1e-9);
  const whole = area(piece);
  const holes = piece.length - 1;
  const broken = (rho: number): boolean => {
    const shrunk = clip.grow(piece, -rho);
    const left = area(shrunk);
    const parts = pieces(shrunk).filter((x) => area(x) > CRUMB * left);
    if (parts.length !== 1 || parts[0].length - 1 < holes) return true;
    return whole - area(clip.grow(shrunk, rho)) > OPENING_LOSS * whole + (1 - Math.PI / 4) * rho * rho * corners;
  };
  let lo = 0;
  let hi = Math.max(1e-3, (2 * whole) / Math.max(perimeter(piece), 1e-9));
  while (!broken(hi)) {
    lo = hi;
    hi *= 1.5;
  }
  // A thin neck may heal the test at larger radii once both sides are gone; look for an earlier break on the way up.
  for (let k = 1; k < 8; k++) {
    const r = lo + ((hi - lo) * k) / 8;
    if (broken(r)) {
      hi = r;
      break;
    }
    lo = r;
  }
  while (hi - lo > BISECT_MM) {
    const mid = (lo + hi) / 2;
    if (broken(mid)) hi = mid;
    else lo = mid;
  }
  return lo + hi;
}

/** Row extents of a region in equal slices: the length the head burns, rows trimmed to what is there. */
export function rowExtents(r: Region): number[] {
  const box = bounds(r);
  if (!box) return [];
  const out = [box.y0, box.y1];
  const height = (box.y1 - box.y0) / SLICES;
  for (let s = 0; s < SLICES; s++) {
    const y = box.y0 + (s + 0.5) * height;
    let from = Infinity;
    let to = -Infinity;
    for (const ring of r)
      for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
        const [[xi, yi], [xj, yj]] = [ring[i], ring[j]];
        if (yi > y === yj > y) continue;
        const x = xi + ((xj - xi) * (y - yi)) / (yj - yi);
        from = Math.min(from, x);
        to = Math.max(to, x);
      }
    out.push(...(to >= from ? [from, to] : [1, 0]));
  }
  return out.map((v) => Math.round(v * 1000) / 1000);
}

/** All measures of one zone. */
export function measure(clip: Clip, region: Region): Measures {
  const parts = pieces(region);
  return {
    areaMm2: area(region),
    perimeterMm: perimeter(region),
    narrowestMm: parts.reduce((least, p) => Math.min(least, narrowest(clip, p)), Infinity),
    pieces: parts.length,
    holes: parts.reduce((n, p) => n + p.length - 1, 0),
    smallestMm2: parts.reduce((least, p) => Math.min(least, area(p)), Infinity),
    rows: rowExtents(region),
  };
}
