/** Cleaning off the soot. */
import { kind } from "../step";

export const wash = kind([], {
  id: "wash",
  name: "Clean off the soot",
  addable: true,
  on: "piece",
  wets: "rinse",
  divisible: true,
  matters: ["clean-off"],
  purpose: () => "Soot under a clear coat stays for good.",
  tool: () => "Soft pad, a drop of soap, towel",
  lookFor: () => ({ look: "Towel comes away clean", how: "wipe until no more grey comes off", against: "towel" }),
  cues: (_s, c) =>
    c.school("clean-off") === "wipe"
      ? ["Wipe along the lines, no pressure, until the cloth stays clean", "Never under a tap"]
      : ["Wipe along the lines, no pressure", "Rinse, pat dry; touch edges only from here"],
  minutes: () => ({ setup: 3, perPiece: 1 }),
  apply: (s, p, c, at) => ({
    ...p,
    soot: false,
    clean: true,
    touched: "pad",
    damp: c.school("clean-off") === "wipe" ? p.damp : { step: s.id, kind: "rinse", at },
  }),
});
