/** Hazard 84: oily rags heat up by themselves. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";

export const rule84: Rule = {
  id: 84,
  severity: "hazard",
  title: "Oily rags heat up by themselves",
  find: (f) => {
    const at = firstIndex(
      f,
      (p) => does(p).wets === "oil" || f.context.paint(own(p.step, "productId"))?.finish.family === "oil",
    );
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { pieces: f.context.pieces },
            why:
              "Rags with drying oil heat up by themselves and catch fire hours later: spread flat out of doors " +
              "or under water in a lidded metal can, never in a heap.",
            fixes: [],
          },
        ];
  },
};
