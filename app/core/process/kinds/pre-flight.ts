/** Placing, focusing, looking once round before the laser starts. */
import { focusOn, meltsByBeam, mirrored, sideUp, startFrom } from "../setup";
import { kind } from "../step";
import { burntBy } from "../polarity";
import { eyewear } from "./laser-work";

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
  lookFor: (_s, c) => ({
    look: `${sideUp(c)}, frame inside the piece, nothing loose`,
    how: "read the list aloud",
    against: "work card",
  }),
  cues: (_s, c) => [
    `${c.picture ? "Picture" : "Artwork"} ${burntBy(c).says}`,
    `${mirrored(c) ? "Mirrored: hold the mask to the artwork in a mirror" : "Not mirrored"}; ` +
      "labels and inner work before outlines",
    ...(mirrored(c) || c.job.quantity >= PROOF_PIECES
      ? ["Somebody else reads the list back: one look more saves the batch"]
      : []),
    `Start from ${startFrom(c)}; check the frame clears clamps and bed edge`,
    meltsByBeam(c)
      ? `Engraving: focus ${focusOn(c)}, air ${c.machine?.airAssist ? "on" : "as fitted"}; melting: focus raised, air off, as its step says`
      : `Interval ${c.intervalMm ?? "unknown"} mm, focus ${focusOn(c)}; air ${c.machine?.airAssist ? "on" : "as fitted"}`,
    `Extraction on, eyewear ${eyewear(c)}, extinguisher in reach`,
  ],
  minutes: () => ({ setup: 5, perPiece: 0 }),
  apply: (_s, p) => p,
});
