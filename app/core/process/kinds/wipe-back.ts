/** Wiping colour off what should not have it: whole glaze, the rim of a marked area. */
import { needOf } from "../needs";
import type { StepKind } from "../step";

export const wipeBack: StepKind = {
  id: "wipe-back",
  name: "Wipe the face back",
  addable: true,
  divisible: true,
  laser: false,
  irreversible: false,
  purpose: () => "The open ceramic keeps its colour, the glaze gives it up.",
  tool: (_s, c) => (c.job.route === "C2" ? "Firm thumb in a clean cloth" : "Clean cloth, hardly damp"),
  lookFor: () => ({ look: "Glaze clean, lines full, shading even", how: "low angle, clean cloth", against: "artwork" }),
  cues: (s, c) => {
    const names = c.job.zones.filter((z) => s.zones.includes(z.id)).map((z) => z.name);
    return c.job.route === "C2"
      ? [
          `One colour at a time, palest first: ${names.join(", ")}`,
          "Firmly, along the shape: the burnished shading stays",
          "A clean place on the cloth for each colour",
        ]
      : [
          "Flat, towards the open line, never across it",
          "Turn the cloth at every stroke",
          ...(c.job.route === "C3" ? ["A wet cloth lifts unsealed ink: keep it to the glaze"] : []),
        ];
  },
  minutes: () => ({ setup: 1, perPiece: 1 }),
  needs: (s, p, c) =>
    needOf(
      s.zones,
      p,
      c.job.route === "C2" ? "sandable" : "touch",
      c.job.route === "C2" ? "wet neighbours smear into each other" : "what is wet would be wiped out",
    ),
  refuses: () => null,
  apply: (s, p) => ({ ...p, smeared: null, clean: true, touched: s.kind }),
};
