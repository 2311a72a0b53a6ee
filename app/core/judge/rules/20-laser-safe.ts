/** Rule 20: the laser before the film is laser-safe. */
import type { Rule } from "../snag";
import { showMinutes } from "../../units/show";
import { burns, does, idBefore } from "../ask";
import { withPick } from "../../catalogue/schools";
import { filmsNeed } from "../../process/kinds/laser-work";
import { readiness } from "../../process/ready";
import { choiceFix, setFix } from "../fixes";

export const rule20: Rule = {
  id: 20,
  severity: "risk",
  title: "Laser-safe before the laser",
  find: (f) =>
    f.placed.flatMap((p, i) => {
      const c = f.context;
      // Where a school lets the laser begin on a film that is only touch dry, laser-safe is worked out beside it.
      const early = c.school("before-laser") === "touch" && burns(p);
      const where = does(p).on === "zones" ? p.step.zones : c.allZones;
      const own = early && p.start !== null ? filmsNeed(p.before, where, "laser-safe", "") : [];
      const need = p.needs.find((n) => n.state === "laser-safe") ?? (own.length ? readiness(own[0], c) : undefined);
      if (!need || need.opens === null || p.start === null || p.start >= need.opens || p.actual?.early === "touch")
        return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: {
            minutesShort: need.opens - p.start,
            dried: Math.round(p.start - need.from),
            needed: Math.round(need.opens - need.from),
          },
          why:
            `“${p.step.title}” starts ${showMinutes(p.start - need.from)} after the last film; laser-safe takes ` +
            `${showMinutes(need.opens - need.from)} here. Soft paint melts and smears.`,
          fixes: p.actual
            ? []
            : early
              ? [
                  choiceFix("safe", "Wait until it is laser-safe", {
                    schools: withPick(c.job.choices.schools, "before-laser", "safe"),
                  }),
                ]
              : [setFix("wait", "Wait until it is laser-safe", idBefore(f, i) ?? p.step.id, { waitMin: null })],
        },
      ];
    }),
};
