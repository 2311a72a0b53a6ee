/** Rule 56: nothing gets hotter than it bears. */
import { has, own, type Step } from "../../process/kinds";
import { route as routeNamed, takes } from "../../catalogue/routes";
import { nearest } from "../../process/pick";
import type { Facts } from "../../plan/facts";
import type { Finding, Fix, Rule } from "../snag";
import { maskOf } from "../../process/masks";
import {
  GUN_FACE_C,
  GUN_TAPE_C,
  heatOf,
  meltC,
  sags,
  OVEN_OVER_C,
  setC,
  tapeC,
  tooHot,
} from "../../process/kinds/melt";
import { does, round } from "../ask";
import { editFix, jobFix } from "../fixes";
/** A powder of the Shelf that is cured at what the body bears without harm, in place of this one: nearest in colour. */
function lowerCure(f: Facts, s: Step): Fix[] {
  const c = f.context;
  const id = own(s, "productId");
  if (!c.hasPaint(id)) return [];
  const bears = c.world.products.filter(
    (x) => (c.paintOf(x.id).powder?.holdC.value ?? Infinity) + OVEN_OVER_C <= c.substrate.limitC,
  );
  const [best] = nearest(bears, c.paintOf(id).product.colour);
  return !best || best.product.id === id
    ? []
    : [
        jobFix("low-cure", `Use ${best.product.name}, which cures cooler`, (j) => ({
          zones: j.zones.map((z) => (z.productId === id ? { ...z, productId: best.product.id } : z)),
        })),
      ];
}

/** The same drawing filled by spray, each zone with the nearest of the Shelf’s; none where the Shelf has no spray paint. */
function bySpray(f: Facts): Fix[] {
  const c = f.context;
  const way = routeNamed("D1");
  const sprays = c.world.products.filter((x) => takes(way, c.paintOf(x.id).finish));
  if (!sprays.length || !way.families.includes(c.substrate.family)) return [];
  const best = (id: string): string => nearest(sprays, c.paintOf(id).product.colour)[0].product.id;
  return [
    jobFix("spray", "Fill it by spray instead", (j) => ({
      route: way.id,
      zones: j.zones.map((z) => (z.productId === null ? z : { ...z, productId: best(z.productId) })),
    })),
  ];
}

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
        const hot = tapeC(p.step, hold);
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
          ...(heatOf(p.step) === "oven" && !(m && m.riskC < GUN_TAPE_C) && !sags({ ...p.step, method: "gun" }, c)
            ? [
                editFix("gun", "Melt with a heat gun, moving", () =>
                  f.placed
                    .filter((x) => x.step.kind === "melt" && x.step.method === "oven")
                    .map((x) => ({ op: "set" as const, step: x.step.id, field: "method", value: "gun" })),
                ),
              ]
            : []),
        ];
        const low = lowerCure(f, p.step);
        const set = setC(p.step, c);
        const cooler = [...low, ...fixes.filter((x) => x.id === "gun"), ...bySpray(f)];
        if (set !== null && set > c.substrate.limitC)
          return [
            {
              step: p.step.id,
              zone: null,
              numbers: { celsius: round(set), limit: c.substrate.limitC },
              why: `${tooHot(p.step, c)}.`,
              fixes: cooler,
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
        if (set !== null && set > c.substrate.riskC)
          return [
            {
              severity: "risk" as const,
              step: p.step.id,
              zone: null,
              numbers: { celsius: round(set), risk: c.substrate.riskC, limit: c.substrate.limitC },
              why:
                `The oven is set to ${round(set)} °C; from ${c.substrate.riskC} °C ${c.substrate.name.toLowerCase()} darkens, ` +
                `gives off gas into the fill and may warp; past ${c.substrate.limitC} °C never.`,
              fixes: cooler,
            },
          ];
        if (heatOf(p.step) === "gun" && sags(p.step, c))
          return [
            {
              severity: "risk" as const,
              step: p.step.id,
              zone: null,
              numbers: { celsius: GUN_FACE_C, limit: c.substrate.limitC },
              why:
                `${c.substrate.name} bears ${c.substrate.limitC} °C, and a gun leaves some ${GUN_FACE_C} °C on the face: ` +
                "on low, moving, for " +
                "seconds at a time it is done; held still it sags, blisters and crazes. An offcut first.",
              fixes: bySpray(f),
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
