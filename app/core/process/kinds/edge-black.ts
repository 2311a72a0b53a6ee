/** Blacken the edges (K). */
import type { StepKind } from "../step";

export const edgeBlack: StepKind = {
  id: "edge-black",
  name: "Blacken the edges",
  addable: true,
  divisible: true,
  laser: false,
  irreversible: false,
  purpose: () => "A dark rim frames the picture and hides the cut.",
  tool: () => "Fat marker, alcohol-proof gloves",
  lookFor: () => ({ look: "Even all round, none on the face", how: "hold it edge on", against: "the first one" }),
  cues: () => ["Along the edge, never across the face", "Two rounds, the second when the first is dry"],
  minutes: () => ({ setup: 2, perPiece: 0.8 }),
  needs: () => [],
  refuses: () => null,
  apply: (s, p) => ({ ...p, touched: s.kind }),
};
