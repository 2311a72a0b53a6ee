/** Labelling the backs before they are covered. */
import { kind } from "../step";

export const label = kind([], {
  id: "label",
  name: "Label the backs",
  addable: true,
  on: "piece",
  labels: true,
  divisible: true,
  purpose: () => "Every piece is known by its number once its back is covered.",
  tool: () => "Labels or a pencil",
  lookFor: () => ({ look: "Job, piece number and top mark on every back", how: "count them", against: "quantity" }),
  cues: (_s, c) => [`Number 1 to ${c.job.quantity}`, "Mark which edge is the top"],
  minutes: () => ({ setup: 2, perPiece: 0.3 }),
  apply: (_s, p) => ({ ...p, labelled: true }),
});
