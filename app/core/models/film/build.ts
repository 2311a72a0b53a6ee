/**
 * M7 Film build and paint used. Wet = dry / volume solids. A sprayed coat loses what falls beside the pieces:
 * η_T = η0·A / ((w+2m)(h+2m)) on the bounding box of all pieces sprayed together. Volumes in ml, areas in mm², films in µm.
 */

const SPRAY = { eta: 0.65, marginMm: 40 };
const AIRBRUSH = { eta: 0.75, marginMm: 10 };
const BRUSH_ETA = 0.9;
/** gap left between pieces that are sprayed together, mm */
export const PIECE_GAP_MM = 10;

/** Wet µm of a coat. Null when the solids are unknown. */
export const wetUm = (dryUm: number | null, solids: number | null): number | null =>
  dryUm === null || solids === null || !(solids > 0) ? null : dryUm / solids;

/** Near-square nest for N pieces of w × h mm with gaps: its width and height, mm, and rows × columns. */
export function nest(
  n: number,
  w: number,
  h: number,
  gap = PIECE_GAP_MM,
): { w: number; h: number; columns: number; rows: number } {
  let best = { w: Infinity, h: Infinity, columns: 1, rows: n };
  for (let c = 1; c <= n && c <= 400; c++) {
    const r = Math.ceil(n / c);
    const box = { w: c * w + (c - 1) * gap, h: r * h + (r - 1) * gap, columns: c, rows: r };
    if (
      Math.max(box.w, box.h) < Math.max(best.w, best.h) - 1e-9 ||
      (Math.abs(Math.max(box.w, box.h) - Math.max(best.w, best.h)) < 1e-9 && box.w * box.h < best.w * best.h)
    )
      best = box;
  }
  return best;
}

/** Share of what leaves the tool that stays on the painted area. @param areaMm2 painted area of all pieces */
export function transfer(by: string, areaMm2: number, boxW: number, boxH: number): number {
  if (by !== "spray" && by !== "airbrush") return BRUSH_ETA;
  const s = by === "airbrush" ? AIRBRUSH : SPRAY;
  const fan = (boxW + 2 * s.marginMm) * (boxH + 2 * s.marginMm);
  return fan > 0 ? Math.min(s.eta, (s.eta * areaMm2) / fan) : 0;
}

export interface CoatUse {
  /** ml out of the can */
  boughtMl: number | null;
  /** ml that stay on the piece as wet film */
  laidMl: number | null;
  /** ml beside it */
  lostMl: number | null;
}

/**
 * Paint for one coat over all pieces.
 * @param areaMm2 area coated, all pieces, recess walls included @param wet µm
 */
export function coatUse(areaMm2: number, wet: number | null, eta: number): CoatUse {
  if (wet === null || !(eta > 0)) return { boughtMl: null, laidMl: null, lostMl: null };
  const laidMl = (areaMm2 * wet) / 1e6; // mm² × µm = 1e-3 mm³; 1 ml = 1000 mm³
  return { boughtMl: laidMl / eta, laidMl, lostMl: laidMl / eta - laidMl };
}

/** Area a coat must cover in a recess: floor plus walls. */
export const recessArea = (areaMm2: number, perimeterMm: number | null, depthMm: number): number =>
  areaMm2 + (perimeterMm ?? 0) * depthMm;

/** Depth still open after n flush fills: depth·(1−VS)ⁿ. */
export const openAfterFills = (depthMm: number, solids: number, n: number): number => depthMm * (1 - solids) ** n;
