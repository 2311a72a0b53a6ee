/** Blowing and wiping off dust. */
import { GROUND, zoneOf } from "../../piece/state";
import { material } from "../words";
import { kind } from "../step";

export const dust = kind([], {
  id: "dust",
  name: "Blow and wipe off dust",
  addable: true,
  on: "piece",
  cleans: "dry",
  stays: true,
  divisible: true,
  purpose: () => "Dust under a film shows as pits and lets the edge lift.",
  tool: () => "Soft brush or gentle air, dust mask and glasses",
  lookFor: () => ({ look: "No dust in the corners", how: "tilt to the light", against: "a clean cut" }),
  cues: (_s, c) => [
    "Out of the cut, not into it",
    ...(c.substrate.absorbent ? [`Do not wet the ${material(c.substrate.family)}`] : []),
  ],
  minutes: () => ({ setup: 2, perPiece: 0.2 }),
  // what burning left on a mask goes with the mask; on bare wood it sticks, and is sanded or washed off
  apply: (_s, p, c) => ({
    ...p,
    clean: true,
    soot: p.soot && c.substrate.absorbent && !zoneOf(p, GROUND).mask,
  }),
});
