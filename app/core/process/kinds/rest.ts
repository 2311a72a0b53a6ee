/** A wait put in by hand. */
import { kind } from "../step";

export const rest = kind([], {
  id: "rest",
  name: "Let it rest",
  addable: true,
  on: "piece",
  rests: true,
  divisible: true,
  purpose: () => "A pause of your own.",
  tool: () => "Nothing",
  lookFor: () => ({ look: "Covered from dust", how: "a look", against: "how it lay before" }),
  cues: () => ["Cover it; keep pets and children away"],
  minutes: () => ({ setup: 0, perPiece: 0 }),
  apply: (_s, p) => p,
});
