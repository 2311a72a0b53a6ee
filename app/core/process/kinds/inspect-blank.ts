/** Looking the blanks over. */
import { colourWay } from "../../catalogue/routes";
import { shapeOf } from "../setup";
import { kind } from "../step";

/** mm of scrap round a piece with blended bands, and what a saw takes */
const SCRAP_MM = 30;
const KERF_MM = 3;

export const inspectBlank = kind([], {
  id: "inspect-blank",
  name: "Look over the blanks",
  addable: true,
  on: "piece",
  divisible: true,
  purpose: () => "Sort out flawed pieces before anything is spent on them.",
  tool: () => "Good light, caliper",
  lookFor: () => ({
    look: "Flaws, warp, burrs",
    how: "turn in the light, sight along the edge",
    against: "reject pile",
  }),
  cues: (_s, c) => [
    `Count ${c.pieces}; put doubtful ones aside`,
    shapeOf(c) === "flat"
      ? "Measure thickness where the artwork will lie"
      : "Measure the diameter where the artwork will lie",
    ...(colourWay(c.route) === "bands"
      ? [
          `Board ${c.job.substrate.w + 2 * SCRAP_MM + KERF_MM} × ${c.job.substrate.h + 2 * SCRAP_MM + KERF_MM} ` +
            `mm: ${SCRAP_MM} mm of scrap all round to test on, ${KERF_MM} mm for the saw; mark the trim line on the back`,
        ]
      : []),
  ],
  minutes: () => ({ setup: 2, perPiece: 0.25 }),
  apply: (_s, p) => p,
});
