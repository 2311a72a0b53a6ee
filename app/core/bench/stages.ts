/** Stages of a piece that a photo is worth: after the cut or the uncovering, the last colour, sanding back, and the finished piece. */
import type { Placed } from "../plan/placed";

const KINDS = ["engrave", "reveal", "plate", "proof", "sand-back", "final-check"];

/** Steps after which a photo is asked for. */
export const photoStages = (placed: Placed[]): Placed[] => {
  const colours = placed.filter((p) => p.step.kind === "coat" && p.step.role === "colour");
  return placed.filter((p) => KINDS.includes(p.step.kind) || p === colours[colours.length - 1]);
};

/** Was one taken at this stage? Photos are named `photo.<step>.<when>`. */
export const hasPhoto = (photoIds: string[], step: string): boolean =>
  photoIds.some((id) => id.startsWith(`photo.${step}.`));
