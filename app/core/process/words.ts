/** What a maker calls a state that a wait is for: “until it is …”. */
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
