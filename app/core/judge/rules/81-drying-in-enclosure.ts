/** Hazard 81: solvent-wet work drying in the machine's enclosure. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { does, usesLaser } from "../ask";

export const rule81: Rule = {
  id: 81,
  severity: "hazard",
  title: "Wet work in the machine",
  find: (f) => {
    // whatever wets it with solvent: paint of any kind, a wipe, a strip
    const wet = f.placed.filter((p) => {
      const id = own(p.step, "productId");
      const paint = does(p).lays === "film" && f.context.hasPaint(id) ? f.context.paintOf(id) : null;
      return does(p).wets === "solvent" || (paint !== null && paint.base !== "water" && paint.powder === null);
    });
    if (f.context.job.choices.driedInEnclosure !== true || !wet.length || !usesLaser(f)) return [];
    return [
      {
        step: wet[0].step.id,
        zone: null,
        numbers: { coats: wet.length },
        why:
          "Solvent-wet work dries in the laser’s enclosure: exhaust on all the while, the machine disarmed " +
          "and unplugged, and no beam until nothing smells any more. Better a rack of its own.",
        fixes: [],
      },
    ];
  },
};
