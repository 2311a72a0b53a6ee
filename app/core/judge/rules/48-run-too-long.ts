/** Rule 48: the run is longer than the attended time of a day. */
import { contextAt } from "../../plan/placed";
import { byBeam, own } from "../../process/kinds";
import type { Rule } from "../snag";
import { loadsOn } from "../../process/on-bed";
import { showMinutes } from "../../units/show";
import { round } from "../ask";
import { setFix, shopFix } from "../fixes";
import { WEEKDAYS } from "../../time/hours";

export const rule48: Rule = {
  id: 48,
  severity: "risk",
  title: "Runs end while somebody is there",
  find: (f) =>
    f.placed.flatMap((p) => {
      const c = contextAt(p, f.context);
      if (!byBeam(p.step) || p.minutes === null || p.actual || p.minutes <= c.calendar.longest) return [];
      const per = c.machine ? loadsOn(c, c.pieces) : { perLoad: 1, loads: 1 };
      const load = (p.setupMin ?? 0) + (p.perPieceMin ?? 0) * Math.max(1, Math.min(per.perLoad, c.pieces));
      const byPiece = (p.setupMin ?? 0) + (p.perPieceMin ?? 0);
      const fits = Math.min(load, byPiece) <= c.calendar.longest;
      if (own(p.step, "byLoad") && fits) return [];
      // one that can’t be taken load by load has to be run through
      const need = Math.ceil((own(p.step, "byLoad") === null ? p.minutes : byPiece) / 60);
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { runMin: round(p.minutes), longestDayMin: c.calendar.longest, loadMin: round(load) },
          why:
            `“${p.step.title}” runs ${showMinutes(p.minutes)}; the longest day here is ${showMinutes(c.calendar.longest)}, ` +
            "and the laser is never left alone.",
          fixes:
            fits && own(p.step, "byLoad") !== null
              ? [setFix("by-load", "Run it piece by piece, over several days", p.step.id, { byLoad: true })]
              : [
                  shopFix("hours", `Open ${Math.min(24, need)} hours on working days`, (s) => ({
                    hours: Object.fromEntries(
                      WEEKDAYS.map((d) => [
                        d,
                        s.hours[d] ? ["00:00", `${String(Math.min(24, need)).padStart(2, "0")}:00`] : null,
                      ]),
                    ) as unknown as typeof s.hours,
                  })),
                ],
        },
      ];
    }),
};
