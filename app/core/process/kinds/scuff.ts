/** Scuffing bright metal. */
import { kind } from "../step";

export const scuff = kind([], {
  id: "scuff",
  name: "Scuff the face",
  addable: true,
  on: "piece",
  sands: "metal",
  divisible: true,
  purpose: () => "Bright metal gives paint nothing to hold.",
  tool: () => "Medium abrasive pad",
  lookFor: () => ({ look: "Evenly matt, no bright streak", how: "raking light", against: "a scuffed offcut" }),
  cues: () => ["One direction, then across", "Edges too; keep the burrs away from bare skin"],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  apply: (_s, p) => ({ ...p, clean: false, scuffed: true }),
});
