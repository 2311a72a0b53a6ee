/** Sanding off what burning leaves on the face. */
import { kind } from "../step";

export const sandResidue = kind(["sandUm"], {
  id: "sand-residue",
  name: "Sand off the residue",
  addable: true,
  on: "piece",
  sands: "residue",
  divisible: true,
  fields: ["sandUm", "minutes", "waitMin"],
  purpose: () => "The sticky film that burning leaves on the face would keep the sealer from holding.",
  tool: () => "220 grit on a flat block",
  lookFor: () => ({ look: "Face its own colour, edge still sharp", how: "daylight", against: "raw offcut" }),
  cues: () => ["With the grain, no pressure", "Stop as soon as the brown is gone"],
  minutes: () => ({ setup: 2, perPiece: 0.5 }),
  apply: (s, p) => ({ ...p, soot: false, clean: false, sandedUm: p.sandedUm + (s.sandUm ?? 0) }),
});
