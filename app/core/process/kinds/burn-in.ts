/** White pigment darkened and fused into glaze by the laser. */
import { BURNT } from "../../catalogue/substrates";
import { mapZones, zoneOf } from "../../piece/state";
import { needOf } from "../needs";
import { kind } from "../step";
import { dampNeed } from "./damp";
import { batch, eyewear, setting } from "./laser-work";

export const burnIn = kind(["laser"], {
  id: "burn-in",
  name: "Burn the white into the glaze",
  addable: true,
  on: "zones",
  beam: "pigment",
  turns: true,
  attended: true,
  irreversible: true,
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
    "Picture as drawn, not inverted",
    `Eyewear ${eyewear(c)}`,
  ],
  minutes: batch,
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
  apply: (s, p) => ({
    ...mapZones(p, s.zones, (z) => ({ ...z, films: [], mark: BURNT })),
    soot: true,
    clean: false,
    touched: "beam",
  }),
});
