/** Finishing moves (K): what may be added to the end of any route that bears it. A further move is a further row. */
import type { Family } from "./substrates";

export interface FinishingMove {
  id: string;
  name: string;
  gives: string;
  /** step kind that does it */
  kind: string;
  /** where it makes sense; null: anywhere */
  families: readonly Family[] | null;
}

const ROWS = [
  { id: "epoxy", name: "Flood with epoxy", gives: "A thick, level, glossy face.", kind: "flood-epoxy", families: null },
  {
    id: "edge-black",
    name: "Blacken the edges",
    gives: "Edges that frame the picture.",
    kind: "edge-black",
    families: ["wood", "mdf", "tile", "slate", "acrylic"],
  },
  {
    id: "oil-back",
    name: "Oil or wax the bare back",
    gives: "A back that does not soil or warp.",
    kind: "oil-back",
    families: ["wood", "mdf"],
  },
  {
    id: "feet",
    name: "Cork, feet or a stand",
    gives: "It does not scratch what it stands on.",
    kind: "feet",
    families: null,
  },
] as const satisfies readonly FinishingMove[];

/** kinds of step that moves name */
export type MovesNamed = (typeof ROWS)[number]["kind"];
export const FINISHING: readonly FinishingMove[] = ROWS;
