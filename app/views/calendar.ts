/** What a job's calendar shows: its days with work, laser and waits in them, the list, what decides the date. */
import { saidAll } from "../core/units/said";
import { waitAfter } from "../core/explain/report";
import type { Placed } from "../core/plan/placed";
import { turns, type Plan } from "../core/plan/plan";
import { isFirst } from "../core/plan/proof";
import type { WayOut } from "../core/plan/rescue";
import { byBeam } from "../core/process/kinds";
import type { World } from "../core/records/world";
import type { ZonedClock } from "../core/time/zoned";
import { showDay, showWhen } from "../core/time/zoned";
import { showMinutes } from "../core/units/show";
import { waitText } from "./layers";
import { opened, openedIn } from "./opened";

export interface Piece {
  key: string;
  from: number;
  to: number;
  kind: "work" | "laser" | "wait";
  title: string;
  step: string;
}
export interface Day {
  /** last day of a row that stands for several like days; else the same as `day` */
  last: number;
  day: number;
  label: string;
  open: { from: number; to: number } | null;
  pieces: Piece[];
  now: number | null;
}

/** Days as they are met, each with its opening, and what falls into it. */
class Days {
  private readonly byNumber = new Map<number, Day>();
  constructor(
    readonly plan: Plan,
    readonly now: number,
  ) {}

  private of(minute: number): Day {
    const { clock, calendar } = this.plan.context;
    const n = clock.dayNumber(minute);
    const known = this.byNumber.get(n);
    if (known) return known;
    const [start, end] = [clock.atDay(n, 0), clock.atDay(n + 1, 0)];
    const share = (m: number): number => (m - start) / (end - start);
    const open = calendar.openAt(start);
    const made: Day = {
      day: n,
      last: n,
      label: showDay(clock, start + NOON),
      open: open && open.from < end ? { from: share(open.from), to: Math.min(1, share(open.to)) } : null,
      pieces: [],
      now: this.now >= start && this.now < end ? share(this.now) : null,
    };
    this.byNumber.set(n, made);
    return made;
  }

  /** A stretch of time, cut where a day ends. */
  put(from: number, to: number, kind: Piece["kind"], title: string, step: string): void {
    const { clock } = this.plan.context;
    for (let at = from; at < to;) {
      const n = clock.dayNumber(at);
      const [a, b] = [clock.atDay(n, 0), clock.atDay(n + 1, 0)];
      const piece = { from: (at - a) / (b - a), to: (Math.min(to, b) - a) / (b - a), kind, title, step };
      this.of(at).pieces.push({ key: `${step}${kind}${at}`, ...piece });
      at = b;
    }
  }

  /** A step's work between its pauses, and the wait behind it. */
  step(plan: Plan, p: Placed): void {
    if (p.start === null) return;
    const kind = byBeam(p.step) ? "laser" : "work";
    let at = p.start;
    for (const [a, b] of p.pauses) {
      this.put(at, a, kind, p.step.title, p.step.id);
      at = b;
    }
    this.put(at, Math.max(at + 1, p.end), kind, p.step.title, p.step.id);
    const w = waitAfter(plan, p.index);
    if (w?.opens != null && w.opens > p.end) this.put(p.end, w.opens, "wait", `${waitText(plan, p.index)}`, p.step.id);
  }

  get inOrder(): Day[] {
    return [...this.byNumber.values()].sort((a, b) => a.day - b.day);
  }
}
/** minutes from midnight to the middle of a day */
const NOON = 720;

/** days of nothing but waiting that stand one by one; more of them are one row */
const IDLE_DAYS = 3;
/**
 * Runs of days with nothing in them but waiting, or one step left open day and night, folded to one row each: a year
 * of it is a line, not a year of lines.
 */
function folded(days: Day[], label: (a: Day, b: Day) => string): Day[] {
  const idle = (d: Day): boolean =>
    d.now === null && d.pieces.every((p) => p.kind === "wait" || (p.from === 0 && p.to === 1));
  const rows: Day[] = [];
  for (let i = 0; i < days.length;) {
    let j = i;
    while (j < days.length && idle(days[j]) && (j === i || days[j].day === days[j - 1].day + 1)) j++;
    if (j - i > IDLE_DAYS) {
      const titles = [
        ...new Map(
          days
            .slice(i, j)
            .flatMap((d) => d.pieces)
            .map((p) => [p.title, p]),
        ).values(),
      ];
      rows.push({
        ...days[i],
        last: days[j - 1].day,
        label: label(days[i], days[j - 1]),
        open: null,
        pieces: titles.map((p) => ({ ...p, from: 0, to: 1 })),
      });
      i = j;
    } else rows.push(days[i++]);
  }
  return rows;
}

/** Ways to keep a date, in words, each with what makes its ready time. */
export const outRows = (world: World, now: number, clock: ZonedClock, outs: WayOut[]) =>
  outs.map((o, i) => ({
    i,
    label: o.label,
    keeps: o.keeps,
    ready: o.ready === null ? null : showWhen(clock, o.ready),
    why: openedIn(o.apply(world), now, { of: "ready" }, `When it is ready: ${o.label}`),
  }));

export const calendarView = (plan: Plan, now: number) => ({
  job: plan.context.job,
  plan,
  now,
  ...saidAll(told(plan, now), plan.context.world.shop.units),
});
function told(plan: Plan, now: number) {
  const { clock, job } = plan.context;
  const days = new Days(plan, now);
  for (const t of turns(plan)) days.step(t.plan, t.p);
  const due = job.due === null ? null : clock.fromLocal(job.due);
  const late = due !== null && plan.ready !== null ? Math.max(0, plan.ready - due) : 0;
  return {
    title: job.title,
    days: folded(days.inOrder, (a, b) => `${a.label} – ${b.label}`),
    stuck: plan.stuck,
    missing: plan.missing.map((m) => m.say),
    decides: plan.decides,
    due: due === null ? null : { text: showWhen(clock, due), late, why: opened(plan, { of: "margin" }) },
    list: turns(plan).map(({ plan: here, p }) => ({
      index: isFirst(p.step.id) ? null : p.index,
      id: p.step.id,
      title: p.step.title,
      start: p.start === null ? null : showWhen(clock, p.start),
      minutes: showMinutes(p.minutes),
      takes: p.minutes ?? 0,
      pauses: p.pauses.length,
      wait: waitText(here, p.index),
    })),
  };
}
