/** Hazard 88: a chuck on glass. */
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";

export const rule88: Rule = {
  id: 88,
  severity: "hazard",
  title: "A chuck on glass",
  find: (f) => {
    const at = f.context.substrate.family === "glass" ? firstIndex(f, (p) => does(p).places === "round") : -1;
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { pieces: f.context.pieces },
            why: "An over-tight chuck breaks glass, sometimes a minute later: hand-tight, a rubber band at the neck, glasses on.",
            fixes: [],
          },
        ];
  },
};
