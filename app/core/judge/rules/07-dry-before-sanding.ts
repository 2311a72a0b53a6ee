/** Rule 7: dry right through before sanding. */
import type { Rule } from "../snag";
import { showMinutes } from "../../units/show";
import { does, idBefore } from "../ask";
import { setFix } from "../fixes";

export const rule7: Rule = {
  id: 7,
  severity: "risk",
  title: "Dry right through before sanding",
  find: (f) =>
    f.placed.flatMap((p, i) => {
      if (does(p).sands !== "face" || p.start === null) return [];
      const need = p.needs.find((n) => n.state === "sandable");
      if (!need || need.opens === null || p.start >= need.opens || p.actual?.early === "touch") return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: {
            minutesShort: need.opens - p.start,
            waited: Math.round(p.start - need.from),
            needed: Math.round(need.opens - need.from),
          },
          why:
            `Sanding begins ${showMinutes(need.opens - p.start)} before the fill is dry right through; damp paint ` +
            "swallows dust and must be painted again.",
          fixes: p.actual
            ? []
            : [
                setFix(
                  "wait",
                  `Wait ${showMinutes(need.opens - need.from)} as the film needs`,
                  idBefore(f, i) ?? p.step.id,
                  { waitMin: null },
                ),
              ],
        },
      ];
    }),
};
