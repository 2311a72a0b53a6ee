/** Rule 45: detail the beam and the grain can hold. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { round, usesLaser } from "../ask";
import { jobFix } from "../fixes";

/** mm that open grain swallows */
const GRAIN_MM = 0.6;

export const rule45: Rule = {
  id: 45,
  severity: "risk",
  title: "Detail the beam and the grain can hold",
  find: (f) => {
    const c = f.context;
    if (!usesLaser(f) || c.spotMm === null) return [];
    const spot = c.spotMm * 1.5;
    const least = c.substrate.grain === "open" ? Math.max(spot, GRAIN_MM) : spot;
    const holder = least === spot ? `a ${c.spotMm} mm spot` : "open grain";
    return c.filled
      .filter((z) => z.narrowestMm !== null && z.narrowestMm > 0 && z.narrowestMm < least)
      .map((z) => ({
        step: f.placed.find((p) => own(p.step, "laser") !== null)?.step.id ?? null,
        zone: z.id,
        numbers: { narrowestMm: round(z.narrowestMm!, 2), leastMm: round(least, 2) },
        why:
          `“${z.name}” is ${round(z.narrowestMm!, 2)} mm at its narrowest; ${holder} ` +
          `holds ${round(least, 2)} mm and up.`,
        fixes: [
          jobFix("bare", "Leave this zone as it is", (j) => ({
            zones: j.zones.map((x) => (x.id === z.id ? { ...x, bare: true } : x)),
          })),
        ],
      }));
  },
};
