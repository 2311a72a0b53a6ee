/** M3 Energy on the surface, J/mm²: E = passes·P·p/(v·Δ). Spot growth out of focus and ripple between lines. */
/** @throws RangeError when speed or interval are not above 0 */
export function energy(watts: number, share: number, speed: number, intervalMm: number, passes = 1): number {
  if (!(speed > 0) || !(intervalMm > 0)) throw new RangeError("speed and interval must be above 0");
  return (passes * watts * share) / (speed * intervalMm);
}

/** Spot diameter at distance z from focus, mm: d0·√(1+(z/zR)²), zR = π·d0²/(4·λ·M²). */
export function spotAt(d0: number, zMm: number, lambdaMm: number, m2: number): number {
  const zr = (Math.PI * d0 * d0) / (4 * lambdaMm * m2);
  return d0 * Math.sqrt(1 + (zMm / zr) ** 2);
}

/** How far out of focus a beam must be to be so wide, mm; 0 when it is that wide in focus. */
export function defocusFor(d0: number, wantMm: number, lambdaMm: number, m2: number): number {
  const zr = (Math.PI * d0 * d0) / (4 * lambdaMm * m2);
  return wantMm <= d0 ? 0 : zr * Math.sqrt((wantMm / d0) ** 2 - 1);
}

/**
 * Relative ripple of energy across the lines: s_E = √2·exp(−π²d²/(8Δ²)). Past Δ = d the closed form no longer holds and
 * the Gaussian lines are summed.
 */
export function ripple(spotMm: number, intervalMm: number): number {
  if (!(intervalMm > 0) || !(spotMm > 0)) return 0;
  if (intervalMm <= spotMm) return Math.SQRT2 * Math.exp((-(Math.PI ** 2) * spotMm ** 2) / (8 * intervalMm ** 2));
  const N = 64;
  let sum = 0;
  let sq = 0;
  for (let i = 0; i < N; i++) {
    const y = (i / N) * intervalMm;
    let e = 0;
    for (let k = -4; k <= 4; k++) e += Math.exp((-8 * (y - k * intervalMm) ** 2) / spotMm ** 2);
    sum += e;
    sq += e * e;
  }
  const mean = sum / N;
  return Math.sqrt(Math.max(0, sq / N - mean * mean)) / mean;
}

/** Lines further apart than this share of the spot leave ridges. */
export const INTERVAL_LIMIT = 0.6;
