/** Rule 33: finishes that attack each other. */
import { own } from "../../process/kinds";
import { GROUND, zoneOf, type Film } from "../../piece/state";
import type { Rule } from "../snag";
import type { Paint } from "../../catalogue/properties";
import { readiness } from "../../process/ready";
import { idBefore, isCoat } from "../ask";
import { addStep, editFix } from "../fixes";
import { productFor } from "../../process/pick";
import type { Context } from "../../process/context";

/** Why an upper paint attacks a lower film; null: it does not. The table of C10. */
export function attack(upper: Paint, lower: Paint, lowerFilm: Film, c: Context, at: number | null): string | null {
  const [u, l] = [upper.finish.family, lower.finish.family];
  if (u === "lacquer" && l === "enamel") return "lacquer solvent lifts enamel, young or old";
  const wet = upper.finish.by !== "spray" && upper.finish.by !== "airbrush";
  if (l === "ink" && upper.base === "alcohol" && wet) return "brushed alcohol dissolves alcohol ink";
  if (l === "ink" && upper.base === "solvent" && wet) return "brushed solvent dissolves alcohol ink";
  if (lower.finish.id === "paint-marker" && upper.base === "alcohol" && wet) return "brushed alcohol dissolves marker";
  if (l === "ink" && upper.base === "water" && wet) return "water lifts soluble ink";
  if (u === "epoxy" && at !== null) {
    const r = readiness({ state: "sandable", stacks: [{ zone: GROUND, films: [lowerFilm] }], why: "" }, c);
    if (r.opens === null || r.opens > at)
      return "epoxy traps what a film that is not dry right through still gives off";
  }
  return null;
}

export const rule33: Rule = {
  id: 33,
  severity: "stop",
  title: "Finishes that attack each other",
  find: (f) =>
    f.placed.flatMap((p, i) => {
      if (!isCoat(p)) return [];
      const c = f.context;
      const upper = c.paintOf(own(p.step, "productId") as string);
      for (const id of p.step.zones) {
        const films = zoneOf(p.before, id).films.filter((x) => x.left > 0);
        const top = films[films.length - 1];
        if (!top || top.productId === own(p.step, "productId")) continue;
        const lower = c.paintOf(top.productId);
        const why = attack(upper, lower, top, c, p.start);
        if (!why) continue;
        const barrier = productFor("barrier", c);
        const swap = c.world.products.find(
          (x) =>
            x.id !== upper.product.id &&
            c.paintOf(x.id).finish.role === upper.finish.role &&
            !attack(c.paintOf(x.id), lower, top, c, p.start),
        );
        const step = `barrier.${p.step.id}`;
        const bad = f.placed.filter(
          (x) => own(x.step, "productId") === own(p.step, "productId") && own(x.step, "role") === own(p.step, "role"),
        );
        return [
          {
            step: p.step.id,
            zone: id === GROUND ? null : id,
            numbers: { over: lower.product.name, with: upper.product.name },
            why: `${upper.product.name} over ${lower.product.name}: ${why}.`,
            fixes: [
              ...(barrier && barrier.id !== upper.product.id && !attack(c.paintOf(barrier.id), lower, top, c, p.start)
                ? [
                    editFix("barrier", `Two dry mists of ${barrier.name} between, on a swatch first`, () => [
                      addStep("coat", step, idBefore(f, i), barrier.id),
                      { op: "set", step, field: "role", value: "barrier" },
                      { op: "set", step, field: "zones", value: p.step.zones.join(",") },
                    ]),
                  ]
                : []),
              ...(swap
                ? [
                    editFix("swap", `Use ${swap.name}`, () =>
                      bad.map((x) => ({ op: "set" as const, step: x.step.id, field: "productId", value: swap.id })),
                    ),
                  ]
                : []),
            ],
          },
        ];
      }
      return [];
    }),
};
