/** The shop's air at this minute in one line, with what it does to water-borne paints. */
import { air, airAtMoment } from "../core/models/drying/climate";
import { rateIn } from "../core/models/drying/clock";
import type { Shop } from "../core/records/shop";
import { shopClock } from "../core/time/zoned";
import { showShare, showTemp } from "../core/units/show";
import type { Input } from "../core/explain/why/inputs";

/** °C below which water paints stop, where no product is asked */
const LEAST_C = 10;

/**
 * @param at minute since 1970 @returns the line, and what it is made of: how the temperature, the humidity and the
 * draught each change the pace
 */
export function airNow(shop: Shop, at: number): { text: string; rows: Input[] } {
  const curve = air(shop.climate);
  const a = airAtMoment(curve, at, shopClock(shop).minuteOfDay(at));
  const pace = (waterBorne: boolean): number =>
    rateIn(a.c, a.rh, curve.airFactor, { waterBorne, minC: LEAST_C, fan: false, limit: "plain" });
  const rate = pace(true);
  const from = a.read ? "reading" : shop.climate.measured ? "your climate" : "default climate";
  const times = (x: number): string => `× ${x.toFixed(2)}`;
  const speed =
    rate === 0
      ? "water paints do not dry now"
      : Math.abs(rate - 1) < 0.06
        ? "water paints dry at reference speed"
        : rate < 1
          ? `water paints ${(1 / rate).toFixed(1)}× slower`
          : `water paints ${rate.toFixed(1)}× faster`;
  const text =
    `${a.read ? "Read:" : shop.climate.measured ? "Shop" : "Shop (default)"} ${showTemp(a.c, shop.units)}, ` +
    `${Math.round(a.rh * 100)} % damp: ${speed}`;
  return {
    text,
    rows: [
      { name: "Temperature", value: showTemp(a.c, shop.units), from },
      { name: "Humidity", value: showShare(a.rh), from },
      { name: "Pace by temperature", value: times(pace(false)), from: "doubles in 10 °C; 20 °C is 1" },
      ...(pace(false) > 0
        ? [{ name: "Pace by humidity", value: times(rate / pace(false)), from: "water paints only; 50 % is 1" }]
        : [{ name: "Too cold", value: `below ${showTemp(LEAST_C, shop.units)}`, from: "default" }]),
      { name: "Pace of water paints", value: times(rate), from: "both together" },
      ...(curve.airFactor !== 1
        ? [{ name: "Flash, touch and recoat besides", value: times(1 / curve.airFactor), from: "moving air" }]
        : []),
    ],
  };
}
