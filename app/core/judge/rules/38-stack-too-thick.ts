/** Rule 38: a route A stack above 250 µm chips at the edges. */
import { own } from "../../process/kinds";
import { GROUND, surfaceUm, zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { isCoat, round, uncoverIndex } from "../ask";
import { editFix } from "../fixes";

const LIMIT_UM = 250;

export const rule38: Rule = {
  id: 38,
  severity: "advice",
  title: "Stack not too thick",
  find: (f) => {
    const at = uncoverIndex(f);
    if (at < 0) return [];
    const um = -surfaceUm(zoneOf(f.placed[at].before, GROUND));
    if (um <= LIMIT_UM) return [];
    const coats = f.placed.slice(0, at).filter((p) => isCoat(p));
    const k = (LIMIT_UM - 10) / um;
    return [
      {
        step: f.placed[at].step.id,
        zone: null,
        numbers: { stackUm: round(um), limitUm: LIMIT_UM, coats: coats.length },
        why: `The stack is ${round(um)} µm thick; above ${LIMIT_UM} µm its uncovered edges chip.`,
        fixes: [
          editFix("thinner", `Thinner coats, ${LIMIT_UM - 10} µm in all`, () =>
            coats.map((p) => ({
              op: "set",
              step: p.step.id,
              field: "dryUm",
              value: round((own(p.step, "dryUm") ?? 0) * k, 1),
            })),
          ),
        ],
      },
    ];
  },
};
