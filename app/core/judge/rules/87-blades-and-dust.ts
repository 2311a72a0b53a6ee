/** Hazard 87: blades, picks, blown dust. */
import type { Rule } from "../snag";
import { firstIndex } from "../ask";

export const rule87: Rule = {
  id: 87,
  severity: "hazard",
  title: "Blades, picks, blown dust",
  find: (f) => {
    const at = firstIndex(f, (p) => ["sand-back", "sand-residue", "mask-lift", "dust"].includes(p.step.kind));
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: {
              steps: f.placed.filter((p) => ["sand-back", "sand-residue", "mask-lift", "dust"].includes(p.step.kind))
                .length,
            },
            why: "Picks and blades slip, blown dust goes into eyes and lungs: glasses, a dust mask, blades away from the holding hand.",
            fixes: [],
          },
        ];
  },
};
