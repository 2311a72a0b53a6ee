/**
 * Route families as data: what each needs, and its phases in order. One engine (plan/generate.ts) turns phases into steps by
 * looking at the state of the piece; a further route is a further row.
 */
import type { Beam, RouteId } from "../records/ids";
import type { CoatRole } from "../piece/state";
import type { SubstrateKind } from "./substrates";

export type Phase =
  /** one step of a kind */
  | { do: "step"; kind: string; when?: "bare-metal" | "batch" | "face-sanded" }
  /** coats until something is true of the state */
  | { do: "coats"; role: CoatRole; over: "face" | "zones"; until: "hides" | "count"; count?: number; kept?: "no-clear" }
  /** white only as far as it saves coats of colour */
  | { do: "undercoat" }
  | { do: "laser"; kind: "reveal" | "engrave" };

export interface Route {
  id: RouteId;
  name: string;
  /** what it gives, in one sentence */
  gives: string;
  /** how it goes, for the choice */
  goes: string;
  families: SubstrateKind["family"][];
  beams: Beam[];
  maxColours: number;
  inverted: boolean;
  phases: Phase[];
}

const step = (kind: string, when?: "bare-metal" | "batch" | "face-sanded"): Phase => ({ do: "step", kind, when });

export const ROUTES: Route[] = [
  {
    id: "A1",
    name: "Colour under a dark top",
    gives: "One colour, crisp, uncovered by the laser. The easiest to begin with.",
    goes: "Lay the colour over the whole face, then a thin dark top; wait until it is laser-safe; the laser lifts the dark where the picture is; clean; clear coat.",
    families: ["tile", "mdf", "metal", "slate", "canvas"],
    beams: ["co2", "blue", "um1", "uv"],
    maxColours: 1,
    inverted: true,
    phases: [
      step("inspect-blank"),
      step("label"),
      step("scuff", "bare-metal"),
      step("degrease"),
      { do: "coats", role: "colour", over: "face", until: "hides" },
      { do: "coats", role: "top", over: "face", until: "hides" },
      step("plate"),
      step("pre-flight"),
      step("proof", "batch"),
      { do: "laser", kind: "reveal" },
      step("wash"),
      { do: "coats", role: "clear", over: "face", until: "count", count: 3, kept: "no-clear" },
      step("final-check"),
    ],
  },
  {
    id: "E1",
    name: "Engrave, seal, fill, sand back",
    gives: "Colour let into wood, several colours, no mask. Costs least for one-off work.",
    goes: "Engrave deep; sand off the residue; seal floor and walls; white where it saves coats; colours by brush; wait until dry right through; sand back to bare wood; clear coat.",
    families: ["wood"],
    beams: ["co2", "blue"],
    maxColours: 6,
    inverted: false,
    phases: [
      step("inspect-blank"),
      step("label"),
      step("dust"),
      step("pre-flight"),
      step("proof", "batch"),
      { do: "laser", kind: "engrave" },
      step("sand-residue"),
      step("dust"),
      { do: "coats", role: "seal", over: "face", until: "count", count: 2 },
      { do: "undercoat" },
      { do: "coats", role: "colour", over: "zones", until: "hides" },
      step("sand-back"),
      step("dust"),
      { do: "coats", role: "clear", over: "face", until: "count", count: 2, kept: "no-clear" },
      step("final-check"),
    ],
  },
];

/** @throws Error when there is no such route */
export function route(id: string): Route {
  const r = ROUTES.find((x) => x.id === id);
  if (!r) throw new Error(`There is no route “${id}”.`);
  return r;
}
