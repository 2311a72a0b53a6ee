/** Scuffing a film whose recoat window was missed. */
import { mapZones, type Film } from "../../piece/state";
import { kind, type Need } from "../step";

const laid = (films: Film[]): Film[] => films.filter((f) => f.left > 0);

export const scuffFilm = kind([], {
  id: "scuff-film",
  name: "Scuff the film",
  addable: true,
  on: "face",
  sands: "film",
  divisible: true,
  purpose: () => "A film past its recoat window holds nothing by itself; fine scratches do.",
  tool: () => "Fine abrasive pad or 400 grit, wet or dry as its sheet says",
  lookFor: () => ({
    look: "Evenly matt, no shine left, nothing cut through",
    how: "raking light",
    against: "an untouched corner",
  }),
  cues: () => [
    "Light pressure, flat; keep off the edges",
    "Stop before the colour beneath shows",
    "Wipe off every grain of dust after it",
  ],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  needs: (s, p) => {
    const stacks = s.zones
      .map((id) => ({ zone: id, films: laid(p.zones.find((z) => z.zone === id)?.films ?? []) }))
      .filter((x) => x.films.length);
    const need: Need[] = stacks.length
      ? [{ state: "sandable", stacks, why: "a soft film tears instead of scuffing" }]
      : [];
    return need;
  },
  apply: (s, p) => ({
    ...mapZones(p, s.zones, (z) => ({
      ...z,
      films: z.films.map((f, i) => (i === z.films.length - 1 ? { ...f, keyed: true } : f)),
    })),
    clean: false,
  }),
});
