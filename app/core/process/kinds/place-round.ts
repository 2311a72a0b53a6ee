/** Setting a ball or cylinder up on the rotary. */
import { DOF_MM, inFocus } from "../../models/round/round";
import { focusOn, shapeOf } from "../setup";
import { kind } from "../step";

export const placeRound = kind([], {
  id: "place-round",
  name: "Chuck, true, focus",
  addable: true,
  on: "piece",
  places: "round",
  divisible: true,
  figures: ["round"],
  purpose: () => "A wobble of half a millimetre is a seam and a blurred edge.",
  tool: (_s, c) => (c.world.shop.gear ?? []).find((g) => g.kind === "rotary")?.name ?? "Rotary, rubber band, caliper",
  lookFor: (_s, c) => ({
    look: `Turns without a wobble, ${c.substrate.family === "glass" ? "neck cushioned" : "jaws cushioned"}`,
    how: "watch the edge against a fixed point for one turn",
    against: "0.3 mm",
  }),
  cues: (_s, c) => {
    const d = c.job.substrate.diameter ?? null;
    const band = d !== null && shapeOf(c) === "ball" ? inFocus(d / 2, DOF_MM).mid : null;
    const sharp = band === null ? "" : `; a band of ${Math.round(band * 10) / 10} mm is sharp`;
    return [
      "Measure the diameter where the artwork lies, each piece",
      c.substrate.family === "glass"
        ? "Hand-tight only; a band at the neck"
        : "Tight, and square to the axis; tape at the jaws, or they print",
      `Focus ${focusOn(c)}${sharp}`,
      "Rotary on, its axis lead in, the flat axis off",
    ];
  },
  minutes: () => ({ setup: 8, perPiece: 0.5 }),
  refuses: (_s, _p, c) => (shapeOf(c) === "flat" ? "the piece is flat: it needs no rotary" : null),
  apply: (_s, p) => ({ ...p, touched: "chuck" }),
});
