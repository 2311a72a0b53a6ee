/** The beam’s own mark on the bare face: wood darkens, slate pales. */
import { markShare } from "../../models/laser/mark";
import { hex, linear, mix } from "../../models/film/colour";
import { mapZones, zoneOf } from "../../piece/state";
import { dose } from "../beam";
import type { Context } from "../context";
import { burntBy } from "../polarity";
import { depthReached, kneeOf, markSetting } from "../settings";
import { kind, LASER, type LaserSetting } from "../step";
import { dampNeed } from "./damp";
import { batch, drawnOver, eyewear, pictureCues, setting } from "./laser-work";

/** The colour that a setting leaves; null: none that can be seen, or the beam is not known to mark it. */
function leaves(set: LaserSetting | null, c: Context): string | null {
  const { mark } = c.substrate;
  const knee = kneeOf(c);
  const e = set && c.machine ? dose(c.machine, set) : null;
  if (!mark || knee === null || e === null) return null;
  const share = markShare(e, knee);
  return share > 0 ? hex(mix(linear(c.substrate.colour), linear(mark.colour), share)) : null;
}

export const markFace = kind([...LASER], {
  id: "mark-face",
  name: "Mark the bare face",
  addable: true,
  on: "zones",
  beam: "face",
  runs: "rows",
  turns: true,
  attended: true,
  irreversible: true,
  figures: ["loads"],
  photo: true,
  purpose: () => "The beam’s own mark in the material: nothing lies on it that could chip.",
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: () => ({
    look: "An even mark, not paling again",
    how: "stop after the first rows, brush it clean",
    against: "test plate, just before its palest",
  }),
  cues: (s, c) => [
    setting(s),
    "Past the knee more power pales or digs: stay before it",
    ...pictureCues(c),
    `${c.picture ? "Picture" : "Artwork"} ${burntBy(c).says}`,
    ...(c.substrate.absorbent
      ? ["Along the grain fewer stripes are seen", "Stay with it; stop at the first flame"]
      : []),
    `Eyewear ${eyewear(c)}`,
  ],
  minutes: batch,
  parts: (_s, c) => c.pieces,
  starts: (s, _p, c) => markSetting(c, s.zones),
  needs: (_s, p) => dampNeed(p),
  refuses: (s, p, c) => {
    if (!c.substrate.mark) return `what a beam leaves on ${c.substrate.name.toLowerCase()} is not known`;
    return s.zones.some((z) => zoneOf(p, z).films.some((f) => f.left > 0))
      ? "a film lies over the face: the beam would work on that"
      : null;
  },
  apply: (s, p, c) => {
    const mark = leaves(s.laser, c);
    const dug = s.laser ? depthReached(c, s.laser) : null;
    return {
      ...mapZones(p, s.zones, ({ mask: _burnt, ...z }) => ({
        ...z,
        ...(mark === null ? {} : { ...drawnOver(c), mark, depthUm: z.depthUm + Math.round((dug ?? 0) * 1000) }),
      })),
      soot: true,
      clean: false,
      touched: "beam",
    };
  },
});
