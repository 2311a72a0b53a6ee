/** Rule 50: depth short of sanding, sealer, coats and what must stay (M10). */
import { own } from "../../process/kinds";
import { depthNeeded, residualMm } from "../../models/depth/depth";
import { depthReached, engraveSetting } from "../../process/settings";
import type { Rule } from "../snag";
import { zoneOf } from "../../piece/state";
import { cutIndex, finalPiece, round } from "../ask";
import { setFix } from "../fixes";

export const rule50: Rule = {
  id: 50,
  severity: "risk",
  title: "Deep enough to hold the fill",
  find: (f) => {
    const i = cutIndex(f);
    const p = f.placed[i];
    const end = finalPiece(f);
    const cut = own(p?.step, "depthMm");
    const set = own(p?.step, "laser");
    if (!p || !end || cut === null) return [];
    // Powder rises level and sinks: how full it gets is rule 55.
    if (p.step.zones.some((z) => zoneOf(end, z).films.some((x) => x.phase))) return [];
    const stays = residualMm(
      f.context.substrate.family,
      f.placed.some((x) => x.before.zones.some((z) => z.mask)),
    );
    const sand = end.sandedUm;
    let coats = 0;
    let zone: string | null = null;
    for (const z of p.step.zones) {
      const um = zoneOf(end, z)
        .films.filter((x) => x.role !== "clear")
        .reduce((a, x) => a + x.dryUm, 0);
      if (um > coats) [coats, zone] = [um, z];
    }
    const need = depthNeeded(sand, 0, coats, stays);
    const reach = set ? depthReached(f.context, set) : null;
    const short = cut < need - 1e-9;
    const weak = !short && reach !== null && set?.from === "typed" && reach < need - 1e-9;
    if (!short && !weak) return [];
    const to = Math.ceil(need * 10) / 10;
    const fresh = engraveSetting(f.context, to);
    return [
      {
        step: p.step.id,
        zone,
        numbers: {
          depthMm: short ? cut : round(reach as number, 2),
          neededMm: round(need, 2),
          sandedUm: round(sand),
          coatsUm: round(coats),
          residualMm: stays,
        },
        why:
          `${short ? `The cut is ${cut} mm deep` : `This setting reaches about ${round(reach as number, 2)} mm`}; ` +
          `sanding takes ${round(sand)} µm, sealer and coats fill ${round(coats)} µm, and ${stays} mm must ` +
          `stay: ${round(need, 2)} mm.`,
        fixes: [
          setFix("deeper", `Cut ${to} mm`, p.step.id, {
            depthMm: to,
            ...(fresh && set?.from === "typed"
              ? { power: null, speed: null, interval: null, passes: null }
              : fresh
                ? { passes: fresh.passes }
                : {}),
          }),
        ],
      },
    ];
  },
};
