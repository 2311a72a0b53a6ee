/** Rule 10: no touch-up on sanded bare wood without a barrier. */
import type { Rule } from "../snag";
import { productFor } from "../../process/pick";
import { idBefore, isCoat, kindIndex } from "../ask";
import { editFix } from "../fixes";

export const rule10: Rule = {
  id: 10,
  severity: "stop",
  title: "Barrier before a touch-up",
  find: (f) => {
    const sand = kindIndex(f, "sand-back");
    if (sand < 0) return [];
    return f.placed.flatMap((p, i) => {
      if (i < sand || !isCoat(p) || p.step.role !== "touch-up") return [];
      if (
        f.placed
          .slice(sand + 1, i)
          .some((x) => isCoat(x) && (x.step.role === "seal" || x.step.role === "barrier" || x.step.role === "clear"))
      )
        return [];
      const sealer = productFor("barrier", f.context);
      const step = `barrier.${p.step.id}`;
      return [
        {
          step: p.step.id,
          zone: p.step.zones[0] ?? null,
          numbers: { stepsSinceSanding: i - sand },
          why: `“${p.step.title}” goes on wood that was sanded bare ${i - sand} ${i - sand === 1 ? "step" : "steps"} ago; a slip stains for good.`,
          fixes: [
            editFix("barrier", "Lay a barrier coat first", () => [
              { op: "add", step, after: idBefore(f, i), field: "coat", value: sealer?.id ?? null },
              { op: "set", step, field: "role", value: "barrier" },
            ]),
          ],
        },
      ];
    });
  },
};
