/** Rubbing dye over opened ceramic. */
import { mapZones, zoneOf, type Film } from "../../piece/state";
import { kind } from "../step";
import { dampNeed } from "./damp";

export const rubDye = kind(["productId", "role", "coat", "dryUm", "roomC", "roomRh"], {
  id: "rub-dye",
  name: "Rub the dye in",
  addable: true,
  on: "zones",
  lays: "film",
  suits: (p) => p.finish.family === "dye",
  wets: "dye",
  divisible: true,
  irreversible: true,
  purpose: () => "Open ceramic soaks it up and keeps it; whole glaze lets it be wiped off.",
  tool: () => "Folded cloth, gloves",
  lookFor: () => ({ look: "Every opened line has taken colour", how: "tilt, magnifier", against: "artwork" }),
  cues: (s, c) => [
    `Shake ${c.hasPaint(s.productId) ? c.paintOf(s.productId).product.name : "the dye"}; a little on the cloth`,
    "Small circles, then along the lines",
    "Wipe the glaze before it dries on",
  ],
  minutes: () => ({ setup: 2, perPiece: 1.5 }),
  needs: (_s, p) => dampNeed(p),
  refuses: (s, p) =>
    s.zones.some((z) => zoneOf(p, z).skin?.open) ? null : "the glaze is whole there: dye wipes off it",
  apply: (s, p, c, at) => {
    if (!c.hasPaint(s.productId)) return p;
    const film: Film = {
      step: s.id,
      productId: s.productId,
      role: "colour",
      coat: 1,
      dryUm: s.dryUm ?? 1,
      wetUm: null,
      left: 1,
      laidAt: at,
      roomC: s.roomC,
      roomRh: s.roomRh,
    };
    return {
      ...mapZones(p, s.zones, (z) => (z.skin?.open ? { ...z, films: [...z.films, film] } : z)),
      smeared: s.productId,
      touched: "dye",
    };
  },
});
