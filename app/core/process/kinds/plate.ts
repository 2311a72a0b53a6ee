/** A test plate on the same stack. */
import { beamWork, paintless } from "../../catalogue/routes";
import type { Context } from "../context";
import { kind, LASER } from "../step";
import { laserNeeds, tenth } from "./laser-work";

const DARKENS = {
  finds: "Finds the setting that marks deepest, just before it pales again.",
  look: "Darkest before paling",
};
const OPENS = {
  finds: "Finds the setting that opens it all over and burns nothing beneath.",
  look: "Open to the edge, nothing burnt beneath",
};
const LIFTS = {
  finds: "Finds the setting that lifts the dark film and leaves the colour whole.",
  look: "Dark gone, colour whole",
};
/** What it is to find out, by what the beam does there. */
function asks(c: Context): typeof LIFTS {
  const work = beamWork(c.route);
  if (work === "open-skin" || (work === "mark" && c.substrate.skin)) return OPENS;
  return work === "mark" ? { ...DARKENS, look: "Deepest before it pales again" } : work === "burn-in" ? DARKENS : LIFTS;
}
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
  purpose: (_s, c) => asks(c).finds,
  tool: (_s, c) =>
    paintless(c.route)
      ? "Laser, an offcut of the same sheet"
      : beamWork(c.route) === "open-skin"
        ? "Laser, a blank of the same lot"
        : "Laser, a piece sprayed in the same go",
  lookFor: (_s, c) => ({
    look: asks(c).look,
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
