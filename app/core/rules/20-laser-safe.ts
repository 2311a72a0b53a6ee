/** Rule 20: the laser before the film is laser-safe. */
import type { Rule } from "../plan/facts";
import { showMinutes } from "../units/show";
import { idBefore } from "./ask";
import { setFix } from "./fixes";

export const rule20: Rule = {
  id: 20,
  severity: "risk",
  title: "Laser-safe before the laser",
  find: (f) =>
    f.placed.flatMap((p, i) => {
      const need = p.needs.find((n) => n.state === "laser-safe");
      if (!need || need.opens === null || p.start === null || p.start >= need.opens || p.actual?.early === "touch") return [];
      return [{
        step: p.step.id,
        zone: null,
        numbers: { minutesShort: need.opens - p.start, dried: Math.round(p.start - need.from), needed: Math.round(need.opens - need.from) },
        why: `“${p.step.title}” starts ${showMinutes(p.start - need.from)} after the last film; laser-safe takes ${showMinutes(need.opens - need.from)} here. Soft paint melts and smears.`,
        fixes: p.actual ? [] : [setFix("wait", "Wait until it is laser-safe", idBefore(f, i) ?? p.step.id, { waitMin: null })],
      }];
    }),
};
