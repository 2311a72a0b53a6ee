/** Rule 53: zones far enough apart for two set-ups. */
import type { Rule } from "../snag";
import { RETURN_MM } from "../../geometry/registration";
import { placement } from "../../plan/placement";
import { round } from "../ask";
import { choiceFix } from "../fixes";
export const rule53: Rule = {
  id: 53,
  severity: "risk",
  title: "Zones far enough apart for two set-ups",
  find: (f) => {
    const c = f.context;
    const p = placement(
      c,
      f.placed.map((x) => x.step),
    );
    if (!p.replaced) return [];
    const jig = (c.world.shop.gear ?? []).find((g) => g.kind === "jig" && g.errorMm !== null && g.errorMm < p.errorMm);
    /** would they be kept apart, put back that closely? */
    const within = (mm: number, x: (typeof p.pairs)[number]): boolean => (x.betweenMm * mm) / p.errorMm <= x.gapMm!;
    return p.pairs
      .filter((x) => x.apart === false)
      .map((x) => ({
        step: null,
        zone: x.a,
        numbers: { gapMm: round(x.gapMm!, 2), errorMm: round(x.betweenMm, 2) },
        why:
          `“${x.nameA}” and “${x.nameB}” lie ${round(x.gapMm!, 2)} mm apart; put back by ${p.by}, the piece ` +
          `comes to lie within ${round(x.betweenMm, 2)} mm: they can’t be kept apart for certain.`,
        fixes: [
          ...(jig && within(jig.errorMm!, x)
            ? [choiceFix("jig", `Put it back in ${jig.name}`, { placedBy: jig.id })]
            : within(RETURN_MM.nest.mm, x)
              ? [choiceFix("nest", "Put it back in a nest cut for it, 0.1 mm", { placedBy: "nest" })]
              : [choiceFix("touching", "Let them touch: the later one runs under", { trap: true })]),
        ],
      }));
  },
};
