/** Rule 66: powder that is only fused, where it has to bear something. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { zoneOf } from "../../piece/state";
import { showTemp } from "../../units/show";
import { does, finalPiece, lastIndex, melts } from "../ask";
import { setFix } from "../fixes";

/** what a fill that was never held at its heat does not bear, and how that is said */
const BEARS: Record<string, string> = { handled: "handled", wet: "wet", outdoors: "outdoors", food: "at food" };

export const rule66: Rule = {
  id: 66,
  severity: "risk",
  title: "Powder cured for its use",
  find: (f) => {
    const c = f.context;
    const uses = c.job.use.flatMap((u) => BEARS[u] ?? []);
    const end = finalPiece(f);
    if (!uses.length || !end) return [];
    return c.filled.flatMap((z) => {
      const last = lastIndex(f, (p) => does(p).heats === true && p.step.zones.includes(z.id));
      const fused = zoneOf(end, z.id).films.some((x) => x.phase === "fused" && x.left > 0);
      if (!fused || last < 0 || melts(f.placed[last], "oven")) return [];
      const { step } = f.placed[last];
      const { powder, product } = c.paintOf(z.productId as string);
      const held = powder?.holdC.value ?? null;
      const oven = (c.world.shop.gear ?? []).some((g) => g.kind === "oven");
      return [
        {
          step: step.id,
          zone: z.id,
          numbers: { holdC: held, holdMin: powder?.holdMin.value ?? null },
          why:
            `${product.name} in “${z.name}” is melted with ${own(step, "method") === "laser" ? "the beam" : "a gun"} and never held` +
            `${held === null ? "" : ` at ${showTemp(held, c.world.shop.units)}`}: fused, not cured. ` +
            `It will be ${uses.join(", ")}; uncured powder chips, chalks and takes water.`,
          fixes: oven ? [setFix("oven", "Cure it in the oven", step.id, { method: "oven" })] : [],
        },
      ];
    });
  },
};
