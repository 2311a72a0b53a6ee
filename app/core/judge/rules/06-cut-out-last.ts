/** Rule 6: cut out last. */
import type { Rule } from "../snag";
import { kindIndex, lastIndex } from "../ask";
import { editFix } from "../fixes";
export const rule6: Rule = {
  id: 6,
  severity: "risk",
  title: "Cut out last",
  find: (f) => {
    const cut = kindIndex(f, "cut-out");
    const last = lastIndex(f, (p) =>
      ["coat", "mask-lay", "mask-lift", "score-mask", "engrave", "reveal", "cover"].includes(p.step.kind),
    );
    if (cut < 0 || last < cut) return [];
    return [
      {
        step: f.placed[cut].step.id,
        zone: null,
        numbers: { stepsToCome: last - cut },
        why: `The piece is cut out ${last - cut} steps before “${f.placed[last].step.title}”; it drops and shifts unless the offcut stays clamped as its nest.`,
        fixes: [
          editFix("cut-last", "Cut it out after the last of them", () => [
            { op: "move", step: f.placed[cut].step.id, after: f.placed[last].step.id },
          ]),
        ],
      },
    ];
  },
};
