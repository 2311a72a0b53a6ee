/** Lifting a mask or a shield and weeding what is left of it. */
import { mapZones, zoneOf, type Film, type Piece } from "../../piece/state";
import { LIFT_C } from "../../models/powder/heat";
import { coldNeed, warmerThan } from "../needs";
import { kind, type Need } from "../step";

/** s a piece, and s per mm of outline narrower than 3 mm (M13) */
const LIFT = { piece: 4, mm: 0.25, narrowMm: 3 };
/** °C at which melted powder is soft enough to be torn */
export const TEARS_C = 45;

/** Films whose edge the mask touches: those of the open zones beside it. */
export const edgeFilms = (p: Piece, masked: string[]): Need["stacks"] =>
  p.zones
    .filter((z) => !z.mask && !masked.includes(z.zone))
    .map((z) => ({ zone: z.zone, films: z.films.filter((f) => f.left > 0 && f.phase === undefined).slice(-1) }))
    .filter((x) => x.films.length);

export const maskLift = kind([], {
  id: "mask-lift",
  name: "Lift the mask, weed",
  addable: true,
  on: "face",
  lifts: "mask",
  turns: true,
  divisible: true,
  irreversible: true,
  matters: ["sand-after"],
  purpose: (s, c) =>
    s.zones.length === c.allZones.length || s.zones.includes("ground")
      ? "Bares everything that was kept clean."
      : "Opens what is painted next.",
  tool: () => "Pick, tweezers, flat scraper",
  lookFor: () => ({
    look: "Crumbs, strings, feathered edge, overspray",
    how: "close, low angle",
    against: "a crisp edge sample",
  }),
  cues: () => [
    "Back on itself, flat, slowly",
    "Pin and tweezers for islands; keep off soft paint",
    "Tick the pieces off on the weeding map",
  ],
  minutes: (s, c) => {
    const mine = c.job.zones.filter((z) => s.zones.includes(z.id) || s.zones.includes("ground"));
    const sec = mine.reduce(
      (a, z) =>
        a +
        LIFT.piece * (z.pieces ?? 1) +
        (z.narrowestMm !== null && z.narrowestMm < LIFT.narrowMm ? LIFT.mm * (z.perimeterMm ?? 0) : 0),
      0,
    );
    return { setup: 1, perPiece: 0.3 + sec / 60 };
  },
  needs: (s, p, c) => {
    const stacks = edgeFilms(p, s.zones);
    return [
      ...coldNeed(p, LIFT_C, "a warm fill tears out with the mask", c),
      ...(stacks.length
        ? [{ state: "lift" as const, stacks, why: "between soft and firm its edge strings and tears" }]
        : []),
    ];
  },
  refuses: (s, p) => {
    const masked = s.zones.filter((z) => zoneOf(p, z).mask);
    if (!masked.length) return "there is no mask on it";
    const rest = p.zones.some((z) => z.mask && !s.zones.includes(z.zone));
    if (rest && masked.some((z) => !zoneOf(p, z).mask!.cut && !zoneOf(p, z).mask!.loose))
      return "the mask is not cut there, so it can’t come off by itself";
    return null;
  },
  apply: (s, p, _c, at, start) => {
    const torn = warmerThan(p, start ?? at, TEARS_C);
    const bared = mapZones(p, s.zones, ({ mask: _gone, ...z }) => z);
    // A melted fill that is still soft comes out with the mask beside it.
    const tear = (f: Film): Film => (f.phase === "fused" ? { ...f, torn: true, left: f.left * 0.5 } : f);
    return {
      ...(torn ? { ...bared, zones: bared.zones.map((z) => ({ ...z, films: z.films.map(tear) })) } : bared),
      touched: "pick",
    };
  },
});
