/** Rule 50: depth short of sanding, sealer, coats and what must stay (M10). */
import { depthNeeded, residualMm } from "../../models/depth/depth";
import { depthReached, engraveSetting } from "../../plan/builder";
import type { Rule } from "../snag";
import { zoneOf } from "../../piece/state";
import { finalPiece, kindIndex, round } from "../ask";
import { setFix } from "../fixes";

export const rule50: Rule = {
  id: 50,
  severity: "risk",
  title: "Deep enough to hold the fill",
  find: (f) => {
    const i = kindIndex(f, "engrave");
    const p = f.placed[i];
    const end = finalPiece(f);
    if (!p || !end || p.step.depthMm === null) return [];
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
    const reach = p.step.laser ? depthReached(f.context, p.step.laser) : null;
    const short = p.step.depthMm < need - 1e-9;
    const weak = !short && reach !== null && p.step.laser?.from === "typed" && reach < need - 1e-9;
    if (!short && !weak) return [];
    const to = Math.ceil(need * 10) / 10;
    const set = engraveSetting(f.context, to);
    return [
      {
        step: p.step.id,
        zone,
        numbers: {
          depthMm: short ? p.step.depthMm : round(reach as number, 2),
          neededMm: round(need, 2),
          sandedUm: round(sand),
          coatsUm: round(coats),
          residualMm: stays,
        },
        why: `${short ? `The cut is ${p.step.depthMm} mm deep` : `This setting reaches about ${round(reach as number, 2)} mm`}; sanding takes ${round(sand)} µm, sealer and coats fill ${round(coats)} µm, and ${stays} mm must stay: ${round(need, 2)} mm.`,
        fixes: [
          setFix("deeper", `Cut ${to} mm`, p.step.id, {
            depthMm: to,
            ...(set && p.step.laser?.from === "typed"
              ? { power: null, speed: null, interval: null, passes: null }
              : set
                ? { passes: set.passes }
                : {}),
          }),
        ],
      },
    ];
  },
};
