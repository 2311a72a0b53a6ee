/** Rule 12: masks come off powder cold. */
import type { Rule } from "../snag";
import { heatAt } from "../../piece/state";
import { LIFT_C } from "../../models/powder/heat";
import { does, idBefore, round } from "../ask";
import { setFix } from "../fixes";
export const rule12: Rule = {
  id: 12,
  severity: "stop",
  title: "Masks come off powder cold",
  find: (f) => {
    return f.placed.flatMap((p, i) => {
      if (
        does(p).lifts !== "mask" ||
        p.start === null ||
        !p.before.zones.some((z) => z.films.some((x) => x.phase === "fused"))
      )
        return [];
      const now = heatAt(p.before, p.start);
      if (now === null || now <= LIFT_C + 0.5) return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { celsius: round(now), limit: LIFT_C },
          why: `The mask comes off while the fill is still ${round(now)} °C; above ${LIFT_C} °C it tears the colour out with it.`,
          fixes: p.actual
            ? []
            : [setFix("cold", "Wait until it is cold", idBefore(f, i) ?? p.step.id, { waitMin: null })],
        },
      ];
    });
  },
};
