/** Peeling the maker’s film off the face of a sheet. */
import { needOf } from "../needs";
import { kind } from "../step";

export const peelFilm = kind([], {
  id: "peel-film",
  name: "Peel the film off the face",
  addable: true,
  on: "face",
  lifts: "face-film",
  divisible: true,
  irreversible: true,
  purpose: () => "It has kept soot, paint and fingers off the side that is seen.",
  tool: () => "Fingernail, plastic scraper",
  lookFor: () => ({
    look: "Clear face, no liner left in holes or edges",
    how: "turn over on white",
    against: "artwork",
  }),
  cues: () => [
    "Only now: no more laser, no more paint",
    "Peel flat, back on itself",
    "Look for a second liner on the back",
  ],
  minutes: () => ({ setup: 1, perPiece: 0.5 }),
  needs: (s, p) => needOf(s.zones, p, "touch", "soft paint tears while the sheet is bent"),
  refuses: (_s, p) => (p.faceFilm ? null : "there is no film on the face"),
  apply: (_s, p) => ({ ...p, faceFilm: false, touched: "hand" }),
});
