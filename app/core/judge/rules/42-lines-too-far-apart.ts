/** Rule 42: lines so far apart that they stay as stripes. */
import { INTERVAL_LIMIT, ripple } from "../../models/laser/energy";
import { own } from "../../process/kinds";
import { showLength, showShare } from "../../units/show";
import type { Fix, Rule } from "../snag";
import { burns, does, round } from "../ask";
import { choiceFix, jobFix, setFix } from "../fixes";

export const rule42: Rule = {
  id: 42,
  severity: "risk",
  title: "Lines near enough to close",
  find: (f) =>
    f.placed.flatMap((p) => {
      const c = f.context;
      const set = own(p.step, "laser");
      if (!burns(p) || does(p).runs !== "rows" || !set || c.spotMm === null) return [];
      const most = INTERVAL_LIMIT * c.spotMm;
      if (set.interval <= most + 1e-6) return [];
      const fix: Fix = p.step.edited.includes("interval")
        ? setFix("closer", "Go by the machine’s own interval", p.step.id, { interval: null })
        : set.from === "test plate"
          ? jobFix("closer", "Forget the plate’s setting", () => ({ plate: null }))
          : choiceFix("closer", "Go by the machine’s own interval", { intervalMm: null });
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: {
            intervalMm: round(set.interval, 3),
            mostMm: round(most, 3),
            ripple: round(ripple(c.spotMm, set.interval), 3),
          },
          why:
            `Lines ${showLength(set.interval)} apart under a spot of ${showLength(c.spotMm)} stay as stripes: the energy goes up and ` +
            `down by ${showShare(ripple(c.spotMm, set.interval))}. ${showLength(Math.floor(most * 100) / 100)} closes them.`,
          fixes: [fix],
        },
      ];
    }),
};
