/** Engraving the recess that holds the fill. */
import { CHAR, CHARS } from "../../catalogue/substrates";
import { mapZones } from "../../piece/state";
import { showLength } from "../../units/show";
import type { Context } from "../context";
import { depthReached, engraveSetting } from "../settings";
import { kind, LASER, type OwnFields } from "../step";
import { batch, eyewear, laserNeeds, setting } from "./laser-work";

const showDepth = (mm: number): string => showLength(mm);
/** µm that it digs; as much as is wanted where no setting is known at all. */
const dugUm = (s: Pick<OwnFields, "laser" | "wishMm">, c: Context): number =>
  1000 * ((s.laser ? depthReached(c, s.laser) : s.wishMm) ?? 0);

export const engrave = kind([...LASER, "byLoad", "wishMm", "depthMm"], {
  id: "engrave",
  name: "Engrave",
  addable: true,
  on: "zones",
  beam: "body",
  runs: "rows",
  turns: true,
  attended: true,
  irreversible: true,
  photo: true,
  fields: ["depthMm", "power", "speed", "interval", "passes", "minutes", "waitMin"],
  figures: ["depth", "loads"],
  matters: ["before-laser"],
  purpose: (s) => `Cuts the recess that holds all that fills it${s.depthMm ? `, ${showDepth(s.depthMm)} deep` : ""}.`,
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: (s) => ({
    look: "Depth in several places",
    how: "step gauge, cut sample",
    against: s.depthMm ? showDepth(s.depthMm) : "plan's depth",
  }),
  cues: (s, c) => [setting(s), "Stay with it; stop at the first flame", `Eyewear ${eyewear(c)}`],
  minutes: batch,
  parts: (_s, c) => c.pieces,
  needs: laserNeeds,
  starts: (s, _p, c) => (s.wishMm === null ? null : engraveSetting(c, s.wishMm, s.zones)),
  named: (s) =>
    s.depthMm === null
      ? "Engrave"
      : `Engrave ${showDepth(s.depthMm)}${s.laser ? `, ${s.laser.passes} ${s.laser.passes === 1 ? "pass" : "passes"}` : ""}`,
  // The beam takes the mask with it where it cuts, and whatever lay there; nothing is dug deeper than the piece is thick.
  apply: (s, p, c) => ({
    ...mapZones(p, s.zones, ({ mask, ...z }) => ({
      ...z,
      ...(mask && c.machine?.beam === "blue" && c.substrate.family === "wood" ? { scorched: true } : {}),
      depthUm: Math.min(c.job.substrate.t * 1000, z.depthUm + dugUm(s, c)),
      charUm: CHARS.includes(c.substrate.family) ? CHAR.um : 0,
      films: [],
      ...(z.skin && dugUm(s, c) + z.depthUm >= z.skin.um ? { skin: { ...z.skin, open: true } } : {}),
    })),
    soot: true,
    clean: false,
    touched: "beam",
  }),
});
