/** What a zone is to look like in the end, by the route that the job goes: its paint, the mark of the burn, the bare body. One home. */
import { paintless } from "../catalogue/routes";
import { BURNT } from "../catalogue/substrates";
import type { Zone } from "../records/job";
import type { Context } from "./context";
import { leftBare } from "./polarity";

/** @returns a colour; null: nothing is said of it yet, or it is not known */
export function meantColour(z: Zone, c: Context): string | null {
  if (paintless(c.route)) return z.bare && !z.burn ? c.substrate.colour : leftBare(c.substrate);
  if (z.burn) return c.substrate.mark?.colour ?? null;
  if (z.bare) return c.substrate.colour;
  return c.route?.shows === "mark" ? BURNT : (c.paint(z.productId)?.product.colour ?? null);
}
