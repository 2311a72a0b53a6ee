/** Rule 51: a stroke narrower than the tool fills. */
import { own } from "../../process/kinds";
import { TOOL_MM } from "../../process/kinds/coat";
import { byHand } from "../../catalogue/routes";
import type { Rule } from "../snag";
import { isCoat, round } from "../ask";
import { jobFix, choiceFix } from "../fixes";

export const rule51: Rule = {
  id: 51,
  severity: "risk",
  title: "Strokes the tool can fill",
  find: (f) => {
    const c = f.context;
    if (!byHand(c.route)) return [];
    return c.filled.flatMap((z) => {
      const laid = f.placed.find((p) => isCoat(p) && own(p.step, "role") === "colour" && p.step.zones.includes(z.id));
      if (z.narrowestMm === null || !laid) return [];
      const by = c.paintOf(z.productId as string).finish.by;
      const tool =
        by === "brush" ? (c.job.choices.toolMm ?? TOOL_MM.brush) : by === "marker" ? TOOL_MM.marker : TOOL_MM.spray;
      if (z.narrowestMm >= tool) return [];
      return [
        {
          step: laid.step.id,
          zone: z.id,
          numbers: { narrowestMm: round(z.narrowestMm, 2), toolMm: tool },
          why:
            `“${z.name}” is ${round(z.narrowestMm, 2)} mm at its narrowest; this ${by === "brush" ? "brush" : "tool"} ` +
            `fills ${tool} mm and up.`,
          fixes: [
            ...(by === "brush" && tool > TOOL_MM.liner && z.narrowestMm >= TOOL_MM.liner
              ? [choiceFix("liner", "Use a liner brush, 0.4 mm", { toolMm: TOOL_MM.liner })]
              : []),
            jobFix("bare", "Leave this zone as it is", (j) => ({
              zones: j.zones.map((x) => (x.id === z.id ? { ...x, bare: true } : x)),
            })),
          ],
        },
      ];
    });
  },
};
