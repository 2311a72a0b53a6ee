/** Rule 19: bands that are to blend and leave a gap between them. */
import { colourWay } from "../../catalogue/routes";
import { gapBetween } from "../../geometry/gap";
import type { Zone } from "../../records/job";
import type { Rule } from "../snag";
import { round } from "../ask";
import { jobFix } from "../fixes";

/** mm up to which a hand that sprays closes a gap without meaning to */
const CLOSES_MM = 1;

export const rule19: Rule = {
  id: 19,
  severity: "advice",
  title: "Bands that meet",
  find: (f) => {
    const c = f.context;
    if (colourWay(c.route) !== "bands" || c.filled.length < 2) return [];
    const known = c.filled.filter((z) => z.outline);
    const near = (z: Zone): { z: Zone; mm: number } | null =>
      known
        .filter((x) => x.id !== z.id && !(x.onPieces && z.onPieces) && x.productId !== z.productId)
        .map((x) => ({ z: x, mm: gapBetween(z, x) ?? Infinity }))
        .sort((a, b) => a.mm - b.mm)[0] ?? null;
    const told = new Set<string>();
    return known.flatMap((z) => {
      const next = near(z);
      if (!next || next.mm <= CLOSES_MM || !Number.isFinite(next.mm)) return [];
      const pair = [z.id, next.z.id].sort().join();
      if (told.has(pair)) return [];
      told.add(pair);
      return [
        {
          step: f.placed.find((p) => p.step.kind === "coat" && p.step.wetInWet)?.step.id ?? null,
          zone: z.id,
          numbers: { gapMm: round(next.mm, 1), closesMm: CLOSES_MM },
          why:
            `“${z.name}” and “${next.z.name}” lie ${round(next.mm, 1)} mm apart: nothing of one runs into the other, and the base ` +
            "shows between them. Bands overlap, or their seam stays.",
          fixes: [jobFix("beside", "Lay them side by side instead, each by itself", () => ({ route: "A3" as const }))],
        },
      ];
    });
  },
};
