/**
 * How a piece lies at the laser: side, focus, start, air, cleaning. Said once, from route, material, shape and machine; cards, pre-flight,
 * guide and rules quote it.
 */
import { colourWay, meltsBy } from "../catalogue/routes";
import type { Context } from "./context";
import { jigOf } from "./on-bed";

export const mirrored = (c: Context): boolean => c.job.choices.mirrored ?? c.route?.mirrored ?? false;
/** a ball where a route is for round pieces only and nothing is said */
export const shapeOf = (c: Context): "flat" | "ball" | "cylinder" =>
  c.job.substrate.shape ?? (c.route && !c.route.shapes.includes("flat") ? "ball" : "flat");
/** Glass so thin that a sharp beam cracks it. */
const thin = (c: Context): boolean => c.substrate.skin?.kind === "silver";

/** Which side lies up. */
export const sideUp = (c: Context): string =>
  shapeOf(c) !== "flat"
    ? "Picture towards the beam"
    : c.route?.side === "back"
      ? "Back up, the film on the face beneath"
      : "Face up";

/** Where the focus lies, as it follows “focus”. */
export function focusOn(c: Context): string {
  const shape = shapeOf(c);
  const at =
    shape === "ball"
      ? "half way down the drop"
      : shape === "cylinder"
        ? "on the crown"
        : c.route?.side === "back"
          ? "on the back"
          : "on the face";
  return thin(c) ? `${at}, then raised 2 to 3 mm: thin glass` : at;
}

/** What the start of the frame is taken from. */
export function startFrom(c: Context): string {
  if (shapeOf(c) !== "flat") return "the mark on the chuck, the seam at the back";
  const gear = jigOf(c);
  const nest = c.job.choices.placedBy === "nest" || gear !== null;
  return nest ? `${gear?.name ?? "the nest"}, its corner as the origin` : "the stop, its corner as the origin";
}

/** Is the piece held under a tap after the laser? What drinks is only wiped, and so is what comes off with water. */
export function rinsed(c: Context): boolean {
  const soluble = c.filled.some((z) => ["ink", "dye"].includes(c.paintOf(z.productId as string).finish.family));
  return c.school("clean-off") !== "wipe" && !c.substrate.absorbent && !(soluble && c.route?.lifts === true);
}

/** Is powder melted by the beam in this job, so that its visits differ in focus, lines and air? */
export const meltsByBeam = (c: Context): boolean =>
  meltsBy("laser", c.job.route) ||
  (["powder", "nested"].includes(colourWay(c.route) ?? "") && c.school("melt") === "laser");
