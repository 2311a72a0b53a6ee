/**
 * The shop's air: temperature and humidity over the day as a curve, where the curve bends, and the stretches of time for which
 * readings are there and overrule it.
 */
import type { Climate, Reading } from "../../records/shop";

/** A reading speaks for the time until the next one, at most this long, min; after that the curve is believed again. */
export const READING_HOLDS = 180;

/** A stretch of real time with air of its own: [from, to) in minutes since 1970. */
export interface AirSpan {
  from: number;
  to: number;
  c: number;
  rh: number;
}

export interface Air {
  /** °C at a minute of the local day */
  c(minuteOfDay: number): number;
  /** relative humidity 0-1 */
  rh(minuteOfDay: number): number;
  /** minutes of the day at which the curve bends, rising from 0, all below 1440 */
  knots: number[];
  /** still 1, moving .7, extraction .6 (M8's f) */
  airFactor: number;
  /** by time, without overlap; empty when nothing was read */
  spans: AirSpan[];
}

/** Readings as stretches of time. */
export function spansOf(readings: Reading[]): AirSpan[] {
  const by = [...readings].sort((a, b) => a.at - b.at);
  return by.flatMap((r, i) => {
    const to = Math.min(r.at + READING_HOLDS, by[i + 1]?.at ?? Infinity);
    return to > r.at ? [{ from: r.at, to, c: r.c, rh: r.rh }] : [];
  });
}

/** The stretch a moment lies in, or null; and until when that stays so (Infinity: no further readings). */
export function spanAt(air: Air, at: number): { span: AirSpan | null; until: number } {
  let lo = 0;
  let hi = air.spans.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (air.spans[mid].to <= at) lo = mid + 1;
    else hi = mid;
  }
  const s = air.spans[lo];
  if (!s) return { span: null, until: Infinity };
  return s.from <= at ? { span: s, until: s.to } : { span: null, until: s.from };
}

/** °C and humidity at a moment, readings first. */
export function airAtMoment(air: Air, at: number, minuteOfDay: number): { c: number; rh: number; read: boolean } {
  const { span } = spanAt(air, at);
  return span
    ? { c: span.c, rh: span.rh, read: true }
    : { c: air.c(minuteOfDay), rh: air.rh(minuteOfDay), read: false };
}

const AIR_FACTOR = { still: 1, moving: 0.7, extraction: 0.6 };

const kept = new WeakMap<Climate, Air>();
/** A shop's climate as curves, made once a record, so that what was integrated over it is kept from plan to plan. */
export function air(climate: Climate): Air {
  const found = kept.get(climate);
  if (found) return found;
  const made = { ...curves(climate), spans: spansOf(climate.readings ?? []) };
  kept.set(climate, made);
  return made;
}

/** A constant is flat, 24 hourly points are joined by straight lines through midnight. */
function curves(climate: Climate): Omit<Air, "spans"> {
  const airFactor = AIR_FACTOR[climate.air];
  if (climate.kind === "constant" || climate.hourly.length !== 24)
    return { c: () => climate.c, rh: () => climate.rh, knots: [0], airFactor };
  const between =
    (key: "c" | "rh") =>
    (m: number): number => {
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
