/** Rule 6: cut out last. */
import type { Rule } from "../snag";
import { does, firstIndex, lastIndex } from "../ask";
import { editFix } from "../fixes";
export const rule6: Rule = {
  id: 6,
  severity: "risk",
  title: "Cut out last",
  find: (f) => {
    const cut = firstIndex(f, (p) => does(p).beam === "outline");
    const last = lastIndex(f, (p) => {
      const { lays, lifts, beam } = does(p);
      return lays !== undefined || lifts === "mask" || (beam !== undefined && beam !== "trial" && beam !== "outline");
    });
    if (cut < 0 || last < cut) return [];
    return [
      {
        step: f.placed[cut].step.id,
        zone: null,
        numbers: { stepsToCome: last - cut },
        why:
          `The piece is cut out ${last - cut} ${last - cut === 1 ? "step" : "steps"} before ` +
          `“${f.placed[last].step.title}”; it drops and shifts ` +
          "unless the offcut stays clamped as its nest.",
        fixes: [
          editFix("cut-last", "Cut it out after the last of them", () => [
            { op: "move", step: f.placed[cut].step.id, after: f.placed[last].step.id },
          ]),
        ],
      },
    ];
  },
};
