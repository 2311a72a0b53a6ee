/** Beams: spot, beam quality, what they mark (M3, M4). */
import type { Beam } from "../records/ids";
import type { SubstrateKind } from "./substrates";
import { lab, linear } from "../models/film/colour";

export interface BeamKind {
  id: Beam;
  name: string;
  /** spot at focus, mm */
  spotMm: number;
  /** M², beam quality */
  m2: number;
  /** wavelength, mm */
  lambdaMm: number;
  eyewear: string;
}

export const BEAM_KINDS: Record<Beam, BeamKind> = {
  co2: {
    id: "co2",
    name: "CO2, 10.6 µm",
    spotMm: 0.12,
    m2: 1.3,
    lambdaMm: 0.0106,
    eyewear: "rated for 10 600 nm; the beam cannot be seen",
  },
  blue: {
    id: "blue",
    name: "Blue diode, 450 nm",
    spotMm: 0.08,
    m2: 15,
    lambdaMm: 0.00045,
    eyewear: "rated for 450 nm",
  },
  um1: {
    id: "um1",
    name: "1 µm fibre",
    spotMm: 0.04,
    m2: 1.4,
    lambdaMm: 0.001064,
    eyewear: "rated for 1064 nm; the beam cannot be seen",
  },
  uv: {
    id: "uv",
    name: "UV, 355 nm",
    spotMm: 0.02,
    m2: 1.3,
    lambdaMm: 0.000355,
    eyewear: "rated for 355 nm; the beam cannot be seen",
  },
};

type Family = SubstrateKind["family"];
/** mm per J/mm² above the threshold, ordinary values and no more (M10); what is not here must be measured. */
const DEPTH: Partial<Record<Beam, Partial<Record<Family, number>>>> = {
  co2: { wood: 0.3, mdf: 0.35, acrylic: 0.28, slate: 0.02, glass: 0.01, tile: 0.01 },
  blue: { wood: 0.2, mdf: 0.2, acrylic: 0.1 },
};
/** bare metal under 1 µm light, by material: aluminium gives way sooner */
const METAL_DEPTH: Record<string, number> = { "aluminium-bare": 0.003 };
const OTHER_METAL = 0.002;

/** Default depth per J/mm² of a beam in a material, mm; null: not known, it must be measured. */
export function defaultDepthPerJ(beam: Beam, s: Pick<SubstrateKind, "id" | "family">): number | null {
  if (beam === "blue" && s.id === "acrylic-clear") return null;
  if (beam === "um1" && s.family === "metal") return METAL_DEPTH[s.id] ?? OTHER_METAL;
  return DEPTH[beam]?.[s.family] ?? null;
}

/** J/mm² of kerf wall that a cut through takes (M2); what is not here must be measured. */
const CUT: Partial<Record<Beam, Partial<Record<Family, number>>>> = {
  co2: { wood: 0.6, mdf: 0.8, acrylic: 0.5 },
  blue: { wood: 1.6 },
};
export const defaultCutE = (beam: Beam, family: Family): number | null => CUT[beam]?.[family] ?? null;

export type Marks = "marks" | "passes" | "refuses" | "poor" | "unknown";

/** What a beam does to a body, as the end of a sentence. */
export const marksSays = (on: Marks, body: string): string =>
  ({
    marks: `marks ${body}`,
    passes: `passes through ${body}`,
    refuses: `does not mark ${body}`,
    poor: `marks ${body} poorly`,
    unknown: `is not known to mark ${body}`,
  })[on];

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

/** what a paint is beside its colour, as its product says */
export interface PaintKind {
  clear: boolean;
  metallic: boolean;
}
const PLAIN: PaintKind = { clear: false, metallic: false };
const [LEAST, MOST] = [0.05, 0.95];
/** L* below which a colour counts as carbon black, and as dark */
const [BLACK_L, DARK_L] = [20, 50];

/**
 * Share of the beam that a paint takes up (M4): blue light as much as the colour does not send back of it, without a step between two
 * greys; the others by what organic, metallic, carbon and light paints take. ± 30 %, good enough to place the first plate.
 */
export function absorption(beam: Beam, colour: string, { clear, metallic }: PaintKind = PLAIN): number {
  const c = linear(colour);
  switch (beam) {
    case "blue":
      return clear ? LEAST : Math.min(MOST, Math.max(LEAST, 1 - c[2]));
    case "co2":
      return metallic ? 0.5 : 0.9;
    case "um1": {
      const [l] = lab(c);
      return clear ? LEAST : metallic ? 0.4 : l < BLACK_L ? 0.95 : l < DARK_L ? 0.4 : 0.25;
    }
    case "uv":
      return clear ? 0.3 : 0.8;
  }
}
