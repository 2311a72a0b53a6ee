import type { Beam } from "../records/ids";

/** Substrates as data. Colours are what the bare face looks like; null means that the figure does not apply or is not known. */
export type SkinKind = "glaze" | "coating" | "silver" | "cap";
export interface SubstrateKind {
  id: SubstrateId;
  name: string;
  family: Family;
  colour: string;
  grain: "none" | "tight" | "open";
  /** e0 of M4, J/mm²: what it takes before anything leaves */
  e0: number;
  /** laser-safe waits are stretched on bare metal, shortened on absorbent ground (M8) */
  laserSafeFactor: number;
  /** veneer or face thickness that sanding must not eat, mm; null: solid */
  veneerMm: number | null;
  /** what lies on it from the maker: glaze, coating, silvering; µm thick, and the colour that shows when it is off */
  skin: { kind: SkinKind; um: number; beneath: string } | null;
  /** what a beam leaves on its bare face: the colour, and J/mm² at the knee of those beams of which it is known (M5); null: not known */
  mark: { colour: string; knee: Partial<Record<Beam, number>> } | null;
  /** °C that an oven may be set to for it: from the first on it suffers, past the second it fails */
  riskC: number;
  limitC: number;
  /** kg/m³, J/kgK, W/mK: how it takes up heat (M9) */
  thermal: { rho: number; c: number; k: number };
  /** it drinks thin paint: a raw cut wants sealing first */
  absorbent: boolean;
  /** feature of the bleed model: its grain (M11) */
  bleed: number | null;
}

export type Family = "wood" | "mdf" | "tile" | "slate" | "canvas" | "metal" | "coated-metal" | "acrylic" | "glass";
type Row = Omit<SubstrateKind, "id" | "skin" | "mark" | "riskC" | "limitC" | "thermal" | "absorbent" | "bleed"> & {
  id: string;
};
const THERMAL: Record<Family, SubstrateKind["thermal"]> = {
  wood: { rho: 650, c: 1700, k: 0.15 },
  mdf: { rho: 750, c: 1700, k: 0.14 },
  tile: { rho: 2200, c: 850, k: 1 },
  slate: { rho: 2700, c: 760, k: 2 },
  canvas: { rho: 500, c: 1300, k: 0.05 },
  metal: { rho: 2700, c: 900, k: 200 },
  "coated-metal": { rho: 2700, c: 900, k: 200 },
  acrylic: { rho: 1190, c: 1470, k: 0.19 },
  glass: { rho: 2500, c: 840, k: 1 },
};
/** °C; tile and glass by a slow ramp only */
const LIMIT_C: Record<Family, number> = {
  wood: 190,
  mdf: 165,
  tile: 260,
  slate: 260,
  canvas: 100,
  metal: 260,
  "coated-metal": 180,
  acrylic: 80,
  glass: 260,
};
/** where it begins to suffer before that: resin and glue darken, let go, give off gas */
const RISK_C: Partial<Record<Family, number>> = { wood: 160, mdf: 150 };
const SKIN: Partial<Record<SubstrateId, SubstrateKind["skin"]>> = {
  "tile-glazed": { kind: "glaze", um: 200, beneath: "#efe6d6" },
  "metal-coated": { kind: "coating", um: 25, beneath: "#c9ccce" },
  "acrylic-two-layer": { kind: "cap", um: 120, beneath: "#f1efe8" },
  "glass-coated": { kind: "silver", um: 1, beneath: "#eef3f4" },
};
/** ordinary knees, where a try on an offcut begins */
const BURNT_WOOD = { co2: 0.3, blue: 0.8 };
const MARK: Partial<Record<Family, SubstrateKind["mark"]>> = {
  wood: { colour: "#4a2e1c", knee: BURNT_WOOD },
  mdf: { colour: "#4a3020", knee: BURNT_WOOD },
  slate: { colour: "#b4b5b1", knee: { co2: 0.7 } },
};
const BLEED: Partial<Record<SubstrateId, number>> = {
  "hard-maple": -1,
  walnut: -0.3,
  cherry: -0.8,
  "birch-ply": 0.4,
  pine: 1,
  oak: 1.2,
  mdf: 1.5,
};

