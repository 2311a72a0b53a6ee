/**
 * Local time in a shop's zone. Inside the core a moment is **whole minutes since 1970 UTC**; what a person types or
 * reads is a local ISO minute (`2027-01-11T08:00`). Offsets come from the zone database behind Temporal and are kept
 * by transition interval, so that the drying clock can ask thousands of times.
 */
import { Temporal } from "temporal-polyfill";

/** times of day by 24 hours, or by twice 12 */
export type Face = "24" | "12";

export interface ZonedClock {
  zone: string;
  /** how its times of day are written */
  face: Face;
  /** UTC offset in minutes in force at a moment. */
  offsetAt(minute: number): number;
  /** Minute of the local day, 0-1439. */
  minuteOfDay(minute: number): number;
  /** Days since 1970 in local reckoning; +4 mod 7 gives the weekday, 0 = Sunday. */
  dayNumber(minute: number): number;
  /** Local ISO minute, `YYYY-MM-DDTHH:mm`. */
  toLocal(minute: number): string;
  /** The moment of a local ISO minute; an hour skipped by daylight saving moves forward, a doubled one is the first. */
  fromLocal(local: string): number;
  /** The moment at which a minute of a local day (by day number) comes round. */
  atDay(day: number, minuteOfDay: number): number;
}

const clocks = new Map<string, ZonedClock>();

/** A shop's clock: its zone, its way of writing times. @throws RangeError as {@link zonedClock} does */
export const shopClock = (shop: { zone: string; clockFace?: Face }): ZonedClock =>
  zonedClock(shop.zone, shop.clockFace);

/**
 * @param zone IANA name such as `Europe/Lisbon`
 * @throws RangeError for a name that the zone database does not hold
 */
export function zonedClock(zone: string, face: Face = "24"): ZonedClock {
  const kept = clocks.get(zone + face);
  if (kept) return kept;
  const made = { ...(face === "24" ? newClock(zone) : zonedClock(zone)), face };
  clocks.set(zone + face, made);
  return made;
}

function newClock(zone: string): Omit<ZonedClock, "face"> {
  const spans: { from: number; to: number; offset: number }[] = [];
  const spanAt = (minute: number): { from: number; to: number; offset: number } => {
    const found = spans.find((s) => minute >= s.from && minute < s.to);
    if (found) return found;
    const here = Temporal.Instant.fromEpochMilliseconds(minute * 60000).toZonedDateTimeISO(zone);
    const next = here.getTimeZoneTransition("next");
    const before = here.add({ nanoseconds: 1 }).getTimeZoneTransition("previous");
    const made = {
      from: before ? Math.ceil(before.epochMilliseconds / 60000) : -Infinity,
      to: next ? Math.ceil(next.epochMilliseconds / 60000) : Infinity,
      offset: Math.round(here.offsetNanoseconds / 6e10),
    };
    spans.unshift(made);
    return made;
  };
  spanAt(0); // throws here, not later, for an unknown zone
  let last = spans[0];
  const offsetAt = (minute: number): number => {
    if (minute < last.from || minute >= last.to) last = spanAt(minute);
    return last.offset;
  };
  const dayNumber = (minute: number): number => Math.floor((minute + offsetAt(minute)) / 1440);
  const toMoment = (naive: number): number => {
    // naive: local minutes read as if UTC. Try the offsets on both sides of a change.
    const first = naive - offsetAt(naive - 1440);
    if (first + offsetAt(first) === naive) return first;
    const second = naive - offsetAt(naive + 1440);
    return second + offsetAt(second) === naive ? second : first;
  };
  return {
    zone,
    offsetAt,
    minuteOfDay: (minute) => (((minute + offsetAt(minute)) % 1440) + 1440) % 1440,
    dayNumber,
    toLocal: (minute) => new Date((minute + offsetAt(minute)) * 60000).toISOString().slice(0, 16),
    fromLocal: (local) => {
      const naive = /^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(local)
        ? Date.parse(`${local.slice(0, 16)}:00Z`) / 60000
        : Number.NaN;
      if (!Number.isFinite(naive)) throw new RangeError(`“${local}” is not a local time such as 2027-01-11T08:00`);
      return toMoment(naive);
    },
    atDay: (day, minuteOfDay) => toMoment(day * 1440 + minuteOfDay),
  };
}

/** A time of day, `HH:mm` up to `24:00`, as it is written: `16:00`, `4:00 pm`. */
export function showTime(time: string, face: Face): string {
  if (face === "24") return time;
  const [hour, minute] = time.split(":");
  const h = Number(hour);
  return h === 24 ? "midnight" : `${h % 12 || 12}:${minute} ${h < 12 ? "am" : "pm"}`;
}

/** `15:20`, `3:20 pm`. */
export const showClock = (clock: ZonedClock, minute: number): string =>
  showTime(clock.toLocal(minute).slice(11), clock.face);

/** names of days and months in English; a local day is read as if it were one of UTC */
const NAMES = new Intl.DateTimeFormat("en", { weekday: "short", day: "numeric", month: "short", timeZone: "UTC" });

/** `Fri 4 Dec, 15:20`; `Fri 4 Dec, 3:20 pm`. */
export function showWhen(clock: ZonedClock, minute: number | null): string {
  if (minute === null || !Number.isFinite(minute)) return "unknown";
  return `${showDay(clock, minute)}, ${showClock(clock, minute)}`;
}

/** `Fri 4 Dec`. */
export function showDay(clock: ZonedClock, minute: number): string {
  const parts = NAMES.formatToParts(clock.dayNumber(minute) * 86_400_000);
  const of = (type: string): string => parts.find((p) => p.type === type)?.value ?? "";
  return `${of("weekday")} ${of("day")} ${of("month")}`;
}
