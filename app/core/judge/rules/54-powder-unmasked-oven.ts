/** Rule 54: no oven for unmasked powder. */
import type { Rule } from "../snag";
import { GROUND, zoneOf } from "../../piece/state";
import type { Placed } from "../../plan/placed";
import { melts } from "../ask";
import { editFix } from "../fixes";
export const rule54: Rule = {
  id: 54,
  severity: "stop",
  title: "No oven for unmasked powder",
  find: (f) => {
    // grains lie on the face where it was bare when the powder went in, whatever is on it by now
    const bare = (step: string): boolean => {
      const fill = f.placed.find((x) => x.step.id === step);
      return fill !== undefined && !zoneOf(fill.before, GROUND).mask;
    };
    const loose = (p: Placed): string[] =>
      p.before.zones.flatMap((z) => z.films.filter((x) => x.phase === "loose" && x.left > 0).map((x) => x.step));
    const bad = f.placed.filter((p) => melts(p, "oven") && loose(p).some(bare));
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
