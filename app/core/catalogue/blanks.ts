/** Blanks by material and size: which lot would do for a piece. */
import type { Substrate } from "../records/job";
import type { BlankLot } from "../records/shop";

/** mm that two blanks may differ and still be the same */
const SAME_MM = 0.5;
const near = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_MM;

/** Is a lot of the material and size of a piece, turned either way round? */
export function blankMatches(lot: BlankLot, s: Substrate): boolean {
  if (lot.substrate !== s.id) return false;
  const round = s.shape === "ball" || s.shape === "cylinder";
  if (round !== (lot.diameter !== undefined)) return false;
  if (round && !(s.diameter !== undefined && near(lot.diameter!, s.diameter))) return false;
  const sized = (near(lot.w, s.w) && near(lot.h, s.h)) || (!round && near(lot.w, s.h) && near(lot.h, s.w));
  return sized && near(lot.t, s.t);
}
/** The lot that a piece is taken from: the one that is named, else the newest that fits; null: none lies here. */
export function lotOf(lots: readonly BlankLot[], s: Substrate, named?: string | null): BlankLot | null {
  const one = lots.find((l) => l.id === named);
  return one ?? lots.filter((l) => blankMatches(l, s)).sort((a, b) => (a.cameOn < b.cameOn ? 1 : -1))[0] ?? null;
}
/** Those of a lot that were turned away. */
export const rejected = (lot: BlankLot): number => (lot.rejects ?? []).reduce((a, r) => a + r.n, 0);
/** Share of a lot that was good; null: none came. */
export const yieldOf = (lot: BlankLot): number | null => (lot.came > 0 ? (lot.came - rejected(lot)) / lot.came : null);
/** Least blanks to order so that so many are good, by a yield; null: none would be. */
export const toOrder = (good: number, share: number): number | null =>
  share > 0 ? Math.max(0, Math.ceil(good / share - 1e-9)) : null;
