/** Rule 3: all fills of a mask before it is lifted, and all fills before sanding back. */
import { own } from "../../process/kinds";
import { GROUND, zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { does, idBefore, isCoat, lastIndex, sandIndex } from "../ask";
import { editFix } from "../fixes";

export const rule3: Rule = {
  id: 3,
  severity: "stop",
  title: "All fills before lifting and sanding",
  find: (f) => {
    const lifted = lastIndex(f, (p) => does(p).lifts === "mask" && zoneOf(p.before, GROUND).mask !== undefined);
    const after =
      lifted < 0 || f.context.route?.side === "back"
        ? []
        : f.placed.filter(
            (p, i) =>
              i > lifted &&
              (isCoat(p) || does(p).lays === "powder") &&
              (own(p.step, "role") === "white" || own(p.step, "role") === "colour"),
          );
    if (after.length)
      return [
        {
          step: f.placed[lifted].step.id,
          zone: null,
          numbers: { fillsAfterLift: after.length },
          why:
            `${after.length === 1 ? `“${after[0].step.title}” comes` : `${after.length} fills come`} after the ` +
            "mask is off; nothing keeps them from the face.",
          fixes: [
            editFix("lift-last", "Lift the mask after the last fill", () => [
              { op: "move", step: f.placed[lifted].step.id, after: after[after.length - 1].step.id },
            ]),
          ],
        },
      ];
    const sand = sandIndex(f);
    const last = lastIndex(
      f,
      (p) => isCoat(p) && (own(p.step, "role") === "white" || own(p.step, "role") === "colour"),
    );
    if (sand < 0 || last < sand) return [];
    const late = f.placed.filter(
      (p, i) => i > sand && isCoat(p) && (own(p.step, "role") === "white" || own(p.step, "role") === "colour"),
    );
    return [
      {
        step: f.placed[sand].step.id,
        zone: null,
        numbers: { coatsAfterSanding: late.length },
        why:
          `${late.length === 1 ? `“${late[0].step.title}” comes` : `${late.length} fills come`} after sanding ` +
          "back; paint on freshly sanded bare wood stains and would need sanding again.",
        fixes: [
          editFix("sand-last", "Sand back after the last fill", () => [
            { op: "move", step: f.placed[sand].step.id, after: f.placed[last].step.id },
          ]),
          editFix("fills-first", "Move these fills before sanding", () =>
            late.map((p, k) => ({
              op: "move" as const,
              step: p.step.id,
              after: k === 0 ? idBefore(f, sand) : late[k - 1].step.id,
            })),
          ),
        ],
      },
    ];
  },
};
