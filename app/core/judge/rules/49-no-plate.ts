/** Rule 49: a test plate for this stack. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { does, firstIndex, idBefore } from "../ask";
import { addStep, restoreOrAdd } from "../fixes";
export const rule49: Rule = {
  id: 49,
  severity: "risk",
  title: "A test plate for this stack",
  find: (f) => {
    const at = firstIndex(f, (p) => ["film", "pigment", "face"].includes(does(p).beam ?? ""));
    if (at < 0 || f.placed[at].before.plated || own(f.placed[at].step, "laser")?.from !== "computed") return [];
    return [
      {
        step: f.placed[at].step.id,
        zone: null,
        numbers: { from: own(f.placed[at].step, "laser")!.from },
        why:
          `“${f.placed[at].step.title}” goes by a computed setting, right within a third or so; no plate was ` +
          "burnt on this stack, machine and can.",
        fixes: [
          restoreOrAdd(
            "plate",
            "Put a test plate before it",
            (e) => e.step.startsWith("plate"),
            () => [addStep("plate", "plate.first", idBefore(f, at))],
          ),
        ],
      },
    ];
  },
};
