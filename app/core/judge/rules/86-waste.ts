/** Hazard 86: rinse water, thinner and dead cans are hazardous waste. */
import { own } from "../../process/kinds";
import type { Placed } from "../../plan/placed";
import type { Rule } from "../snag";
import { isCoat, usesSolvent } from "../ask";

export const rule86: Rule = {
  id: 86,
  severity: "hazard",
  title: "Waste",
  find: (f) => {
    const cans = new Set(
      f.placed
        .filter(
          (p) =>
            isCoat(p) &&
            ["spray", "airbrush"].includes(f.context.paintOf(own(p.step, "productId") as string).finish.by),
        )
        .map((p) => own(p.step, "productId")),
    );
    const rinsed = (p: Placed): boolean =>
      isCoat(p) && ["brush", "airbrush"].includes(f.context.paintOf(p.step.productId).finish.by);
    const wet = f.placed.find((p) => usesSolvent(p) || rinsed(p) || (isCoat(p) && cans.has(p.step.productId)));
    return wet
      ? [
          {
            step: wet.step.id,
            zone: null,
            numbers: { sprayedProducts: cans.size },
            why:
              "Rinse water, thinner, wipes and dead cans are hazardous waste, not for the drain or the bin: collect " +
              "them and hand them in as your local rules say.",
            fixes: [],
          },
        ]
      : [];
  },
};
