/** Rule 26: a wait falls into a cold night; its real length is shown. */
import { own } from "../../process/kinds";
import { minutesBelow } from "../../models/drying/clock";
import type { Rule } from "../snag";
import { showMinutes } from "../../units/show";
import { round } from "../ask";
import { setFix } from "../fixes";

/** cold minutes that make it worth saying */
const WORTH_MIN = 30;

export const rule26: Rule = {
  id: 26,
  severity: "advice",
  title: "Waits that fall into a cold night",
  find: (f) =>
    f.placed.flatMap((p) => {
      const w = p.waited;
      if (!w || !w.film || w.opens === null || p.actual) return [];
      const laid = f.placed.find((x) => x.step.id === w.film);
      const paint = w.productId ? f.context.paintOf(w.productId) : null;
      const min = paint?.minC.value ?? null;
      if (!laid || min === null || w.refMin === null) return [];
      const air = f.context.room(own(laid.step, "roomC"), own(laid.step, "roomRh"));
      const cold = minutesBelow(f.context.clock, air, min, w.from, w.opens);
      if (cold < WORTH_MIN) return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: {
            realMin: round(w.opens - w.from),
            referenceMin: round(w.refMin),
            coldMin: round(cold),
            minimum: min,
          },
          why:
            `The wait before “${p.step.title}” is ${showMinutes(w.opens - w.from)}, not ${showMinutes(w.refMin)}: ` +
            `for ${showMinutes(cold)} of it the shop is below ${min} °C and nothing dries.`,
          fixes: [
            setFix("indoors", `Dry ${paint!.product.name} in a room at 20 °C`, w.film, { roomC: 20, roomRh: 0.5 }),
          ],
        },
      ];
    }),
};
