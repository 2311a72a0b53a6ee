/** Hazard 71: powder, spray, solvent. */
import type { Rule } from "../plan/facts";
import { isCoat } from "./ask";

export const rule71: Rule = {
  id: 71,
  severity: "hazard",
  title: "Spray and solvent in the air",
  find: (f) => {
    const sprayed = f.placed.filter((p) => isCoat(p) && ["spray", "airbrush"].includes(f.context.paintOf(p.step.productId as string).finish.by));
    const wiped = f.placed.filter((p) => p.step.kind === "degrease");
    if (!sprayed.length && !wiped.length) return [];
    return [{ step: (sprayed[0] ?? wiped[0]).step.id, zone: null, numbers: { sprayedCoats: sprayed.length, solventWipes: wiped.length }, why: "Spray and solvent: a respirator rated for them, moving air, and no flame, torch or spark near the vapour. Follow the data sheet and your local rules.", fixes: [] }];
  },
};
