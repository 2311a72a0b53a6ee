/** Rule 68: nothing is packed or handed over before it bears that. */
import type { Finding, Rule } from "../snag";
import { showMinutes } from "../../units/show";
import { does, idBefore } from "../ask";
import { choiceFix, setFix } from "../fixes";

export const rule68: Rule = {
  id: 68,
  severity: "risk",
  title: "Packed once it bears it",
  find: (f) => {
    const { job } = f.context;
    const hard = job.use.filter((u) => u === "wet" || u === "outdoors" || u === "food");
    return f.placed.flatMap((p, i): Finding[] => {
      if (!does(p).packs || p.start === null) return [];
      const { start } = p;
      const short = p.needs.find((n) => n.opens === null || n.opens > start);
      if (short && p.actual?.early !== "touch") {
        const missing = short.opens === null ? null : short.opens - start;
        return [
          {
            step: p.step.id,
            zone: null,
            numbers: { minutesShort: missing, waited: Math.round(start - short.from) },
            why:
              `“${p.step.title}” comes ${missing === null ? "though it never gets there" : `${showMinutes(missing)} too soon`}: ` +
              `${short.why}. Wrapping prints into it.`,
            fixes: p.actual
              ? []
              : [setFix("wait", "Wait as long as it takes", idBefore(f, i) ?? p.step.id, { waitMin: null })],
          },
        ];
      }
      if (job.choices.handover !== "touch" || !hard.length) return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { uses: hard.join(", ") },
          why: `It is handed over touch dry and will be ${hard.join(", ")}: only a cured film bears that.`,
          fixes: [choiceFix("cured", "Hand it over cured", { handover: "cured" })],
        },
      ];
    });
  },
};
