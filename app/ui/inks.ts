/** Colours of things that are drawn and are no paint of the Shelf: the same by day and by night, since the piece is. */
/** burnt wood */
export const CHAR = "#2b1d14";
/** a body or film of which nobody knows the colour */
export const UNKNOWN = "#cccccc";
export const UNKNOWN_FILM = "#999999";
/** wood beneath everything, a tape over it, and what its hatching is drawn in */
export const BARE = "#d8c79a";
export const TAPE_LINE = "#8a7440";
export const LIGHT_WOOD = "#e0c296";
/** faces that a body comes with */
export const FACES: Readonly<Record<string, string>> = { glaze: "#f4f4f0", coating: "#2d3a55", silver: "#cfd6da" };
/** a clear coat over nothing */
export const CLEAR_TINT = "#d9e4ea";
/** words on a light and on a dark film; a shadow, a gleam */
export const ON_LIGHT = "#1b161e";
export const ON_DARK = "#ffffff";
export const SHADOW = "#000000";
/** what a new paint is before its colour is picked */
export const NEW_PAINT = "#a8235a";
/** dark paper under a swatch */
export const DARK_PAPER = "#1a1a1a";
/** tapes and films to mask with, as a beam meets them */
export const CLEAR_TAPE = "#f2f4f4";
export const PAPER_TAPE = "#c9b27a";
/** the colour of a clear coat on the Shelf while nobody has picked one */
export const UNPICKED = "#f5f5f5";
/** a face that is sprayed: bare, as wet as it may get, where it runs */
export const PAD = { bare: "#f3eee6", paint: "#a8235a", runs: "#5b0f2c" };
