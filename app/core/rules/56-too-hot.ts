/** Rule 56: nothing gets hotter than it bears. */
import type { Rule } from "../plan/facts";
import { maskFor, maskOf } from "../plan/masks";
import { heatOf, meltC, pieceC, tapeC } from "../plan/kinds/melt";
import { round } from "./ask";
import { editFix } from "./fixes";
export const rule56: Rule = {
  id: 56,
  severity: "stop",
  title: "Nothing gets hotter than it bears",
  find: (f) => {
    const c = f.context;
    return f.placed.flatMap((p) => {
      if (p.step.kind !== "melt") return [];
      const hold = meltC(p.step, p.before, c);
      const [body, hot] = [pieceC(p.step, hold), tapeC(p.step, hold)];
      const mask = p.before.zones.find((z) => z.mask)?.mask;
      const m = mask ? maskOf(mask.productId, c) : null;
      const fixes = [
        ...(mask && hot !== null && maskFor(c, hot) && maskFor(c, hot)!.id !== mask.productId ? [editFix("mask", `Mask with ${maskFor(c, hot)!.name}`, () => f.placed.filter((x) => x.step.kind === "mask-lay").map((x) => ({ op: "set" as const, step: x.step.id, field: "maskId", value: maskFor(c, hot)!.id })))] : []),
        ...(heatOf(p.step) === "oven" && !(m && m.limitC !== null && m.limitC < 130) ? [editFix("gun", "Melt with a heat gun, moving", () => f.placed.filter((x) => x.step.kind === "melt" && x.step.method === "oven").map((x) => ({ op: "set" as const, step: x.step.id, field: "method", value: "gun" })))] : []),
      ];
      if (heatOf(p.step) === "oven" && body !== null && body > c.substrate.limitC) return [{ step: p.step.id, zone: null, numbers: { celsius: round(body), limit: c.substrate.limitC }, why: `${c.substrate.name} bears ${c.substrate.limitC} °C in an oven; this powder wants ${round(body)} °C.`, fixes: fixes.slice(-1) }];
      if (m && hot !== null && m.limitC !== null && hot > m.limitC) return [{ step: p.step.id, zone: null, numbers: { celsius: round(hot), limit: m.limitC }, why: `${m.name} fails past ${m.limitC} °C and would get ${round(hot)} °C: it shrinks, smokes or glues itself on.`, fixes }];
      return [];
    }).slice(0, 1);
  },
};
