/** The hours of a day in which something can be done in the open: between sunrise and sunset, and while it is warm enough. */
import type { ZonedClock } from "./zoned";

export interface Place {
  /** degrees, north above 0 */
  latitude: number;
  /** degrees, east above 0 */
  longitude: number;
  /** °C about sunrise and in the afternoon; absent: not asked about */
  coldC?: number;
  warmC?: number;
  /** °C below which nothing is done */
  leastC: number;
}
export interface Stretch {
  from: number;
  to: number;
}

const RAD = Math.PI / 180;
/** degrees below the horizon at which the upper edge of the sun is seen, refraction included */
const EDGE = -0.833;
/** minutes after solar noon at which it is warmest */
const WARMEST = 180;
const DAY = 1440;

/**
 * Sunrise and sunset of a local day, min since 1970; null: the sun does not rise.
 * Declination and equation of time by their first terms (Spencer 1971 in the short form of Duffie and Beckman), to some three minutes.
 * @param day local days since 1970
 */
export function sunOn(day: number, at: Pick<Place, "latitude" | "longitude">): (Stretch & { noon: number }) | null {
  const date = new Date(day * 86_400_000);
  const n = Math.floor((date.getTime() - Date.UTC(date.getUTCFullYear(), 0, 1)) / 86_400_000) + 1;
  const b = ((360 * (n - 81)) / 365) * RAD;
  const late = 9.87 * Math.sin(2 * b) - 7.53 * Math.cos(b) - 1.5 * Math.sin(b);
  const tilt = 23.45 * RAD * Math.sin(((360 * (284 + n)) / 365) * RAD);
  const phi = at.latitude * RAD;
  const cos = (Math.sin(EDGE * RAD) - Math.sin(phi) * Math.sin(tilt)) / (Math.cos(phi) * Math.cos(tilt));
  if (cos >= 1) return null;
  const half = cos <= -1 ? DAY / 2 : (Math.acos(cos) / RAD) * 4;
  const noon = day * DAY + DAY / 2 - 4 * at.longitude - late;
  return { from: Math.ceil(noon - half), to: Math.floor(noon + half), noon };
}

/**
 * When it is warm enough: from coldest at sunrise to warmest three hours after noon and back, along half a cosine each.
 * @returns null: never on this day
 */
function warmOn(sun: Stretch & { noon: number }, p: Place): Stretch | null {
  const { coldC, warmC, leastC } = p;
  if (coldC === undefined || warmC === undefined || leastC <= Math.min(coldC, warmC)) return sun;
  if (leastC > warmC) return null;
  const share = Math.acos(1 - (2 * (leastC - coldC)) / (warmC - coldC)) / Math.PI;
  const peak = sun.noon + WARMEST;
  const next = sun.from + DAY;
  return { from: Math.ceil(sun.from + share * (peak - sun.from)), to: Math.floor(next - share * (next - peak)) };
}

/** The open air of a local day; null: not on this day. */
export function outdoorsOn(day: number, p: Place): Stretch | null {
  const sun = sunOn(day, p);
  const warm = sun && warmOn(sun, p);
  if (!sun || !warm) return null;
  const [from, to] = [Math.max(sun.from, warm.from), Math.min(sun.to, warm.to)];
  return from < to ? { from, to } : null;
}

/** Within which part of a local day something may be done; null: not on this day. */
export type Clip = (day: number) => Stretch | null;

const toMinute = (hhmm: string): number => Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3, 5));
/** Between two clock times of every day. */
export const clockClip =
  (clock: ZonedClock, [from, to]: readonly [string, string]): Clip =>
  (day) => ({ from: clock.atDay(day, toMinute(from)), to: clock.atDay(day, toMinute(to)) });
/** Within all of them. */
export const clipAll =
  (clips: readonly Clip[]): Clip =>
  (day) => {
    let all: Stretch = { from: -Infinity, to: Infinity };
    for (const clip of clips) {
      const one = clip(day);
      if (!one) return null;
      all = { from: Math.max(all.from, one.from), to: Math.min(all.to, one.to) };
    }
    return all.from < all.to ? all : null;
  };
