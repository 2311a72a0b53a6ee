/** Rule 36: gloss paint against a mask on bare wood. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { zoneOf } from "../../piece/state";
import { productFor } from "../../process/pick";
import { idBefore, isCoat } from "../ask";
import { addStep, restoreOrAdd } from "../fixes";
export const rule36: Rule = {
  id: 36,
  severity: "risk",
  title: "Gloss paint against a mask on bare wood",
  find: (f) => {
    const c = f.context;
    if (!c.substrate.absorbent) return [];
    const i = f.placed.findIndex(
      (p) =>
        isCoat(p) &&
        own(p.step, "role") === "colour" &&
        c.paintOf(own(p.step, "productId")!).sheen === "gloss" &&
        p.before.zones.some((z) => z.mask) &&
        p.step.zones.some((z) => !zoneOf(p.before, z).films.length),
    );
    if (i < 0) return [];
    const p = f.placed[i];
    const clear = productFor("clear", c);
    const step = `barrier.${p.step.id}`;
    return [
      {
        step: p.step.id,
        zone: p.step.zones[0],
        numbers: { barriers: 0 },
        why:
          `${c.paintOf(own(p.step, "productId")!).product.name} is gloss and thin at the edge: on raw ${c.substrate.name.toLowerCase()} ` +
          "it creeps under the mask.",
        fixes: clear
          ? [
              restoreOrAdd(
                "barrier",
                "A light clear coat into the raw wood first",
                (e) => e.step.startsWith("coat.barrier"),
                () => [
                  addStep("coat", step, idBefore(f, i), clear.id),
                  { op: "set", step, field: "role", value: "barrier" },
                  { op: "set", step, field: "zones", value: p.step.zones.join(",") },
                ],
              ),
            ]
          : [],
      },
    ];
  },
};
