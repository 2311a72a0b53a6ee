/**
 * M9 Powder: how often a recess must be filled and melted, what it weighs, what a melted fill leaves open. Depths in mm,
 * areas in mm², mass in g. A fill lies level with the face and melts down to the share φ of its height.
 */
/**
 * How far below the face a finished fill may lie, mm: a third of the depth, half a millimetre at most; white and pale
 * shrink to a lighter look and stay higher.
 */
export const mayStayOpen = (depthMm: number, pale: boolean): number =>
  pale ? 0.15 * depthMm : Math.min(0.5, 0.3 * depthMm);

/** Depth left open after n fills: depth·(1−φ)ⁿ. */
export const openAfter = (depthMm: number, phi: number, n: number): number => depthMm * (1 - phi) ** n;

/** Fill-and-melt rounds; 0 where there is no recess; null when the packing makes no sense. */
export function fillsFor(depthMm: number, phi: number, pale: boolean): number | null {
  if (!(depthMm > 0)) return 0;
  if (!(phi > 0 && phi < 1)) return null;
  return Math.max(1, Math.ceil(Math.log(mayStayOpen(depthMm, pale) / depthMm) / Math.log(1 - phi) - 1e-9));
}

/** g that stay in the recess: area·depth·(1−(1−φ)ⁿ)·density; mg/mm³. */
export const fusedMass = (areaMm2: number, depthMm: number, phi: number, n: number, density: number): number =>
  (areaMm2 * depthMm * (1 - (1 - phi) ** n) * density) / 1000;
