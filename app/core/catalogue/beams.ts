/** Beams: spot, beam quality, what they mark (M3, M4). */
import type { Beam } from "../records/ids";
import type { SubstrateKind } from "./substrates";
import { absorbFamily } from "../models/film/colour";

export interface BeamKind {
  id: Beam;
  name: string;
  /** spot at focus, mm */
  spotMm: number;
  /** M², beam quality */
  m2: number;
  /** wavelength, mm */
  lambdaMm: number;
  /** mm of wood per J/mm² above the threshold (M10); null: not a wood beam */
  depthPerJ: number | null;
  eyewear: string;
}

export const BEAM_KINDS: Record<Beam, BeamKind> = {
  co2: {
    id: "co2",
    name: "CO2, 10.6 µm",
    spotMm: 0.12,
    m2: 1.3,
    lambdaMm: 0.0106,
    depthPerJ: 0.4,
    eyewear: "rated for 10 600 nm; the beam cannot be seen",
  },
  blue: {
    id: "blue",
    name: "Blue diode, 450 nm",
    spotMm: 0.08,
    m2: 15,
    lambdaMm: 0.00045,
    depthPerJ: 0.25,
    eyewear: "rated for 450 nm",
  },
  um1: {
    id: "um1",
    name: "1 µm fibre",
    spotMm: 0.04,
    m2: 1.4,
    lambdaMm: 0.001064,
    depthPerJ: null,
    eyewear: "rated for 1064 nm; the beam cannot be seen",
  },
  uv: {
    id: "uv",
    name: "UV, 355 nm",
    spotMm: 0.02,
    m2: 1.3,
    lambdaMm: 0.000355,
    depthPerJ: null,
    eyewear: "rated for 355 nm; the beam cannot be seen",
  },
};

/** mm per J/mm² above the threshold in other materials, ordinary values and no more: bare metal by 1 µm light, slate by CO2. */
const OTHER_DEPTH: Partial<Record<Beam, Partial<Record<SubstrateKind["family"], number>>>> = {
  um1: { metal: 0.005 },
  co2: { slate: 0.02 },
};

/** Default depth per J/mm² of a beam in a material, mm; null: not known, it must be measured. */
export const defaultDepthPerJ = (beam: Beam, family: SubstrateKind["family"]): number | null =>
  ["wood", "mdf", "acrylic", "canvas"].includes(family)
    ? BEAM_KINDS[beam].depthPerJ
    : (OTHER_DEPTH[beam]?.[family] ?? null);

export type Marks = "marks" | "passes" | "refuses" | "poor" | "unknown";

/** What a beam does to a bare surface. Pairs nobody has told of are `unknown`, never guessed. */
export function beamOn(beam: Beam, s: SubstrateKind): Marks {
  const table: Record<Beam, Partial<Record<SubstrateKind["family"], Marks>>> = {
    blue: {
      wood: "marks",
      mdf: "marks",
      tile: "refuses",
      metal: "refuses",
      acrylic: s.id === "acrylic-clear" ? "passes" : "marks",
      glass: "passes",
    },
    co2: {
      wood: "marks",
      mdf: "marks",
      tile: "marks",
      slate: "marks",
      acrylic: "marks",
      glass: "marks",
      metal: "refuses",
    },
    um1: {
      wood: "poor",
      mdf: "poor",
      tile: "poor",
      metal: "marks",
      "coated-metal": "marks",
      acrylic: s.id === "acrylic-clear" ? "passes" : "marks",
      glass: "passes",
    },
    uv: { wood: "poor", mdf: "poor", tile: "marks", "coated-metal": "marks", acrylic: "marks", glass: "marks" },
  };
  return table[beam][s.family] ?? "unknown";
}

/** Share of the beam that a paint takes up (M4), by colour family; ± 30 %, good enough to place the first plate. */
export function absorption(beam: Beam, colour: string, clear: boolean): number {
  if (beam === "uv") return clear ? 0.3 : 0.8;
  const row: Record<string, [number, number, number]> = {
    black: [0.95, 0.9, 0.95],
    white: [0.3, 0.9, 0.25],
    warm: [0.85, 0.9, 0.25],
    green: [0.6, 0.9, 0.3],
    cool: [0.35, 0.9, 0.4],
    clear: [0.05, 0.9, 0.05],
  };
  return row[clear ? "clear" : absorbFamily(colour)][beam === "blue" ? 0 : beam === "co2" ? 1 : 2];
}
