/** Rule 58: sanding goes through the veneer. */
import { own } from "../../process/kinds";
import { VENEER_SHARE } from "../../models/depth/depth";
import type { Rule } from "../snag";
import { finalPiece, round } from "../ask";
import { editFix } from "../fixes";

export const rule58: Rule = {
  id: 58,
  severity: "stop",
  title: "Veneer left after sanding",
  find: (f) => {
    const v = f.context.substrate.veneerMm;
    const end = finalPiece(f);
    if (v === null || !end) return [];
    const limit = v * 1000 * VENEER_SHARE;
    if (end.sandedUm <= limit) return [];
    const sands = f.placed.filter((p) => (own(p.step, "sandUm") ?? 0) > 0);
    const most = sands.reduce((a, p) => ((own(p.step, "sandUm") ?? 0) > (own(a.step, "sandUm") ?? 0) ? p : a));
    const rest = end.sandedUm - (own(most.step, "sandUm") ?? 0);
    return [
      {
        step: most.step.id,
        zone: null,
        numbers: { sandedUm: round(end.sandedUm), veneerUm: v * 1000, limitUm: limit },
        why: `Sanding takes ${round(end.sandedUm)} µm of a ${v * 1000} µm veneer face; past ${limit} µm the ply beneath shows.`,
        fixes: [
          editFix("less", `Stop at ${round(limit)} µm`, () => [
            { op: "set", step: most.step.id, field: "sandUm", value: Math.max(0, round(limit - rest)) },
          ]),
        ],
      },
    ];
  },
};
