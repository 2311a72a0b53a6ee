/** Cutting the piece out of its sheet: the last visit to the laser. */
import { cutsThrough } from "../beam";
import type { Context } from "../context";
import { cutSetting } from "../settings";
import { kind, LASER, type LaserSetting } from "../step";
import { blankOutline, byLoads, eyewear, lineSeconds, setting } from "./laser-work";

/** mm that are wanting for a cut to be through, of rounding a speed */
const NEARLY = 0.05;
/** Does it go through the sheet? */
function goesThrough(set: LaserSetting | null, c: Context): boolean {
  const mm = set && c.machine ? cutsThrough(c.machine, set, c.substrate) : null;
  return set === null || (mm !== null && mm >= c.job.substrate.t - NEARLY);
}

export const cutOut = kind([...LASER], {
  id: "cut-out",
  name: "Cut it out",
  addable: true,
  on: "piece",
  beam: "outline",
  runs: "lines",
  fields: ["power", "speed", "passes", "minutes", "waitMin"],
  turns: true,
  attended: true,
  irreversible: true,
  figures: ["loads"],
  purpose: () => "Last, or the piece drops and shifts while it is still worked on.",
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: () => ({ look: "Free all round, nothing hanging", how: "lift one corner of the sheet", against: "outline" }),
  cues: (s, c) => [
    setting(s, "lines"),
    "Nothing else in this visit but the outline",
    "Keep the offcut: it is the nest for a further visit",
    `Eyewear ${eyewear(c)}; stay with it, cutting burns`,
  ],
  starts: (_s, _p, c) => cutSetting(c),
  parts: (_s, c) => c.pieces,
  minutes: (s, c) => byLoads(lineSeconds(blankOutline(c), s, c), c),
  refuses: (_s, p) => (p.cutOut ? "it is cut out already" : null),
  apply: (s, p, c) => ({ ...p, cutOut: p.cutOut || goesThrough(s.laser, c), touched: "beam" }),
});
