/** Filling a recess with powder, level with the face. */
import { mapZones, surfaceUm, zoneOf, type Film } from "../../piece/state";
import { COLD_C } from "../../models/powder/heat";
import { coldNeed, topNeed } from "../needs";
import { kind } from "../step";

/** µm of open recess below which powder will not stay */
const LEAST_UM = 30;
export const openUm = (z: Parameters<typeof surfaceUm>[0], faceUm = 0): number => Math.max(0, surfaceUm(z) - faceUm);

export const powderFill = kind(["productId", "role", "coat"], {
  id: "powder-fill",
  name: "Fill with powder",
  addable: true,
  on: "zones",
  lays: "powder",
  stays: true,
  suits: (p) => p.powder !== null,
  divisible: true,
  figures: ["powder"],
  purpose: (s) => `Packs the recess level with the face${(s.coat ?? 1) > 1 ? "; the fill before it has sunk" : ""}.`,
  tool: () => "Spoon, stiff card, clean paper beneath, respirator",
  lookFor: () => ({
    look: "Level, packed into every corner, none left on the face",
    how: "low light along the face",
    against: "flush line",
  }),
  cues: (s, c) => [
    `One sheet of paper for ${c.hasPaint(s.productId) ? c.paintOf(s.productId).product.name : "each colour"}: ` +
      "pour the surplus back, never into another",
    "Press it in with the card, scrape level towards you",
    "Brush the face clean; no breath, no draught",
  ],
  minutes: () => ({ setup: 2, perPiece: 1.5 }),
  needs: (s, p, c) => [
    ...coldNeed(p, COLD_C, "powder cakes on a warm piece", c),
    ...topNeed(s.zones, p, "maskable", "a soft sealer takes powder up"),
  ],
  refuses: (s, p, c) => {
    if (c.hasPaint(s.productId) && !c.paintOf(s.productId).powder)
      return `${c.paintOf(s.productId).product.name} is no powder`;
    const masked = s.zones.find((z) => zoneOf(p, z).mask);
    if (masked) return "the mask still lies over it";
    return s.zones.some((z) => openUm(zoneOf(p, z), p.sandedUm) > LEAST_UM) ? null : "there is no recess left to fill";
  },
  apply: (s, p, c, at) =>
    !c.hasPaint(s.productId)
      ? p
      : {
          ...mapZones(p, s.zones, (z) => {
            const um = openUm(z, p.sandedUm);
            const film: Film = {
              step: s.id,
              productId: s.productId!,
              role: "colour",
              coat: s.coat ?? 1,
              dryUm: um,
              wetUm: null,
              left: 1,
              laidAt: at,
              roomC: null,
              roomRh: null,
              phase: "loose",
            };
            return um > LEAST_UM ? { ...z, films: [...z.films, film] } : z;
          }),
          touched: "card",
        },
});
