/** The whole shop on one calendar, as plain rows: jobs with work and waits, lanes, trips to the bench, what moved, how good it is. */
import { lanesOf } from "../plan/schedule";
import type { Queued } from "../plan/settle";
import { comingUp, type WholeShop } from "../plan/whole";
import { laidOf } from "../plan/plan";
import { TRIP_GAP_MIN } from "../plan/trips";
import { brokenWindows, inTurn, type Placed } from "../plan/placed";
import { kindOf, own } from "../process/kinds";
import { stateWords } from "../process/words";
import { showDay, showWhen, showClock, type ZonedClock } from "../time/zoned";
import { showMinutes } from "../units/show";
import { saidAll } from "../units/said";
import { sameShared } from "../plan/sessions";
import type { Shared } from "../records/job";
import type { World } from "../records/world";
import { togetherWords } from "./cues";

export interface Bar {
  from: number;
  to: number;
  title: string;
  step: string;
  done: boolean;
  pinned: boolean;
  /** by the maker's wish it is done with no other job's */
  apart: boolean;
}
export interface Wait {
  from: number;
  to: number;
  closes: number | null;
  words: string;
}
export interface JobRow {
  id: string;
  title: string;
  /** the job’s own paint */
  colour: string;
  ready: string | null;
  readyAt: number | null;
  due: string | null;
  dueAt: number | null;
  /** minutes to spare; below 0: late; null: no due date or no ready time */
  slack: number | null;
  /** minutes later than if it were alone in the shop */
  pushed: number;
  /** what pushes it most, in a sentence; null: nothing does */
  why: string | null;
  weight: number;
  pins: number;
  bars: Bar[];
  waits: Wait[];
}
export interface TripItem {
  job: string;
  jobTitle: string;
  colour: string;
  step: string;
  title: string;
  at: string;
  takes: string;
  /** what is laid out for it */
  lay: string[];
  /** the window that it comes in, where one shuts */
  shuts: string | null;
  /** what it is done together with */
  together: string | null;
}
/** Works of several jobs that are done as one. */
export interface Together {
  id: string;
  name: string;
  /** when it begins, in words and in min since 1970 */
  at: string;
  from: number;
  /** what is won, in words and in min */
  wins: string;
  winsMin: number;
  members: { job: string; title: string; pieces: number; step: string; name: string }[];
}
export interface Trip {
  id: string;
  from: number;
  to: number;
  day: string;
  items: TripItem[];
}
/** Hands, a machine or a place, and what takes it up: which of the jobs, and which of its bars, as they begin. */
export interface Lane {
  id: string;
  name: string;
  takes: [job: number, bar: number][];
}
export interface WholeRows {
  now: number;
  jobs: JobRow[];
  left: WholeShop["left"];
  lanes: Lane[];
  trips: Trip[];
  together: Together[];
  /** jobs whose ready time is another one than the calendar that is gone by says */
  moved: { job: string; title: string; was: string; now: string; later: boolean }[];
  /** how good it is: when all is done, how much at most could be won, what is late */
  says: { done: string | null; won: string; late: string; windows: string | null };
  /** the jobs go by it already */
  gone: boolean;
  /** beginnings, by job and step, to be gone by; what is done together, by job */
  starts: Record<string, [string, number][]>;
  shared: Record<string, Shared[]>;
}

const laneName = (id: string, worlds: readonly World[]): string => {
  if (id === "hands") return "Hands";
  if (id === "oven") return "Oven";
  if (id === "spray") return "Spray corner";
  const jig = id.startsWith("jig ") && id.slice("jig ".length);
  if (jig) return worlds.flatMap((w) => w.shop.gear ?? []).find((g) => g.id === jig)?.name ?? "A jig taken out";
  const machine = id.slice("machine ".length);
  return worlds.flatMap((w) => w.machines).find((m) => m.id === machine)?.name ?? "A laser not chosen yet";
};
const colourOf = (q: Queued): string => {
  const { job, substrate } = q.plan.context;
  const z = job.zones.find((x) => !x.bare);
  return z?.wanted ?? z?.colour ?? substrate.colour;
};

