/** What acts on the Workshop have in common. */
import type { Machine } from "../../core/records/machine";
import type { Shop } from "../../core/records/shop";
import { change, Refused } from "../../store/acts";
import { readShop } from "../../store/queries";

export interface InShop {
  shop: Shop;
  machines: Machine[];
}
/** @throws Refused while there is no shop */
export async function inShop(): Promise<InShop> {
  const base = await readShop();
  if (!base) throw new Refused("There is no shop here yet.");
  return base;
}
export const changedShop = (label: string, more: (s: Shop) => Partial<Shop>): Promise<void> =>
  change<Shop>(label, "shop", "shop", (s) => ({ ...s, ...more(s) }));
