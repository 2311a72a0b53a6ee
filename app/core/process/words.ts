/** What a maker calls a state that a wait is for: “until it is …”. */
import type { Family } from "../catalogue/substrates";
import type { WaitState } from "../records/ids";

const STATE_WORDS: Record<string, string> = {
  flash: "flashed off",
  touch: "touch dry",
  recoat: "ready for the next coat",
  maskable: "hard enough to paint",
  sandable: "dry right through",
  "laser-safe": "laser-safe",
  cured: "cured",
  dry: "dry",
  cold: "cold",
  lift: "ready for the mask to be lifted",
  "set-time": "rested",
};
export const stateWords = (s: string): string => STATE_WORDS[s] ?? s;

/** How a state is felt or seen by hand. */
const TOUCH: Record<WaitState, string> = {
  flash: "the wet gloss has dropped all over",
  touch: "nothing comes off on a clean finger at an edge",
  recoat: "gloss dropped, firm, not cool, no smell, at an edge that will not show",
  maskable: "a strip of the tape, pressed on an edge, comes off clean and leaves no mark",
  sandable: "rubbed with fine paper at an edge it gives dry dust and does not clog",
  "laser-safe": "a thumbnail leaves no mark, and no smell of solvent is left close up",
  cured: "a thumbnail leaves no mark, and it smells of nothing after a night under a cover",
  dry: "not cool and not dark anywhere, corners and back too",
  "set-time": "what is left in the cup is hard, and a finger leaves no print",
  lift: "a pin at the edge meets no string and no crumb",
  cold: "no warmth in the back of a hand on the thickest part",
};
export const touchTest = (s: WaitState): string => TOUCH[s];

const MATERIAL: Record<Family, string> = {
  wood: "wood",
  mdf: "board",
  tile: "glaze",
  slate: "slate",
  canvas: "canvas",
  metal: "metal",
  "coated-metal": "coating",
  acrylic: "sheet",
  glass: "glass",
};
/** What a maker calls the stuff that a face is of. */
export const material = (f: Family): string => MATERIAL[f];

/** A body with nothing on it, by its name: “bare aluminium”, “bare hard maple”. */
export const bareBody = (name: string): string => `bare ${name.toLowerCase().replace(/^bare /, "")}`;

/** The same, at the beginning of a sentence. */
export const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);
