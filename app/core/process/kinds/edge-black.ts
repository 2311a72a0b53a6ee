/** Blacken the edges (K). */
import { kind } from "../step";

export const edgeBlack = kind([], {
  id: "edge-black",
  name: "Blacken the edges",
  addable: true,
  on: "piece",
  divisible: true,
  purpose: () => "A dark rim frames the picture and hides the cut.",
  tool: () => "Fat marker, alcohol-proof gloves",
  lookFor: () => ({ look: "Even all round, none on the face", how: "hold it edge on", against: "the first one" }),
  cues: () => ["Along the edge, never across the face", "Two rounds, the second when the first is dry"],
  minutes: () => ({ setup: 2, perPiece: 0.8 }),
  apply: (s, p) => ({ ...p, touched: s.kind }),
});
