/** Rule 37: hiding white needed over char. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { isCoat, round } from "../ask";
import { choiceFix, restoreOrAdd } from "../fixes";
import { zoneOf } from "../../piece/state";

export const rule37: Rule = {
  id: 37,
  severity: "risk",
  title: "White under bright colours",
  find: (f) => {
    const c = f.context;
    return f.hiding.flatMap((h) => {
      if (h.overWhite === null || h.zone === "ground") return [];
      const straight = h.hides ? h.straight : null;
      if (straight !== null && straight <= h.overWhite + h.whites) return [];
      const first = f.placed.find(
        (p) => isCoat(p) && own(p.step, "role") === "colour" && p.step.zones.includes(h.zone),
      );
      if (!first || zoneOf(first.before, h.zone).films.some((x) => x.role === "white")) return [];
      const z = c.job.zones.find((x) => x.id === h.zone);
      const alone = straight === null ? "does not hide char at all" : `takes ${round(straight)} coats over char`;
      return [
        {
          step: first.step.id,
          zone: h.zone,
          numbers: { straight, overWhite: h.overWhite, whites: h.whites },
          why:
            `${c.paintOf(h.productId).product.name} in “${z?.name ?? h.zone}” ${alone}; ` +
            `over ${h.whites} white ${h.overWhite === 1 ? "it takes 1" : `it takes ${h.overWhite}`}.`,
          fixes: [
            c.job.choices.undercoat === false
              ? choiceFix("white", "White first where it saves coats", { undercoat: null })
              : restoreOrAdd(
                  "white",
                  "Put the white back",
                  (e) => e.step.startsWith("coat.white"),
                  () => [],
                ),
          ],
        },
      ];
    });
  },
};
