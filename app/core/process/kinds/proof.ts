/** The first piece: it goes the whole way before the rest, and is looked at here. */
import { kind } from "../step";

/** minutes to look at it beside the artwork, take its picture and send that */
const LOOK_MIN = 10;

export const proof = kind([], {
  id: "proof",
  name: "Proof piece",
  addable: true,
  on: "zones",
  tries: "piece",
  photo: true,
  purpose: () => "One piece, gone the whole way, shows what the whole batch would suffer.",
  tool: () => "By eye, in the light it will hang in",
  lookFor: () => ({
    look: "Beside the artwork, nothing missing",
    how: "arm's length, same light",
    against: "artwork, customer's word",
  }),
  cues: () => [
    "One piece goes through every step behind this one first; the rest wait as they are",
    "Look at it finished, take its picture",
    "Send it for approval if the order asks for it: the batch is held until it is accepted",
  ],
  minutes: () => ({ setup: LOOK_MIN, perPiece: 0 }),
  apply: (_s, p) => ({ ...p, proofed: true }),
});
