/** What decides the date, in words: the longest waits and closed stretches on the way, each with what leaving it out would gain. */
import { showMinutes } from "../units/show";
import type { WorkCalendar } from "../time/hours";
import { slot, type Placed } from "./placed";
import { isFirst } from "./proof";
import { stateWords } from "../process/words";

export { stateWords } from "../process/words";

export interface Decider {
  kind: "wait" | "window" | "closed" | "short" | "held" | "work";
  /** the step it comes before, or is */
  step: string;
  minutes: number;
  /** minutes sooner without it; null: not worked out */
  gain: number | null;
  why: string;
}

/** The time between two steps, in the order it passes: moments at which each cause ends, and the closed minutes of what is left. */
export interface Gap {
  /** the step before is done, and it is not earlier than now */
  from: number;
  /** dry enough, or the wait typed in is over */
  dry: number;
  /** a window that had shut is open again; the same as `dry` where none had */
  open: number;
  /** minutes shut between then and the beginning */
  closed: number;
  /** open minutes left of a day, too few for it */
  short: number;
  /** minutes held back, so that what follows keeps its windows */
  held: number;
}
/** @param now the moment it is planned at; null: the job's own start */
export function gapBefore(
  p: Placed,
  prev: Placed | undefined,
  begins: number,
  now: number | null,
  calendar: WorkCalendar,
): Gap | null {
  const free = prev ? prev.end : begins;
  if (p.start === null || free === null) return null;
  const start = p.start;
  const until = (m: number | null | undefined, least: number): number =>
    Math.min(start, Math.max(least, m ?? -Infinity));
  const from = until(Math.max(free, now ?? -Infinity), -Infinity);
  const typed = prev?.step.waitMin ?? null;
  const dry = until(typed !== null ? free + typed : p.waited?.opens, from);
  const open =
    typed !== null
      ? dry
      : until(
          Math.max(
            ...p.needs.map((r) =>
              r.closes !== null && r.closes < start && r.reopens !== null && r.reopens <= start ? r.reopens : -Infinity,
            ),
            -Infinity,
          ),
          dry,
        );
  const soonest = until(slot(calendar, open, p.minutes ?? 0, p.unit)?.start, open);
  const [before, after] = [calendar.closedBetween(open, soonest), calendar.closedBetween(soonest, start)];
  return { from, dry, open, closed: before + after, short: soonest - open - before, held: start - soonest - after };
}

/** Does a step begin when the calendar of the shop has it begin, or its pin? */
export const laidAt = (starts: ReadonlyMap<string, number> | null, p: Placed): boolean =>
  p.start !== null && Math.abs((starts?.get(p.step.id) ?? -Infinity) - p.start) <= 1;

/**
 * @param hoursOf when a step may be done @param without plans again with the wait before a step left out and gives the ready time
 * @param starts moments that the calendar of the shop gave; null: it is planned as if it were alone
 */
export function decides(
  placed: Placed[],
  ready: number | null,
  now: number | null,
  hoursOf: (p: Placed) => WorkCalendar,
  without: (p: Placed) => number | null,
  starts: ReadonlyMap<string, number> | null = null,
): Decider[] {
  const out: (Decider & { index: number })[] = [];
  placed.forEach((p, i) => {
    const g = i > 0 && !p.actual ? gapBefore(p, placed[i - 1], 0, now, hoursOf(p)) : null;
    if (!g) return;
    const put = (kind: Decider["kind"], minutes: number, why: string): void => {
      if (minutes > 0)
        out.push({
          kind,
          index: i,
          step: p.step.id,
          minutes,
          gain: null,
          why: `${showMinutes(minutes)} ${why} “${p.step.title}”${isFirst(p.step.id) ? " of the first piece" : ""}`,
        });
    };
    put(
      "wait",
      g.dry - g.from,
      placed[i - 1].step.waitMin !== null
        ? "of a wait set by hand, before"
        : `until it is ${stateWords(p.waited?.state ?? "set-time")}, before`,
    );
    put("window", g.open - g.dry, "until a window that had shut is open again, before");
    put("closed", g.closed, "shut before");
    put("short", g.short, "left of a day, too short for");
    put(
      "held",
      g.held,
      laidAt(starts, p)
        ? "for other jobs, by the calendar of the shop, before"
        : "held back to keep the windows behind it, before",
    );
  });
  const work = placed.filter((p) => p.minutes !== null && !p.actual).reduce((a, p) => a + (p.minutes as number), 0);
  const top = out.sort((a, b) => b.minutes - a.minutes).slice(0, 4);
  for (const d of top) {
    if (d.kind !== "wait" || ready === null) continue;
    const sooner = without(placed[d.index]);
    d.gain = sooner === null ? null : Math.max(0, ready - sooner);
    if (d.gain !== null)
      d.why += d.gain > 0 ? `; without it ${showMinutes(d.gain)} sooner` : "; but the hours after it decide";
  }
  const list: Decider[] = top.map(({ index: _i, ...d }) => d);
  if (work > 0)
    list.push({
      kind: "work",
      step: placed[placed.length - 1].step.id,
      minutes: Math.round(work),
      gain: null,
      why: `${showMinutes(work)} of work at the bench`,
    });
  return list;
}
