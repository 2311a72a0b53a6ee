/** Stripping the paint and beginning again. */
import { mapZones } from "../../piece/state";
import { kind } from "../step";

export const strip = kind([], {
  id: "strip",
  name: "Strip the paint, begin again",
  addable: true,
  on: "face",
  wets: "solvent",
  strips: true,
  divisible: true,
  irreversible: true,
  purpose: () =>
    "Takes every film off so that the coats can be laid anew. A fresh cure strips easily, an old one takes far longer.",
  tool: () => "Thinner that the paint’s sheet names, gloves, respirator, lidded can for the rags",
  lookFor: () => ({
    look: "Bare all over, edges and back too",
    how: "raking light, clean cloth",
    against: "a bare blank",
  }),
  cues: () => [
    "Try the thinner on an offcut: it may craze or swell the piece",
    "Thinner and rags are hazardous waste, never the drain",
    "No flame or spark near the vapour",
  ],
  minutes: () => ({ setup: 5, perPiece: 4 }),
  apply: (s, p, _c, at) => ({
    ...mapZones(p, s.zones, (z) => ({ ...z, films: [] })),
    clean: false,
    damp: { step: s.id, kind: "solvent", at },
  }),
});
