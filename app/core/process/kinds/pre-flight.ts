/** Placing, focusing, looking once round before the laser starts. */
import { kind } from "../step";
import { eyewear, wantsInverted } from "./laser-work";

/** pieces from which a second pair of eyes is worth it */
const PROOF_PIECES = 3;

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
    wantsInverted(c) ? "Picture inverted: burning shows light" : "Picture as drawn, not inverted",
    `${(c.job.choices.mirrored ?? c.route?.mirrored) ? "Mirrored: hold the mask to the artwork in a mirror" : "Not mirrored"}; labels and inner work before outlines`,
    ...((c.job.choices.mirrored ?? c.route?.mirrored) || c.job.quantity >= PROOF_PIECES
      ? ["Somebody else reads the list back: one look more saves the batch"]
      : []),
    `Start from the ${c.job.choices.placedBy === "nest" || (c.world.shop.gear ?? []).some((g) => g.id === c.job.choices.placedBy) ? "nest, its corner as the origin" : "stop, its corner as the origin"}; check the frame clears clamps and bed edge`,
    `Interval ${c.intervalMm ?? "unknown"} mm, focus on the face, air ${c.machine?.airAssist ? "on" : "as fitted"}`,
    `Extraction on, eyewear ${eyewear(c)}, extinguisher in reach`,
  ],
  minutes: () => ({ setup: 5, perPiece: 0 }),
  apply: (_s, p) => p,
});
