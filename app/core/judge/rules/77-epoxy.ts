/** Hazard 77: epoxy on the skin. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { firstIndex } from "../ask";

export const rule77: Rule = {
  id: 77,
  severity: "hazard",
  title: "Epoxy on the skin",
  find: (f) => {
    const at = firstIndex(
      f,
      (p) => f.context.paint(own(p.step, "productId"))?.finish.family === "epoxy" || p.step.kind === "flood-epoxy",
    );
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { pieces: f.context.pieces },
            why:
              "Epoxy sensitises: once is enough for good. Gloves that its sheet names, sleeves, moving air; no " +
              "sanding before it has cured. Follow the data sheet and your local rules.",
            fixes: [],
          },
        ];
  },
};
