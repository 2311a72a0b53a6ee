/** Rule 44: mirrored where it must be, and only there. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { usesLaser } from "../ask";
import { jobFix } from "../fixes";
export const rule44: Rule = {
  id: 44,
  severity: "stop",
  title: "Mirrored where it must be, and only there",
  find: (f) => {
    const c = f.context;
    const typed = c.job.choices.mirrored;
    if (!c.route || typed === undefined || typed === c.route.mirrored || !usesLaser(f)) return [];
    const step = f.placed.find((p) => own(p.step, "laser") !== null)?.step.id ?? null;
    return [
      {
        step,
        zone: null,
        numbers: { mirrored: String(typed), wanted: String(c.route.mirrored) },
        why: c.route.mirrored
          ? "The picture is not mirrored: worked from the back, the front would show it the wrong way round."
          : "The picture is mirrored: this side is the one that is seen, so its lettering would run backwards.",
        fixes: [
          jobFix("as-route", c.route.mirrored ? "Mirror it" : "Do not mirror it", (j) => ({
            choices: { ...j.choices, mirrored: undefined },
          })),
        ],
      },
    ];
  },
};
