/** White pigment darkened and fused into glaze by the laser. */
import { BURNT } from "../../catalogue/substrates";
import { mapZones, zoneOf } from "../../piece/state";
import { needOf } from "../needs";
import { dose } from "../beam";
import { burntBy } from "../polarity";
import type { Context } from "../context";
import { BLEACHES, BURN_E, burnInSetting, ENOUGH } from "../settings";
import { kind, LASER, type LaserSetting } from "../step";
import { dampNeed } from "./damp";
import { batch, drawnOver, eyewear, pictureCues, setting } from "./laser-work";

/** Does it darken: enough to fuse, not so much that it bleaches again? */
function darkens(set: LaserSetting | null, c: Context): boolean {
  const e = set && c.machine ? dose(c.machine, set) : null;
  return set === null || (e !== null && e >= ENOUGH * BURN_E - 1e-9 && e <= BLEACHES * BURN_E);
}

export const burnIn = kind([...LASER], {
  id: "burn-in",
  name: "Burn the white into the glaze",
  addable: true,
  on: "zones",
  beam: "pigment",
  runs: "rows",
  turns: true,
  attended: true,
  irreversible: true,
  figures: ["loads"],
  purpose: () => "Darkens the pigment and fuses it into the glaze: permanent, one colour.",
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: () => ({
    look: "Dark all over, not paling again",
    how: "wipe one corner with solvent",
    against: "test plate, just before its palest",
  }),
  cues: (s, c) => [
    setting(s),
    "Past the knee more power bleaches: stay before it",
    ...pictureCues(c),
    `${c.picture ? "Picture" : "Artwork"} ${burntBy(c).says}`,
    `Eyewear ${eyewear(c)}`,
  ],
  minutes: batch,
  parts: (_s, c) => c.pieces,
  starts: (s, _p, c) => burnInSetting(c, s.zones),
  needs: (s, p) => [...dampNeed(p), ...needOf(s.zones, p, "touch", "wet white smears under the beam")],
  refuses: (s, p, c) => {
    if (c.substrate.skin?.kind !== "glaze") return "there is no glaze to burn it into";
    const bare = s.zones.find(
      (z) =>
        !zoneOf(p, z).films.some(
          (f) =>
            f.left > 0 &&
            c.hasPaint(f.productId) &&
            ["titanium-white", "spray-primer"].includes(c.paintOf(f.productId).finish.id),
        ),
    );
    return bare ? "no titanium white lies on it" : null;
  },
  apply: (s, p, c) => ({
    ...mapZones(p, s.zones, (z) => (darkens(s.laser, c) ? { ...z, ...drawnOver(c), films: [], mark: BURNT } : z)),
    soot: true,
    clean: false,
    touched: "beam",
  }),
});