/** A step that takes up lanes until its end. */
interface Ends {
  job: Queued;
  end: number;
  lanes: string[];
}
/** The last first. */
const endsOf = (all: readonly Queued[]): Ends[] =>
  all
    .flatMap((job) =>
      inTurn(job.plan.placed).flatMap((x) =>
        x.start === null || x.end === null ? [] : [{ job, end: x.end, lanes: lanesOf(x, job.plan.context) }],
      ),
    )
    .sort((a, b) => b.end - a.end);

/** What holds a job longest that would not hold it alone: another job on the same lane, or the hours. */
function pushedBy(q: Queued, ends: () => readonly Ends[], clock: ZonedClock, worlds: readonly World[]): string | null {
  const alone = new Map(inTurn(q.alone.placed).map((p) => [p.step.id, p]));
  let most: { p: Placed; by: number } | null = null;
  let before = 0;
  for (const p of inTurn(q.plan.placed)) {
    const was = alone.get(p.step.id);
    if (!was || p.start === null || was.start === null || p.actual) continue;
    const off = p.start - was.start;
    // what it is pushed by here, and was not yet at the step before
    if (off - before > (most?.by ?? MINOR)) most = { p, by: off - before };
    before = Math.max(before, off);
  }
  if (!most) return null;
  const { p, by } = most;
  const mine = lanesOf(p, q.plan.context).filter((l) => l !== "present");
  const after = (p.start as number) - by;
  const laneIn = (x: Ends): string | undefined => x.lanes.find((l) => mine.includes(l));
  const last = ends().find(
    (x) => x.job !== q && x.end <= (p.start as number) + 1 && x.end >= after && laneIn(x) !== undefined,
  );
  const holder = last && { title: last.job.plan.context.job.title, end: last.end, lane: laneIn(last) as string };
  const at = holder && `“${holder.title}” until ${showWhen(clock, holder.end)}`;
  const held = holder
    ? `${laneName(holder.lane, worlds).toLowerCase()} ${holder.lane === "hands" ? "are" : "is"} at ${at}`
    : "the hours that are left go to others first";
  return `“${p.step.title}” begins ${showMinutes(by)} later than it would alone: ${held}.`;
}
/** minutes that are not worth a word */
const MINOR = 15;

/** What is laid out for a step: its tool, and the paint it takes. */
function layOut(q: Queued, p: Placed): string[] {
  const c = q.plan.context;
  const paint = own(p.step, "productId");
  const tool = kindOf(p.step.kind).tool(p.step, c);
  return [...(tool ? [tool] : []), ...(paint && c.hasPaint(paint) ? [c.paintOf(paint).product.name] : [])];
}

/** Visits to the bench over all jobs: steps with somebody there, no more than a short gap apart. */
export function shopTrips(jobs: readonly Queued[]): Trip[] {
  const out: Trip[] = [];
  for (const { job: q, p } of comingUp(jobs)) {
    const { clock, job } = q.plan.context;
    const [from, to] = [p.start as number, p.end as number];
    // a window that had shut long before is no hurry any more
    const shuts = p.needs.map((n) => n.closes).filter((x): x is number => x !== null && x >= from);
    const item: TripItem = {
      job: job.id,
      jobTitle: job.title,
      colour: colourOf(q),
      step: p.step.id,
      title: p.step.title,
      at: showClock(clock, from),
      takes: showMinutes(p.minutes),
      lay: layOut(q, p),
      shuts: shuts.length ? `before ${showWhen(clock, Math.min(...shuts))}` : null,
      together: togetherWords(p, q.plan.context),
    };
    const last = out[out.length - 1];
    if (last && from - last.to <= TRIP_GAP_MIN && clock.dayNumber(from) === clock.dayNumber(last.from)) {
      last.to = Math.max(last.to, to);
      last.items.push(item);
    } else
      out.push({
        id: `${p.step.id}.${job.id}`,
        from,
        to,
        day: showDay(clock, from),
        items: [item],
      });
  }
  return out;
}

