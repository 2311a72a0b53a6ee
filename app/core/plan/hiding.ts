/** M6 in a plan: coats of a paint over what is there, straight on or over white, and which of the two a job wants. */
import { linear } from "../models/film/colour";
import { coatsToHide, over, scatter } from "../models/film/hide";
import type { Context } from "../process/context";
import type { Zone } from "../records/job";

/** never more coats than this from a plan of ours */
export const COAT_CAP = 20;
/** most whites that are tried beneath a colour */
const WHITES_TRIED = 4;

export type Ground = readonly [number, number, number];

export interface Hiding {
  zone: string;
  productId: string;
  straight: number | null;
  hides: boolean | null;
  whites: number;
  overWhite: number | null;
}

/** Coats of a paint over a ground seen in linear light. @param um of one coat, as it is laid */
export function coatsNeeded(
  c: Context,
  productId: string,
  ground: Ground,
  um = c.paintOf(productId).coatUm.value,
): ReturnType<typeof coatsToHide> {
  const p = c.paintOf(productId);
  return coatsToHide(linear(p.product.colour), ground, p.hideUm.value, um, c.tolerance);
}

/** As many coats as a plan lays of it: one at least, never past the cap; one where it is not known. */
export const coatsLaid = (coats: number | null, least = 1): number =>
  Math.min(COAT_CAP, Math.max(least, coats ?? least));

/** Coats straight on, and the best of one to four whites beneath. */
export function compareUndercoat(
  c: Context,
  zone: Pick<Zone, "id" | "productId">,
  ground: Ground,
  whiteId: string | null,
): Hiding {
  const id = zone.productId as string;
  const straight = coatsNeeded(c, id, ground);
  const none: Hiding = {
    zone: zone.id,
    productId: id,
    straight: straight.coats,
    hides: straight.hides,
    whites: 0,
    overWhite: null,
  };
  const w = c.paint(whiteId);
  const s = w && scatter(linear(w.product.colour), w.hideUm.value);
  if (!w || s === null || w.coatUm.value === null || whiteId === id) return none;
  let best = none;
  for (let n = 1; n <= WHITES_TRIED; n++) {
    const k = coatsNeeded(c, id, over(linear(w.product.colour), ground, s * w.coatUm.value * n));
    const sum = best.overWhite === null ? Infinity : best.overWhite + best.whites;
    if (k.coats !== null && k.hides && k.coats + n < sum)
      best = { ...best, whites: n, overWhite: Math.max(1, k.coats) };
  }
  return best;
}

/** White goes under where the job says so; else where it saves coats, or where nothing hides without it. */
export const wantsWhite = (r: Hiding, choice: boolean | null): boolean =>
  r.overWhite !== null && (choice ?? (r.hides === false || r.overWhite + r.whites < (r.straight ?? 0)));
