/** Hazard 87: blades, picks, blown dust. */
import type { Placed } from "../../plan/placed";
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";

const dusty = (p: Placed): boolean =>
  ["face", "residue"].includes(does(p).sands ?? "") || does(p).lifts === "mask" || does(p).cleans === "dry";

export const rule87: Rule = {
  id: 87,
  severity: "hazard",
  title: "Blades, picks, blown dust",
  find: (f) => {
    const at = firstIndex(f, (p) => dusty(p));
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: {
              steps: f.placed.filter((p) => dusty(p)).length,
            },
            why: "Picks and blades slip, blown dust goes into eyes and lungs: glasses, a dust mask, blades away from the holding hand.",
            fixes: [],
          },
        ];
  },
};
