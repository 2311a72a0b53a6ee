/** Which exercise is about which kind of step: told where the step is, without what the exercise reckons with. */
export const ABOUT: readonly { id: string; name: string; kinds: readonly string[] }[] = [
  { id: "way", name: "Choose the way", kinds: [] },
  { id: "spray", name: "Spray", kinds: ["coat"] },
  { id: "wait", name: "Wait or go", kinds: ["coat", "rest"] },
  { id: "plate", name: "Read a plate", kinds: ["plate"] },
  { id: "burn", name: "Burn a stack", kinds: ["reveal", "plate"] },
  { id: "way-round", name: "Which way round", kinds: ["pre-flight"] },
  { id: "weed", name: "Weed and open", kinds: ["mask-lift", "score-mask"] },
  { id: "melt", name: "Melt powder", kinds: ["melt", "powder-fill"] },
  { id: "fill", name: "Fill and level", kinds: ["coat", "pour-paint", "powder-fill"] },
  { id: "sand", name: "Sand back", kinds: ["sand-back"] },
  { id: "back", name: "Bring it back", kinds: ["pre-flight"] },
  { id: "round", name: "Round work", kinds: ["place-round"] },
  { id: "flaw", name: "Spot the flaw", kinds: ["final-check"] },
];
export const practiceFor = (kind: string): { id: string; name: string }[] =>
  ABOUT.filter((a) => a.kinds.includes(kind)).map(({ id, name }) => ({ id, name }));
