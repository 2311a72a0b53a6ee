/**
 * The same piece in other light and under a clear coat. A dry, matt face sends back some white light from its very surface, whatever its
 * colour; a gloss coat or water makes that surface smooth, the white goes off as a shine elsewhere, the colour deepens (Saunderson 1942:
 * about 4 % of what falls on it). By a lamp in the evening there is less light and a warmer one, most of which the eye makes up for.
 */
export interface Conditions {
  /** sealed with gloss, or wet */
  sealed: boolean;
  /** by a lamp in the evening */
  lamp: boolean;
}
export const AS_IT_IS: Conditions = { sealed: false, lamp: false };

/** share of light that a matt face sends back as it comes */
const SURFACE = 0.04;
/** share of a dark paint’s light that is its own in any case: such paints are given as they look with some gloss */
const STAYS = 0.4;
/** a warm lamp against daylight: red, green, blue of its light, its luminance 1 */
const LAMP: readonly [number, number, number] = [1.68, 0.87, 0.29];
/** share of a lamp’s colour that the eye makes up for (von Kries, incomplete) */
const MADE_UP = 0.75;
/** how bright it looks then, and how contrast falls with it */
const DIM = 0.55;
const FLATTER = 1.1;

/** Linear light of each channel as it is seen. @param q 0 red, 1 green, 2 blue */
export function seenIn(y: number, q: number, c: Conditions): number {
  const deep = c.sealed ? Math.max(y * STAYS, y - SURFACE) : y;
  return c.lamp ? DIM * deep ** FLATTER * LAMP[q] ** (1 - MADE_UP) : deep;
}
