/** Hazard 80: an unknown coating under the beam. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";
import { maskOf } from "../../process/masks";

export const rule80: Rule = {
  id: 80,
  severity: "hazard",
  title: "An unknown coating under the beam",
  find: (f) => {
    const at = firstIndex(
      f,
      (p) =>
        (does(p).beam === "skin" && f.context.substrate.skin?.kind === "coating") ||
        (own(p.step, "laser") !== null &&
          does(p).beam !== "film" &&
          p.before.zones.some(
            (z) =>
              (z.mask && maskOf(z.mask.productId, f.context).chlorinated === null) ||
              (does(p).beam === "body" &&
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
            why:
              "What is burnt here is not known: ask the maker of the coating, tape or powder what it gives off " +
              "under a beam before you begin. Extraction on; vinyl never.",
            fixes: [],
          },
        ];
  },
};
