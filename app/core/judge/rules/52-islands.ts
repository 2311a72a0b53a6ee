/** Rule 52: islands big enough to weed. */
import type { Rule } from "../snag";
import { does, round } from "../ask";
import { jobFix } from "../fixes";

/** mm² below which a piece of mask is hard to lift (M13) */
const LEAST_MM2 = 3;

export const rule52: Rule = {
  id: 52,
  severity: "risk",
  title: "Islands big enough to weed",
  find: (f) => {
    const lift = f.placed.find((p) => does(p).lifts === "mask");
    if (!lift) return [];
    return f.context.filled
      .filter((z) => z.smallestMm2 !== null && z.smallestMm2 > 0 && z.smallestMm2 < LEAST_MM2)
      .map((z) => ({
        step: lift.step.id,
        zone: z.id,
        numbers: { smallestMm2: round(z.smallestMm2!, 2), leastMm2: LEAST_MM2 },
        why: `“${z.name}” has a piece of ${round(z.smallestMm2!, 2)} mm²; below ${LEAST_MM2} mm² it is hard to find and to lift.`,
        fixes: [
          jobFix("bare", "Leave this zone as it is", (j) => ({
            zones: j.zones.map((x) => (x.id === z.id ? { ...x, bare: true } : x)),
          })),
        ],
      }));
  },
};
