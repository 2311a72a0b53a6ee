/** Rule 56: nothing gets hotter than it bears. */
import { has } from "../../process/kinds";
import type { Finding, Rule } from "../snag";
import { maskOf } from "../../process/masks";
import { GUN_TAPE_C, heatOf, meltC, pieceC, tapeC } from "../../process/kinds/melt";
import { does, round } from "../ask";
import { editFix } from "../fixes";
export const rule56: Rule = {
  id: 56,
  severity: "stop",
  title: "Nothing gets hotter than it bears",
  find: (f) => {
    const c = f.context;
    return f.placed
      .flatMap((p): Finding[] => {
        if (!has(p.step, "method")) return [];
        const hold = meltC(p.step, c);
        const [body, hot] = [pieceC(p.step, hold), tapeC(p.step, hold)];
        const mask = p.before.zones.find((z) => z.mask)?.mask;
        const m = mask ? maskOf(mask.productId, c) : null;
        const bearing =
          hot === null
            ? null
            : (c.world.products.filter(
                (x) =>
                  c.paintOf(x.id).mask &&
                  !c.paintOf(x.id).mask!.loose &&
                  x.chlorinated !== true &&
                  c.paintOf(x.id).mask!.riskC >= hot,
              )[0] ?? null);
        const fixes = [
          ...(mask && hot !== null && bearing !== null && bearing.id !== mask.productId
            ? [
                editFix("mask", `Mask with ${bearing!.name}`, () =>
                  f.placed
                    .filter((x) => does(x).lays === "mask" && does(x).on === "face")
                    .map((x) => ({ op: "set" as const, step: x.step.id, field: "maskId", value: bearing!.id })),
                ),
              ]
            : []),
          ...(heatOf(p.step) === "oven" && !(m && m.riskC < GUN_TAPE_C)
            ? [
                editFix("gun", "Melt with a heat gun, moving", () =>
                  f.placed
                    .filter((x) => x.step.kind === "melt" && x.step.method === "oven")
                    .map((x) => ({ op: "set" as const, step: x.step.id, field: "method", value: "gun" })),
                ),
              ]
            : []),
        ];
        if (heatOf(p.step) === "oven" && body !== null && body > c.substrate.limitC)
          return [
            {
              step: p.step.id,
              zone: null,
              numbers: { celsius: round(body), limit: c.substrate.limitC },
              why: `${c.substrate.name} bears ${c.substrate.limitC} °C in an oven; this powder wants ${round(body)} °C.`,
              fixes: fixes.slice(-1),
            },
          ];
        if (m && hot !== null && m.limitC !== null && hot > m.limitC)
          return [
            {
              step: p.step.id,
              zone: null,
              numbers: { celsius: round(hot), limit: m.limitC },
              why: `${m.name} fails past ${m.limitC} °C and would get ${round(hot)} °C: it shrinks, smokes or glues itself on.`,
              fixes,
            },
          ];
        // Between where it begins to suffer and where it fails: by how hot it has been by then.
        const been = p.after.zones.find((z) => z.mask)?.mask?.hotC ?? null;
        if (m && been !== null && been > m.riskC)
          return [
            {
              severity: "risk" as const,
              step: p.step.id,
              zone: null,
              numbers: { celsius: round(been), risk: m.riskC, limit: m.limitC },
              why: `${m.name} gets ${round(been)} °C; from ${m.riskC} °C it may shrink and leave glue.`,
              fixes: fixes.filter((x) => x.id !== "gun"),
            },
          ];
        return [];
      })
      .slice(0, 1);
  },
};
