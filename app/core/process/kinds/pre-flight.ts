/** Placing, focusing, looking once round before the laser starts. */
import type { Context } from "../context";
import { kind } from "../step";
import { burntOf } from "../polarity";
import { eyewear } from "./laser-work";

/** pieces from which a second pair of eyes is worth it */
const PROOF_PIECES = 3;

/** Is it put back in a nest or jig, and not against a stop? */
const inNest = (c: Context): boolean =>
  c.job.choices.placedBy === "nest" || (c.world.shop.gear ?? []).some((g) => g.id === c.job.choices.placedBy);

export const preFlight = kind([], {
  id: "pre-flight",
  name: "Place, focus, look once round",
  addable: true,
  on: "piece",
  places: "flat",
  divisible: true,
  matters: ["overrun"],
  purpose: () => "What is wrong here is burnt into every piece.",
  tool: () => "Corner stop, focus gauge",
  lookFor: () => ({
    look: "Face up, frame inside the piece, nothing loose",
    how: "read the list aloud",
    against: "work card",
  }),
  cues: (_s, c) => [
    `Artwork ${burntOf("drawing", c.route).says}`,
    `${(c.job.choices.mirrored ?? c.route?.mirrored) ? "Mirrored: hold the mask to the artwork in a mirror" : "Not mirrored"}; ` +
      "labels and inner work before outlines",
    ...((c.job.choices.mirrored ?? c.route?.mirrored) || c.job.quantity >= PROOF_PIECES
      ? ["Somebody else reads the list back: one look more saves the batch"]
      : []),
    `Start from the ${inNest(c) ? "nest" : "stop"}, its corner as the origin; ` +
      "check the frame clears clamps and bed edge",
    `Interval ${c.intervalMm ?? "unknown"} mm, focus on the face, air ${c.machine?.airAssist ? "on" : "as fitted"}`,
    `Extraction on, eyewear ${eyewear(c)}, extinguisher in reach`,
  ],
  minutes: () => ({ setup: 5, perPiece: 0 }),
  apply: (_s, p) => p,
});
