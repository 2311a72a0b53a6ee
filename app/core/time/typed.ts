/**
 * Moments as makers type them: `mon 14 16:00`, `fri`, `in 10 days`, `tomorrow 9`, `15 jan 12:00`, `15/1/2027`, `2027-01-15T12:00`.
 * All on the wall clock: what is read and what comes back are local, `YYYY-MM-DDTHH:MM`.
 */
import { showTime, type Face } from "./zoned";

const DAY = 86_400_000;
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
const DAYS = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"];
/** years that a shop plans in or looks back on */
const YEARS = [2000, 2199] as const;
const two = (n: number): string => String(n).padStart(2, "0");

export interface TypedBy {
  /** the wall clock as it stands, `YYYY-MM-DDTHH:MM` */
  now: string;
  /** time of day where none is typed, `HH:MM` */
  time?: string;
  /** is 3/4 the third of April, or the fourth of March? */
  dayFirst?: boolean;
}

/**
 * A time of day: `16:00`, `16.30`, `4pm`, `4:30 pm`, `noon`, `9`.
 * @returns `HH:MM`; null: it is none
 */
export function readTime(text: string): string | null {
  const t = text.trim().toLowerCase();
  if (t === "noon" || t === "midday") return "12:00";
  if (t === "midnight") return "00:00";
  const m = /^(\d{1,2})(?:[:.h](\d\d)?)?\s*(am|pm)?$/.exec(t);
  if (!m) return null;
  const [hour, minute] = [Number(m[1]), Number(m[2] ?? 0)];
  if (minute > 59 || (m[3] ? hour < 1 || hour > 12 : hour > 23)) return null;
  return `${two(m[3] ? (hour % 12) + (m[3] === "pm" ? 12 : 0) : hour)}:${two(minute)}`;
}

/** Days since 1970 of a date; null: there is no such day, or none that people plan for. */
function dayOf(year: number, month: number, day: number): number | null {
  const at = new Date(Date.UTC(year, month - 1, day));
  const is = at.getUTCFullYear() === year && at.getUTCMonth() === month - 1 && at.getUTCDate() === day;
  return is && year >= YEARS[0] && year <= YEARS[1] ? at.getTime() / DAY : null;
}
const today = (now: string): number => Date.parse(`${now.slice(0, 10)}T00:00Z`) / DAY;
const weekday = (day: number): number => (((day + 4) % 7) + 7) % 7;
const monthNamed = (w: string): number => MONTHS.findIndex((m) => w.length >= 3 && w.startsWith(m)) + 1;
const dayNamed = (w: string): number => DAYS.findIndex((d) => w.length >= 3 && w.startsWith(d));
/** `15`, `15th`, `3.`: a number of up to two digits standing for a day */
const ordinal = (w: string): number | null => {
  const m = /^(\d{1,2})(?:st|nd|rd|th|\.)?$/.exec(w);
  return m ? Number(m[1]) : null;
};

/** Figures alone: `2027-01-15`, `15/1/2027`, `15.1.`, `1/15`. @returns null: no such form; NaN: no such day */
function figures(w: string, by: TypedBy): number | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(w);
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3])) ?? Number.NaN;
  const m = /^(\d{1,2})([/.])(\d{1,2})(?:\2(\d{4}|\d\d)?)?$/.exec(w);
  if (!m) return null;
  // with full stops the day stands first everywhere
  const dayFirst = m[2] === "." || by.dayFirst !== false;
  const [day, month] = dayFirst ? [Number(m[1]), Number(m[3])] : [Number(m[3]), Number(m[1])];
  if (!m[4]) return comes(month, day, by) ?? Number.NaN;
  return dayOf(Number(m[4]) + (m[4].length === 2 ? 2000 : 0), month, day) ?? Number.NaN;
}

/** The next day of that name from today on, up to eight years ahead for the last of February. */
function comes(month: number, day: number, by: TypedBy): number | null {
  const from = today(by.now);
  const year = Number(by.now.slice(0, 4));
  for (let y = year; y <= year + 8; y++) {
    const at = dayOf(y, month, day);
    if (at !== null && at >= from) return at;
  }
  return null;
}

