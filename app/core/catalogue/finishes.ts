/**
 * Finishes: what a paint, sealer or clear coat does by default. Ordinary trade values at 20 °C, 50 % RH, one normal coat;
 * a product's own data sheet and what the shop measured win over them. Adding a finish is adding a row.
 */
import type { Base, Pigment } from "../records/ids";

const H = 60;
const D = 24 * H;

export type FinishRole = "colour" | "sealer" | "clear" | "mask";

/** A powder that melts: °C at which it flows, °C and minutes that cure it, packing pressed in, mg/mm³ fused (M9). */
export interface PowderKind {
  flowC: number;
  holdC: number;
  holdMin: number;
  packing: number;
  density: number;
}
/** A tape or film that masks: °C from which it is a risk and past which it fails, what it is made of. */
export interface MaskKind {
  riskC: number;
  limitC: number;
  /** laid loose, not stuck: paper shields, stencils with weights */
  loose: boolean;
  /** a beam passes through it without cutting (clear film under a blue beam) */
  clear: boolean;
}

/** One row. */
interface Row {
  id: string;
  name: string;
  role: FinishRole;
  /** how it is laid; spray finishes lose paint beside the piece (M7) */
  by: "spray" | "brush" | "airbrush" | "marker" | "powder" | "pour" | "wipe" | "tape";
  base: Base;
  /** paints that attack each other are told by family (rule 33) */
  family:
    | "enamel"
    | "lacquer"
    | "acrylic"
    | "shellac"
    | "polyurethane"
    | "clear-acrylic"
    | "ink"
    | "epoxy"
    | "powder"
    | "dye"
    | "oil"
    | "mask";
  /** dry µm of one normal coat; also the reference thickness of the drying times */
  coatUm: number;
  /** volume solids of what leaves the tool */
  solids: number;
  /** volume solids of what lands, propellant and flash-off gone in the air; absent: as it leaves the tool */
  lands?: number;
  /** patchiness of the film, share of its thickness (M4) */
  patchiness: number;
  /** °C below which it does not dry */
  minC: number;
  /** minutes; null: does not apply to this finish */
  times: {
    flash: number | null;
    touch: number | null;
    recoat: number | null;
    closes: number | null;
    reopens: number | null;
    maskable: number | null;
    sandable: number | null;
    laserSafe: number | null;
    cured: number | null;
  };
  /** shake it or stir it before use */
  mix: "shake" | "stir" | "neither";
  /** minutes in which a mask beside it lifts clean: while soft, and again when firm; between the two it strings (M8) */
  lift?: { from: number; to: number; again: number | null; last: number | null };
  /** white pigment that a beam darkens and fuses into glaze */
  burnsIn?: true;
  /** it dyes what it soaks into and shows its own colour there, whatever its thickness */
  stains?: true;
  powder?: PowderKind;
  mask?: MaskKind;
}

const times = (
  flash: number | null,
  touch: number | null,
  recoat: number | null,
  closes: number | null,
  reopens: number | null,
  maskable: number | null,
  sandable: number | null,
  laserSafe: number | null,
  cured: number | null,
): Row["times"] => ({ flash, touch, recoat, closes, reopens, maskable, sandable, laserSafe, cured });

