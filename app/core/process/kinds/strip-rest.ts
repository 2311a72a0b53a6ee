/** Taking off the paint that the laser has not burnt in. */
import { kind } from "../step";

export const stripRest = kind([], {
  id: "strip-rest",
  name: "Strip the white that is left",
  addable: true,
  on: "face",
  wets: "solvent",
  strips: true,
  divisible: true,
  purpose: () => "What was burnt in stays; all other paint comes off.",
  tool: () => "Thinner that the can’s sheet names, lint-free cloth, gloves, lidded metal can",
  lookFor: () => ({
    look: "Glaze bright, cloth comes away clean",
    how: "clean cloth, raking light",
    against: "an unpainted tile",
  }),
  cues: () => [
    "Soak, wipe, turn the cloth",
    "No flame or spark near the vapour",
    "Rags and thinner are hazardous waste",
  ],
  minutes: () => ({ setup: 3, perPiece: 2 }),
  refuses: (_s, p) => (p.zones.some((z) => z.films.length) ? null : "there is no paint left on it"),
  apply: (s, p, _c, at) => ({
    ...p,
    zones: p.zones.map((z) => ({ ...z, films: [] })),
    soot: false,
    clean: true,
    damp: { step: s.id, kind: "solvent", at },
    touched: "solvent",
  }),
});
