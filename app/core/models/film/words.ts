/** Plain words for colours. */
import { difference, linear } from "./colour";

/** What makers call colours: the nearest by CIEDE2000 is taken. */
const NAMES: readonly (readonly [string, string])[] = [
  ["White", "#ffffff"],
  ["Ivory", "#f6efdc"],
  ["Pale grey", "#d5d5d5"],
  ["Grey", "#8f8f8f"],
  ["Dark grey", "#4c4c4c"],
  ["Black", "#0d0d0d"],
  ["Pink", "#f2a0bd"],
  ["Rose", "#e2557f"],
  ["Magenta", "#d0168c"],
  ["Crimson", "#a8143f"],
  ["Red", "#d4221f"],
  ["Brick", "#a33b26"],
  ["Maroon", "#5e1420"],
  ["Coral", "#f47a5f"],
  ["Peach", "#f7c6a3"],
  ["Orange", "#f0791b"],
  ["Amber", "#f0a020"],
  ["Gold", "#cf9f2c"],
  ["Yellow", "#f6d92c"],
  ["Lemon", "#f6ef8c"],
  ["Beige", "#d8c49c"],
  ["Tan", "#b58c5a"],
  ["Brown", "#7a4a26"],
  ["Dark brown", "#3d2414"],
  ["Olive", "#7c7a2a"],
  ["Lime", "#a9cf38"],
  ["Green", "#3f9a3a"],
  ["Green", "#12d91a"],
  ["Dark green", "#1c4d2b"],
  ["Pale green", "#b4dba6"],
  ["Mint", "#7fd1ac"],
  ["Teal", "#148078"],
  ["Turquoise", "#2fb8c4"],
  ["Sky blue", "#86c2ea"],
  ["Blue", "#2663b4"],
  ["Blue", "#1a2fe0"],
  ["Navy", "#16264f"],
  ["Slate blue", "#5d7590"],
  ["Lavender", "#bfb0e0"],
  ["Violet", "#6b3fa8"],
  ["Plum", "#5f2a57"],
  ["Mauve", "#a3799b"],
];

/** A plain word for a colour, until the maker names the zone. */
export function colourWord(hex: string): string {
  const own = linear(hex);
  const off = NAMES.map(([, at]) => difference(own, linear(at)));
  return NAMES[off.indexOf(Math.min(...off))][0];
}
