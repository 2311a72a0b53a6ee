/** Light and what a screen keeps of it: sRGB (IEC 61966-2-1) to linear and back, relative luminance, CIE lightness. */

/** Screen value 0-1 to linear light. */
export const toLight = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
/** Linear light 0-1 to screen value. */
export const toScreen = (y: number): number => (y <= 0.0031308 ? y * 12.92 : 1.055 * y ** (1 / 2.4) - 0.055);

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;
/** CIE L* 0-100 of a relative luminance. */
export const lightness = (y: number): number => (y > EPSILON ? 116 * Math.cbrt(y) - 16 : KAPPA * y);
/** Relative luminance of a CIE L*. */
export const ofLightness = (l: number): number => (l > KAPPA * EPSILON ? ((l + 16) / 116) ** 3 : l / KAPPA);

const made = new Map<number, Float64Array>();
/** Linear light of every whole screen value. @param max 255 or 65535 */
export function lightTable(max: number): Float64Array {
  const got = made.get(max);
  if (got) return got;
  const t = Float64Array.from({ length: max + 1 }, (_v, i) => toLight(i / max));
  made.set(max, t);
  return t;
}

const STEPS = 4096;
let screenTable: Float32Array | null = null;
/** Screen values of a whole field of light, in place; through a table of square roots, true to 1/10,000. */
export function screened(y: Float32Array): Float32Array {
  // a root spreads the dark end, where the curve is steep
  const t = (screenTable ??= Float32Array.from({ length: STEPS + 2 }, (_v, i) => toScreen((i / STEPS) ** 2)));
  for (let i = 0; i < y.length; i++) {
    const r = Math.sqrt(y[i] < 0 ? 0 : y[i] > 1 ? 1 : y[i]) * STEPS;
    const k = r | 0;
    y[i] = t[k] + (t[k + 1] - t[k]) * (r - k);
  }
  return y;
}
