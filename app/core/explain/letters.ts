/** How fine lettering may be by what fills it: the narrowest stroke, and the height of capitals that have it. mm. */
import { paintless } from "../catalogue/routes";
import { kindOf } from "../process/kinds";
import { TOOL_MM } from "../process/kinds/coat";
import type { Traits } from "../process/step";
import type { Plan } from "../plan/plan";

/** least stroke that powder fills, and that is uncovered, by rule of thumb of the trade (M13) */
const POWDER_MM = 0.5;
/** capitals of a plain letter are about six strokes high */
const STROKES_HIGH = 6;

/** beam work whose width is that of the line */
const UNCOVERS: ReadonlySet<Traits["beam"]> = new Set(["film", "pigment", "face"]);

export interface LetterSize {
  strokeMm: number;
  capitalMm: number;
  by: string;
}

/** null while no route is chosen. */
export function smallestStroke(plan: Plan): LetterSize | null {
  const c = plan.context;
  if (!c.route) return null;
  const first = c.filled[0] ? c.paintOf(c.filled[0].productId as string) : null;
  const spot = (c.spotMm ?? 0.1) * 1.5;
  const bare = paintless(c.route);
  const uncovered = bare || plan.placed.some(({ step }) => UNCOVERS.has(kindOf(step.kind).beam));
  const [mm, by] = uncovered
    ? [spot, bare ? "the beam’s own mark" : "what the laser uncovers"]
    : first?.powder
      ? [POWDER_MM, "powder"]
      : first?.finish.by === "brush"
        ? [c.job.choices.toolMm ?? TOOL_MM.brush, "brush"]
        : first?.finish.by === "marker"
          ? [TOOL_MM.marker, "marker"]
          : [TOOL_MM.spray, "spray through a mask"];
  // Sanding back takes the rounded rim of the cut with it, a little more the more is sanded.
  const sanded = (plan.placed[plan.placed.length - 1]?.after.sandedUm ?? 0) / 1000;
  const strokeMm = Math.max(mm, spot) + sanded;
  return { strokeMm, capitalMm: STROKES_HIGH * strokeMm, by };
}
