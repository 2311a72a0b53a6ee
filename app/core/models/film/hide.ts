/**
 * M6 How many coats hide: Kubelka-Munk per linear-RGB channel.
 * R∞ is the paint's own colour clamped to [.02, .97]; a, b as usual; reflectance of a film of thickness X over ground Rg is
 * `R = (1 − Rg(a − b·coth(bSX))) / (a − Rg + b·coth(bSX))` (Kubelka 1948). One S a paint, found by bisection so that
 * Y over black / Y over 0.8 = 0.98 at the hiding thickness. A planning figure until swatched.
 */
import { difference, luminance, type Rgb } from "./colour";

const CAP_COATS = 20;
const LOW = 0.02;
const HIGH = 0.97;
/** contrast ratio at which a film counts as hiding (ISO 6504's 98 %) */
const CONTRAST = 0.98;
const WHITE_CARD = 0.8;

const coth = (x: number): number => (x > 20 ? 1 : 1 / Math.tanh(x));

function channel(rInf: number, ground: number, sx: number): number {
  const r = Math.min(HIGH, Math.max(LOW, rInf));
  const a = (1 / r + r) / 2;
  const b = (1 / r - r) / 2;
  const k = b * coth(Math.max(b * sx, 1e-9));
  return (1 - ground * (a - k)) / (a - ground + k);
}

/**
 * What is seen of a film over a ground.
 * @param paint linear RGB of the infinitely thick film @param ground linear RGB beneath @param sx scatter × thickness
 */
export const over = (paint: Rgb, ground: Rgb, sx: number): Rgb =>
  sx <= 0
    ? ground
    : [channel(paint[0], ground[0], sx), channel(paint[1], ground[1], sx), channel(paint[2], ground[2], sx)];

const kept = new Map<string, number>();

/** Scatter per µm of a paint that hides at `hideUm` µm. @returns S in 1/µm, or null when hideUm is unknown or not positive */
export function scatter(paint: Rgb, hideUm: number | null): number | null {
  if (hideUm === null || !(hideUm > 0)) return null;
  const key = `${paint.join()}:${hideUm}`;
  const found = kept.get(key);
  if (found !== undefined) return found;
  const black: Rgb = [0, 0, 0];
  const white: Rgb = [WHITE_CARD, WHITE_CARD, WHITE_CARD];
  const contrast = (s: number): number =>
    luminance(over(paint, black, s * hideUm)) / luminance(over(paint, white, s * hideUm));
  let lo = 1e-9;
  let hi = 1;
  while (contrast(hi) < CONTRAST && hi < 1e6) hi *= 4;
  for (let i = 0; i < 60; i++) {
    const mid = (lo + hi) / 2;
    if (contrast(mid) < CONTRAST) lo = mid;
    else hi = mid;
  }
  const s = (lo + hi) / 2;
  if (kept.size > 2000) kept.clear();
  kept.set(key, s);
  return s;
}

/** Colour difference to the paint's own colour that is left after `um` µm over a ground. */
export const errorAt = (paint: Rgb, ground: Rgb, s: number, um: number): number =>
  difference(over(paint, ground, s * um), over(paint, ground, 1e9));

/** µm from which every thicker film is within tolerance; null when unknown or beyond 5000 µm. */
export function neededUm(paint: Rgb, ground: Rgb, hideUm: number | null, tolerance: number): number | null {
  const s = scatter(paint, hideUm);
  if (s === null || hideUm === null) return null;
  let hi = hideUm;
  while (errorAt(paint, ground, s, hi) > tolerance) {
    hi *= 2;
    if (hi > 5000) return null;
  }
  // The error falls with thickness but for small wiggles where a hue is crossed: walk back from the far end.
  const step = hi / 400;
  let um = hi;
  while (um > 0 && errorAt(paint, ground, s, um - step) <= tolerance) um -= step;
  return Math.max(0, um);
}

export type Coats = { coats: number; hides: true } | { coats: number; hides: false } | { coats: null; hides: null };

/**
 * The least number of coats from which every larger number is within tolerance.
 * @param coatUm dry µm of one coat
 * @returns `hides: false` with the cap of 20 when it will not hide; nulls when the product's data are unknown
 */
export function coatsToHide(
  paint: Rgb,
  ground: Rgb,
  hideUm: number | null,
  coatUm: number | null,
  tolerance: number,
): Coats {
  const key = `${paint.join()}|${ground.join()}|${hideUm}|${coatUm}|${tolerance}`;
  const found = counted.get(key);
  if (found) return found;
  if (counted.size > 5000) counted.clear();
  const made = count(paint, ground, hideUm, coatUm, tolerance);
  counted.set(key, made);
  return made;
}
const counted = new Map<string, Coats>();

function count(paint: Rgb, ground: Rgb, hideUm: number | null, coatUm: number | null, tolerance: number): Coats {
  const s = scatter(paint, hideUm);
  if (s === null || coatUm === null || !(coatUm > 0)) return { coats: null, hides: null };
  let n = CAP_COATS;
  if (errorAt(paint, ground, s, n * coatUm) > tolerance) return { coats: CAP_COATS, hides: false };
  while (n > 0 && errorAt(paint, ground, s, (n - 1) * coatUm) <= tolerance) n--;
  return { coats: n, hides: true };
}
