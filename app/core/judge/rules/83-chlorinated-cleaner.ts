/** Rule 83: a chlorinated cleaner before heat or beam: never. */
import type { Rule } from "../snag";
import { does, usesLaser } from "../ask";
import { choiceFix } from "../fixes";

export const rule83: Rule = {
  id: 83,
  severity: "never",
  title: "No chlorinated cleaner before the beam",
  find: (f) => {
    const p = f.placed.find((x) => does(x).cleans === "solvent");
    if (f.context.job.choices.cleaner !== "chlorinated" || !p || !usesLaser(f)) return [];
    return [
      {
        step: p.step.id,
        zone: null,
        numbers: { cleaner: "chlorinated" },
        why: "A chlorinated cleaner before the laser: what is left of it turns into phosgene and acid. Never.",
        fixes: [choiceFix("alcohol", "Clean with alcohol", { cleaner: "alcohol" })],
      },
    ];
  },
};
