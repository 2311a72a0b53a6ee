/** Rule 61: a mask the beam can cut. */
import type { Rule } from "../snag";
import { absorption } from "../../catalogue/beams";
import { maskFor, maskOf } from "../../process/masks";
import { does, round } from "../ask";
import { editFix } from "../fixes";

/** share of the beam a tape must take up to be cut cleanly */
const TAKES = 0.2;

export const rule61: Rule = {
  id: 61,
  severity: "stop",
  title: "A mask the beam can cut",
  find: (f) => {
    const c = f.context;
    const p = f.placed.find(
      (x) =>
        ["mask", "body", "skin"].includes(does(x).beam ?? "") &&
        x.before.zones.some((z) => z.mask && x.step.zones.includes(z.zone)),
    );
    const mask = p?.before.zones.find((z) => z.mask && p.step.zones.includes(z.zone))?.mask;
    if (!p || !mask || !c.machine) return [];
    const m = maskOf(mask.productId, c);
    const takes = absorption(
      c.machine.beam,
      mask.productId && c.hasPaint(mask.productId) ? c.paintOf(mask.productId).product.colour : "#d8c79a",
      { clear: m.clear, metallic: false },
    );
    if (takes >= TAKES) return [];
    const other =
      c.world.products.find(
        (x) =>
          x.id !== mask.productId &&
          c.paintOf(x.id).mask &&
          !c.paintOf(x.id).mask!.loose &&
          absorption(c.machine!.beam, x.colour, { clear: c.paintOf(x.id).mask!.clear, metallic: false }) >= TAKES,
      ) ?? maskFor(c, null);
    return [
      {
        step: p.step.id,
        zone: null,
        numbers: { takesUp: round(takes, 2), wanted: TAKES },
        why: `${m.name} takes up ${round(takes * 100)} % of this beam: it is not cut, and the beam goes through to the face.`,
        fixes:
          other && other.id !== mask.productId
            ? [
                editFix("mask", `Mask with ${other.name}`, () =>
                  f.placed
                    .filter((x) => does(x).lays === "mask" && does(x).on === "face")
                    .map((x) => ({ op: "set" as const, step: x.step.id, field: "maskId", value: other.id })),
                ),
              ]
            : [],
      },
    ];
  },
};
