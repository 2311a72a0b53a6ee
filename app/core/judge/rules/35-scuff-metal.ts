/** Rule 35: paint on unscuffed bright metal. */
import { zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { does, firstIndex, isCoat } from "../ask";
import { addStep, restoreOrAdd } from "../fixes";

export const rule35: Rule = {
  id: 35,
  severity: "risk",
  title: "Scuff bright metal",
  find: (f) => {
    if (f.context.substrate.family !== "metal") return [];
    const i = firstIndex(f, isCoat);
    if (
      i < 0 ||
      f.placed[i].before.scuffed ||
      f.placed[i].step.zones.every((z) => zoneOf(f.placed[i].before, z).depthUm > 0)
    )
      return [];
    const clean = f.placed.slice(0, i).findIndex((p) => does(p).cleans === "solvent");
    const before = clean > 0 ? f.placed[clean - 1].step.id : clean === 0 ? null : (f.placed[i - 1]?.step.id ?? null);
    return [
      {
        step: f.placed[i].step.id,
        zone: null,
        numbers: { pieces: f.context.pieces },
        why:
          `“${f.placed[i].step.title}” goes on bright ${f.context.substrate.name.toLowerCase()} that was not ` +
          "scuffed; it peels at the first edge.",
        fixes: [
          restoreOrAdd(
            "scuff",
            "Scuff, then degrease",
            (e) => e.step === "scuff",
            () => [addStep("scuff", "scuff.first", before)],
          ),
        ],
      },
    ];
  },
};
