/** Hazard 80: an unknown coating under the beam. */
import type { Rule } from "../snag";
import { firstIndex } from "../ask";
import { maskOf } from "../../process/masks";

export const rule80: Rule = {
  id: 80,
  severity: "hazard",
  title: "An unknown coating under the beam",
  find: (f) => {
    const at = firstIndex(
      f,
      (p) =>
        (p.step.kind === "open-skin" && f.context.substrate.skin?.kind === "coating") ||
        (p.step.laser !== null &&
          p.step.kind !== "reveal" &&
          p.before.zones.some(
            (z) =>
              (z.mask && maskOf(z.mask.productId, f.context).chlorinated === null) ||
              (p.step.kind === "engrave" &&
                p.step.zones.includes(z.zone) &&
                z.films.some(
                  (x) => x.phase === "fused" && f.context.paintOf(x.productId).product.chlorinated === null,
                )),
          )),
    );
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { step: at + 1 },
            why: "What is burnt here is not known: ask the maker of the coating, tape or powder what it gives off under a beam before you begin. Extraction on; vinyl never.",
            fixes: [],
          },
        ];
  },
};
