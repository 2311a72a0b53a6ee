/** Rule 30: coats too few to hide (M6). */
import { own } from "../../process/kinds";
import { hex, linear } from "../../models/film/colour";
import { difference } from "../../models/film/colour";
import { coatsToHide, over } from "../../models/film/hide";
import { seen, shown, zoneOf, type Film } from "../../piece/state";
import type { Facts } from "../../plan/facts";
import type { Rule } from "../snag";
import { finalPiece, isCoat, lastIndex, round } from "../ask";
import { editFix } from "../fixes";

/** stains and powder hide by what they are, not by coats */
const hidesAnyway = (c: Facts["context"], id: string): boolean =>
  c.paintOf(id).finish.stains === true || c.paintOf(id).powder !== null;

export const rule30: Rule = {
  id: 30,
  severity: "risk",
  title: "Enough coats to hide",
  find: (f) => {
    const c = f.context;
    const end = finalPiece(f);
    if (!end) return [];
    const told = new Set<string>();
    return c.filled.flatMap((z) => {
      const state = zoneOf(end, z.id);
      const id = z.productId as string;
      if (state.mark || hidesAnyway(c, id) || !state.films.some((x) => x.productId === id && x.left > 0)) return [];
      const paint = c.paintOf(id);
      const body = over(linear(paint.product.colour), [0, 0, 0], 1e9);
      const off = difference(shown(end, state, c.substrate.colour, c.paintOf), body);
      const last = lastIndex(f, (p) => isCoat(p) && own(p.step, "productId") === id && p.step.zones.includes(z.id));
      if (off <= c.tolerance + 0.01 || last < 0 || told.has(f.placed[last].step.id)) return [];
      told.add(f.placed[last].step.id);
      const lastStep = f.placed[last].step;
      const films: Film[] = state.films.filter((x) => x.left > 0);
      // another film over it, or in front of it, is not a matter of coats
      const bodies = films.filter((x) => !c.paintOf(x.productId).clear);
      const inSight = end.side === "front" ? bodies[bodies.length - 1] : bodies[0];
      if (inSight?.productId !== id) return [];
      const now =
        end.side !== "front"
          ? linear(c.substrate.colour)
          : seen({ ...state, films: films.filter((x) => x.productId !== id) }, c.substrate.colour, c.paintOf);
      const wanted = coatsToHide(
        linear(paint.product.colour),
        now,
        paint.hideUm.value,
        own(lastStep, "dryUm"),
        c.tolerance,
      );
      const have = films.filter((x) => x.productId === id).length;
      if (wanted.coats !== null && wanted.coats <= have) return [];
      const more = Math.max(1, (wanted.coats ?? have + 1) - have);
      return [
        {
          step: lastStep.id,
          zone: z.id,
          numbers: {
            difference: round(off, 1),
            tolerance: c.tolerance,
            coats: have,
            needed: wanted.coats,
            over: hex(now),
          },
          why:
            `${have} ${have === 1 ? "coat" : "coats"} of ${paint.product.name} ` +
            `${have === 1 ? "leaves" : "leave"} “${z.name}” ${round(off, 1)} ` +
            `away from its colour; ${c.tolerance} is allowed${wanted.hides ? `, which ${wanted.coats} coats reach` : ""}.`,
          fixes:
            wanted.hides === false
              ? []
              : [
                  editFix("coats", more === 1 ? "Add one coat" : `Add ${more} coats`, () =>
                    Array.from({ length: more }, (_, k) => ({
                      op: "duplicate" as const,
                      step: lastStep.id,
                      after: k === 0 ? lastStep.id : `${lastStep.id}.more${have + k}`,
                      field: `${lastStep.id}.more${have + k + 1}`,
                    })),
                  ),
                ],
        },
      ];
    });
  },
};
