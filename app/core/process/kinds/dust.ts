/** Blowing and wiping off dust. */
import type { StepKind } from "../step";

export const dust: StepKind = {
  divisible: true,
  laser: false,
  irreversible: false,
  needs: () => [],
  refuses: () => null,
  id: "dust",
  name: "Blow and wipe off dust",
  addable: true,
  purpose: () => "Dust under a film shows as pits and lets the edge lift.",
  tool: () => "Soft brush or gentle air, mask and glasses",
  lookFor: () => ({ look: "No dust in the corners", how: "tilt to the light", against: "a clean cut" }),
  cues: () => ["Out of the cut, not into it", "Do not wet the wood"],
  minutes: () => ({ setup: 2, perPiece: 0.2 }),
  apply: (_s, p) => ({ ...p, clean: true }),
};
