/** Rule 51: a stroke narrower than the tool fills. */
import { own } from "../../process/kinds";
import { TOOL_MM } from "../../process/kinds/coat";
import type { Finish } from "../../catalogue/finishes";
import { GROUND } from "../../piece/state";
import type { Rule } from "../snag";
import { does, round } from "../ask";
import { jobFix, choiceFix } from "../fixes";

/** mm that each way of laying fills at the least (M13) */
const FILLS_MM: Partial<Record<Finish["by"], number>> = {
  marker: TOOL_MM.marker,
  spray: TOOL_MM.spray,
  airbrush: TOOL_MM.spray,
  powder: 0.5,
};
const NAMED: Partial<Record<Finish["by"], string>> = {
  brush: "this brush",
  marker: "a marker",
  spray: "spray through a mask",
  airbrush: "spray through a mask",
  powder: "powder pressed in",
};

export const rule51: Rule = {
  id: 51,
  severity: "risk",
  title: "Strokes the tool can fill",
  find: (f) => {
    const c = f.context;
    return c.filled.flatMap((z) => {
      // laid into this zone alone, whatever lays it; what lies over the whole face is drawn by the beam and by no tool
      const laid = f.placed.find(
        (p) =>
          ["film", "powder"].includes(does(p).lays ?? "") &&
          own(p.step, "role") === "colour" &&
          p.step.zones.includes(z.id) &&
          !p.step.zones.includes(GROUND),
      );
      if (z.narrowestMm === null || !laid || c.route?.lifts) return [];
      const { by } = c.paintOf(z.productId as string).finish;
      const tool = by === "brush" ? (c.job.choices.toolMm ?? TOOL_MM.brush) : FILLS_MM[by];
      if (tool === undefined || z.narrowestMm >= tool) return [];
      return [
        {
          step: laid.step.id,
          zone: z.id,
          numbers: { narrowestMm: round(z.narrowestMm, 2), toolMm: tool },
          why:
            `“${z.name}” is ${round(z.narrowestMm, 2)} mm at its narrowest; ${NAMED[by] ?? "this tool"} ` +
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
