/** Step kinds that lay, melt or stick something of the Shelf, and which products suit them. */
import type { Paint } from "../catalogue/properties";
import type { Product } from "../records/product";
import type { Context } from "./context";
import { maskFor } from "./masks";

const powder = (p: Paint): boolean => p.powder !== null;
/** kind of step to what may be chosen for it */
export const SUITS: Record<string, (p: Paint) => boolean> = {
  coat: (p) => p.mask === null && p.powder === null,
  "powder-fill": powder,
  melt: powder,
  "rub-dye": (p) => p.finish.family === "dye",
  "pour-paint": (p) => p.finish.by === "pour" && p.finish.family !== "epoxy",
  "flood-epoxy": (p) => p.finish.family === "epoxy",
};
/** kinds whose product is used up: they have an amount, and no time without a product */
export const LAYS = ["coat", "rub-dye", "pour-paint", "flood-epoxy", "powder-fill"];

/** What a step put in by hand begins with: a finish of the job that suits, else the Shelf's first; null: there is none. */
export function suited(kind: string, c: Context): Product | null {
  if (kind === "mask-lay") return maskFor(c, null);
  const ok = Object.hasOwn(SUITS, kind) ? SUITS[kind] : null;
  if (!ok) return null;
  const mine = c.filled.map((z) => c.paintOf(z.productId as string)).find(ok);
  return mine?.product ?? c.world.products.find((p) => ok(c.paintOf(p.id))) ?? null;
}
