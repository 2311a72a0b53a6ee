/** Rule 24: sun or air above 40 °C on wet film. */
import type { Rule } from "../snag";
import { airAt, isCoat, round } from "../ask";
import { choiceFix, setFix } from "../fixes";

const HOT_C = 40;

export const rule24: Rule = {
  id: 24,
  severity: "risk",
  title: "No sun or hot air on wet film",
  find: (f) => {
    const first = f.placed.find(isCoat);
    if (!first) return [];
    if (f.context.job.choices.sunOrHotAir)
      return [
        {
          step: first.step.id,
          zone: null,
          numbers: { limitC: HOT_C },
          why: `Wet film is dried in the sun or with air above ${HOT_C} °C: the skin closes over solvent and blisters.`,
          fixes: [choiceFix("shade", "Dry in the shade, air below 40 °C", { sunOrHotAir: false })],
        },
      ];
    return f.placed.flatMap((p) => {
      const at = airAt(f, p);
      if (!isCoat(p) || !at || p.actual || at.c <= HOT_C) return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { celsius: round(at.c, 1), limitC: HOT_C },
          why: `“${p.step.title}” would dry at ${round(at.c, 1)} °C; above ${HOT_C} °C the skin closes too soon.`,
          fixes: [setFix("cooler", "Dry it in a room at 20 °C", p.step.id, { roomC: 20, roomRh: 0.5 })],
        },
      ];
    });
  },
};
