/** Peeling the maker’s film off the side of a sheet that is worked, before anything sticks to it; the other side keeps its own. */
import { kind } from "../step";

export const bareBack = kind([], {
  id: "bare-back",
  name: "Peel the film off the back",
  addable: true,
  on: "piece",
  divisible: true,
  purpose: () => "Mask and paint must hold on the sheet itself; what lies on its film comes off with it.",
  tool: () => "Fingernail, plastic scraper",
  lookFor: () => ({
    look: "Back bare, film on the face whole to its edges",
    how: "turn it in the light",
    against: "the face, which keeps its film",
  }),
  cues: () => [
    "The side that will be painted only; the film on the face stays to the end",
    "Peel flat, back on itself; wait till the static has gone, it draws dust",
  ],
  minutes: () => ({ setup: 1, perPiece: 0.5 }),
  refuses: (_s, p) => (p.side === "back" ? null : "the face itself is worked, so there is no back to bare"),
  apply: (_s, p) => ({ ...p, touched: "hand" }),
});
