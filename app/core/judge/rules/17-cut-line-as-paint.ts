/** Rule 17: a path that looks like the line a piece is cut out along is planned as paint: asked, not taken for granted. */
import { extentOf, extentOfAll } from "../../geometry/extent";
import type { Rule } from "../snag";
import { round } from "../ask";
import { jobFix } from "../fixes";

/** mm up to which a line is a line; share of the picture that it goes round */
const [LINE_MM, ROUND] = [0.6, 0.95];
export const rule17: Rule = {
  id: 17,
  severity: "advice",
  title: "A cut line is no zone",
  find: (f) => {
    const { zones, artwork } = f.context.job;
    if (!artwork) return [];
    return f.context.filled.flatMap((z) => {
      const own = extentOf(z);
      const others = zones.filter((x) => x.id !== z.id);
      if (!own || !others.length || z.narrowestMm === null || z.narrowestMm > LINE_MM || !z.holes) return [];
      const [w, h] = [own.x1 - own.x0, own.y1 - own.y0];
      const rest = extentOfAll(others);
      const outside =
        rest !== null &&
        (rest.x0 < own.x0 - LINE_MM ||
          rest.x1 > own.x1 + LINE_MM ||
          rest.y0 < own.y0 - LINE_MM ||
          rest.y1 > own.y1 + LINE_MM);
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
