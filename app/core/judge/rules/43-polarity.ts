/** Rule 43: not inverted where it must be, or inverted where it must not. */
import { route } from "../../catalogue/routes";
import type { Rule } from "../snag";
import { burns, usesLaser } from "../ask";
import { choiceFix } from "../fixes";

export const rule43: Rule = {
  id: 43,
  severity: "stop",
  title: "Picture the right way round",
  find: (f) => {
    const j = f.context.job;
    if (!j.route || !usesLaser(f) || j.choices.inverted === null) return [];
    const want = route(j.route).inverted;
    if (j.choices.inverted === want) return [];
    const step = f.placed.find(burns)?.step.id ?? null;
    return [
      {
        step,
        zone: null,
        numbers: { inverted: String(j.choices.inverted), wanted: String(want) },
        why: want
          ? "The picture is not inverted: the laser would lift the dark everywhere but in the picture."
          : "The picture is inverted: the laser would cut away everything but the picture.",
        fixes: [choiceFix("invert", want ? "Invert it" : "Do not invert it", { inverted: null })],
      },
    ];
  },
};
