/** Tapes and films: which one a job takes, and what it bears. */
import { paint } from "../catalogue/properties";
import { finish, finishNamed } from "../catalogue/finishes";
import type { Product } from "../records/product";
import type { Context } from "./context";

export interface MaskFacts {
  name: string;
  um: number;
  riskC: number;
  limitC: number | null;
  loose: boolean;
  clear: boolean;
  chlorinated: boolean | null;
}
const PLAIN = finish("painters-tape");

/** What a mask is; one not on the Shelf counts as ordinary painter’s tape, whose chlorine nobody has asked about. */
export function maskOf(productId: string | null, c: Context): MaskFacts {
  if (!c.hasPaint(productId))
    return {
      name: PLAIN.name,
      um: PLAIN.coatUm,
      riskC: PLAIN.mask!.riskC,
      limitC: PLAIN.mask!.limitC,
      loose: false,
      clear: false,
      chlorinated: c.job.choices.maskChlorinated,
    };
  const p = c.paintOf(productId);
  return {
    name: p.product.name,
    um: p.coatUm.value ?? PLAIN.coatUm,
    riskC: p.mask?.riskC ?? PLAIN.mask!.riskC,
    limitC: p.mask ? p.mask.limitC.value : null,
    loose: p.mask?.loose ?? false,
    clear: p.mask?.clear ?? false,
    chlorinated: p.product.chlorinated,
  };
}

/**
 * The Shelf’s mask for a job: the one chosen, else the plainest that bears the heat and that the beam cuts. @param
 * heatC hottest it will get under it; null: no heat
 */
export function maskFor(c: Context, heatC: number | null): Product | null {
  // What was chosen is taken, whatever it is made of: rule 70 speaks up. Of itself a plan never takes chlorine.
  const own = c.shelf.find((p) => finishNamed(p.finish).role === "mask" && p.id === c.job.choices.maskId);
  if (own) return own;
  const all = c.shelf.filter((p) => finishNamed(p.finish).role === "mask" && p.chlorinated !== true);
  const bears = (p: Product): boolean => heatC === null || (paint(p).mask?.limitC.value ?? 0) >= heatC;
  const cuts = (p: Product): boolean => !(c.machine?.beam === "blue" && paint(p).mask?.clear);
  return (
    all
      .filter((p) => !paint(p).mask?.loose && bears(p) && cuts(p))
      .sort(
        (a, b) =>
          (paint(a).mask!.riskC >= (heatC ?? 0) ? 0 : 1) - (paint(b).mask!.riskC >= (heatC ?? 0) ? 0 : 1) ||
          // what bears more than is asked costs more
          paint(a).mask!.riskC - paint(b).mask!.riskC ||
          (paint(a).coatUm.value ?? 0) - (paint(b).coatUm.value ?? 0),
      )[0] ?? null
  );
}
