/**
 * M6 turned round: the thickness at which a paint hides, from a swatch. The scatter per µm is found by halving so that the paint's own
 * colour over the ground, at the thickness laid, has the luminance that was seen; the hiding thickness is then read off at a
 * contrast of 0.98, as a data sheet states it. Source: the same two-flux equations as film/hide.ts.
 */
import { linear, luminance } from "./colour";
import { over, scatter } from "./hide";

/** µm; null where the swatch shows nothing: ground and paint are alike, or it lies outside what the paint can do. */
export function hideFromSwatch(body: string, ground: string, seen: string, um: number): number | null {
  if (!(um > 0)) return null;
  const [b, g, want] = [linear(body), linear(ground), luminance(linear(seen))];
  const at = (s: number): number => luminance(over(b, g, s * um));
  const [none, full] = [luminance(g), at(1e6)];
  if (
    Math.abs(full - none) < 0.02 ||
    (want - none) * (full - none) <= 0 ||
    Math.abs(want - none) >= Math.abs(full - none)
  )
    return null;
  // Hiding thickness and scatter go by each other: look for the thickness whose scatter gives what was seen.
  let [lo, hi] = [0.1, 5000];
  for (let i = 0; i < 60; i++) {
    const mid = Math.sqrt(lo * hi);
    const s = scatter(b, mid);
    if (s === null) return null;
    // a thicker hiding film scatters less, so less of the ground is covered
    if (Math.abs(at(s) - none) > Math.abs(want - none)) lo = mid;
    else hi = mid;
  }
  return Math.sqrt(lo * hi);
}
