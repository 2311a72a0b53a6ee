/** Rule 59: open grain under a fill without a mask. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { SUBSTRATES } from "../../catalogue/substrates";
import { cutIndex } from "../ask";
import { jobFix } from "../fixes";

export const rule59: Rule = {
  id: 59,
  severity: "risk",
  title: "Tight grain for sanded fills",
  find: (f) => {
    const s = f.context.substrate;
    const i = cutIndex(f);
    if (s.grain !== "open" || i < 0) return [];
    const masked = f.placed[i].before.zones.some((z) => z.mask);
    const seals = f.placed.filter((p) => own(p.step, "role") === "seal").length;
    const what = seals
      ? `even ${seals} seal coats leave`
      : masked
        ? "under a mask too there are"
        : "with nothing to keep colour back there are";
    return [
      {
        step: f.placed[i].step.id,
        zone: null,
        numbers: { sealCoats: seals, grain: s.grain },
        why: `${s.name} has open grain: ${what} ` + "pores that carry colour past the edge, and it spoils any route.",
        fixes: SUBSTRATES.filter((x) => x.family === "wood" && x.grain === "tight" && x.veneerMm === null)
          .slice(0, 2)
          .map((x) =>
            jobFix(x.id, `Change to ${x.name.toLowerCase()}`, (j) => ({ substrate: { ...j.substrate, id: x.id } })),
          ),
      },
    ];
  },
};
