/** Rule 23: a damp shop blushes lacquer and shellac. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { airAt, isCoat, round } from "../ask";
import { setFix } from "../fixes";

/** relative humidity from which they blush */
export const BLUSH_RH = 0.85;

export const rule23: Rule = {
  id: 23,
  severity: "risk",
  title: "Too damp for lacquer and shellac",
  find: (f) =>
    f.placed.flatMap((p) => {
      const at = airAt(f, p);
      if (!isCoat(p) || !at || p.actual || at.rh <= BLUSH_RH) return [];
      const paint = f.context.paintOf(own(p.step, "productId") as string);
      if (!["lacquer", "shellac", "clear-acrylic"].includes(paint.finish.family)) return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { rh: round(at.rh, 2), limit: BLUSH_RH },
          why: `${paint.product.name} goes on at ${round(at.rh * 100)} % humidity; from ${BLUSH_RH * 100} % it clouds white.`,
          fixes: [setFix("dry-room", "Lay and dry it in a room at 50 %", p.step.id, { roomC: 20, roomRh: 0.5 })],
        },
      ];
    }),
};
