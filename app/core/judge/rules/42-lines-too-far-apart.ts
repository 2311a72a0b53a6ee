/** Rule 42: lines so far apart that they stay as stripes. */
import { INTERVAL_LIMIT, ripple } from "../../models/laser/energy";
import { own } from "../../process/kinds";
import { showLength, showShare } from "../../units/show";
import type { Job } from "../../records/job";
import type { Facts } from "../../plan/facts";
import { pixelsPerMm } from "../../geometry/picture";
import type { Finding, Fix, Rule } from "../snag";
import { burns, does, round } from "../ask";
import { choiceFix, jobFix, setFix } from "../fixes";

/** pixels a mm of a file, against those that the lines want, below which it looks soft (A12) */
const ENOUGH_DETAIL = 0.7;
/** A picture whose file has fewer pixels than its lines can show. */
function soft(f: Facts): Finding[] {
  const c = f.context;
  const at = f.placed.find((p) => burns(p) && does(p).runs === "rows");
  const set = at && own(at.step, "laser");
  if (!c.picture || !set) return [];
  const has = pixelsPerMm(c.picture);
  const wants = 1 / set.interval;
  if (has >= ENOUGH_DETAIL * wants) return [];
  const sharp = (c.picture.w * has) / (ENOUGH_DETAIL * wants);
  // lines as wide apart as still close, or the picture smaller, where it then ends well within the piece
  const wider = Math.floor((100 * ENOUGH_DETAIL) / has) / 100;
  const closes = c.spotMm !== null && wider <= INTERVAL_LIMIT * c.spotMm + 1e-6;
  const k = Math.floor((100 * has) / (ENOUGH_DETAIL * wants)) / 100;
  const smaller = (j: Job): Partial<Job> => ({
    picture: j.picture && { ...j.picture, w: round(j.picture.w * k, 2), h: round(j.picture.h * k, 2) },
  });
  return [
    {
      step: at.step.id,
      zone: null,
      numbers: { pixelsPerMm: round(has, 2), wanted: round(wants, 2), sharpMm: round(sharp, 1) },
      why:
        `The picture’s file has ${round(has, 1)} pixels a mm in this size, lines ${showLength(set.interval)} apart can show ` +
        `${round(wants, 1)}: it will look soft. It is sharp up to ${round(sharp, 1)} mm wide, or out of a larger file.`,
      fixes: [
        closes
          ? choiceFix("wider", `Lines ${showLength(wider)} apart`, { intervalMm: wider })
          : jobFix("smaller", `The picture ${round(c.picture.w * k, 1)} mm wide`, smaller),
      ],
    },
  ];
}

export const rule42: Rule = {
  id: 42,
  severity: "risk",
  title: "Lines near enough to close",
  find: (f) => [
    ...soft(f),
    ...f.placed.flatMap((p) => {
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
  ],
};
