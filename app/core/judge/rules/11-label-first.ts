/** Rule 11: label before the first coat, because the back gets covered. */
import type { Rule } from "../snag";
import { does, firstIndex, isCoat } from "../ask";
import { addStep, editFix, restoreOrAdd } from "../fixes";

export const rule11: Rule = {
  id: 11,
  severity: "advice",
  title: "Label before the first coat",
  find: (f) => {
    const i = firstIndex(f, isCoat);
    if (i < 0 || f.placed[i].before.labelled) return [];
    const later = f.placed.find((p) => does(p).labels);
    return [
      {
        step: f.placed[i].step.id,
        zone: null,
        numbers: { pieces: f.context.pieces },
        why:
          `${f.context.pieces} ${f.context.pieces === 1 ? "piece gets its" : "pieces get their"} ` +
          "first coat with no label on the back.",
        fixes: [
          later
            ? editFix("label-first", "Label at the beginning", () => [{ op: "move", step: later.step.id, after: null }])
            : restoreOrAdd(
                "label",
                "Label the backs first",
                (e) => e.step === "label",
                () => [addStep("label", "label.first", null)],
              ),
        ],
      },
    ];
  },
};
