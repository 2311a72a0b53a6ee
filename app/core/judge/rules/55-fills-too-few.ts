/** Rule 55: enough fills of powder. */
import type { Rule } from "../snag";
import { colourFamily } from "../../models/film/colour";
import { zoneOf } from "../../piece/state";
import { openUm } from "../../process/kinds/powder-fill";
import { mayStayOpen } from "../../models/powder/fill";
import { does, finalPiece, lastIndex, round } from "../ask";
import { own } from "../../process/kinds";
import { editFix } from "../fixes";
export const rule55: Rule = {
  id: 55,
  severity: "risk",
  title: "Enough fills of powder",
  find: (f) => {
    const c = f.context;
    const end = finalPiece(f);
    if (!end) return [];
    const told = new Set<string>();
    return c.filled.flatMap((z) => {
      const s = zoneOf(end, z.id);
      const paint = c.paintOf(z.productId!);
      if (!paint.powder || !s.films.some((x) => x.phase)) return [];
      const open = openUm(s, end.sandedUm) / 1000;
      const may = mayStayOpen(s.depthUm / 1000, ["white", "pale"].includes(colourFamily(paint.product.colour)));
      const last = lastIndex(f, (p) => does(p).heats === true && p.step.zones.includes(z.id));
      if (open <= may + 1e-6 || last < 0 || told.has(f.placed[last].step.id)) return [];
      told.add(f.placed[last].step.id);
      const fill = lastIndex(f, (p) => does(p).lays === "powder" && own(p.step, "productId") === z.productId);
      if (fill < 0) return [];
      const [m, p] = [f.placed[last].step.id, f.placed[fill].step.id];
      const n = f.placed.length;
      return [
        {
          step: m,
          zone: z.id,
          numbers: { openMm: round(open, 2), mayMm: round(may, 2) },
          why: `“${z.name}” stays ${round(open, 2)} mm open; ${round(may, 2)} mm is where a fill still looks full.`,
          fixes: [
            editFix("fill", "Fill and melt once more", () => [
              { op: "duplicate", step: p, after: m, field: `${p}.more${n}` },
              { op: "duplicate", step: m, after: `${p}.more${n}`, field: `${m}.more${n}` },
            ]),
          ],
        },
      ];
    });
  },
};
