/**
 * The job's visits to the bench as a calendar file: one event a visit, an alarm at its beginning and before a window shuts. Times
 * are written in UTC, so that a change of the clock moves nothing; names (UIDs) stay the same from export to export, so that a
 * calendar puts the new times in place of the old.
 */
import { showClock } from "../../core/time/zoned";
import ical, { ICalAlarmType, type ICalCalendar, ICalCalendarMethod } from "ical-generator";
import type { Plan } from "../../core/plan/plan";
import { trips } from "../../core/plan/trips";
import type { Trip as ShopTrip } from "../../core/explain/whole";

/** minutes before a window shuts at which the calendar rings */
export const WARN_BEFORE_MIN = 10;
const MIN_MS = 60_000;

const begun = (name: string): ICalCalendar =>
  ical({
    name: `${name}, bench`,
    prodId: { company: "richlayer", product: "rich-layer", language: "EN" },
    method: ICalCalendarMethod.PUBLISH,
  });

/** @param now ms since 1970, for the stamp that calendars order versions by */
export function writeCalendar(plan: Plan, now: number): string {
  const { job } = plan.context;
  const cal = begun(job.title);
  for (const t of trips(plan)) {
    const event = cal.createEvent({
      id: `${t.id}.${job.id}@richlayer.invalid`,
      stamp: new Date(now),
      sequence: Math.max(0, Math.floor(now / MIN_MS) - plan.context.clock.fromLocal(job.start)),
      start: new Date(t.from * MIN_MS),
      end: new Date(Math.max(t.to, t.from + 1) * MIN_MS),
      summary: `${job.title}: ${t.steps[0].title}${t.steps.length > 1 ? ` and ${t.steps.length - 1} more` : ""}`,
      description: t.steps.map((s) => `${showClock(plan.context.clock, s.start)} ${s.title}`).join("\n"),
    });
    event.createAlarm({ type: ICalAlarmType.display, trigger: 0, description: t.steps[0].title });
    for (const c of t.closing)
      event.createAlarm({
        type: ICalAlarmType.display,
        trigger: new Date((c.at - WARN_BEFORE_MIN) * MIN_MS),
        description: `Window shuts in ${WARN_BEFORE_MIN} min: ${c.before}`,
      });
  }
  return cal.toString();
}

/** Trips of the whole shop as a calendar file, one event a trip; its name is that of its first step, so that a later file moves it. */
export function writeShopCalendar(shop: string, all: readonly ShopTrip[], now: number): string {
  const cal = begun(shop);
  for (const t of all) {
    const [first] = t.items;
    const event = cal.createEvent({
      id: `${t.id}@richlayer.invalid`,
      stamp: new Date(now),
      sequence: Math.max(0, Math.floor(now / MIN_MS) - EPOCH_MIN),
      start: new Date(t.from * MIN_MS),
      end: new Date(Math.max(t.to, t.from + 1) * MIN_MS),
      summary: `${first.jobTitle}: ${first.title}${t.items.length > 1 ? ` and ${t.items.length - 1} more` : ""}`,
      description: t.items
        .map((x) => `${x.at} ${x.jobTitle}: ${x.title} (${x.takes})${x.shuts ? `, ${x.shuts}` : ""}`)
        .join("\n"),
    });
    event.createAlarm({ type: ICalAlarmType.display, trigger: 0, description: first.title });
  }
  return cal.toString();
}
/** versions are counted from here, minutes since 1970: 2026 */
const EPOCH_MIN = 29_455_200;
