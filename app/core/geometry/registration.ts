/**
 * M12 Registration: how closely a piece comes to lie again, and what follows for shapes. mm.
 * Between two set-ups: r if one of them is the first, else √(r² + r²). Trap ≥ that + kerf/2, under the colour painted later. A piece
 * that may lie r off at both ends of its longest side may be turned by θ = r ÷ that side: at a distance from the stop it is r + θ·distance.
 */
import type { Clip, Region } from "../vector/clip";
import { pathOf, ringsOf } from "./outline";

/** return error by how it is placed, mm */
export const RETURN_MM = {
  nest: { mm: 0.1, name: "a nest cut for it" },
  corner: { mm: 0.3, name: "a corner square" },
  pencil: { mm: 0.7, name: "pencil marks" },
  eye: { mm: 1.5, name: "eye" },
} as const;
export type PlacedBy = keyof typeof RETURN_MM;
export const isPlacedBy = (id: string): id is PlacedBy => Object.hasOwn(RETURN_MM, id);

/** mm of a cut line in tape */
export const KERF_MM = 0.1;
/** least that a picture runs over a piece, mm */
const OVERRUN_MM = 1;

/** How far off two set-ups may lie to one another. @param visits how often the piece is laid in place */
export const betweenSetUps = (r: number, visits: number): number => (visits > 2 ? Math.SQRT2 * r : r);
/** Return error at a distance from the stop, mm. @param longest the piece’s longest side, mm */
export const errorAt = (r: number, distance: number, longest: number): number =>
  longest > 0 ? r * (1 + distance / longest) : r;
/** mm that a colour painted later runs under the one before it. @param between how far off their set-ups may lie there */
export const trapMm = (between: number): number => between + KERF_MM / 2;
/** mm that a picture runs over the piece all round */
export const overrunMm = (r: number): number => Math.max(r, OVERRUN_MM);

/** An outline that runs under its neighbours by `mm`: grown all round. @param clip the polygon kernel */
export function grown(clip: Clip, outline: string, mm: number): string {
  const region: Region = clip.fill(ringsOf(outline), "evenodd");
  return pathOf(clip.grow(region, mm));
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
