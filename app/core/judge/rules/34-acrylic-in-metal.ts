/** Rule 34: no acrylic in bare metal. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { isCoat } from "../ask";
import { editFix, jobFix } from "../fixes";
import { zoneOf } from "../../piece/state";
export const rule34: Rule = {
  id: 34,
  severity: "stop",
  title: "No acrylic in bare metal",
  find: (f) => {
    const c = f.context;
    if (c.substrate.family !== "metal") return [];
    const bad = f.placed.filter(
      (p) =>
        isCoat(p) &&
        own(p.step, "role") === "colour" &&
        c.paintOf(own(p.step, "productId")!).finish.family === "acrylic" &&
        p.step.zones.some(
          (z) => z !== "ground" && zoneOf(p.before, z).depthUm > 0 && !zoneOf(p.before, z).films.length,
        ),
    );
    if (!bad.length) return [];
    const id = own(bad[0].step, "productId")!;
    const enamel =
      c.world.products.find(
        (x) => c.paintOf(x.id).finish.family === "enamel" && c.paintOf(x.id).finish.by === "brush",
      ) ?? c.world.products.find((x) => c.paintOf(x.id).finish.family === "enamel");
    const mine = f.placed.filter((p) => own(p.step, "productId") === id);
    return [
      {
        step: bad[0].step.id,
        zone: bad[0].step.zones[0],
        numbers: { coats: mine.length },
        why: `${c.paintOf(id).product.name} is acrylic: in ${c.substrate.name.toLowerCase()} it holds nothing and falls out.`,
        fixes: enamel
          ? [
              editFix("enamel", `Use ${enamel.name}`, () =>
                mine.map((p) => ({ op: "set" as const, step: p.step.id, field: "productId", value: enamel.id })),
              ),
            ]
          : [
              jobFix("bare", "Leave the zone as it is", (j) => ({
                zones: j.zones.map((z) => (z.productId === id ? { ...z, bare: true } : z)),
              })),
            ],
      },
    ];
  },
};
