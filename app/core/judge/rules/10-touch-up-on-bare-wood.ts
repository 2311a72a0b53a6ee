/** Rule 10: no touch-up on sanded bare wood without a barrier. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { productFor } from "../../process/pick";
import { idBefore, isCoat, sandIndex } from "../ask";
import { addStep, editFix } from "../fixes";

export const rule10: Rule = {
  id: 10,
  severity: "stop",
  title: "Barrier before a touch-up",
  find: (f) => {
    const sand = sandIndex(f);
    if (sand < 0) return [];
    return f.placed.flatMap((p, i) => {
      if (i < sand || !isCoat(p) || own(p.step, "role") !== "touch-up") return [];
      if (
        f.placed
          .slice(sand + 1, i)
          .some(
            (x) =>
              isCoat(x) &&
              (own(x.step, "role") === "seal" || own(x.step, "role") === "barrier" || own(x.step, "role") === "clear"),
          )
      )
        return [];
      const sealer = productFor("barrier", f.context);
      const step = `barrier.${p.step.id}`;
      return [
        {
          step: p.step.id,
          zone: p.step.zones[0] ?? null,
          numbers: { stepsSinceSanding: i - sand },
          why:
            `“${p.step.title}” goes on wood that was sanded bare ${i - sand} ${i - sand === 1 ? "step" : "steps"} ` +
            "ago; a slip stains for good.",
          fixes: [
            editFix("barrier", "Lay a barrier coat first", () => [
              addStep("coat", step, idBefore(f, i), sealer?.id ?? null),
              { op: "set", step, field: "role", value: "barrier" },
            ]),
          ],
        },
      ];
    });
  },
};
