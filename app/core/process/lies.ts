/** How the piece lies before the maker at a step. */
import type { Context } from "./context";
import { kindOf, type Step } from "./kinds";
import { shapeOf } from "./setup";

/** Does the back lie up? In routes on the back of a sheet, until its face is looked at. */
export function backUp(s: Step, c: Context): boolean {
  const { packs, lifts } = kindOf(s.kind);
  return shapeOf(c) === "flat" && c.route?.side === "back" && !packs && lifts !== "face-film";
}
