/** The shop's air at this minute in one line, with what it does to water-borne paints. */
import { nowMinutes } from "../clock";
import { air, airAtMoment } from "../core/drying/climate";
import { rateIn } from "../core/drying/clock";
import type { Shop } from "../core/records/shop";
import { zonedClock } from "../core/time/zoned";
import { showTemp } from "../core/units/show";

export function airNow(shop: Shop): string {
  const curve = air(shop.climate);
  const at = Math.floor(nowMinutes());
  const a = airAtMoment(curve, at, zonedClock(shop.zone).minuteOfDay(at));
  const rate = rateIn(a.c, a.rh, curve.airFactor, { waterBorne: true, minC: 10, fan: false, limit: "plain" });
  const speed = rate === 0 ? "water paints do not dry now" : Math.abs(rate - 1) < 0.06 ? "water paints dry at reference speed" : rate < 1 ? `water paints ${(1 / rate).toFixed(1)}× slower` : `water paints ${rate.toFixed(1)}× faster`;
  return `${a.read ? "Read:" : shop.climate.measured ? "Shop" : "Shop (default)"} ${showTemp(a.c, shop.units)}, ${Math.round(a.rh * 100)} % damp: ${speed}`;
}
