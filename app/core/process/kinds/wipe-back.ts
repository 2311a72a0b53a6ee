/** Wiping colour off what should not have it: whole glaze, the rim of a marked area. */
import { capital, material } from "../words";
import { needOf } from "../needs";
import type { Context } from "../context";
import { kind } from "../step";

/** Is all colour by marker, dried on and rubbed back with a thumb? Ink comes off with less. */
const burnished = (c: Context): boolean =>
  c.filled.length > 0 && c.filled.every((z) => z.productId !== null && isMarker(c, z.productId));
const isMarker = (c: Context, id: string): boolean => c.paintOf(id).finish.by === "marker" && !isInk(c, id);
const isInk = (c: Context, id: string): boolean => c.paintOf(id).finish.family === "ink";
const inked = (c: Context): boolean => c.filled.some((z) => z.productId !== null && isInk(c, z.productId));

export const wipeBack = kind([], {
  id: "wipe-back",
  name: "Wipe the face back",
  addable: true,
  on: "zones",
  divisible: true,
  purpose: (_s, c) =>
    c.substrate.skin?.kind === "glaze"
      ? "The open ceramic keeps its colour, the glaze gives it up."
      : "The cut keeps its colour, the face gives up what strayed.",
  tool: (_s, c) =>
    burnished(c) ? "Firm thumb in a clean cloth" : inked(c) ? "Clean dry cloth" : "Clean cloth, hardly damp",
  lookFor: (_s, c) => ({
    look: `${capital(material(c.substrate.family))} clean, lines full, shading even`,
    how: "low angle, clean cloth",
    against: "artwork",
  }),
  cues: (s, c) => {
    const names = c.job.zones.filter((z) => s.zones.includes(z.id)).map((z) => z.name);
    return burnished(c)
      ? [
          `One colour at a time, palest first: ${names.join(", ")}`,
          "Firmly, along the shape: the burnished shading stays",
          "A clean place on the cloth for each colour",
        ]
      : [
          "Flat, towards the open line, never across it",
          "Turn the cloth at every stroke",
          ...(inked(c) ? ["Dry: a wet cloth lifts ink that nothing has sealed"] : []),
        ];
  },
  minutes: () => ({ setup: 1, perPiece: 1 }),
  needs: (s, p, c) =>
    needOf(
      s.zones,
      p,
      burnished(c) ? "sandable" : "touch",
      burnished(c) ? "wet neighbours smear into each other" : "what is wet would be wiped out",
    ),
  apply: (s, p) => ({ ...p, smeared: null, soot: false, clean: true, touched: s.kind }),
});
