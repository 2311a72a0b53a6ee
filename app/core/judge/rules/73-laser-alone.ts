/** Rule 73: the laser is never unattended; eyewear for its wavelength, extraction on, extinguisher near. */
import { paintless } from "../../catalogue/routes";
import { BEAM_KINDS } from "../../catalogue/beams";
import { answered, safe } from "../../records/machine";
import type { Finding, Rule } from "../snag";
import { does, usesLaser } from "../ask";
import { choiceFix } from "../fixes";

export const rule73: Rule = {
  id: 73,
  severity: "never",
  title: "Laser never alone",
  find: (f) => {
    const c = f.context;
    if (!usesLaser(f)) return [];
    const step = f.placed.find((p) => does(p).beam)?.step.id ?? null;
    const eyes = c.machine ? `eyewear ${BEAM_KINDS[c.machine.beam].eyewear}` : "eyewear for its wavelength";
    const out: Finding[] = [];
    if (!c.job.choices.attended)
      out.push({
        step,
        zone: null,
        numbers: { attended: "false" },
        why: `The laser is planned to run alone. It never does: somebody stays, ${eyes}, extraction on, extinguisher in reach.`,
        fixes: [choiceFix("attend", "Somebody stays with it", { attended: true })],
      });
    if (c.machine && !safe(c.machine, "extraction")) {
      const m = c.machine;
      const said = safe(m, "extraction");
      out.push({
        step,
        zone: null,
        numbers: { extraction: said === null ? "not said" : "false" },
        why:
          (said === null ? `Nobody has said yet whether ${m.name} has extraction` : `${m.name} has no extraction`) +
          `; ${paintless(f.context.route) ? "the smoke of what burns" : "burning paint"} is not breathed, by anybody.`,
        fixes: [
          {
            id: "extraction",
            label: "Extraction is fitted and on",
            apply: (w: typeof c.world) => ({
              ...w,
              machines: w.machines.map((x) => (x.id === m.id ? answered(x, "extraction", true) : x)),
            }),
          },
        ],
      });
    }
    return out;
  },
};
