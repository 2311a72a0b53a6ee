/** Taking the maker’s own skin off where the picture is: glaze from ceramic, coating from metal, silvering from glass. */
import { paintless } from "../../catalogue/routes";
import { focusOn } from "../setup";
import { mapZones, zoneOf } from "../../piece/state";
import { dose } from "../beam";
import type { Context } from "../context";
import { ENOUGH, skinEnergy, skinSetting } from "../settings";
import { burntBy } from "../polarity";
import { kind, LASER, type LaserSetting } from "../step";
import { dampNeed } from "./damp";
import { batch, drawnOver, eyewear, pictureCues, setting } from "./laser-work";

const SAYS = {
  glaze: "Open the glaze",
  coating: "Take the coating off",
  silver: "Take the silvering off",
  cap: "Take the cap off",
};

/** Does it go through? Where no setting is known at all, it is taken to do what it is there for. */
function opens(set: LaserSetting | null, c: Context): boolean {
  const e = set && c.machine ? dose(c.machine, set) : null;
  return set === null || (e !== null && e >= ENOUGH * skinEnergy(c) - 1e-9);
}

export const openSkin = kind([...LASER], {
  id: "open-skin",
  name: "Open the surface",
  addable: true,
  on: "zones",
  beam: "skin",
  runs: "rows",
  turns: true,
  attended: true,
  irreversible: true,
  figures: ["round", "loads"],
  matters: ["tile-mask"],
  purpose: (_s, c) =>
    ({
      glaze: "Only open ceramic keeps colour; whole glaze wipes clean.",
      coating: paintless(c.route)
        ? "Bares the metal where the artwork is: nothing else is laid."
        : "Bares the metal that paint holds to.",
      cap: "Bares the core of the sheet where the artwork is.",
      silver: "Opens the silvering so that colour shows through the glass.",
    })[c.substrate.skin?.kind ?? "coating"],
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: (_s, c) =>
    c.substrate.skin?.kind === "glaze"
      ? { look: "Dull where it is open", how: "held at an angle", against: "whole glaze beside it" }
      : { look: "Clean to the edge, nothing left in corners", how: "magnifier", against: "a first one" },
  cues: (s, c) => [
    setting(s),
    ...(c.substrate.skin?.kind === "silver"
      ? [
          `Focus ${focusOn(c)}; little power`,
          "Half the circumference a face; turn, then the other",
          "Hand-tight chuck, a rubber band at the neck",
        ]
      : c.substrate.skin?.kind === "glaze"
        ? ["Hardly to be seen: tilt it to a lamp"]
        : c.substrate.skin?.kind === "cap"
          ? ["Just through the cap: the core shows even, not melted", "Air on, so that nothing melts back into the cut"]
          : [
              paintless(c.route)
                ? "Through the coating to clean metal in one"
                : "Through tape and coating to metal in one",
            ]),
    ...pictureCues(c),
    ...(c.picture ? [`Picture ${burntBy(c).says}`] : []),
    `Eyewear ${eyewear(c)}`,
  ],
  minutes: batch,
  parts: (_s, c) => c.pieces,
  starts: (s, _p, c) => skinSetting(c, s.zones),
  needs: (_s, p) => dampNeed(p),
  refuses: (s, p) =>
    s.zones.some((z) => zoneOf(p, z).skin && !zoneOf(p, z).skin!.open)
      ? null
      : "there is no glaze or coating left to open",
  apply: (s, p, c) => ({
    ...mapZones(p, s.zones, ({ mask: _burnt, ...z }) => ({
      ...z,
      films: [],
      ...(z.skin && opens(s.laser, c)
        ? { ...drawnOver(c), skin: { ...z.skin, open: true }, depthUm: Math.max(z.depthUm, z.skin.um) }
        : {}),
    })),
    // silvering goes off as vapour inside the glass
    soot: c.substrate.skin?.kind !== "silver",
    clean: false,
    touched: "beam",
  }),
});
export const skinWords = SAYS;
