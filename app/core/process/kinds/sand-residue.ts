/** Sanding off what burning leaves on the face. */
import type { StepKind } from "../step";

export const sandResidue: StepKind = {
  addable: true,
  divisible: true,
  laser: false,
  refuses: () => null,
  id: "sand-residue",
  name: "Sand off the residue",
  irreversible: false,
  purpose: () => "The sticky film that burning leaves on the face would keep the sealer from holding.",
  tool: () => "220 grit on a flat block",
  lookFor: () => ({ look: "Face its own colour, edge still sharp", how: "daylight", against: "raw offcut" }),
  cues: () => ["With the grain, no pressure", "Stop as soon as the brown is gone"],
  minutes: () => ({ setup: 2, perPiece: 0.5 }),
  needs: () => [],
  apply: (s, p) => ({ ...p, soot: false, clean: false, sandedUm: p.sandedUm + (s.sandUm ?? 0) }),
};
