/** Rule 2: routes D and E seal the cut after engraving, before liquid colour; never only before. */
import { own } from "../../process/kinds";
import { zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { cutIndex, firstIndex, idBefore, isCoat } from "../ask";
import { addStep, restoreOrAdd } from "../fixes";
import { productFor } from "../../process/pick";

export const rule2: Rule = {
  id: 2,
  severity: "risk",
  title: "Seal the cut after engraving",
  find: (f) => {
    if (f.context.substrate.family !== "wood" || cutIndex(f) < 0) return [];
    const i = firstIndex(
      f,
      (p) =>
        isCoat(p) &&
        (own(p.step, "role") === "white" || own(p.step, "role") === "colour") &&
        p.step.zones.some(
          (z) =>
            z !== "ground" &&
            zoneOf(p.before, z).charUm > 0 &&
            !zoneOf(p.before, z).films.some(
              (x) => x.role === "seal" || x.role === "barrier" || x.role === "clear" || x.phase !== undefined,
            ),
        ),
    );
    if (i < 0) return [];
    const p = f.placed[i];
    const before = f.placed.slice(0, cutIndex(f)).filter((x) => own(x.step, "role") === "seal").length;
    const sealer = productFor("seal", f.context);
    return [
      {
        step: p.step.id,
        zone: p.step.zones[0] ?? null,
        numbers: { sealCoatsInCut: 0, sealCoatsBeforeEngraving: before },
        why:
          `${before ? `${before} seal coats lie on the face, but none in the cut` : "No seal coat lies in the cut"}; ` +
          `“${p.step.title}” would creep along the grain.`,
        fixes: [
          restoreOrAdd(
            "seal",
            "Seal after engraving, two coats",
            (e) => e.step.startsWith("coat.seal"),
            () =>
              [1, 2].flatMap((n) => {
                const step = `coat.seal.after${n}`;
                const set = (field: string, value: string) => ({ op: "set" as const, step, field, value });
                return [
                  addStep("coat", step, n === 1 ? idBefore(f, i) : "coat.seal.after1", sealer?.id ?? null),
                  set("role", "seal"),
                  set("zones", f.context.allZones.join(",")),
                ];
              }),
          ),
        ],
      },
    ];
  },
};
