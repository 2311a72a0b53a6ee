/** Rule 32: a can nearly empty, short for the job, or cold. */
import { own } from "../../process/kinds";
import { LOW_CAN } from "../../process/kinds/laser-work";
import type { Rule } from "../snag";
import { airAt, isCoat, round } from "../ask";
import { setFix, productFix, fullCan } from "../fixes";

/** °C below which a can sprays unevenly */
const COLD_CAN_C = 12;

export const rule32: Rule = {
  id: 32,
  severity: "risk",
  title: "Cans full and warm enough",
  find: (f) => {
    const c = f.context;
    const short = f.amounts.flatMap((a) => {
      const p = c.paintOf(a.product);
      // No can on the Shelf is a purchase, listed with the amounts; a can that will not do is a risk.
      if (a.onShelfMl === null || a.ml === null || !p.product.cans.length) return [];
      const full = p.product.cans.reduce((s, k) => s + k.fullMl, 0);
      const low =
        p.finish.by === "spray" &&
        full > 0 &&
        p.product.cans.every((k) => k.leftMl !== null && k.leftMl < LOW_CAN * k.fullMl);
      if (!(a.cans ?? 0) && !low) return [];
      const buy = Math.max(1, a.cans ?? 1);
      const others = a.othersMl > 0 ? `, and other open jobs take ${round(a.othersMl, 1)} ml of it` : "";
      const step =
        f.placed.find((x) => own(x.step, "productId") === a.product && x.actual?.end == null)?.step.id ?? null;
      if (step === null) return [];
      return [
        {
          step,
          zone: null,
          numbers: {
            needMl: round(a.ml, 1),
            leftMl: round(a.onShelfMl, 1),
            othersMl: a.othersMl > 0 ? round(a.othersMl, 1) : null,
            cansToBuy: buy,
          },
          why:
            (a.cans ?? 0) > 0
              ? `${p.product.name}: the plan takes ${round(a.ml, 1)} ml, the Shelf holds ${round(a.onShelfMl, 1)} ml${others}.`
              : `${p.product.name}: every can is under ${LOW_CAN * 100} % full and may spit; the film would be twice as uneven.`,
          fixes: [
            productFix(
              "can",
              buy === 1 ? "Put a full can on the Shelf" : `Put ${buy} full cans on the Shelf`,
              a.product,
              (x) => ({
                cans: [...x.cans, ...Array.from({ length: buy }, (_, k) => fullCan(x, k + 1, a.canMl ?? 400))],
              }),
            ),
          ],
        },
      ];
    });
    const cold = f.placed.flatMap((p) => {
      const at = airAt(f, p);
      if (
        !isCoat(p) ||
        !at ||
        p.actual ||
        own(p.step, "canWarmed") ||
        at.c >= COLD_CAN_C ||
        c.paintOf(own(p.step, "productId") as string).finish.by !== "spray"
      )
        return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { celsius: round(at.c, 1), limitC: COLD_CAN_C },
          why: `The can for “${p.step.title}” is at ${round(at.c, 1)} °C; below ${COLD_CAN_C} °C it spits.`,
          fixes: [setFix("warm-can", "Warm the can in hand-warm water", p.step.id, { canWarmed: true })],
        },
      ];
    });
    return [...short, ...cold];
  },
};
