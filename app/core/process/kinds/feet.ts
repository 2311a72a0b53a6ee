/** Cork, feet or a stand (K). */
import { kind } from "../step";

export const feet = kind([], {
  id: "feet",
  name: "Cork, feet or a stand",
  addable: true,
  on: "piece",
  divisible: true,
  purpose: () => "It stands without scratching.",
  tool: () => "Cork, glue or pads",
  lookFor: () => ({ look: "Flat, all feet touch", how: "rock it on a flat table", against: "-" }),
  cues: () => ["On clean bare back, pressed for a minute"],
  minutes: () => ({ setup: 2, perPiece: 0.5 }),
  apply: (s, p) => ({ ...p, touched: s.kind }),
});
