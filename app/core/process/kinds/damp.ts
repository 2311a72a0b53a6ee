/** A face that was wiped with solvent or rinsed, and how long it must dry before paint or beam. */
import type { Piece } from "../../piece/state";
import type { Need } from "../step";

/** minutes at the reference climate before solvent is gone, and before a rinsed piece is dry */
export const SOLVENT_MIN = 10;
export const RINSE_MIN = 120;

/** What a damp surface asks for before paint or beam. */
export function dampNeed(p: Piece): Need[] {
  if (!p.damp || p.damp.at === null) return [];
  const rinse = p.damp.kind === "rinse";
  return [
    {
      state: "dry",
      stacks: [],
      why: rinse ? "the rinsed face is dry" : "the solvent is gone: 10 min and no smell",
      fixed: { at: p.damp.at, refMin: rinse ? RINSE_MIN : SOLVENT_MIN, waterBorne: rinse },
    },
  ];
}
