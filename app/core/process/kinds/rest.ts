/** A wait put in by hand. */
import type { StepKind } from "../step";

export const rest: StepKind = {
  addable: true,
  divisible: true,
  laser: false,
  refuses: () => null,
  id: "rest",
  name: "Let it rest",
  irreversible: false,
  purpose: () => "A pause of your own.",
  tool: () => "Nothing",
  lookFor: () => ({ look: "Covered from dust", how: "a look", against: "-" }),
  cues: () => ["Cover it; keep pets and children away"],
  minutes: () => ({ setup: 0, perPiece: 0 }),
  needs: () => [],
  apply: (_s, p) => p,
};
