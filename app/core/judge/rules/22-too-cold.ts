/** Rule 22: the next film over one below its minimum temperature; a water-borne film that sits cold is spoiled. */
import { minutesBelow } from "../../models/drying/clock";
import { dryAt } from "../../models/drying/clock";
import { dryingOf, referenceMinutes } from "../../process/film-times";
import type { Rule } from "../snag";
import { airAt, isCoat, round } from "../ask";
import { setFix } from "../fixes";

/** share of the touch time spent too cold that spoils a water-borne film */
const SPOILED = 0.5;
const INDOORS = { roomC: 20, roomRh: 0.5 };

export const rule22: Rule = {
  id: 22,
  severity: "risk",
  title: "Warm enough to dry",
  find: (f) =>
    f.placed.flatMap((p) => {
      const c = f.context;
      const at = airAt(f, p);
      if (!isCoat(p) || !at || p.end === null || p.step.dryUm === null || p.actual) return [];
      const paint = c.paintOf(p.step.productId);
      const min = paint.minC.value;
      if (min === null) return [];
      const air = c.room(p.step.roomC, p.step.roomRh);
      const ref = referenceMinutes(paint, "touch", p.step.dryUm, p.step.dryUm, c.substrate);
      const done = ref === null ? null : dryAt(c.clock, air, dryingOf(paint, "touch"), p.end, ref);
      const span = done === null ? 1440 : done - p.end;
      const share = minutesBelow(c.clock, air, min, p.end, p.end + span) / span;
      const spoiled = paint.base === "water" && share > SPOILED;
      if (at.c >= min && !spoiled) return [];
      return [
        {
          step: p.step.id,
          zone: null,
          severity: spoiled ? ("stop" as const) : ("risk" as const),
          numbers: { celsius: round(at.c, 1), minimum: min, coldShare: round(share, 2) },
          why: spoiled
            ? `${paint.product.name} would spend ${round(share * 100)} % of its touch time below ${min} °C; a water-borne ` +
              "film that sits cold never joins up."
            : `${paint.product.name} goes on at ${round(at.c, 1)} °C; below ${min} °C it ` +
              `${paint.base === "water" ? "does not dry" : `dries slowly, below ${min - 5} °C not at all`}. ` +
              "Nothing may go over it until it has.",
          fixes: [setFix("indoors", "Dry it in a room at 20 °C", p.step.id, INDOORS)],
        },
      ];
    }),
};
