/** Questions that several rules put to a plan. Of a step they ask what its kind does, not what it is called. */
import { airAtMoment } from "../models/drying/climate";
import type { Facts } from "../plan/facts";
import type { Placed } from "../plan/placed";
import { kindOf, own, type StepFor } from "../process/kinds";
import type { Traits } from "../process/step";

/** What the kind of a placed step does. */
export const does = (p: Placed): Traits => kindOf(p.step.kind);
/** A coat of a paint that is chosen. */
export type PlacedCoat = Placed & { step: StepFor<"coat"> & { productId: string } };
export const isCoat = (p: Placed): p is PlacedCoat => p.step.kind === "coat" && p.step.productId !== null;
/** Is a coat laid by hand with what gives off solvent, or alcohol, into the room and the rag? */
export const handLaidSolvent = (f: Facts, p: Placed): boolean => {
  const paint = isCoat(p) ? f.context.paintOf(p.step.productId) : null;
  return (
    paint !== null &&
    ["brush", "wipe", "marker", "pour"].includes(paint.finish.by) &&
    ["solvent", "alcohol"].includes(paint.base)
  );
};
/** Is solvent used at a step, whatever it is called: to clean, to strip, to wipe? */
export const usesSolvent = (p: Placed): boolean => does(p).cleans === "solvent" || does(p).wets === "solvent";
export const melts = (p: Placed, by: "gun" | "oven" | "laser"): boolean =>
  does(p).heats === true && (own(p.step, "method") ?? "gun") === by;
/** Is the beam given the piece itself, not a test of it? */
export const burns = (p: Placed): boolean => {
  const { beam } = does(p);
  return beam !== undefined && beam !== "trial";
};
export const firstIndex = (f: Facts, test: (p: Placed) => boolean): number => f.placed.findIndex(test);
export const lastIndex = (f: Facts, test: (p: Placed) => boolean): number =>
  f.placed.reduce((k, p, i) => (test(p) ? i : k), -1);
/** Where the piece is first cut, by the beam. */
export const cutIndex = (f: Facts): number => firstIndex(f, (p) => does(p).beam === "body");
/** Where films are first uncovered. */
export const uncoverIndex = (f: Facts): number => firstIndex(f, (p) => does(p).beam === "film");
/** Where the face is first sanded down to what it is made of. */
export const sandIndex = (f: Facts): number => firstIndex(f, (p) => does(p).sands === "face");
/** id of the step before index i, or null at the beginning */
export const idBefore = (f: Facts, i: number): string | null => (i > 0 ? f.placed[i - 1].step.id : null);
export const usesLaser = (f: Facts): boolean => f.placed.some((p) => does(p).beam !== undefined);
export const finalPiece = (f: Facts): Placed["after"] | null => f.placed[f.placed.length - 1]?.after ?? null;
export const round = (n: number, digits = 0): number => Math.round(n * 10 ** digits) / 10 ** digits;
/** °C and RH in force when a step is done, its own room included */
export function airAt(f: Facts, p: Placed): { c: number; rh: number } | null {
  if (p.start === null) return null;
  const air = f.context.room(own(p.step, "roomC"), own(p.step, "roomRh"));
  const m = f.context.clock.minuteOfDay(p.start);
  return airAtMoment(air, p.start, m);
}
