/** Rule 54: no oven for unmasked powder. */
import type { Rule } from "../snag";
import { GROUND, zoneOf } from "../../piece/state";
import { melts } from "../ask";
import { editFix } from "../fixes";
export const rule54: Rule = {
  id: 54,
  severity: "stop",
  title: "No oven for unmasked powder",
  find: (f) => {
    const bad = f.placed.filter((p) => melts(p, "oven") && !zoneOf(p.before, GROUND).mask);
    return bad.length
      ? [
          {
            step: bad[0].step.id,
            zone: null,
            numbers: { melts: bad.length },
            why: "Powder on a face that is not masked melts wherever a grain lies; in an oven nobody can steer round it.",
            fixes: [
              editFix("gun", "Melt with a heat gun", () =>
                bad.map((p) => ({ op: "set" as const, step: p.step.id, field: "method", value: "gun" })),
              ),
            ],
          },
        ]
      : [];
  },
};
