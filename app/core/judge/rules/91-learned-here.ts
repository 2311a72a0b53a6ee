/** Rule 91: a lesson that this shop has made a rule, at the first step that it speaks of. */
import type { Rule } from "../snag";
import { jobFix } from "../fixes";
import { lessonsAt } from "../../plan/lessons";

export const rule91: Rule = {
  id: 91,
  severity: "risk",
  title: "A rule of this shop",
  find: (f) => {
    const told = new Set<string>();
    return f.placed.flatMap((p) =>
      lessonsAt(p.step, f.context)
        .filter((l) => l.rule && !told.has(l.id))
        .map((l) => {
          told.add(l.id);
          return {
            step: p.step.id,
            zone: null,
            numbers: { since: l.at },
            why: `${l.text.replace(/\.$/, "")}. This shop has learned it; it stands here at “${p.step.title}”.`,
            fixes: [
              jobFix("put-away", "Leave it aside on this job", (j) => ({
                lessonsOff: [...(j.lessonsOff ?? []), l.id],
              })),
            ],
          };
        }),
    );
  },
};
