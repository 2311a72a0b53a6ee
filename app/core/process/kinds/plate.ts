/** A test plate on the same stack. */
import { kind, LASER } from "../step";
import { laserNeeds, tenth } from "./laser-work";

export const plate = kind([...LASER], {
  id: "plate",
  name: "Test plate on the same stack",
  addable: true,
  on: "zones",
  beam: "trial",
  tries: "setting",
  attended: true,
  photo: true,
  figures: ["window"],
  purpose: () => "Finds the setting that lifts the dark film and leaves the colour whole.",
  tool: () => "Laser, a piece sprayed in the same go",
  lookFor: () => ({
    look: "Dark gone, colour whole",
    how: "wipe first; straight, then low light",
    against: "neighbouring squares",
  }),
  cues: (s) => [
    s.laser
      ? `Steps of a sixth around ${tenth(s.laser.power * 100)} % at ${tenth(s.laser.speed)} mm/s`
      : "Choose a machine first",
    "Wipe before you judge",
    "Type in the setting that won: the next steps use it",
  ],
  minutes: (_s, c) => (c.machine ? { setup: 20, perPiece: 0 } : null),
  needs: laserNeeds,
  apply: (_s, p) => ({ ...p, plated: true }),
});
