/** Engraving the recess that holds the fill. */
import { CHAR, CHARS } from "../../catalogue/substrates";
import { mapZones } from "../../piece/state";
import { kind } from "../step";
import { batch, eyewear, laserNeeds, setting } from "./laser-work";

export const engrave = kind(["laser", "byLoad", "depthMm"], {
  id: "engrave",
  name: "Engrave",
  addable: true,
  on: "zones",
  beam: "body",
  turns: true,
  attended: true,
  irreversible: true,
  photo: true,
  fields: ["depthMm", "power", "speed", "interval", "passes", "minutes", "waitMin"],
  figures: ["depth"],
  matters: ["before-laser"],
  purpose: (s) => `Cuts the recess that holds sealer, white and colour${s.depthMm ? `, ${s.depthMm} mm deep` : ""}.`,
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: (s) => ({
    look: "Depth in several places",
    how: "step gauge, cut sample",
    against: s.depthMm ? `${s.depthMm} mm` : "plan's depth",
  }),
  cues: (s, c) => [setting(s), "Stay with it; stop at the first flame", `Eyewear ${eyewear(c)}`],
  minutes: batch,
  needs: laserNeeds,
  // The beam takes the mask with it where it cuts, and whatever lay there.
  apply: (s, p, c) => ({
    ...mapZones(p, s.zones, ({ mask, ...z }) => ({
      ...z,
      ...(mask && c.machine?.beam === "blue" && c.substrate.family === "wood" ? { scorched: true } : {}),
      depthUm: z.depthUm + (s.depthMm ?? 0) * 1000,
      charUm: CHARS.includes(c.substrate.family) ? CHAR.um : 0,
      films: [],
      ...(z.skin && (s.depthMm ?? 0) * 1000 + z.depthUm >= z.skin.um ? { skin: { ...z.skin, open: true } } : {}),
    })),
    soot: true,
    clean: false,
    touched: "beam",
  }),
});
