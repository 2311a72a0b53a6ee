/** Working hours: when hands are free, when somebody is there. Days off close a whole local day. */
import type { Clip } from "./outdoors";
import type { ZonedClock } from "./zoned";

export type Weekday = "mon" | "tue" | "wed" | "thu" | "fri" | "sat" | "sun";
export const WEEKDAYS: Weekday[] = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"];
export type WeekHours = Partial<Record<Weekday, [string, string] | null>>;

export interface WorkCalendar {
  /** The open stretch that holds `minute`, or the next one after it; null if none within the horizon. */
  openAt(minute: number): { from: number; to: number } | null;
  /** Closed minutes between two moments. */
  closedBetween(from: number, to: number): number;
  /** Minutes worked between two moments: all of them, but for the times the shop was shut from one end to the other in between. */
  workedBetween(from: number, to: number): number;
  /** Longest open stretch of a normal week, in minutes. */
  longest: number;
}

const HORIZON_DAYS = 400;
const toMinute = (hhmm: string): number => Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3, 5));

/** days a year whose daylight is looked at */
const EVERY_DAYS = 30;
/** Longest open stretch of a week in the time of the year that has the shortest ones: what fits it fits at any time. */
function clippedLongest(clock: ZonedClock, hours: WeekHours, clip: Clip): number {
  let least = Infinity;
  for (let d = 0; d < 365; d += EVERY_DAYS) {
    const part = clip(d);
    const most = WEEKDAYS.reduce((best, w) => {
      const s = hours[w];
      if (!s || !part) return best;
      const [from, to] = [clock.atDay(d, toMinute(s[0])), clock.atDay(d, toMinute(s[1]))];
      return Math.max(best, Math.min(to, part.to) - Math.max(from, part.from));
    }, 0);
    if (most > 0) least = Math.min(least, most);
  }
  return Number.isFinite(least) ? least : 0;
}

/**
 * @param daysOff local dates `YYYY-MM-DD` on which the shop is shut
 * @param other hours of single days, in place of those of their weekday
 * @param clip the part of a day that counts; absent: all of it
 */
export function workCalendar(
  clock: ZonedClock,
  hours: WeekHours,
  daysOff: string[],
  other: readonly { day: string; hours: [string, string] }[] = [],
  clip: Clip | null = null,
): WorkCalendar {
  const off = new Set(daysOff);
  const own = new Map(other.map((o) => [o.day, o.hours]));
  const days = new Map<number, { from: number; to: number } | null>();
  const ofDay = (day: number): { from: number; to: number } | null => {
    const kept = days.get(day);
    if (kept !== undefined) return kept;
    const weekday = WEEKDAYS[(((day + 3) % 7) + 7) % 7];
    const date = new Date(day * 86400000).toISOString().slice(0, 10);
    const span = own.get(date) ?? hours[weekday] ?? null;
    const whole =
      span && !off.has(date)
        ? { from: clock.atDay(day, toMinute(span[0])), to: clock.atDay(day, toMinute(span[1])) }
        : null;
    const part = whole && clip ? clip(day) : null;
    const open =
      whole && clip ? part && { from: Math.max(whole.from, part.from), to: Math.min(whole.to, part.to) } : whole;
    const made = open && open.to > open.from ? open : null;
    days.set(day, made);
    return made;
  };
  const openAt = (minute: number): { from: number; to: number } | null => {
    const start = clock.dayNumber(minute);
    for (let d = start; d < start + HORIZON_DAYS; d++) {
      const open = ofDay(d);
      if (open && open.to > minute) return open;
    }
    return null;
  };
  const longest = clip
    ? clippedLongest(clock, hours, clip)
    : WEEKDAYS.reduce((most, w) => {
        const s = hours[w];
        return s ? Math.max(most, toMinute(s[1]) - toMinute(s[0])) : most;
      }, 0);
  return {
    openAt,
    closedBetween: (from, to) => {
      let open = 0;
      for (let at = from; at < to;) {
        const span = openAt(at);
        if (!span || span.from >= to) break;
        open += Math.min(span.to, to) - Math.max(span.from, at);
        at = span.to;
      }
      return Math.max(0, to - from - open);
    },
    workedBetween: (from, to) => {
      let worked = Math.max(0, to - from);
      for (let shut = openAt(from)?.to; shut !== undefined && shut < to;) {
        const next = openAt(shut);
        if (!next || next.from > to) break;
        worked -= next.from - shut;
        shut = next.to;
      }
      return worked;
    },
    longest,
  };
}
