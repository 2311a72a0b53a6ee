/** Rule 62: no air assist over loose powder. */
import type { Rule } from "../snag";
import { melts } from "../ask";
import { choiceFix } from "../fixes";
export const rule62: Rule = {
  id: 62,
  severity: "risk",
  title: "No air assist over loose powder",
  find: (f) => {
    if (f.context.job.choices.airStaysOn !== true) return [];
    const p = f.placed.find((x) => melts(x, "laser"));
    return p
      ? [
          {
            step: p.step.id,
            zone: null,
            numbers: { pieces: f.context.pieces },
            why:
              `Air assist stays on over loose powder in “${p.step.title}”: it blows the fill out of ${f.context.pieces} ` +
              `${f.context.pieces === 1 ? "piece" : "pieces"}.`,
            fixes: [choiceFix("air-off", "Air off while powder is melted", { airStaysOn: false })],
          },
        ]
      : [];
  },
};
