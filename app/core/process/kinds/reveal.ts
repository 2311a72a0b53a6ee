/** Uncovering: the laser lifts the films over a colour. */
import { openShares } from "../../models/film/reveal";
import { mapZones, topDown, zoneOf } from "../../piece/state";
import { dose } from "../beam";
import { digsColours, energyOn, uncoverSetting } from "../settings";
import { kind, LASER } from "../step";
import { batch, cutsOf, drawnOver, greyTones, pictureCues, eyewear, laserNeeds, setting } from "./laser-work";

/** Shares nobody could see are 0 or 1. */
const settle = (x: number): number => (x < 0.05 ? 0 : x > 0.95 ? 1 : x);

export const reveal = kind([...LASER, "byLoad"], {
  id: "reveal",
  name: "Uncover with the laser",
  addable: true,
  on: "zones",
  beam: "film",
  runs: "rows",
  turns: true,
  attended: true,
  irreversible: true,
  photo: true,
  fields: ["power", "speed", "interval", "passes", "minutes", "waitMin"],
  figures: ["window", "loads"],
  matters: ["before-laser", "shading"],
  purpose: () => "Takes the dark top off where the colour is to show.",
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: () => ({
    look: "Dark gone, colour not eaten",
    how: "stop after the first rows and wipe",
    against: "test plate",
  }),
  cues: (s, c) => [
    setting(s),
    ...pictureCues(c),
    digsColours(c)
      ? "Colours by power: this setting is full power, for what lies deepest; in the program least power 0, power by grey on"
      : greyTones(c)
        ? "Tones by power, not by dots"
        : "Tones by dots of one power",
    "Stay with it; stop at the first flame",
    `Eyewear ${eyewear(c)}`,
  ],
  minutes: batch,
  parts: (_s, c) => c.pieces,
  starts: (s, p, c) =>
    s.zones.length
      ? uncoverSetting(
          c,
          s.zones.map((z) => zoneOf(p, z)),
        )
      : null,
  needs: laserNeeds,
  refuses: (s, p) =>
    s.zones.every((z) => !zoneOf(p, z).films.some((f) => f.left > 0)) ? "no film lies on it to lift" : null,
  apply: (s, p, c) => {
    if (!s.laser || !c.machine) return { ...p, soot: true };
    const set = s.laser;
    if (dose(c.machine, set) === null) return { ...p, soot: true };
    const opened = mapZones(p, s.zones, (z) => {
      const e = energyOn(c, z, set)!;
      const groups = topDown(z);
      const open = openShares(cutsOf(z, c, set.interval, set.passes), e);
      // The share of each group that is gone is handed to the coats in it.
      let k = -1;
      let last: string | null = null;
      const films = [...z.films].reverse().map((f) => {
        if (f.dryUm * f.left > 0 && f.productId !== last) {
          k++;
          last = f.productId;
        }
        const gone = groups[k]?.productId === f.productId ? (open[k] ?? 0) : 0;
        return { ...f, left: settle(f.left * (1 - gone)) };
      });
      return { ...z, ...drawnOver(c), films: films.reverse() };
    });
    return { ...opened, soot: true, clean: false };
  },
});
