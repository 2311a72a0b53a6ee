/** Rule 1: clean after scuffing and before the first film; nobody touches the face after. */
import type { Rule } from "../snag";
import { does, firstIndex, idBefore, isCoat } from "../ask";
import { addStep, restoreOrAdd } from "../fixes";

export const rule1: Rule = {
  id: 1,
  severity: "risk",
  title: "Clean before the first film",
  find: (f) => {
    const i = firstIndex(f, isCoat);
    if (i < 0 || f.placed[i].before.clean) return [];
    const scuffed = f.placed.slice(0, i).reduce((k, p, n) => (does(p).sands === "metal" ? n : k), -1);
    const kind = f.context.substrate.family === "wood" ? "dust" : "degrease";
    const was = scuffed >= 0 ? "was scuffed and not cleaned since" : "has not been cleaned";
    return [
      {
        step: f.placed[i].step.id,
        zone: null,
        numbers: { stepsSinceScuff: scuffed < 0 ? null : i - scuffed },
        why: `“${f.placed[i].step.title}” goes on a face that ${was}; ` + "oil or dust under the film lets it go.",
        fixes: [
          restoreOrAdd(
            "clean",
            `Put “${kind === "dust" ? "Blow and wipe off dust" : "Degrease the face"}” before it`,
            (e) => e.step.startsWith(kind) && scuffed < 0,
            () => [addStep(kind, `${kind}.before-paint`, idBefore(f, i))],
          ),
        ],
      },
    ];
  },
};
