/** Hazard 76: metal burrs. */
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";

export const rule76: Rule = {
  id: 76,
  severity: "hazard",
  title: "Metal burrs",
  find: (f) => {
    const at = ["metal", "coated-metal"].includes(f.context.substrate.family)
      ? firstIndex(f, (p) => ["body", "skin"].includes(does(p).beam ?? "") || does(p).sands === "metal")
      : -1;
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { pieces: f.context.pieces },
            why:
              "Cut and scuffed metal has burrs: gloves when wiping, never a bare finger along an edge; dust off " +
              "with a brush, not by blowing.",
            fixes: [],
          },
        ];
  },
};
