/** Hazard 78: sanding old or unknown paint. */
import type { Rule } from "../snag";
import { does, sandIndex } from "../ask";

export const rule78: Rule = {
  id: 78,
  severity: "hazard",
  title: "Dust of old or unknown paint",
  find: (f) => {
    const sand = f.placed.find((p) => ["metal", "residue", "face"].includes(does(p).sands ?? ""));
    const unknown = f.placed.some(
      (p) =>
        p.step.kind === "coat" &&
        p.step.productId !== null &&
        f.context.paintOf(p.step.productId).finish.id === "unknown-spray",
    );
    if (!sand || !(f.context.job.choices.oldPaint || (unknown && sandIndex(f) >= 0))) return [];
    return [
      {
        step: sand.step.id,
        zone: null,
        numbers: { oldPaint: String(f.context.job.choices.oldPaint) },
        why:
          "Old or unknown paint is sanded: it may hold lead. Test it first, keep the dust down, wear a rated " +
          "mask; local rules may ask for a licensed person.",
        fixes: [],
      },
    ];
  },
};
