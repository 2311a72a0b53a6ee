/** Questions that several rules put to a plan. */
import { airAtMoment } from "../models/drying/climate";
import type { Facts } from "../plan/facts";
import type { Placed } from "../plan/place";

export const isCoat = (p: Placed): boolean => p.step.kind === "coat" && p.step.productId !== null;
export const firstIndex = (f: Facts, test: (p: Placed) => boolean): number => f.placed.findIndex(test);
export const lastIndex = (f: Facts, test: (p: Placed) => boolean): number =>
  f.placed.reduce((k, p, i) => (test(p) ? i : k), -1);
export const kindIndex = (f: Facts, kind: string): number => firstIndex(f, (p) => p.step.kind === kind);
/** id of the step before index i, or null at the beginning */
export const idBefore = (f: Facts, i: number): string | null => (i > 0 ? f.placed[i - 1].step.id : null);
export const usesLaser = (f: Facts): boolean =>
  f.placed.some((p) =>
    ["reveal", "engrave", "proof", "plate", "score-mask", "open-skin", "burn-in", "cut-out"].includes(p.step.kind),
  );
export const finalPiece = (f: Facts): Placed["after"] | null => f.placed[f.placed.length - 1]?.after ?? null;
export const round = (n: number, digits = 0): number => Math.round(n * 10 ** digits) / 10 ** digits;
/** °C and RH in force when a step is done, its own room included */
export function airAt(f: Facts, p: Placed): { c: number; rh: number } | null {
  if (p.start === null) return null;
  const air = f.context.room(p.step.roomC, p.step.roomRh);
  const m = f.context.clock.minuteOfDay(p.start);
  return airAtMoment(air, p.start, m);
}
