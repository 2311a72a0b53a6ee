/** Hazard 75: thin glass. */
import type { Rule } from "../snag";

export const rule75: Rule = {
  id: 75,
  severity: "hazard",
  title: "Thin glass",
  find: (f) => {
    const at = f.context.substrate.family === "glass" && f.placed.length ? 0 : -1;
    const n = f.context.pieces;
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { pieces: f.context.pieces },
            why:
              `${n} thin ${n === 1 ? "glass: it breaks" : "glasses: they break"} in the hand and on the chuck. Gloves, glasses, ` +
              "a tray beneath; count on spares.",
            fixes: [],
          },
        ];
  },
};
