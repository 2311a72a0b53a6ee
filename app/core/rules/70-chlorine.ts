/** Rule 70: chlorinated film, tape, powder or paint anywhere the beam or heat reaches: never. */
import type { Finding, Rule } from "../plan/facts";
import { isCoat, lastIndex, usesLaser } from "./ask";
import { choiceFix, editFix } from "./fixes";

export const rule70: Rule = {
  id: 70,
  severity: "never",
  title: "No chlorine under the beam",
  find: (f) => {
    if (!usesLaser(f)) return [];
    const c = f.context;
    const laser = lastIndex(f, (p) => p.step.kind === "reveal" || p.step.kind === "engrave" || p.step.kind === "proof");
    const out: Finding[] = [];
    if (c.job.choices.mask && c.job.choices.maskChlorinated) out.push({ step: f.placed[laser]?.step.id ?? null, zone: null, numbers: { what: "mask" }, why: "The mask holds chlorine (vinyl). Under the beam it gives off hydrogen chloride, which harms lungs and machine. Never.", fixes: [choiceFix("other-mask", "Use a mask without chlorine", { maskChlorinated: false }), choiceFix("no-mask", "Work without a mask", { mask: false, maskChlorinated: null })] });
    const bad = f.placed.filter((p, i) => i < laser && isCoat(p) && c.paintOf(p.step.productId as string).product.chlorinated === true);
    for (const id of new Set(bad.map((p) => p.step.productId as string))) {
      const mine = bad.filter((p) => p.step.productId === id);
      const upper = c.paintOf(id);
      const swap = c.world.products.find((x) => x.id !== id && x.chlorinated !== true && c.paintOf(x.id).finish.role === upper.finish.role);
      out.push({ step: mine[0].step.id, zone: null, numbers: { what: upper.product.name }, why: `${upper.product.name} holds chlorine and lies where the beam reaches: hydrogen chloride. Never.`, fixes: swap ? [editFix("swap", `Use ${swap.name}`, () => mine.map((p) => ({ op: "set" as const, step: p.step.id, field: "productId", value: swap.id })))] : [editFix("leave-out", "Leave it out", () => mine.map((p) => ({ op: "remove" as const, step: p.step.id })))] });
    }
    return out;
  },
};
