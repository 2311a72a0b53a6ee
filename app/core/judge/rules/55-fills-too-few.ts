/** Rule 55: enough fills of powder. */
import type { Finding, Rule } from "../snag";
import { colourFamily } from "../../models/film/colour";
import { zoneOf } from "../../piece/state";
import { openUm } from "../../process/kinds/powder-fill";
import { mayStayOpen } from "../../models/powder/fill";
import { does, finalPiece, lastIndex, round } from "../ask";
import { own } from "../../process/kinds";
import { dose } from "../../process/beam";
import { meltedBy } from "../../process/kinds/melt";
import { BLEACHES, ENOUGH, MELT_E } from "../../process/settings";
import type { Facts } from "../../plan/facts";
import { AS_COMPUTED, editFix, setFix } from "../fixes";
/** What the setting of a beam that melts leaves loose or boils out of a zone; null: nothing of the kind. */
function heated(f: Facts, zone: string): (Pick<Finding, "numbers" | "why" | "fixes"> & { step: string }) | null {
  const c = f.context;
  for (const { step, after } of f.placed) {
    const set = own(step, "laser");
    if (own(step, "method") !== "laser" || !step.zones.includes(zone) || !set || !c.machine) continue;
    const did = meltedBy(set, c);
    if (did === "fused" || !zoneOf(after, zone).films.some((x) => x.phase && x.left > 0)) continue;
    const e = dose(c.machine, set);
    const of = `“${step.title}” (${set.from}) puts ${e === null ? "an unknown energy" : `${e.toFixed(2)} J/mm²`} on the powder`;
    return {
      step: step.id,
      numbers: { energy: e === null ? null : round(e, 3), from: round(ENOUGH * MELT_E, 2), to: BLEACHES * MELT_E },
      why:
        did === "loose"
          ? `${of}: it stays loose; it fuses from ${(ENOUGH * MELT_E).toFixed(2)} J/mm².`
          : `${of}: it boils and pits; it bears up to ${(BLEACHES * MELT_E).toFixed(2)} J/mm².`,
      fixes: [setFix("computed", "Go by the computed setting", step.id, AS_COMPUTED)],
    };
  }
  return null;
}

export const rule55: Rule = {
  id: 55,
  severity: "risk",
  title: "Enough fills of powder",
  find: (f) => {
    const c = f.context;
    const end = finalPiece(f);
    if (!end) return [];
    const told = new Set<string>();
    return c.filled.flatMap((z): Finding[] => {
      const s = zoneOf(end, z.id);
      const paint = c.paintOf(z.productId!);
      if (!paint.powder || !s.films.some((x) => x.phase)) return [];
      const burnt = heated(f, z.id);
      if (burnt) {
        if (told.has(burnt.step)) return [];
        told.add(burnt.step);
        return [{ ...burnt, severity: "stop" as const, zone: z.id }];
      }
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
