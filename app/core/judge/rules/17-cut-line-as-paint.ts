/** Rule 17: a path that looks like the line a piece is cut out along is planned as paint: asked, not taken for granted. */
import type { Zone } from "../../records/job";
import type { Rule } from "../snag";
import { round } from "../ask";
import { jobFix } from "../fixes";

/** mm up to which a line is a line; share of the picture that it goes round */
const [LINE_MM, ROUND] = [0.6, 0.95];
/** [left, right, top, bottom] of a zone, mm; null: not known */
function box(z: Zone): [number, number, number, number] | null {
  if (z.rows.length < 4) return null;
  const pairs = Array.from({ length: (z.rows.length - 2) / 2 }, (_, i) => [z.rows[2 + 2 * i], z.rows[3 + 2 * i]]);
  const burnt = pairs.filter(([from, to]) => to > from);
  return [Math.min(...burnt.map(([a]) => a)), Math.max(...burnt.map(([, b]) => b)), z.rows[0], z.rows[1]];
}

export const rule17: Rule = {
  id: 17,
  severity: "advice",
  title: "A cut line is no zone",
  find: (f) => {
    const { zones, artwork } = f.context.job;
    if (!artwork) return [];
    return f.context.filled.flatMap((z) => {
      const own = box(z);
      const others = zones.filter((x) => x.id !== z.id);
      if (!own || !others.length || z.narrowestMm === null || z.narrowestMm > LINE_MM || !z.holes) return [];
      const [w, h] = [own[1] - own[0], own[3] - own[2]];
      const outside = others.some((x) => {
        const b = box(x);
        return (
          b !== null &&
          (b[0] < own[0] - LINE_MM || b[1] > own[1] + LINE_MM || b[2] < own[2] - LINE_MM || b[3] > own[3] + LINE_MM)
        );
      });
      if (outside || w < ROUND * artwork.w || h < ROUND * artwork.h) return [];
      return [
        {
          step: null,
          zone: z.id,
          numbers: { lineMm: round(z.narrowestMm, 2), w: round(w, 1), h: round(h, 1) },
          why:
            `“${z.name}” is a line of ${round(z.narrowestMm, 2)} mm round all the rest, ${round(w, 1)} × ${round(h, 1)} mm: is that ` +
            "where the piece is cut out? Then it gets no paint.",
          fixes: [
            jobFix("cut-line", "It is a cut line: no paint", (j) => ({
              zones: j.zones.map((x) => (x.id === z.id ? { ...x, bare: true, productId: null } : x)),
            })),
          ],
        },
      ];
    });
  },
};
