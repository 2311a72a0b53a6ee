/** Setting a ball or cylinder up on the rotary. */
import { DOF_MM, inFocus } from "../../models/round/round";
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
  lookFor: () => ({
    look: "Turns without a wobble, neck cushioned",
    how: "watch the edge against a fixed point for one turn",
    against: "0.3 mm",
  }),
  cues: (_s, c) => {
    const d = c.job.substrate.diameter ?? null;
    const band = d !== null && c.job.substrate.shape === "ball" ? inFocus(d / 2, DOF_MM).mid : null;
    return [
      "Measure the diameter where the artwork lies, each piece",
      "Hand-tight only; a band at the neck",
      band !== null
        ? `Focus half way down the drop: a band of ${Math.round(band * 10) / 10} mm is sharp`
        : "Focus on the crown",
      "Rotary on, its axis lead in, the flat axis off",
    ];
  },
  minutes: () => ({ setup: 8, perPiece: 0.5 }),
  refuses: (_s, _p, c) =>
    (c.job.substrate.shape ?? (c.route && !c.route.shapes.includes("flat") ? "ball" : "flat")) === "flat"
      ? "the piece is flat: it needs no rotary"
      : null,
  apply: (_s, p) => ({ ...p, touched: "chuck" }),
});
