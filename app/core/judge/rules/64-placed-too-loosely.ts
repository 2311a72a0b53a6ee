/** Rule 64: put back closely enough. */
import { own } from "../../process/kinds";
import { colourWay, type Route } from "../../catalogue/routes";
import type { Rule } from "../snag";
import { placement } from "../../plan/placement";
import { round } from "../ask";
import { choiceFix } from "../fixes";

/** mm that a piece may be off when it goes back under the beam, where powder or a nested cut must meet what is there */
const CLOSE_MM = 0.3;

/** Does its powder have to meet the beam again in exactly the same place? */
const putBack = (r: Route | null): boolean =>
  ["powder-visits", "nested"].includes(colourWay(r) ?? "") ||
  (r?.phases.some((p) => p.do === "colours" && p.melt === "laser") ?? false);

export const rule64: Rule = {
  id: 64,
  severity: "risk",
  title: "Put back closely enough",
  find: (f) => {
    const c = f.context;
    if (!putBack(c.route)) return [];
    const p = placement(
      c,
      f.placed.map((x) => x.step),
    );
    if (!p.replaced || p.errorMm <= CLOSE_MM) return [];
    const jig = (c.world.shop.gear ?? []).find((g) => g.kind === "jig" && g.errorMm !== null && g.errorMm <= CLOSE_MM);
    return [
      {
        step:
          f.placed.filter((x) => own(x.step, "laser") !== null || own(x.step, "method") === "laser")[1]?.step.id ??
          null,
        zone: null,
        numbers: { errorMm: p.errorMm, wantedMm: CLOSE_MM },
        why: `Put back by ${p.by} the piece is off by up to ${round(p.errorMm, 2)} mm; this route wants ${CLOSE_MM} mm.`,
        fixes: [
          choiceFix("nest", jig ? `Put it back in ${jig.name}` : "Put it back in a nest cut for it, 0.1 mm", {
            placedBy: jig?.id ?? "nest",
          }),
        ],
      },
    ];
  },
};
