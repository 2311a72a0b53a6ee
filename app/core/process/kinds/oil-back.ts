/** Oil or wax the back (K). */
import { kind } from "../step";

export const oilBack = kind([], {
  id: "oil-back",
  name: "Oil or wax the back",
  addable: true,
  on: "piece",
  wets: "oil",
  divisible: true,
  purpose: () => "A bare back soils and warps.",
  tool: () => "Drying oil or wax, lint-free cloth",
  lookFor: () => ({ look: "Even sheen, nothing wet left", how: "touch", against: "raw offcut" }),
  cues: () => [
    "Thin, wait, wipe off all that has not gone in",
    "Oily rags heat up by themselves: flat out of doors or under water, never in a heap",
  ],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  apply: (s, p) => ({ ...p, touched: s.kind }),
});
