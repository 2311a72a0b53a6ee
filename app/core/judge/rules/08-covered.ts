/** Rule 8: the other colours are covered. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { zoneOf } from "../../piece/state";
import { idBefore, isCoat } from "../ask";
import { addStep, restoreOrAdd } from "../fixes";
export const rule8: Rule = {
  id: 8,
  severity: "risk",
  title: "The other colours are covered",
  find: (f) => {
    const c = f.context;
    if (!c.route || !c.route.phases.some((p) => p.do === "colours" && ["beside", "filled", "stencil"].includes(p.how)))
      return [];
    return f.placed.flatMap((p, i) => {
      if (
        !isCoat(p) ||
        own(p.step, "role") !== "colour" ||
        !["spray", "airbrush"].includes(c.paintOf(own(p.step, "productId")!).finish.by)
      )
        return [];
      const bare = c.filled.filter(
        (z) => z.productId !== own(p.step, "productId") && !p.step.zones.includes(z.id) && !zoneOf(p.before, z.id).mask,
      );
      if (!bare.length) return [];
      const names = bare.map((z) => `“${z.name}”`).join(", ");
      const step = `cover.${p.step.id}`;
      return [
        {
          step: p.step.id,
          zone: bare[0].id,
          numbers: { openZones: bare.length },
          why:
            `“${p.step.title}” is sprayed while ${names} ${bare.length === 1 ? "lies" : "lie"} ` +
            "open; overspray lands there.",
          fixes: [
            restoreOrAdd(
              "cover",
              "Cover the others first",
              (e) => e.step.startsWith("cover") || e.step.startsWith("mask-lift"),
              () => [
                addStep("cover", step, idBefore(f, i)),
                { op: "set", step, field: "zones", value: bare.map((z) => z.id).join(",") },
                addStep("mask-lift", `lift.${p.step.id}`, p.step.id),
                { op: "set", step: `lift.${p.step.id}`, field: "zones", value: bare.map((z) => z.id).join(",") },
              ],
            ),
          ],
        },
      ];
    });
  },
};
