/** Cutting the piece out of its sheet: the last visit to the laser. */
import { kind } from "../step";
import { eyewear } from "./laser-work";

/** mm/s at which an outline is cut through, a planning figure */
const CUT_SPEED = 12;

export const cutOut = kind([], {
  id: "cut-out",
  name: "Cut it out",
  addable: true,
  on: "piece",
  beam: "outline",
  turns: true,
  attended: true,
  irreversible: true,
  purpose: () => "Last, or the piece drops and shifts while it is still worked on.",
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: () => ({ look: "Free all round, nothing hanging", how: "lift one corner of the sheet", against: "outline" }),
  cues: (_s, c) => [
    "Nothing else in this visit but the outline",
    "Keep the offcut: it is the nest for a further visit",
    `Eyewear ${eyewear(c)}; stay with it, cutting burns`,
  ],
  minutes: (_s, c) =>
    c.machine ? { setup: 5, perPiece: (2 * (c.job.substrate.w + c.job.substrate.h)) / CUT_SPEED / 60 } : null,
  refuses: (_s, p) => (p.cutOut ? "it is cut out already" : null),
  apply: (_s, p) => ({ ...p, cutOut: true, touched: "beam" }),
});
