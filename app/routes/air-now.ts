/** The shop's air at this minute in one line, with what it does to water-borne paints. */
import { nowMinutes } from "../clock";
import { air } from "../core/drying/climate";
import { rateAt } from "../core/drying/clock";
import type { Shop } from "../core/records/shop";
import { zonedClock } from "../core/time/zoned";
import { showTemp } from "../core/units/show";

export function airNow(shop: Shop): string {
  const curve = air(shop.climate);
  const m = zonedClock(shop.zone).minuteOfDay(Math.floor(nowMinutes()));
  const rate = rateAt(curve, { waterBorne: true, minC: 10, fan: false, limit: "plain" }, m);
  const speed = rate === 0 ? "water paints do not dry now" : Math.abs(rate - 1) < 0.06 ? "water paints dry at reference speed" : rate < 1 ? `water paints ${(1 / rate).toFixed(1)}× slower` : `water paints ${rate.toFixed(1)}× faster`;
  return `${shop.climate.measured ? "Shop" : "Shop (default)"} ${showTemp(curve.c(m), shop.units)}, ${Math.round(curve.rh(m) * 100)} % damp: ${speed}`;
}
