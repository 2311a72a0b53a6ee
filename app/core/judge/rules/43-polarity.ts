/** Rule 43: inverted where it must not be, or not where it must: what is burnt is what process/polarity.ts says. */
import { burntBy } from "../../process/polarity";
import type { Rule } from "../snag";
import { burns, usesLaser } from "../ask";
import { choiceFix } from "../fixes";

export const rule43: Rule = {
  id: 43,
  severity: "stop",
  title: "Artwork the right way round",
  find: (f) => {
    const { job, route } = f.context;
    const set = job.choices.inverted;
    if (!route || !usesLaser(f) || set === null) return [];
    const want = burntBy(f.context);
    if (set === want.inverted) return [];
    return [
      {
        step: f.placed.find(burns)?.step.id ?? null,
        zone: null,
        numbers: { inverted: String(set), wanted: String(want.inverted) },
        why:
          `The artwork is ${set ? "" : "not "}inverted: the laser would ${route.lifts ? "lift the dark" : "work"} everywhere ` +
          `but where it is drawn. It goes in ${want.says}.`,
        fixes: [choiceFix("invert", want.inverted ? "Invert it" : "Do not invert it", { inverted: null })],
      },
    ];
  },
};
