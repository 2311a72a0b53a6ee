/**
 * M10 Depth, level, sanding. Depth per pass = κ·max(0, E − 0.15) mm with E per pass in J/mm²; what is needed is what
 * sanding takes, plus sealer, plus coat films, plus what must stay.
 */
export const DEPTH_THRESHOLD = 0.15;
/** mm that must stay below the face after sanding, for a brushed coat in wood */
export const RESIDUAL_MM = 0.2;
/** mm that must stay below the face: a brushed coat in wood most; a masked or metal fill less. */
export const residualMm = (family: string, masked: boolean): number =>
  family === "metal" || family === "coated-metal" || masked ? 0.1 : RESIDUAL_MM;
/** what sanding to bare wood takes from the face: sealer skin and what soaked in, µm */
export const SAND_SOAK_UM = 40;
/** share of a veneer face that sanding may take */
export const VENEER_SHARE = 0.6;
/** µm a firm stroke by hand takes, by grit */
export const GRITS: { grit: string; umPerStroke: number }[] = [
  { grit: "80", umPerStroke: 10 },
  { grit: "120", umPerStroke: 4 },
  { grit: "180-220", umPerStroke: 2 },
];

/** mm per pass at E J/mm² a pass. */
export const depthPerPass = (kappa: number, e: number): number => kappa * Math.max(0, e - DEPTH_THRESHOLD);

/** Passes for a depth; null when one pass cuts nothing. */
export function passesFor(depthMm: number, kappa: number, e: number): number | null {
  const d = depthPerPass(kappa, e);
  return d > 0 ? Math.max(1, Math.ceil(depthMm / d - 1e-9)) : null;
}

/** mm needed: sanding + sealer + coats (µm) + residual. */
export const depthNeeded = (sandUm: number, sealerUm: number, coatsUm: number, residualMm = RESIDUAL_MM): number =>
  (sandUm + sealerUm + coatsUm) / 1000 + residualMm;

/** Sanding to bare wood: coarse for most of it, finer to finish, as strokes a grit. */
export function sandPlan(removeUm: number): { grit: string; strokes: number; um: number }[] {
  const shares = [0.6, 0.25, 0.15];
  return GRITS.map((g, i) => ({
    grit: g.grit,
    um: removeUm * shares[i],
    strokes: Math.max(1, Math.ceil((removeUm * shares[i]) / g.umPerStroke)),
  }));
}