const ROWS = [
  {
    id: "spray-enamel",
    name: "Spray enamel",
    role: "colour",
    by: "spray",
    base: "solvent",
    family: "enamel",
    coatUm: 12,
    solids: 0.13,
    lands: 0.28,
    patchiness: 0.12,
    minC: 10,
    times: times(4, 20, 10, 60, 48 * H, D, D, D, 7 * D),
    mix: "shake",
    lift: { from: 5, to: 20, again: 120, last: 360 },
  },
  {
    id: "spray-lacquer",
    name: "Spray lacquer",
    role: "colour",
    by: "spray",
    base: "solvent",
    family: "lacquer",
    coatUm: 8,
    solids: 0.1,
    lands: 0.22,
    patchiness: 0.12,
    minC: 10,
    times: times(4, 10, 10, null, null, 4 * H, 6 * H, D, 3 * D),
    mix: "shake",
    lift: { from: 5, to: 20, again: 120, last: 360 },
  },
  {
    id: "unknown-spray",
    name: "Unknown spray can",
    role: "colour",
    by: "spray",
    base: "solvent",
    family: "enamel",
    coatUm: 12,
    solids: 0.13,
    lands: 0.28,
    patchiness: 0.12,
    minC: 10,
    times: times(4, 20, 10, 60, 48 * H, D, D, D, 7 * D),
    mix: "shake",
    lift: { from: 5, to: 20, again: 120, last: 360 },
  },
  {
    id: "brush-enamel",
    name: "Brush enamel",
    role: "colour",
    by: "brush",
    base: "solvent",
    family: "enamel",
    coatUm: 30,
    solids: 0.45,
    patchiness: 0.2,
    minC: 10,
    times: times(20, 2 * H, 8 * H, null, null, D, D, 48 * H, 7 * D),
    mix: "stir",
    lift: { from: 45, to: 150, again: null, last: null },
  },
  {
    id: "craft-acrylic",
    name: "Craft acrylic, brushed",
    role: "colour",
    by: "brush",
    base: "water",
    family: "acrylic",
    coatUm: 18,
    solids: 0.3,
    patchiness: 0.2,
    minC: 10,
    times: times(5, 20, 45, null, null, 6 * H, 8 * H, D, 21 * D),
    mix: "stir",
    lift: { from: 10, to: 40, again: null, last: null },
  },
  {
    id: "airbrush-acrylic",
    name: "Acrylic, airbrushed",
    role: "colour",
    by: "airbrush",
    base: "water",
    family: "acrylic",
    coatUm: 5,
    solids: 0.2,
    patchiness: 0.08,
    minC: 10,
    times: times(2, 5, 12, null, null, 2 * H, 4 * H, D, 21 * D),
    mix: "stir",
    lift: { from: 5, to: 20, again: null, last: null },
  },
  {
    id: "spray-primer",
    name: "Spray primer",
    role: "colour",
    by: "spray",
    base: "solvent",
    family: "lacquer",
    coatUm: 15,
    solids: 0.15,
    lands: 0.32,
    patchiness: 0.12,
    minC: 10,
    times: times(4, 15, 10, null, null, 3 * H, 3 * H, D, 3 * D),
    mix: "shake",
    burnsIn: true,
    lift: { from: 5, to: 20, again: null, last: null },
  },
  {
    id: "shellac-spray",
    name: "Shellac, sprayed heavy",
    role: "sealer",
    by: "spray",
    base: "alcohol",
    family: "shellac",
    coatUm: 12,
    solids: 0.08,
    lands: 0.16,
    patchiness: 0.12,
    minC: 10,
    times: times(2, 5, 15, null, null, 2 * H, H, 12 * H, 2 * D),
    mix: "shake",
  },
  {
    id: "shellac-brushed",
    name: "Shellac, brushed",
    role: "sealer",
    by: "brush",
    base: "alcohol",
    family: "shellac",
    coatUm: 10,
    solids: 0.12,
    patchiness: 0.2,
    minC: 10,
    times: times(2, 5, 15, null, null, 2 * H, H, 12 * H, 2 * D),
    mix: "stir",
  },
  {
    id: "sanding-sealer",
    name: "Sanding sealer",
    role: "sealer",
    by: "brush",
    base: "water",
    family: "acrylic",
    coatUm: 15,
    solids: 0.2,
    patchiness: 0.2,
    minC: 10,
    times: times(5, 20, 45, null, null, 3 * H, H, 12 * H, 2 * D),
    mix: "stir",
  },
  {
    id: "spray-clear",
    name: "Spray clear acrylic",
    role: "clear",
    by: "spray",
    base: "solvent",
    family: "clear-acrylic",
    coatUm: 10,
    solids: 0.1,
    lands: 0.25,
    patchiness: 0.12,
    minC: 10,
    times: times(4, 15, 20, null, null, null, null, null, 7 * D),
    mix: "shake",
  },
  {
    id: "water-polyurethane",
    name: "Water-borne polyurethane",
    role: "clear",
    by: "brush",
    base: "water",
    family: "polyurethane",
    coatUm: 25,
    solids: 0.32,
    patchiness: 0.2,
    minC: 10,
    times: times(5, 30, 2 * H, null, null, null, 4 * H, null, 14 * D),
    mix: "stir",
  },
  {
    id: "alcohol-ink",
    name: "Alcohol ink",
    role: "colour",
    by: "marker",
    base: "alcohol",
    family: "ink",
    coatUm: 2,
    solids: 0.05,
    patchiness: 0.3,
    minC: 5,
    times: times(1, 3, 1, null, null, null, null, null, null),
    mix: "neither",
    stains: true,
  },
  {
    id: "titanium-white",
    name: "Titanium white primer",
    role: "colour",
    by: "spray",
    base: "solvent",
    family: "lacquer",
    coatUm: 12,
    solids: 0.15,
    lands: 0.32,
    patchiness: 0.12,
    minC: 10,
    times: times(4, 15, 10, null, null, 3 * H, 3 * H, 3 * H, 3 * D),
    mix: "shake",
    burnsIn: true,
    lift: { from: 5, to: 20, again: null, last: null },
  },
  {
    id: "poured-acrylic",
    name: "Acrylic, thinned to pour",
    role: "colour",
    by: "pour",
    base: "water",
    family: "acrylic",
    coatUm: 45,
    solids: 0.25,
    patchiness: 0.2,
    minC: 10,
    times: times(10, 4 * H, 4 * H, null, null, null, null, null, 7 * D),
    mix: "stir",
  },
  {
    id: "ceramic-dye",
    name: "Water-based dye",
    role: "colour",
    by: "wipe",
    base: "water",
    family: "dye",
    coatUm: 1,
    solids: 0.05,
    patchiness: 0.2,
    minC: 5,
    times: times(null, 5, 1, null, null, null, null, null, D),
    mix: "shake",
    stains: true,
  },
  {
    id: "powder",
    name: "Powder, 180 °C",
    role: "colour",
    by: "powder",
    base: "resin",
    family: "powder",
    coatUm: 500,
    solids: 1,
    patchiness: 0.1,
    minC: -20,
    times: times(null, null, null, null, null, null, null, null, null),
    mix: "neither",
    powder: { flowC: 125, holdC: 180, holdMin: 10, packing: 0.5, density: 1.5 },
  },
  {
    id: "powder-low-cure",
    name: "Powder, low cure, 155 °C",
    role: "colour",
    by: "powder",
    base: "resin",
    family: "powder",
    coatUm: 500,
    solids: 1,
    patchiness: 0.1,
    minC: -20,
    times: times(null, null, null, null, null, null, null, null, null),
    mix: "neither",
    powder: { flowC: 110, holdC: 155, holdMin: 15, packing: 0.5, density: 1.5 },
  },
  {
    id: "table-top-epoxy",
    name: "Table-top epoxy",
    role: "clear",
    by: "pour",
    base: "resin",
    family: "epoxy",
    coatUm: 1500,
    solids: 1,
    patchiness: 0.05,
    minC: 15,
    times: times(null, 8 * H, 4 * H, 12 * H, null, null, 48 * H, null, 7 * D),
    mix: "stir",
  },
  {
    id: "drying-oil",
    name: "Drying oil",
    role: "clear",
    by: "wipe",
    base: "resin",
    family: "oil",
    coatUm: 5,
    solids: 0.9,
    patchiness: 0.2,
    minC: 10,
    times: times(null, D, D, null, null, null, null, null, 14 * D),
    mix: "stir",
  },
  {
    id: "painters-tape",
    name: "Painter’s tape",
    role: "mask",
    by: "tape",
    base: "resin",
    family: "mask",
    coatUm: 130,
    solids: 1,
    patchiness: 0,
    minC: 0,
    times: times(null, null, null, null, null, null, null, null, null),
    mix: "neither",
    mask: { riskC: 100, limitC: 150, loose: false, clear: false },
  },
  {
    id: "paper-transfer-tape",
    name: "Paper transfer tape",
    role: "mask",
    by: "tape",
    base: "resin",
    family: "mask",
    coatUm: 100,
    solids: 1,
    patchiness: 0,
    minC: 0,
    times: times(null, null, null, null, null, null, null, null, null),
    mix: "neither",
    mask: { riskC: 80, limitC: 190, loose: false, clear: false },
  },
  {
    id: "polyimide-tape",
    name: "Polyimide tape",
    role: "mask",
    by: "tape",
    base: "resin",
    family: "mask",
    coatUm: 65,
    solids: 1,
    patchiness: 0,
    minC: 0,
    times: times(null, null, null, null, null, null, null, null, null),
    mix: "neither",
    mask: { riskC: 260, limitC: 260, loose: false, clear: false },
  },
  {
    id: "clear-stencil-film",
    name: "Clear stencil film",
    role: "mask",
    by: "tape",
    base: "resin",
    family: "mask",
    coatUm: 80,
    solids: 1,
    patchiness: 0,
    minC: 0,
    times: times(null, null, null, null, null, null, null, null, null),
    mix: "neither",
    mask: { riskC: 60, limitC: 80, loose: false, clear: true },
  },
  {
    id: "paper-shield",
    name: "Paper shield, laid loose",
    role: "mask",
    by: "tape",
    base: "resin",
    family: "mask",
    coatUm: 90,
    solids: 1,
    patchiness: 0,
    minC: 0,
    times: times(null, null, null, null, null, null, null, null, null),
    mix: "neither",
    mask: { riskC: 150, limitC: 200, loose: true, clear: false },
  },
  {
    id: "paint-marker",
    name: "Paint marker",
    role: "colour",
    by: "marker",
    base: "alcohol",
    family: "acrylic",
    coatUm: 6,
    solids: 0.25,
    patchiness: 0.2,
    minC: 10,
    times: times(1, 5, 5, null, null, 2 * H, 8 * H, D, 3 * D),
    mix: "shake",
  },
] as const satisfies readonly Row[];

/** Finishes by id: a misspelt one does not compile. */
export type FinishId = (typeof ROWS)[number]["id"];
export type Finish = Row & { id: FinishId };
export const FINISHES: readonly Finish[] = ROWS;

const byId = new Map<string, Finish>(FINISHES.map((f) => [f.id, f]));
/** By a name that comes from a file or a form. @throws Error naming it when there is no such finish */
export function finishNamed(id: string): Finish {
  const f = byId.get(id);
  if (!f) throw new Error(`There is no finish “${id}”.`);
  return f;
}
export const finish = (id: FinishId): Finish => finishNamed(id);
/** A name in the middle of a sentence: “powder, 180 °C”. */
export const inWords = (name: string): string => name.charAt(0).toLowerCase() + name.slice(1);
export const isFinish = (id: string): id is FinishId => byId.has(id);

/** Hiding thickness in µm by colour family (M6), until the product says or a swatch shows. */
export const HIDE_UM: Record<Pigment, number> = {
  black: 12,
  white: 55,
  pale: 45,
  yellow: 100,
  red: 90,
  earth: 25,
  mid: 35,
  metallic: 15,
};