const TOGETHER_NAME = {
  oven: "One load of the oven",
  spray: "One spray session",
  beam: "One set-up of the laser",
} as const;
/** @param jobs as they are laid */
function togetherOf({ together, jobs }: Pick<WholeShop, "together" | "jobs">): Together[] {
  const byId = new Map(jobs.map((q) => [q.plan.context.job.id, q]));
  return together
    .map(({ session, wins }) => {
      const members = session.members.flatMap((m) => {
        const q = byId.get(m.job);
        const p = q && inTurn(q.plan.placed).find((x) => x.step.id === m.step);
        return q && p ? [{ q, p }] : [];
      });
      const from = Math.min(...members.map(({ p }) => p.start ?? Infinity));
      const [{ q }] = members;
      return {
        id: session.id,
        name: TOGETHER_NAME[session.as],
        at: showWhen(q.plan.context.clock, from),
        from,
        wins: showMinutes(wins),
        winsMin: wins,
        members: members.map((x) => ({
          job: x.q.plan.context.job.id,
          title: x.q.plan.context.job.title,
          pieces: x.p.pieces,
          step: x.p.step.id,
          name: x.p.step.title,
        })),
      };
    })
    .sort((a, b) => a.from - b.from);
}

/** A step as it is drawn; null: it has no time. */
const barOf = (p: Placed, pins: ReadonlySet<string>, apart: readonly string[] = []): Bar | null =>
  p.start === null || p.end === null
    ? null
    : {
        from: p.start,
        to: p.end,
        title: p.step.title,
        step: p.step.id,
        done: p.actual?.end != null,
        pinned: pins.has(p.step.id),
        apart: apart.includes(p.step.id),
      };
const pinsOf = (q: Queued): Set<string> => new Set((q.plan.context.job.queue?.pins ?? []).map((x) => x.step));

function rowOf(q: Queued, ends: () => readonly Ends[], clock: ZonedClock, worlds: readonly World[]): JobRow {
  const { job } = q.plan.context;
  const due = job.due === null ? null : q.plan.context.clock.fromLocal(job.due);
  const { ready } = q.plan;
  const pins = pinsOf(q);
  const pushed = ready !== null && q.alone.ready !== null ? Math.max(0, ready - q.alone.ready) : 0;
  const line = inTurn(q.plan.placed);
  return {
    id: job.id,
    title: job.title,
    colour: colourOf(q),
    ready: ready === null ? null : showWhen(clock, ready),
    readyAt: ready,
    due: due === null ? null : showWhen(clock, due),
    dueAt: due,
    slack: due === null || ready === null ? null : due - ready,
    pushed,
    why: pushed > MINOR ? pushedBy(q, ends, clock, worlds) : null,
    weight: job.queue?.weight ?? 1,
    pins: pins.size,
    bars: line.flatMap((p) => barOf(p, pins, job.queue?.apart) ?? []),
    waits: line.flatMap((p, i) => {
      const before = line[i - 1];
      const need = p.needs[0];
      if (!before?.end || !need || p.start === null || p.start - before.end < MINOR || p.actual) return [];
      const closes = p.needs.map((n) => n.closes).filter((x): x is number => x !== null);
      return [
        {
          from: before.end,
          to: p.start,
          closes: closes.length ? Math.min(...closes) : null,
          words: `until it is ${stateWords(need.state)}, before “${p.step.title}”`,
        },
      ];
    }),
  };
}

/** Is every beginning the one that its job goes by, but for what rounding to minutes leaves? */
const goneBy = (shop: WholeShop, worlds: readonly World[]): boolean => {
  const laid = new Map(worlds.map((w) => [w.job.id, laidOf(w.job)]));
  const carried = new Map(worlds.map((w) => [w.job.id, w.job.queue?.shared]));
  return shop.jobs.every((q) => {
    const { job } = q.plan.context;
    if (!sameShared(carried.get(job.id), job.queue?.shared)) return false;
    const mine = laid.get(job.id);
    return [...q.starts].every(([step, at]) => Math.abs((mine?.get(step) ?? Infinity) - at) <= 1);
  });
};