const ROWS = [
  {
    id: "hard-maple",
    name: "Hard maple",
    family: "wood",
    colour: "#e0c296",
    grain: "tight",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: null,
  },
  {
    id: "cherry",
    name: "Cherry",
    family: "wood",
    colour: "#b9794e",
    grain: "tight",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: null,
  },
  {
    id: "walnut",
    name: "Walnut",
    family: "wood",
    colour: "#6b4a35",
    grain: "tight",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: null,
  },
  {
    id: "birch-ply",
    name: "Birch ply",
    family: "wood",
    colour: "#dec79f",
    grain: "tight",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: 0.5,
  },
  {
    id: "pine",
    name: "Pine",
    family: "wood",
    colour: "#e3c58d",
    grain: "open",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: null,
  },
  {
    id: "oak",
    name: "Oak",
    family: "wood",
    colour: "#c39a66",
    grain: "open",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: null,
  },
  {
    id: "mdf",
    name: "MDF",
    family: "mdf",
    colour: "#b8926a",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: null,
  },
  {
    id: "tile-glazed",
    name: "Glazed tile",
    family: "tile",
    colour: "#f4f4f0",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 1,
    veneerMm: null,
  },
  {
    id: "slate",
    name: "Slate",
    family: "slate",
    colour: "#3f4448",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 1,
    veneerMm: null,
  },
  {
    id: "canvas",
    name: "Stretched canvas",
    family: "canvas",
    colour: "#efe9dc",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 0.8,
    veneerMm: null,
  },
  {
    id: "aluminium-bare",
    name: "Bare aluminium",
    family: "metal",
    colour: "#c9ccce",
    grain: "none",
    e0: 0.2,
    laserSafeFactor: 2,
    veneerMm: null,
  },
  {
    id: "steel-bare",
    name: "Bare steel",
    family: "metal",
    colour: "#a9adb0",
    grain: "none",
    e0: 0.2,
    laserSafeFactor: 2,
    veneerMm: null,
  },
  {
    id: "metal-coated",
    name: "Coated metal",
    family: "coated-metal",
    colour: "#2d3a55",
    grain: "none",
    e0: 0.2,
    laserSafeFactor: 1,
    veneerMm: null,
  },
  {
    id: "acrylic-clear",
    name: "Clear acrylic",
    family: "acrylic",
    colour: "#eef3f4",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 1,
    veneerMm: null,
  },
  {
    id: "acrylic-opaque",
    name: "Opaque acrylic",
    family: "acrylic",
    colour: "#30343a",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 1,
    veneerMm: null,
  },
  {
    id: "acrylic-two-layer",
    name: "Two-layer acrylic",
    family: "acrylic",
    colour: "#26282c",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 1,
    veneerMm: null,
  },
  {
    id: "glass-coated",
    name: "Inside-coated glass",
    family: "glass",
    colour: "#cfd6da",
    grain: "none",
    e0: 0.05,
    laserSafeFactor: 1,
    veneerMm: null,
  },
] as const satisfies readonly Row[];

/** Substrates by id: a misspelt one does not compile. */
export type SubstrateId = (typeof ROWS)[number]["id"];

export const SUBSTRATES: readonly SubstrateKind[] = ROWS.map((r) => ({
  ...r,
  skin: SKIN[r.id] ?? null,
  mark: MARK[r.family] ?? null,
  riskC: RISK_C[r.family] ?? LIMIT_C[r.family],
  limitC: LIMIT_C[r.family],
  thermal: r.id === "steel-bare" ? { rho: 7850, c: 490, k: 45 } : THERMAL[r.family],
  absorbent: r.family === "wood" || r.family === "mdf" || r.family === "canvas",
  bleed: BLEED[r.id] ?? null,
}));

const byId = new Map<string, SubstrateKind>(SUBSTRATES.map((s) => [s.id, s]));
/** By a name that comes from a file or a form. @throws Error naming it when there is no such substrate */
export function substrateNamed(id: string): SubstrateKind {
  const s = byId.get(id);
  if (!s) throw new Error(`There is no substrate “${id}”.`);
  return s;
}
/** The body of a piece: its row, with what this very sheet is said to be: its colour, what lies beneath its skin, how thick that is. */
export function bodyOf(s: { id: string; colour?: string; beneath?: string; skinUm?: number }): SubstrateKind {
  const row = substrateNamed(s.id);
  if (s.colour === undefined && s.beneath === undefined && s.skinUm === undefined) return row;
  const { skin } = row;
  return {
    ...row,
    colour: s.colour ?? row.colour,
    skin: skin && { ...skin, um: s.skinUm ?? skin.um, beneath: s.beneath ?? skin.beneath },
  };
}
export const substrate = (id: SubstrateId): SubstrateKind => substrateNamed(id);
export const isSubstrate = (id: string): id is SubstrateId => byId.has(id);

/** What charred wood looks like at the bottom of a cut, and how thick it is, µm. */
export const CHAR = { colour: "#2b1d14", um: 40 };
/** families whose cut floor chars */
export const CHARS: Family[] = ["wood", "mdf"];
/** What white pigment burnt into glaze looks like. */
export const BURNT = "#2c2c2e";
