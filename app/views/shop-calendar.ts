/** A stretch of days of the whole shop, drawn: where in it each work, wait and night lies. Nights are narrow, open hours wide. */
import type { Bar, JobRow, Lane, Trip, WholeRows } from "../core/explain/whole";
import type { WorkCalendar } from "../core/time/hours";
import { showDay, showTime, type ZonedClock } from "../core/time/zoned";

export interface Drawn {
  key: string;
  /** shares of the stretch */
  left: number;
  width: number;
  title: string;
  step: string;
  done: boolean;
  pinned: boolean;
}
export interface DrawnWait {
  key: string;
  left: number;
  width: number;
  words: string;
  /** where its window shuts; null: none, or beyond */
  shuts: number | null;
}
export interface DrawnDay {
  day: number;
  /** `YYYY-MM-DD` */
  date: string;
  label: string;
  /** where there is little room */
  short: string;
  left: number;
  width: number;
  open: { left: number; width: number } | null;
  /** hours as they are typed; empty: shut */
  hours: string;
  today: boolean;
}
export interface DrawnRow extends Omit<JobRow, "bars" | "waits"> {
  drawn: Drawn[];
  waits: DrawnWait[];
  dueAtShare: number | null;
}

/** share of a day’s width that its night has on either side */
const NIGHT = 0.07;
const MIDNIGHT = 1440;
/** minutes that a pulled bar goes by */
const STEP_MIN = 5;
const USUAL: [number, number] = [540, 1080];

/** Where a moment lies in a stretch of days, 0-1; outside below 0 or above 1. */
export interface Axis {
  at(minute: number): number;
  /** the moment at a share, to five minutes */
  back(share: number): number;
  first: number;
  days: number;
  /** the minutes at which it begins and ends */
  from: number;
  to: number;
}
export function axisOf(first: number, days: number, clock: ZonedClock, calendar: WorkCalendar): Axis {
  const spans: [number, number][] = [];
  for (let d = first; d < first + days; d++) {
    const open = calendar.openAt(clock.atDay(d, 0));
    if (open && clock.dayNumber(open.from) === d)
      spans.push([clock.minuteOfDay(open.from), clock.minuteOfDay(open.to - 1) + 1]);
  }
  const [from, to] = spans.length ? [Math.min(...spans.map((s) => s[0])), Math.max(...spans.map((s) => s[1]))] : USUAL;
  const wide = (m: number): number => {
    const [l, r] = [from > 0 ? NIGHT : 0, to < MIDNIGHT ? NIGHT : 0];
    if (m < from) return (l * m) / from;
    if (m > to) return 1 - r + (r * (m - to)) / (MIDNIGHT - to);
    return l + ((1 - l - r) * (m - from)) / (to - from);
  };
  const narrow = (x: number): number => {
    const [l, r] = [from > 0 ? NIGHT : 0, to < MIDNIGHT ? NIGHT : 0];
    if (x < l) return (x / l) * from;
    if (x > 1 - r) return to + ((x - 1 + r) / r) * (MIDNIGHT - to);
    return from + ((x - l) / (1 - l - r)) * (to - from);
  };
  return {
    first,
    days,
    from: clock.atDay(first, 0),
    to: clock.atDay(first + days, 0),
    back: (share) => {
      const x = Math.min(1 - 1e-9, Math.max(0, share)) * days;
      const day = Math.floor(x);
      return clock.atDay(first + day, Math.min(MIDNIGHT - 1, STEP_MIN * Math.round(narrow(x - day) / STEP_MIN)));
    },
    at: (minute) => {
      const day = clock.dayNumber(minute);
      return (day - first + wide(clock.minuteOfDay(minute))) / days;
    },
  };
}
const within = (axis: Axis, from: number, to: number): { left: number; width: number } | null => {
  if (to < axis.from || from > axis.to) return null;
  const [a, b] = [Math.max(0, axis.at(from)), Math.min(1, axis.at(to))];
  return b <= 0 || a >= 1 || b < a ? null : { left: a, width: b - a };
};
export const drawnBars = (bars: readonly Bar[], axis: Axis): Drawn[] =>
  bars.flatMap((b, i) => {
    const at = within(axis, b.from, b.to);
    return at ? [{ key: `${b.step}${i}`, ...at, title: b.title, step: b.step, done: b.done, pinned: b.pinned }] : [];
  });

export function drawnDays(axis: Axis, clock: ZonedClock, calendar: WorkCalendar, now: number): DrawnDay[] {
  // midnight ends a day, and does not begin it
  const closing = (m: number): string => {
    const t = clock.toLocal(m).slice(11);
    return t === "00:00" ? "24:00" : t;
  };
  return Array.from({ length: axis.days }, (_v, k) => {
    const day = axis.first + k;
    const begin = clock.atDay(day, 0);
    const open = calendar.openAt(begin);
    const mine = open && clock.dayNumber(open.from) === day ? open : null;
    const span = mine && ([clock.toLocal(mine.from).slice(11), closing(mine.to)] as const);
    return {
      day,
      date: clock.toLocal(begin).slice(0, 10),
      label: showDay(clock, begin),
      short: showDay(clock, begin).split(" ").slice(0, 2).join(" "),
      left: k / axis.days,
      width: 1 / axis.days,
      open: mine && within(axis, mine.from, mine.to - 1),
      hours: span ? span.map((t) => showTime(t, clock.face)).join(" to ") : "",
      today: clock.dayNumber(now) === day,
    };
  });
}

/** A job’s row, drawn when it comes in sight. */
export function drawnRow({ bars, waits, ...row }: JobRow, axis: Axis): DrawnRow {
  const due = row.dueAt === null ? null : axis.at(row.dueAt);
  return {
    ...row,
    drawn: drawnBars(bars, axis),
    waits: waits.flatMap((w, i) => {
      const at = within(axis, w.from, w.to);
      const shuts = w.closes === null ? null : axis.at(w.closes);
      return at
        ? [{ key: String(i), ...at, words: w.words, shuts: shuts !== null && shuts >= 0 && shuts <= 1 ? shuts : null }]
        : [];
    }),
    dueAtShare: due !== null && due >= 0 && due <= 1 ? due : null,
  };
}

/** What takes up a lane. */
export const barsOn = (lane: Lane, jobs: readonly JobRow[]): (Bar & { job: JobRow })[] =>
  lane.takes.map(([job, bar]) => ({ ...jobs[job].bars[bar], job: jobs[job] }));
/** What a lane is taken up by, drawn. */
export const drawnLane = (lane: Lane, { jobs, axis }: Pick<Stretch, "jobs" | "axis">): (Drawn & { job: JobRow })[] =>
  barsOn(lane, jobs).flatMap((b) =>
    drawnBars([b], axis).map((d) => ({ ...d, key: `${b.job.id}${d.key}${b.from}`, job: b.job })),
  );

/** @param first day that is shown first @param days how many */
export function shopStretch(rows: WholeRows, clock: ZonedClock, calendar: WorkCalendar, first: number, days: number) {
  const axis = axisOf(first, days, clock, calendar);
  const now = axis.at(rows.now);
  const shown = (t: Trip): boolean => within(axis, t.from, t.to) !== null;
  return {
    axis,
    days: drawnDays(axis, clock, calendar, rows.now),
    now: now >= 0 && now <= 1 ? now : null,
    lanes: rows.lanes,
    jobs: rows.jobs,
    trips: rows.trips.filter(shown),
    together: rows.together.filter((s) => within(axis, s.from, s.from) !== null),
  };
}
export type Stretch = ReturnType<typeof shopStretch>;
