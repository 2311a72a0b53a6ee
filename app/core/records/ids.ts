/** The fixed words: ids that files, links and outside checks rely on (docs/contracts.md). */
export const RECORD_VERSION = 1;
export const ROUTE_IDS = [
  "A1",
  "A2",
  "A3",
  "A4",
  "B",
  "C1",
  "C2",
  "C3",
  "D1",
  "D2",
  "D3",
  "D4",
  "D5",
  "E1",
  "E2",
  "F",
  "G",
  "H",
  "I",
  "J",
  "N",
] as const;
export type RouteId = (typeof ROUTE_IDS)[number];
export const BEAMS = ["co2", "blue", "um1", "uv"] as const;
export type Beam = (typeof BEAMS)[number];
export const USES = ["handled", "wet", "outdoors", "display", "food"] as const;
export type Use = (typeof USES)[number];
export const WAIT_STATES = ["flash", "touch", "recoat", "maskable", "sandable", "laser-safe", "cured"] as const;
/** A state of a film, plus `dry` for a wet-wiped or rinsed surface. */
export type WaitState = (typeof WAIT_STATES)[number] | "dry" | "set-time" | "lift" | "cold";
/** What a coat is for. */
export const COAT_ROLES = ["seal", "white", "colour", "top", "clear", "barrier", "touch-up", "backing"] as const;
export type CoatRole = (typeof COAT_ROLES)[number];
/** what colours a paint, for how much of it hides and what a beam makes of it (M4, M6) */
export const PIGMENTS = ["black", "white", "pale", "yellow", "red", "earth", "mid", "metallic"] as const;
export type Pigment = (typeof PIGMENTS)[number];
export const SHEENS = ["gloss", "satin", "flat"] as const;
export const BASES = ["solvent", "water", "alcohol", "resin"] as const;
export type Base = (typeof BASES)[number];
export const ORIGINS = ["data sheet", "measured here"] as const;
export const SEVERITIES = ["never", "hazard", "stop", "risk", "advice"] as const;
export type Severity = (typeof SEVERITIES)[number];
export const ANSWERS = ["good", "mend", "stop"] as const;
export type Answer = (typeof ANSWERS)[number];
export const FLAWS = [
  "smear-melt",
  "dull-grey-film",
  "colour-eaten-through",
  "dark-specks-left",
  "uneven-bands",
  "wrinkle-craze",
  "peel",
  "fisheyes",
  "overspray",
  "feathered-edge",
  "scorch-halo",
  "bare-walls",
  "bubbles-at-edges",
  "dust-in-paint",
  "sanded-out",
  "drips-sags",
  "chipped-paint",
  "cloudy-clear",
] as const;

/** What a test plate is to find out. */
export const PLATE_QUESTIONS = ["window", "darken", "cut-mask", "depth"] as const;
export type PlateQuestion = (typeof PLATE_QUESTIONS)[number];
export const PLATE_READS = ["whole", "partly", "gone"] as const;
export type PlateRead = (typeof PLATE_READS)[number];
