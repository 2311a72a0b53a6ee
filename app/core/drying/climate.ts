/** The shop's air over a day: temperature and humidity at each minute, and where the curve bends. */
import type { Climate } from "../records/shop";

export interface Air {
  /** °C at a minute of the local day */
  c(minuteOfDay: number): number;
  /** relative humidity 0-1 */
  rh(minuteOfDay: number): number;
  /** minutes of the day at which the curve bends, rising from 0, all below 1440 */
  knots: number[];
  /** still 1, moving .7, extraction .6 (M8's f) */
  airFactor: number;
}

const AIR_FACTOR = { still: 1, moving: 0.7, extraction: 0.6 };

const kept = new WeakMap<Climate, Air>();
/** A shop's climate as curves, made once a record, so that what was integrated over it is kept from plan to plan. */
export function air(climate: Climate): Air {
  const found = kept.get(climate);
  if (found) return found;
  const made = curves(climate);
  kept.set(climate, made);
  return made;
}

/** A constant is flat, 24 hourly points are joined by straight lines through midnight. */
function curves(climate: Climate): Air {
  const airFactor = AIR_FACTOR[climate.air];
  if (climate.kind === "constant" || climate.hourly.length !== 24) return { c: () => climate.c, rh: () => climate.rh, knots: [0], airFactor };
  const between = (key: "c" | "rh") => (m: number): number => {
    const h = Math.floor(m / 60) % 24;
    const a = climate.hourly[h][key];
    return a + (climate.hourly[(h + 1) % 24][key] - a) * ((m - Math.floor(m / 60) * 60) / 60);
  };
  return { c: between("c"), rh: between("rh"), knots: Array.from({ length: 24 }, (_, h) => h * 60), airFactor };
}

/** Dew point in °C (Magnus, Sonntag's constants). Null for bone-dry air. */
export function dewPoint(c: number, rh: number): number | null {
  if (!(rh > 0)) return null;
  const g = Math.log(rh) + (17.62 * c) / (243.12 + c);
  return (243.12 * g) / (17.62 - g);
}
