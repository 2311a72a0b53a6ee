/** Flooding the face with table-top epoxy (K). */
import { openUm } from "./powder-fill";
import { mapZones, type Film, type ZoneState } from "../../piece/state";
import { needOf } from "../needs";
import { kind } from "../step";

export const floodEpoxy = kind(["productId", "role", "coat", "dryUm", "roomC", "roomRh"], {
  id: "flood-epoxy",
  name: "Flood with epoxy",
  addable: true,
  on: "face",
  lays: "film",
  suits: (p) => p.finish.family === "epoxy",
  irreversible: true,
  purpose: () => "A thick, level, glossy face over everything.",
  tool: () => "Cups by weight or volume as its sheet says, spreader, level, gloves",
  lookFor: () => ({
    look: "Level, no bubble, no dust",
    how: "low light, ten minutes after pouring",
    against: "a lamp mirrored in it",
  }),
  cues: () => [
    "Tape the back and the underside of the edge",
    "Mix by the ratio of its sheet, three minutes, scrape the sides; use it inside its pot life",
    "Level the piece before you pour; warm bubbles out from a distance",
    "Pick out dust, cover it, leave it two days",
    "Warm the tape off; sand drips off the back",
  ],
  minutes: () => ({ setup: 15, perPiece: 4 }),
  needs: (s, p) =>
    needOf(s.zones, p, "sandable", "epoxy traps what a film that is not dry right through still gives off"),
  refuses: (_s, p) => (p.zones.some((z) => z.mask) ? "a mask still lies on it" : null),
  apply: (s, p, c, at) => {
    if (!c.hasPaint(s.productId)) return p;
    const um = s.dryUm ?? 1500;
    const film: Film = {
      step: s.id,
      productId: s.productId,
      role: "clear",
      coat: 1,
      dryUm: um,
      wetUm: um,
      left: 1,
      laidAt: at,
      roomC: s.roomC,
      roomRh: s.roomRh,
    };
    // it finds its level: over a recess that is still open it lies thicker by as much
    const over = (z: ZoneState): Film => ({
      ...film,
      dryUm: um + openUm(z, p.sandedUm),
      wetUm: um + openUm(z, p.sandedUm),
    });
    return { ...mapZones(p, s.zones, (z) => ({ ...z, films: [...z.films, over(z)] })), touched: "epoxy" };
  },
});
