/** Hazard 74: an oven for this only. */
import type { Rule } from "../snag";
import { firstIndex, melts } from "../ask";

export const rule74: Rule = {
  id: 74,
  severity: "hazard",
  title: "An oven for this only",
  find: (f) => {
    const at = firstIndex(f, (p) => melts(p, "oven"));
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { loads: f.placed.filter((p) => melts(p, "oven")).length },
            why:
              "Powder gives off vapour as it cures: an oven that has melted it is never used for food again, stands " +
              "where air moves, and is not left alone. Follow the data sheet and your local rules.",
            fixes: [],
          },
        ];
  },
};