interface Found {
  /** days since 1970 */
  day: number;
  /** words that were read */
  used: number;
}
/** `in 10 days`, `in 2 weeks`, `today`, `tomorrow`, `yesterday`. */
function fromToday(w: string[], now: string): Found | null {
  const at = today(now);
  const word = ["yesterday", "today", "tomorrow"].indexOf(w[0]);
  if (word >= 0) return { day: at + word - 1, used: 1 };
  const [, n, unit] = /^in (\d{1,4}) (days?|weeks?)$/.exec(w.slice(0, 3).join(" ")) ?? [];
  return n ? { day: at + Number(n) * (unit.startsWith("week") ? 7 : 1), used: 3 } : null;
}
/** `15 jan`, `jan 15 2027`, `15th of january`. */
function named(w: string[], by: TypedBy): Found | null {
  const words = w[1] === "of" ? [w[0], ...w.slice(2)] : w;
  const skipped = w.length - words.length;
  const first = ordinal(words[0] ?? "");
  const dayAt = first !== null ? 0 : 1;
  const month = monthNamed(words[1 - dayAt] ?? "");
  const day = first ?? ordinal(words[1] ?? "");
  if (!month || day === null) return null;
  const year = /^\d{4}$/.test(words[2] ?? "") ? Number(words[2]) : null;
  const at = year === null ? comes(month, day, by) : dayOf(year, month, day);
  return { day: at ?? Number.NaN, used: (year === null ? 2 : 3) + skipped };
}
/** `mon`, `next mon`, `mon 14`, `mon 14 jan 2027`: where a day of the month stands too, both must hold. */
function onWeekday(w: string[], by: TypedBy): Found | null {
  const next = w[0] === "next" ? 1 : 0;
  const name = dayNamed(w[next] ?? "");
  if (name < 0) return null;
  const from = today(by.now);
  const rest = w.slice(next + 1);
  const whole = named(rest, by);
  if (whole) return { day: weekday(whole.day) === name ? whole.day : Number.NaN, used: next + 1 + whole.used };
  const number = ordinal(rest[0] ?? "");
  if (number !== null && number >= 1 && number <= 31) {
    const days = Array.from({ length: 400 }, (_, i) => from + i);
    const at = days.find((d) => weekday(d) === name && new Date(d * DAY).getUTCDate() === number);
    // A number that ends it all is an hour, unless such a day is near: “mon 18”, but “fri 8”.
    const hour = rest.length === 1 && /^\d+$/.test(rest[0]) && (at === undefined || at >= from + 31);
    if (!hour) return { day: at ?? Number.NaN, used: next + 2 };
  }
  const ahead = (name - weekday(from) + 7) % 7;
  return { day: from + (ahead === 0 && next ? 7 : ahead), used: next + 1 };
}

const SAY = "write 15 jan 12:00, mon 16:00, tomorrow 9, or in 10 days";

/**
 * @returns the local moment, `YYYY-MM-DDTHH:MM`, the date itself at `by.time` (noon where none is given)
 * @throws RangeError in a sentence: what was typed, why it is no moment, and what can be typed
 */
export function readWhen(text: string, by: TypedBy): string {
  const typed = text.trim();
  const wrong = (why: string): RangeError => new RangeError(`“${typed.slice(0, 40)}” ${why}; ${SAY}.`);
  const at = (day: number, time: string): string => `${new Date(day * DAY).toISOString().slice(0, 10)}T${time}`;
  const words = typed
    .toLowerCase()
    .replace(/^(\d{4}-\d\d?-\d\d?)t(?=\d)/, "$1 ")
    .replace(/(\d)\s+(am|pm)\b/, "$1$2")
    .replace(/\bat (\d\d?)(?![:.\w])/, "$1:00")
    .replace(/,/g, " ")
    .split(/\s+/)
    .filter((w) => w && w !== "at" && w !== "on");
  if (!words.length) throw wrong("says no moment");
  const hours = /^in (\d{1,4}) (h|hours?|min|minutes?)$/.exec(words.join(" "));
  if (hours) {
    const ms = Date.parse(`${by.now}Z`) + Number(hours[1]) * (hours[2].startsWith("h") ? 60 : 1) * 60_000;
    return new Date(ms).toISOString().slice(0, 16);
  }
  const alone = figures(words[0], by);
  const found: Found | null =
    alone !== null ? { day: alone, used: 1 } : (fromToday(words, by.now) ?? named(words, by) ?? onWeekday(words, by));
  if (!found) {
    const time = words.length === 1 ? readTime(words[0]) : null;
    if (time === null) throw wrong("is no moment that can be read");
    // a time alone: the next time the clock stands there
    return at(today(by.now) + (time < by.now.slice(11) ? 1 : 0), time);
  }
  if (Number.isNaN(found.day)) throw wrong("is no day of the calendar");
  const rest = words.slice(found.used).join(" ");
  const time = rest ? readTime(rest) : (by.time ?? "12:00");
  if (time === null) throw wrong(`names a day, but “${rest.slice(0, 20)}” is no time of day`);
  const moment = at(found.day, time);
  const year = Number(moment.slice(0, 4));
  if (!(year >= YEARS[0] && year <= YEARS[1])) throw wrong(`lies outside ${YEARS[0]} to ${YEARS[1]}`);
  return moment;
}

/** English names; a local day is read as if it were one of UTC */
const NAMES = new Intl.DateTimeFormat("en", {
  weekday: "short",
  day: "numeric",
  month: "short",
  year: "numeric",
  timeZone: "UTC",
});
/** A local moment or day as a field shows it, and as {@link readWhen} reads it back: `Fri 15 Jan 2027, 12:00`. */
export function showLocal(local: string | null, face: Face = "24"): string {
  const day = local ? Date.parse(`${local.slice(0, 10)}T00:00Z`) : Number.NaN;
  if (!Number.isFinite(day)) return local ?? "";
  const parts = NAMES.formatToParts(day);
  const of = (type: string): string => parts.find((p) => p.type === type)?.value ?? "";
  const time = local!.length > 10 ? `, ${showTime(local!.slice(11, 16), face)}` : "";
  return `${of("weekday")} ${of("day")} ${of("month")} ${of("year")}${time}`;
}
