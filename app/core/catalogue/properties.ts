/**
 * A product's figures with where each came from. The product's own field wins; a null falls back to its finish and says
 * so; what neither knows stays null.
 */
import type { Product } from "../records/product";
import type { Base, Pigment } from "../records/ids";
import { colourFamily } from "../models/film/colour";
import { finishNamed, HIDE_UM, type Finish } from "./finishes";

export type From = "default" | "data sheet" | "measured here" | "typed" | "computed";
export interface Figure<T = number> {
  value: T | null;
  from: From;
}

export interface Paint {
  product: Product;
  finish: Finish;
  base: Base;
  clear: boolean;
  pigment: { value: Pigment; from: From };
  metallic: boolean;
  sheen: string | null;
  hideUm: Figure;
  solids: Figure;
  /** volume solids of what lands: richer than what leaves a can by what evaporates on the way */
  lands: Figure;
  coatUm: Figure;
  minC: Figure;
  times: Record<keyof Finish["times"], Figure>;
  /** powders only (M9) */
  powder: { flowC: Figure; holdC: Figure; holdMin: Figure; packing: Figure; density: Figure } | null;
  /** tapes and films only */
  mask: { limitC: Figure; riskC: number; loose: boolean; clear: boolean } | null;
}

const pick = (own: number | null, fallback: number | null, from: From): Figure =>
  own !== null ? { value: own, from } : { value: fallback, from: "default" };
/** As the product's own solids are to its finish's, so is what lands of it. */
const landing = (own: number | null, f: Finish, o: From): Figure =>
  own === null || f.lands === undefined
    ? pick(own, f.lands ?? f.solids, o)
    : { value: Math.min(1, (own * f.lands) / f.solids), from: "computed" };
const kept = new WeakMap<Product, Paint>();

/** Resolve a product against its finish. @throws Error when the product names a finish that does not exist */
export function paint(product: Product): Paint {
  const found = kept.get(product);
  if (found) return found;
  const pigment = product.pigment ?? colourFamily(product.colour);
  const f = finishNamed(product.finish);
  const o = product.origin;
  const keys = Object.keys(f.times) as (keyof Finish["times"])[];
  const made: Paint = {
    product,
    finish: f,
    base: product.base ?? f.base,
    clear: product.clear || f.role !== "colour",
    pigment: { value: pigment, from: product.pigment ? o : "default" },
    metallic: pigment === "metallic",
    sheen: product.sheen,
    hideUm:
      product.clear || f.role !== "colour"
        ? { value: null, from: "default" }
        : pick(product.hideUm, HIDE_UM[pigment], o),
    solids: pick(product.solids, f.solids, o),
    lands: landing(product.solids, f, o),
    coatUm: pick(product.coatUm, f.coatUm, o),
    minC: pick(product.minC, f.minC, o),
    times: Object.fromEntries(keys.map((k) => [k, pick(product.times[k], f.times[k], o)])) as Paint["times"],
    powder: f.powder
      ? {
          flowC: pick(product.flowC ?? null, f.powder.flowC, o),
          holdC: pick(product.holdC ?? null, f.powder.holdC, o),
          holdMin: pick(product.holdMin ?? null, f.powder.holdMin, o),
          packing: pick(product.packing ?? null, f.powder.packing, o),
          density: pick(product.density ?? null, f.powder.density, o),
        }
      : null,
    mask: f.mask
      ? {
          limitC: pick(product.limitC ?? null, f.mask.limitC, o),
          riskC: product.limitC ?? f.mask.riskC,
          loose: f.mask.loose,
          clear: f.mask.clear,
        }
      : null,
  };
  kept.set(product, made);
  return made;
}
