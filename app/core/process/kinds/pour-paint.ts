/** Paint poured into a glass, swirled until every opening is covered, drained. */
import { wetUm } from "../../models/film/build";
import { mapZones, type Film } from "../../piece/state";
import { kind } from "../step";
import { dampNeed } from "./damp";

/** share of a poured dose that stays as a surplus to drain */
export const POUR_SURPLUS = 0.1;

export const pourPaint = kind(["productId", "role", "coat", "dryUm", "roomC", "roomRh"], {
  id: "pour-paint",
  name: "Pour, swirl, drain",
  addable: true,
  on: "face",
  lays: "film",
  suits: (p) => p.finish.by === "pour" && p.finish.family !== "epoxy",
  divisible: true,
  irreversible: true,
  figures: ["round"],
  purpose: () => "Colour behind every opening, seen through the glass.",
  tool: () => "Funnel or syringe, rack to drain, gloves",
  lookFor: () => ({
    look: "Every opening covered, no run drawing back",
    how: "turn in the light, wait a minute, look again",
    against: "artwork",
  }),
  cues: (s, c) => [
    `Thin ${c.hasPaint(s.productId) ? c.paintOf(s.productId).product.name : "the paint"} until it flows; ` +
      "it must not run off again: pour some down a scrap glass, wait a minute, look",
    "Begin with one part thinner to four; thicken with paint if it bares itself",
    "Swirl slowly, then neck down on the rack",
  ],
  minutes: () => ({ setup: 5, perPiece: 2.5 }),
  needs: (_s, p) => dampNeed(p),
  refuses: (_s, p) => (p.side === "inside" ? null : "it has no inside to pour into"),
  apply: (s, p, c, at) => {
    if (!c.hasPaint(s.productId) || s.dryUm === null) return p;
    const film: Film = {
      step: s.id,
      productId: s.productId,
      role: "colour",
      coat: s.coat ?? 1,
      dryUm: s.dryUm,
      wetUm: wetUm(s.dryUm, c.paintOf(s.productId).solids.value),
      left: 1,
      laidAt: at,
      roomC: s.roomC,
      roomRh: s.roomRh,
    };
    return { ...mapZones(p, s.zones, (z) => ({ ...z, films: [...z.films, film] })), touched: "paint" };
  },
});
