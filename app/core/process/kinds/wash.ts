/** Cleaning off the soot. */
import { rinsed } from "../setup";
import { paintless } from "../../catalogue/routes";
import { kind } from "../step";
import { material } from "../words";

export const wash = kind([], {
  id: "wash",
  name: "Clean off the soot",
  addable: true,
  on: "piece",
  wets: "rinse",
  divisible: true,
  matters: ["clean-off"],
  purpose: (_s, c) =>
    paintless(c.route) && !c.substrate.absorbent
      ? "What is left in the mark greys it, and comes off on hands."
      : "Soot under a clear coat stays for good.",
  tool: (_s, c) => (rinsed(c) ? "Soft pad, a drop of soap, towel" : "Soft cloths, hardly damp"),
  lookFor: () => ({
    look: "Cloth comes away clean",
    how: "wipe until no more grey comes off",
    against: "a clean cloth",
  }),
  cues: (_s, c) =>
    !rinsed(c)
      ? [
          "Wipe along the lines, no pressure, until the cloth stays clean",
          c.substrate.absorbent ? `Cloth hardly damp: ${material(c.substrate.family)} drinks` : "Never under a tap",
        ]
      : ["Wipe along the lines, no pressure", "Rinse, pat dry; touch edges only from here"],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  apply: (s, p, c, at) => ({
    ...p,
    soot: false,
    clean: true,
    touched: "pad",
    damp: !rinsed(c) ? p.damp : { step: s.id, kind: "rinse", at },
  }),
});
