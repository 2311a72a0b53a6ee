/**
 * M14 Round work: circumference, faces, seam from a wrong diameter, what is in focus on a ball, how much its artwork
 * is squeezed. mm and degrees.
 */
/** mm of focus that a lens of ordinary length forgives, a planning figure */
export const DOF_MM = 1;

export const circumference = (d: number): number => Math.PI * d;
/** mm along the surface for an angle, and back. */
export const alongFor = (d: number, degrees: number): number => (circumference(d) * degrees) / 360;
export const degreesFor = (d: number, mm: number): number => (mm / circumference(d)) * 360;

/** N equal faces: width of each, and where each begins. @throws RangeError for fewer than one */
export function faces(d: number, n: number, gapMm = 0): { widthMm: number; starts: number[] } {
  if (!(n >= 1)) throw new RangeError("there must be at least one face");
  const pitch = circumference(d) / n;
  return { widthMm: pitch - gapMm, starts: Array.from({ length: n }, (_, i) => i * pitch) };
}

/** Gap (above 0) or lap (below) at the seam when the piece is larger or smaller than it was told to be. */
export const seam = (trueD: number, toldD: number): number => Math.PI * (trueD - toldD);

/**
 * Width in focus on a ball of radius R with a depth of focus: 2√(2RΔz − Δz²), focused on the crown (Δz = DOF) or half
 * way down the drop (2·DOF).
 */
export function inFocus(r: number, dof: number): { crown: number; mid: number } {
  const at = (dz: number): number => {
    const z = Math.min(r, Math.max(0, dz));
    return 2 * Math.sqrt(Math.max(0, 2 * r * z - z * z));
  };
  return { crown: at(dof), mid: at(2 * dof) };
}

/** How much narrower artwork gets at a height y from the equator: √(1−(y/R)²); 0 past the pole. */
export const squeeze = (r: number, y: number): number => (Math.abs(y) >= r ? 0 : Math.sqrt(1 - (y / r) ** 2));

/** The same for a cylinder: its wall and its bottom. @param h mm of height inside */
export const insideCylinderDose = (d: number, h: number, wetUm: number | null): number | null =>
  wetUm === null ? null : ((Math.PI * d * h + (Math.PI * d * d) / 4) * wetUm * 1.1) / 1e6;

/** ml of paint for the inside of a ball: π·d²·wet, and a tenth to swirl with. @param wetUm µm */
export const insideDose = (d: number, wetUm: number | null): number | null =>
  wetUm === null ? null : (Math.PI * d * d * wetUm * 1.1) / 1e6;