/** @param worlds as they are stored: what each job's calendar says by now is taken from there */
export function wholeRows(
  shop: WholeShop,
  worlds: readonly World[],
  now: number,
  before: ReadonlyMap<string, number>,
): WholeRows {
  const [first] = shop.jobs;
  const clock = first?.plan.context.clock;
  let ends: Ends[] | null = null;
  const rows = shop.jobs.map((q) => rowOf(q, () => (ends ??= endsOf(shop.jobs)), q.plan.context.clock, worlds));
  rows.sort(
    (a, b) => (a.dueAt ?? Infinity) - (b.dueAt ?? Infinity) || (a.readyAt ?? Infinity) - (b.readyAt ?? Infinity),
  );
  const lanes = new Map<string, Lane["takes"]>();
  const place = new Map(rows.map((r, i) => [r.id, i]));
  for (const q of shop.jobs) {
    const job = place.get(q.plan.context.job.id)!;
    const drawn = inTurn(q.plan.placed).filter((p) => p.start !== null);
    drawn.forEach((p, bar) => {
      for (const lane of lanesOf(p, q.plan.context))
        if (lane !== "present") (lanes.get(lane) ?? lanes.set(lane, []).get(lane)!).push([job, bar]);
    });
  }
  const begins = ([job, bar]: Lane["takes"][number]): number => rows[job].bars[bar].from;
  const order = (id: string): string => (id === "hands" ? "0" : id.startsWith("machine") ? `1${id}` : `2${id}`);
  const missed = shop.jobs.reduce((n, q) => n + brokenWindows(q.plan.placed), 0);
  const late = rows.filter((r) => r.slack !== null && r.slack < 0);
  const a = shop.answer;
  const done = Math.max(...rows.map((r) => r.readyAt ?? -Infinity));
  const gap = a && Number.isFinite(done) ? Math.max(0, done - shop.origin - a.bound) : 0;
  const lateMin = late.reduce((s, r) => s - (r.slack as number), 0);
  // weighed, the bound speaks of weighed minutes, of which nobody has an idea
  const even = rows.every((r) => r.weight === 1);
  const lateGap = a ? Math.max(0, lateMin - a.bounds.lateness) : 0;
  const made: WholeRows = {
    now,
    jobs: rows,
    left: shop.left,
    lanes: [...lanes]
      .sort(([x], [y]) => order(x).localeCompare(order(y)))
      .map(([id, takes]) => ({ id, name: laneName(id, worlds), takes: takes.sort((x, y) => begins(x) - begins(y)) })),
    trips: shopTrips(shop.jobs),
    together: togetherOf(shop),
    moved: shop.jobs.flatMap((q) => {
      const { job } = q.plan.context;
      const was = before.get(job.id);
      const is = q.plan.ready;
      if (was === undefined || is === null || Math.abs(was - is) < MINOR) return [];
      return [{ job: job.id, title: job.title, was: showWhen(clock, was), now: showWhen(clock, is), later: is > was }];
    }),
    says: {
      done: clock && Number.isFinite(done) ? showWhen(clock, done) : null,
      won: !a
        ? "How much could still be won is being worked out."
        : gap <= 0
          ? "No order would have all of it done sooner."
          : `Of the time until all is done at most ${showMinutes(gap)} could still be won.`,
      late: !late.length
        ? "Nothing is late."
        : `${late.length} ${late.length === 1 ? "job is" : "jobs are"} late, ${showMinutes(lateMin)} in all` +
          (!even || !a
            ? "."
            : lateGap > 0
              ? `; at most ${showMinutes(lateGap)} of it could still be won.`
              : "; no order makes it less."),
      windows: missed > 0 ? `${missed} ${missed === 1 ? "window is" : "windows are"} missed by it.` : null,
    },
    gone: goneBy(shop, worlds),
    starts: Object.fromEntries(shop.jobs.map((q) => [q.plan.context.job.id, [...q.starts]])),
    shared: Object.fromEntries(shop.jobs.map((q) => [q.plan.context.job.id, q.plan.context.job.queue?.shared ?? []])),
  };
  return first ? saidAll(made, first.plan.context.world.shop.units) : made;
}

/** Ready times that the calendar which is gone by says; jobs that stand on none are left out. */
export function readyBefore(worlds: readonly World[], plan: (w: World) => number | null): Map<string, number> {
  return new Map(
    worlds.flatMap((w): [string, number][] => {
      if (!w.job.queue?.laid?.length || w.job.queue.hold) return [];
      const at = plan(w);
      return at === null ? [] : [[w.job.id, at]];
    }),
  );
}
