/** Which product a role is filled with when the job does not say: what the Shelf holds, by plain preference. */
import { linear, luminance } from "../models/film/colour";
import { finishNamed } from "../catalogue/finishes";
import { colourFamily, difference } from "../models/film/colour";
import type { Product } from "../records/product";
import { byHand } from "../catalogue/routes";
import type { Context } from "./context";
import type { CoatRole } from "../records/ids";

const first = (ps: readonly Product[], ...tests: ((p: Product) => boolean)[]): Product | null => {
  for (const t of tests) {
    const hit = ps.find(t);
    if (hit) return hit;
  }
  return null;
};

/** The product for a role: the job's choice, else the Shelf's likeliest; null: the Shelf holds none. */
export function productFor(role: CoatRole, c: Context): Product | null {
  const shelf = c.shelf;
  const chosen = {
    seal: c.job.choices.sealerId,
    white: c.job.choices.whiteId,
    top: c.job.choices.topId,
    clear: c.job.choices.clearId,
    colour: null,
    barrier: null,
    "touch-up": null,
    backing: c.job.choices.whiteId,
  }[role];
  const own = shelf.find((p) => p.id === chosen);
  if (own) return own;
  const by =
    (...ids: string[]) =>
    (p: Product): boolean =>
      ids.includes(p.finish);
  const isClear = (p: Product): boolean => p.clear || finishNamed(p.finish).role !== "colour";
  if (role === "seal" || role === "barrier")
    return first(
      shelf,
      by("shellac-spray"),
      by("shellac-brushed"),
      by("sanding-sealer"),
      (p) => finishNamed(p.finish).role === "sealer",
    );
  if (role === "clear")
    return first(
      shelf,
      by("spray-clear"),
      by("water-polyurethane"),
      (p) =>
        finishNamed(p.finish).role === "clear" && ["spray", "brush", "airbrush"].includes(finishNamed(p.finish).by),
    );
  const ofColour = c.filled[0] ? c.paintOf(c.filled[0].productId as string).finish.id : "";
  if (role === "white" || role === "backing") {
    const whites = shelf.filter((p) => !isClear(p) && colourFamily(p.colour) === "white");
    // Over a whole face the white goes on as the colour does; into a cut, by brush.
    return !byHand(c.route)
      ? first(
          whites,
          by(ofColour),
          by("spray-primer"),
          (p) => finishNamed(p.finish).by === "spray" && ofColour.startsWith("spray"),
          ...(role === "backing" ? [() => true] : []),
        )
      : first(whites, by("craft-acrylic"), by("airbrush-acrylic", "brush-enamel"), () => true);
  }
  if (role === "top") {
    // a colour that is to be bought is bought for its zone, not to cover the others
    const asked = new Set(c.standIns.filter((p) => c.filled.some((z) => z.productId === p.id)).map((p) => p.id));
    const dark = shelf
      .filter((p) => !isClear(p) && !asked.has(p.id) && luminance(linear(p.colour)) < 0.08)
      .sort((a, b) => luminance(linear(a.colour)) - luminance(linear(b.colour)));
    return first(dark, by(ofColour), by("spray-enamel", "spray-lacquer"), () => true);
  }
  return null;
}

/** What a drinking face is primed with where there is no sealer; null: the Shelf holds none. */
export const primerOf = (c: Context): Product | null =>
  c.shelf.find((p) => finishNamed(p.finish).id === "spray-primer") ?? null;

/** Shelf paints by how near they come to a colour, nearest first. @returns CIEDE2000 with each */
export function nearest(products: readonly Product[], colour: string): { product: Product; off: number }[] {
  return products
    .filter((p) => !p.clear && finishNamed(p.finish).role === "colour")
    .map((product) => ({ product, off: difference(linear(product.colour), linear(colour)) }))
    .sort((a, b) => a.off - b.off);
}
