/** Rule 70: chlorinated film, tape, powder or paint anywhere the beam or heat reaches: never. */
import type { Finding, Rule } from "../snag";
import { does, isCoat, lastIndex, usesLaser } from "../ask";
import { editFix, choiceFix, productFix } from "../fixes";
import { own } from "../../process/kinds";
import { maskOf } from "../../process/masks";

export const rule70: Rule = {
  id: 70,
  severity: "never",
  title: "No chlorine under the beam",
  find: (f) => {
    if (!usesLaser(f)) return [];
    const c = f.context;
    const laser = lastIndex(f, (p) => does(p).attended === true);
    const out: Finding[] = [];
    if (
      c.job.choices.mask &&
      c.job.choices.maskChlorinated &&
      !f.placed.some((p) => does(p).lays === "mask" && does(p).on === "face")
    )
      out.push({
        step: f.placed[laser]?.step.id ?? null,
        zone: null,
        numbers: { what: "mask" },
        why: "The mask holds chlorine (vinyl). Under the beam it gives off hydrogen chloride, which harms lungs and machine. Never.",
        fixes: [
          choiceFix("other-mask", "Use a mask without chlorine", { maskChlorinated: false }),
          choiceFix("no-mask", "Work without a mask", { mask: false, maskChlorinated: null }),
        ],
      });
    // A mask on the piece while it is lasered, or heated: by its product, or by what was said of the tape that is not on the Shelf.
    const under = f.placed.find(
      (p) =>
        does(p).attended === true &&
        p.before.zones.some((z) => z.mask && maskOf(z.mask.productId, c).chlorinated === true),
    );
    const mask = under?.before.zones.find((z) => z.mask && maskOf(z.mask.productId, c).chlorinated === true)?.mask;
    if (under && mask) {
      const other = c.world.products.find(
        (p) => c.paintOf(p.id).mask && !c.paintOf(p.id).mask!.loose && p.chlorinated === false,
      );
      const lays = f.placed.filter((p) => does(p).lays === "mask");
      out.push({
        step: under.step.id,
        zone: null,
        numbers: { what: maskOf(mask.productId, c).name },
        why:
          `${maskOf(mask.productId, c).name} holds chlorine (vinyl) and lies where beam or heat reaches: hydrogen ` +
          "chloride, which harms lungs and machine. Never.",
        fixes:
          mask.productId === null
            ? [choiceFix("other-mask", "Use a mask without chlorine", { maskChlorinated: false })]
            : other
              ? [
                  editFix("other-mask", `Mask with ${other.name}`, () =>
                    lays
                      .filter((p) => own(p.step, "productId") === mask.productId)
                      .map((p) => ({ op: "set" as const, step: p.step.id, field: "maskId", value: other.id })),
                  ),
                ]
              : [
                  productFix("no-chlorine", "It was told wrongly: it holds none", mask.productId, () => ({
                    chlorinated: false,
                  })),
                ],
      });
    }
    const bad = f.placed.filter(
      (p, i) =>
        ((i < laser && isCoat(p)) || (does(p).lays === "powder" && c.hasPaint(own(p.step, "productId")))) &&
        c.paintOf(own(p.step, "productId") as string).product.chlorinated === true,
    );
    for (const id of new Set(bad.map((p) => own(p.step, "productId") as string))) {
      const mine = bad.filter((p) => own(p.step, "productId") === id);
      const upper = c.paintOf(id);
      const swap = c.world.products.find(
        (x) =>
          x.id !== id &&
          x.chlorinated !== true &&
          c.paintOf(x.id).finish.role === upper.finish.role &&
          (c.paintOf(x.id).powder !== null) === (upper.powder !== null),
      );
      out.push({
        step: mine[0].step.id,
        zone: null,
        numbers: { what: upper.product.name },
        why: `${upper.product.name} holds chlorine and lies where the beam reaches: hydrogen chloride. Never.`,
        fixes: swap
          ? [
              editFix("swap", `Use ${swap.name}`, () =>
                mine.map((p) => ({ op: "set" as const, step: p.step.id, field: "productId", value: swap.id })),
              ),
            ]
          : [editFix("leave-out", "Leave it out", () => mine.map((p) => ({ op: "remove" as const, step: p.step.id })))],
      });
    }
    return out;
  },
};
