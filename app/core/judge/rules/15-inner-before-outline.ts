/** Rule 15: names and inner work before the outline. */
import type { Rule } from "../snag";
import { does, lastIndex } from "../ask";
import { editFix } from "../fixes";

export const rule15: Rule = {
  id: 15,
  severity: "advice",
  title: "Names and inner work before the outline",
  find: (f) => {
    // where it really comes free, and not where a cut is only planned
    const cut = f.placed.findIndex((p) => p.after.cutOut && !p.before.cutOut);
    const late = cut < 0 ? -1 : lastIndex(f, (p) => does(p).labels === true || does(p).tries === "setting");
    if (late <= cut) return [];
    const { step } = f.placed[late];
    return [
      {
        step: step.id,
        zone: null,
        numbers: { stepsAfter: late - cut },
        why: `“${step.title}” comes after “${f.placed[cut].step.title}”: pieces that are free are mixed up, and shift under the beam.`,
        fixes: [
          editFix("before", `Do it before “${f.placed[cut].step.title}”`, () => [
            { op: "move", step: step.id, after: cut > 0 ? f.placed[cut - 1].step.id : null },
          ]),
        ],
      },
    ];
  },
};
