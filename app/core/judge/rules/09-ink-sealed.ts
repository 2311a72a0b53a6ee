/** Rule 9: ink is sealed before anything wet. */
import type { Rule } from "../snag";
import { zoneOf } from "../../piece/state";
import { does, idBefore, isCoat } from "../ask";
import { addStep, editFix } from "../fixes";
import { productFor } from "../../process/pick";
export const rule9: Rule = {
  id: 9,
  severity: "stop",
  title: "Ink is sealed before anything wet",
  find: (f) => {
    const c = f.context;
    const clear = c.world.products.find((x) => c.paintOf(x.id).finish.id === "spray-clear") ?? productFor("clear", c);
    return f.placed.flatMap((p, i) => {
      const wet = does(p).wets === "rinse" || (isCoat(p) && c.paintOf(p.step.productId).base === "water");
      if (!wet) return [];
      const zone = c.filled.find((z) => {
        const films = zoneOf(p.before, z.id).films.filter((x) => x.left > 0);
        const top = films[films.length - 1];
        return top && c.paintOf(top.productId).finish.family === "ink";
      });
      if (!zone) return [];
      const step = `seal.${p.step.id}`;
      return [
        {
          step: p.step.id,
          zone: zone.id,
          numbers: { stepsAfterInk: i },
          why: `“${p.step.title}” wets alcohol ink in “${zone.name}” that nothing has sealed; it comes off with the cloth.`,
          fixes: [
            ...(clear
              ? [
                  editFix("seal", `Two dry mists of ${clear.name} first`, () => [
                    addStep("coat", step, idBefore(f, i), clear.id),
                    { op: "set" as const, step, field: "role", value: "clear" },
                    { op: "set" as const, step, field: "zones", value: c.allZones.join(",") },
                  ]),
                ]
              : []),
            editFix("leave-out", "Leave this step out", () => [{ op: "remove", step: p.step.id }]),
          ],
        },
      ];
    });
  },
};
