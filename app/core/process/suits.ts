/** What of the Shelf a step put in by hand begins with. */
import type { Product } from "../records/product";
import type { Context } from "./context";
import { kindOf, type KindId } from "./kinds";
import { maskFor } from "./masks";

/** A finish of the job that suits, else the Shelf's first; null: there is none, or it takes none. */
export function suited(kind: KindId, c: Context): Product | null {
  const { lays, on, suits } = kindOf(kind);
  if (lays === "mask") return on === "face" ? maskFor(c, null) : null;
  if (!suits) return null;
  const mine = c.filled.map((z) => c.paintOf(z.productId as string)).find(suits);
  return mine?.product ?? c.shelf.find((p) => suits(c.paintOf(p.id))) ?? null;
}
