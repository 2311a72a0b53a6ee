/** Rule 5: what is in front is painted first. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { difference, linear } from "../../models/film/colour";
import { seenThrough, zoneOf } from "../../piece/state";
import { does, finalPiece, firstIndex, isCoat, lastIndex, round } from "../ask";
import { editFix, jobFix } from "../fixes";
export const rule5: Rule = {
  id: 5,
  severity: "stop",
  title: "What is in front is painted first",
  find: (f) => {
    const c = f.context;
    const end = finalPiece(f);
    if (c.route?.side !== "back" || !end) return [];
    const peel = firstIndex(f, (p) => does(p).lifts === "face-film");
    const last = lastIndex(f, (p) => isCoat(p) || own(p.step, "laser") !== null);
    if (peel >= 0 && peel < last)
      return [
        {
          step: f.placed[peel].step.id,
          zone: null,
          numbers: { stepsToCome: last - peel },
          why:
            `The film comes off the face ${last - peel} steps before “${f.placed[last].step.title}”: soot, overspray ` +
            "and fingers reach the side that is seen.",
          fixes: [
            editFix("peel-last", "Peel it after the last coat", () => [
              { op: "move", step: f.placed[peel].step.id, after: f.placed[last].step.id },
            ]),
          ],
        },
      ];
    const wrong = c.filled.find((z) => {
      const films = zoneOf(end, z.id).films.filter((x) => x.left > 0 && !c.paintOf(x.productId).clear);
      return films.length > 0 && films[0].productId !== z.productId;
    });
    if (!wrong) return [];
    const first = c.paintOf(zoneOf(end, wrong.id).films[0].productId).product;
    const off = difference(
      seenThrough(zoneOf(end, wrong.id), c.substrate.colour, c.paintOf),
      linear(c.paintOf(wrong.productId!).product.colour),
    );
    return [
      {
        step: zoneOf(end, wrong.id).films[0].step,
        zone: wrong.id,
        numbers: { colourOff: round(off, 1) },
        why:
          `${first.name} is the first film behind “${wrong.name}”, so that is what the front shows there, ${round(off, 1)} ` +
          `away from ${c.paintOf(wrong.productId!).product.name}.`,
        fixes: [
          jobFix("plan-order", "Go back to the plan’s own order", (j) => ({
            edits: j.edits.filter((e) => e.op !== "move"),
          })),
          jobFix("plan-steps", "Go back to the plan’s own steps", () => ({ edits: [] })),
        ],
      },
    ];
  },
};
