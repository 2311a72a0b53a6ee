/** Cutting the mask only, not what lies beneath it. */
import { mapZones, zoneOf } from "../../piece/state";
import { maskOf } from "../masks";
import { alongLine } from "../beam";
import type { Context } from "../context";
import { ENOUGH, SCORE_E, scoreSetting } from "../settings";
import { kind, LASER, type LaserSetting } from "../step";
import { lineBatch, eyewear, setting } from "./laser-work";

/** Does it go through the mask? */
function goesThrough(set: LaserSetting | null, c: Context): boolean {
  const e = set && c.machine && c.spotMm !== null ? alongLine(c.machine, set, c.spotMm) : null;
  return set === null || (e !== null && e * set.passes >= ENOUGH * SCORE_E - 1e-9);
}

export const scoreMask = kind([...LASER], {
  id: "score-mask",
  name: "Cut the mask, not the face",
  addable: true,
  on: "zones",
  beam: "mask",
  runs: "lines",
  turns: true,
  attended: true,
  irreversible: true,
  figures: ["loads"],
  purpose: () => "Outlines every colour once, so that each can be lifted when its turn comes.",
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: () => ({
    look: "Mask cut right through, face not marked",
    how: "lift one small corner",
    against: "an offcut",
  }),
  cues: (s, c) => [
    setting(s, "lines"),
    "Try it on an offcut under the same mask first: through the tape, no line on the face",
    ...(c.route?.side === "back" ? ["Sheet raised off the bed, so that its reflection does not mark the front"] : []),
    "Weak air, or crumbs fly up",
    `Eyewear ${eyewear(c)}`,
  ],
  fields: ["power", "speed", "passes", "minutes", "waitMin"],
  minutes: lineBatch,
  parts: (_s, c) => c.pieces,
  starts: (_s, _p, c) => scoreSetting(c),
  refuses: (s, p, c) => {
    const m = s.zones.map((z) => zoneOf(p, z).mask).find((x) => x);
    if (!m) return "there is no mask on it";
    return c.machine?.beam === "blue" && maskOf(m.productId, c).clear
      ? `a blue beam goes through ${maskOf(m.productId, c).name} and does not cut it`
      : null;
  },
  apply: (s, p, c) =>
    mapZones(p, s.zones, (z) => (z.mask && goesThrough(s.laser, c) ? { ...z, mask: { ...z.mask, cut: true } } : z)),
});
