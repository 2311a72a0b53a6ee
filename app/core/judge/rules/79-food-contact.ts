/** Hazard 79: food, mouths, children. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { lastIndex } from "../ask";

export const rule79: Rule = {
  id: 79,
  severity: "hazard",
  title: "Food, mouths, children",
  find: (f) => {
    const at = f.context.job.use.includes("food")
      ? lastIndex(f, (p) => {
          const paint = f.context.paint(own(p.step, "productId"));
          return paint !== null && !paint.product.foodRated && paint.finish.role !== "mask";
        })
      : -1;
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { product: f.context.paintOf(own(f.placed[at].step, "productId")!).product.name },
            why:
              `${f.context.paintOf(own(f.placed[at].step, "productId")!).product.name} is not known to be rated ` +
              "for food, mouths or children’s hands. Use a finish whose maker rates it, or keep it off what they touch.",
            fixes: [],
          },
        ];
  },
};
