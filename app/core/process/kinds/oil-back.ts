/** Oil or wax the back (K). */
import type { StepKind } from "../step";

export const oilBack: StepKind = {
  id: "oil-back",
  name: "Oil or wax the back",
  addable: true,
  divisible: true,
  laser: false,
  irreversible: false,
  purpose: () => "A bare back soils and warps.",
  tool: () => "Drying oil or wax, lint-free cloth",
  lookFor: () => ({ look: "Even sheen, nothing wet left", how: "touch", against: "raw offcut" }),
  cues: () => [
    "Thin, wait, wipe off all that has not gone in",
    "Oily rags heat up by themselves: flat out of doors or under water, never in a heap",
  ],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  needs: () => [],
  refuses: () => null,
  apply: (s, p) => ({ ...p, touched: s.kind }),
};
