/** M16 Price, break-even and payback. Amounts in minor units of a currency. */

/** Price at which a share of it stays: cost / (1 − margin). @param margin 0-1, below 1 @throws RangeError beyond */
export function priceFor(costMinor: number, margin: number): number {
  if (!(margin >= 0 && margin < 1)) throw new RangeError("A margin lies between 0 and 100 %, and below it.");
  return Math.ceil(costMinor / (1 - margin) - 1e-9);
}
/** Share of a price that stays; null: nothing is paid. */
export const marginOf = (costMinor: number, priceMinor: number): number | null =>
  priceMinor > 0 ? (priceMinor - costMinor) / priceMinor : null;

/**
 * Least number of pieces that a price pays for.
 * @param costOf minor units that so many pieces cost in all; asked for as few numbers as will do
 * @param most beyond which nobody looks; null is the answer then
 */
export function breakEven(costOf: (n: number) => number, priceMinor: number, most: number): number | null {
  const pays = (n: number): boolean => priceMinor * n >= costOf(n);
  let hi = 1;
  while (!pays(hi)) {
    if (hi >= most) return null;
    hi = Math.min(most, hi * 2);
  }
  let lo = hi === 1 ? 0 : Math.floor(hi / 2);
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (pays(mid)) hi = mid;
    else lo = mid;
  }
  return hi;
}

/** Pieces after which a tool has paid for itself; null: it saves nothing. @param savesMinor a piece */
export const payback = (toolMinor: number, savesMinor: number): number | null =>
  savesMinor > 0 ? Math.ceil(toolMinor / savesMinor - 1e-9) : null;
