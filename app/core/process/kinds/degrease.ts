/** Degreasing the face with solvent. */
import { paintless } from "../../catalogue/routes";
import { kind } from "../step";

const CLEANERS = {
  acetone: "Acetone",
  alcohol: "Alcohol",
  citrus: "Citrus cleaner",
  chlorinated: "Chlorinated cleaner",
};

export const degrease = kind([], {
  id: "degrease",
  name: "Degrease the face",
  addable: true,
  on: "piece",
  wets: "solvent",
  cleans: "solvent",
  divisible: true,
  purpose: (_s, c) =>
    paintless(c.route)
      ? "Oil and prints are burnt into the face and stain the mark."
      : "Oil under a film lets go later, most of all where the laser stops.",
  tool: (_s, c) => `${CLEANERS[c.job.choices.cleaner]}, lint-free cloth, gloves`,
  lookFor: () => ({
    look: "No oil, no smell of solvent left",
    how: "raking light, clean cloth",
    against: "a bare cleaned offcut",
  }),
  cues: () => [
    "Wipe one way, turn the cloth, wipe again",
    "From here on touch edges only",
    "Rags into the lidded metal can",
  ],
  minutes: () => ({ setup: 3, perPiece: 0.5 }),
  apply: (s, p, _c, at) => ({ ...p, clean: true, soot: false, damp: { step: s.id, kind: "solvent", at } }),
});
