/** Substrates as data. Colours are what the bare face looks like; null means that the figure does not apply or is not known. */
export interface SubstrateKind {
  id: string;
  name: string;
  family: "wood" | "mdf" | "tile" | "slate" | "canvas" | "metal" | "coated-metal" | "acrylic" | "glass";
  colour: string;
  grain: "none" | "tight" | "open";
  /** e0 of M4, J/mm²: what it takes before anything leaves */
  e0: number;
  /** laser-safe waits are stretched on bare metal, shortened on absorbent ground (M8) */
  laserSafeFactor: number;
  /** veneer or face thickness that sanding must not eat, mm; null: solid */
  veneerMm: number | null;
}

export const SUBSTRATES: SubstrateKind[] = [
  { id: "hard-maple", name: "Hard maple", family: "wood", colour: "#e0c296", grain: "tight", e0: 0.05, laserSafeFactor: 0.8, veneerMm: null },
  { id: "cherry", name: "Cherry", family: "wood", colour: "#b9794e", grain: "tight", e0: 0.05, laserSafeFactor: 0.8, veneerMm: null },
  { id: "walnut", name: "Walnut", family: "wood", colour: "#6b4a35", grain: "tight", e0: 0.05, laserSafeFactor: 0.8, veneerMm: null },
  { id: "birch-ply", name: "Birch ply", family: "wood", colour: "#dec79f", grain: "tight", e0: 0.05, laserSafeFactor: 0.8, veneerMm: 0.5 },
  { id: "pine", name: "Pine", family: "wood", colour: "#e3c58d", grain: "open", e0: 0.05, laserSafeFactor: 0.8, veneerMm: null },
  { id: "oak", name: "Oak", family: "wood", colour: "#c39a66", grain: "open", e0: 0.05, laserSafeFactor: 0.8, veneerMm: null },
  { id: "mdf", name: "MDF", family: "mdf", colour: "#b8926a", grain: "none", e0: 0.05, laserSafeFactor: 0.8, veneerMm: null },
  { id: "tile-glazed", name: "Glazed tile", family: "tile", colour: "#f4f4f0", grain: "none", e0: 0.05, laserSafeFactor: 1, veneerMm: null },
  { id: "slate", name: "Slate", family: "slate", colour: "#3f4448", grain: "none", e0: 0.05, laserSafeFactor: 1, veneerMm: null },
  { id: "canvas", name: "Stretched canvas", family: "canvas", colour: "#efe9dc", grain: "none", e0: 0.05, laserSafeFactor: 0.8, veneerMm: null },
  { id: "aluminium-bare", name: "Bare aluminium", family: "metal", colour: "#c9ccce", grain: "none", e0: 0.2, laserSafeFactor: 2, veneerMm: null },
  { id: "steel-bare", name: "Bare steel", family: "metal", colour: "#a9adb0", grain: "none", e0: 0.2, laserSafeFactor: 2, veneerMm: null },
  { id: "metal-coated", name: "Coated metal", family: "coated-metal", colour: "#2d3a55", grain: "none", e0: 0.2, laserSafeFactor: 1, veneerMm: null },
  { id: "acrylic-clear", name: "Clear acrylic", family: "acrylic", colour: "#eef3f4", grain: "none", e0: 0.05, laserSafeFactor: 1, veneerMm: null },
  { id: "acrylic-opaque", name: "Opaque acrylic", family: "acrylic", colour: "#30343a", grain: "none", e0: 0.05, laserSafeFactor: 1, veneerMm: null },
  { id: "glass-coated", name: "Inside-coated glass", family: "glass", colour: "#cfd6da", grain: "none", e0: 0.05, laserSafeFactor: 1, veneerMm: null },
];

/** @throws Error naming the id when there is no such substrate */
export function substrate(id: string): SubstrateKind {
  const s = SUBSTRATES.find((x) => x.id === id);
  if (!s) throw new Error(`There is no substrate “${id}”.`);
  return s;
}
export const isSubstrate = (id: string): boolean => SUBSTRATES.some((s) => s.id === id);

/** What charred wood looks like at the bottom of a cut, and how thick it is, µm. */
export const CHAR = { colour: "#2b1d14", um: 40 };
