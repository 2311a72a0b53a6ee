/** Labelling the backs before they are covered. */
import type { Context } from "../context";
import { kind } from "../step";

const onWhat = (c: Context): string =>
  c.route?.side === "back"
    ? "on the film of every face"
    : c.route?.side === "inside"
      ? "on every box or stand"
      : "on every back";

export const label = kind([], {
  id: "label",
  name: "Label the pieces",
  addable: true,
  on: "piece",
  labels: true,
  divisible: true,
  purpose: () => "Every piece is known by its number, whatever covers it later.",
  tool: (_s, c) => (c.route?.side === "back" ? "Fine marker" : "Labels or a pencil"),
  lookFor: (_s, c) => ({ look: `Job, piece number and top mark ${onWhat(c)}`, how: "count them", against: "quantity" }),
  cues: (_s, c) => [
    `Number 1 to ${c.pieces}`,
    "Mark which edge is the top",
    ...(c.route?.side === "back" ? ["On the film of the face: the back gets painted"] : []),
  ],
  minutes: () => ({ setup: 2, perPiece: 0.3 }),
  apply: (_s, p) => ({ ...p, labelled: true }),
});
