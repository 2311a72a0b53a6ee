/** Hazard 72: solvent rags. */
import { handLaidSolvent, usesSolvent } from "../ask";
import type { Rule } from "../snag";

export const rule72: Rule = {
  id: 72,
  severity: "hazard",
  title: "Solvent rags",
  find: (f) => {
    const p = f.placed.find((x) => usesSolvent(x) || handLaidSolvent(f, x));
    return p
      ? [
          {
            step: p.step.id,
            zone: null,
            numbers: { pieces: f.context.pieces },
            why: "Solvent rags go into a lidded metal can, outside overnight; get rid of them as local rules ask.",
            fixes: [],
          },
        ]
      : [];
  },
};
