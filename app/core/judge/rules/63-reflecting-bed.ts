/** Rule 63: clear sheet raised off the bed. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { choiceFix } from "../fixes";
export const rule63: Rule = {
  id: 63,
  severity: "risk",
  title: "Clear sheet raised off the bed",
  find: (f) => {
    const c = f.context;
    if (c.job.choices.onBareBed !== true || c.substrate.id !== "acrylic-clear") return [];
    const p = f.placed.find((x) => own(x.step, "laser") !== null);
    return p
      ? [
          {
            step: p.step.id,
            zone: null,
            numbers: { raiseMm: 10 },
            why:
              "Clear sheet straight on a reflecting bed is marked from below by the beam that goes through it; " +
              "10 mm of air or a dull board beneath keeps it clean.",
            fixes: [choiceFix("raise", "Raise it, dull board beneath", { onBareBed: false })],
          },
        ]
      : [];
  },
};
