/** Hazard 71: powder, spray, solvent. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { does, handLaidSolvent, isCoat, usesSolvent } from "../ask";

export const rule71: Rule = {
  id: 71,
  severity: "hazard",
  title: "Spray, solvent and powder in the air",
  find: (f) => {
    const sprayed = f.placed.filter(
      (p) =>
        isCoat(p) && ["spray", "airbrush"].includes(f.context.paintOf(own(p.step, "productId") as string).finish.by),
    );
    const wiped = f.placed.filter((p) => usesSolvent(p) || handLaidSolvent(f, p));
    const powder = f.placed.filter((p) => does(p).lays === "powder" || does(p).heats);
    if (!sprayed.length && !wiped.length && !powder.length) return [];
    const words = [
      ...(sprayed.length ? ["spray"] : []),
      ...(wiped.length || sprayed.length ? ["solvent"] : []),
      ...(powder.length ? ["powder"] : []),
    ];
    const what = words.join(", ").replace(/, (?=[^,]*$)/, " and ");
    return [
      {
        step: (sprayed[0] ?? wiped[0] ?? powder[0]).step.id,
        zone: null,
        numbers: { sprayedCoats: sprayed.length, solventWipes: wiped.length, powderSteps: powder.length },
        why:
          `${what.replace(/^./, (x) => x.toUpperCase())}: ` +
          `a respirator rated for ${words.length > 1 ? "them" : "it"}, moving air, and no flame, torch or spark near ` +
          `${words.join() === "powder" ? "the dust or what it gives off when hot" : "the vapour"}. ` +
          "Follow the data sheet and your local rules.",
        fixes: [],
      },
    ];
  },
};
