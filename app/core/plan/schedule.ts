/**
 * Between plans and the scheduler (M18). There: one or several jobs' steps become tasks on the shop's hands, presence, spray corner,
 * machines and ovens, their waits lags on the climate's clock. Back: the times that were found are where the steps of a plan begin; the
 * plan is placed again from them, so that drying, windows and hours are judged by its own models once more.
 */
import { dried } from "../models/drying/clock";
import { closingMinutes, dryingOf, liftMinutes } from "../process/film-times";
import type { DryingOf } from "../models/drying/clock";
import type { Air } from "../models/drying/climate";
import type { Film } from "../piece/state";
import type { WorkCalendar } from "../time/hours";
import { readProblem, type Answer, type Problem, type ProblemInput } from "../schedule/problem";
import type { Context } from "../process/context";
import { byBeam, kindOf, own } from "../process/kinds";
import { sprayed, type Placed } from "./placed";
import { airOf, reached } from "../process/ready";
import { TRIP_GAP_MIN } from "./trips";

/** What of a plan the scheduler asks for. */
export interface Planned {
  context: Context;
  placed: Placed[];
  now: number | null;
  /** why there is no ready time */
  stuck: string | null;
  missing: { say: string }[];
}
export interface ShopProblem {
  problem: Problem;
  /** minute since 1970 at which the problem's time begins */
  origin: number;
  /** what a task is, by its id */
  tasks: Map<string, { job: string; step: string }>;
  /** jobs left out, with the reason */
  left: { job: string; why: string }[];
}
export interface ShopOptions {
  /** minutes of a stretch in which drying is taken to run evenly */
  stretch?: number;
  /** days for which hours and climate are written out; after them the shop is taken to be open, the climate to stay */
  days?: number;
  seed?: number;
  limitSeconds?: number | null;
  limitIterations?: number | null;
  /** begin no earlier than this, min since 1970 */
  now?: number | null;
  /** places to dry at, one a piece; null: as many as it takes */
  rack?: number | null;
}
const STRETCH = 10;
/** days before the next step for which what is done is still looked at: longer than any window takes to reopen */
export const PAST_DAYS = 30;
const DAYS = 90;
const DAY = 1440;
/** finishes within the same half hour are as good */
const BUCKET = 30;
/** as many may watch a machine as there are machines: somebody there is somebody there */
const PRESENT = 1000;

/** Closed spans of a calendar from a moment on. */
function closedOf(calendar: WorkCalendar, origin: number, days: number): [number, number][] {
  const out: [number, number][] = [];
  const end = origin + days * DAY;
  for (let at = origin; at < end;) {
    const open = calendar.openAt(at);
    const from = Math.min(open?.from ?? end, end);
    if (from > at) out.push([at - origin, from - origin]);
    if (!open) break;
    at = Math.max(open.to, at + 1);
  }
  return out;
}

/** Drying speed stretch by stretch, stretches of one speed joined. A day like the one before is not worked out again. */
function ratesOf(
  plan: Planned,
  air: Air,
  of: DryingOf,
  origin: number,
  days: number,
  stretch: number,
): [number, number][] {
  const { clock } = plan.context;
  const round = (x: number): number => Math.round(x * 1e6) / 1e6;
  const out: [number, number][] = [];
  const put = (at: number, rate: number): void => {
    if (!out.length || out[out.length - 1][1] !== rate) out.push([at, rate]);
  };
  let day: number[] | null = null;
  let offset = NaN;
  for (let d = 0; d < days; d++) {
    const [a, b] = [origin + d * DAY, origin + (d + 1) * DAY];
    const read = air.spans.some((s) => s.from < b && a < s.to);
    const same = clock.offsetAt(a) === clock.offsetAt(b) && !read;
    if (!same || !day || clock.offsetAt(a) !== offset) {
      day = Array.from({ length: Math.ceil(DAY / stretch) }, (_, k) =>
        round(
          dried(clock, air, of, a + k * stretch, Math.min(b, a + (k + 1) * stretch)) /
            (Math.min(b, a + (k + 1) * stretch) - a - k * stretch),
        ),
      );
      offset = same ? clock.offsetAt(a) : NaN;
    }
    day.forEach((rate, k) => put(d * DAY + k * stretch, rate));
  }
  // after that, as fast as on the whole of the last day
  put(days * DAY, round(dried(clock, air, of, origin + (days - 1) * DAY, origin + days * DAY) / DAY));
  return out;
}

type Lags = NonNullable<ProblemInput["lags"]>;

/** @param plans of open jobs in one shop, each planned as it stands */
export function shopProblem(plans: Planned[], o: ShopOptions = {}): ShopProblem {
  const [stretch, days] = [o.stretch ?? STRETCH, o.days ?? DAYS];
  const able = plans.filter((p) => p.placed.length > 0 && p.stuck === null);
  const left = plans
    .filter((p) => !able.includes(p))
    .map((p) => ({ job: p.context.job.id, why: p.stuck ?? p.missing[0]?.say ?? "it has no steps" }));
  // What was done long before the next step opens and shuts nothing any more.
  const still = (p: Planned): Placed[] => {
    const next = p.placed.find((s) => !s.actual)?.start ?? Infinity;
    return p.placed.filter((s) => !s.actual || (s.end as number) > (next as number) - PAST_DAYS * DAY);
  };
  const kept = new Map(able.map((p) => [p, new Set(still(p))]));
  // the horizon begins with the first thing that is known, on a whole day so that stretches are alike in every problem
  const origin =
    Math.floor(
      Math.min(...able.flatMap((p) => [...kept.get(p)!].map((s) => s.start as number)), o.now ?? Infinity) / DAY,
    ) * DAY;
  const tasks = new Map<string, { job: string; step: string }>();
  const list: NonNullable<ProblemInput["tasks"]> = [];
  const lags: Lags = [];
  const clocks = new Map<string, { id: string; rates: [number, number][] }>();
  const resources = new Map<string, { id: string; capacity: number; closed: [number, number][] }>();
  const need = (id: string, capacity: number, calendar: () => WorkCalendar): string => {
    if (!resources.has(id)) resources.set(id, { id, capacity, closed: closedOf(calendar(), origin, days) });
    return id;
  };

  const underWay = new Set<string>();
  if (o.rack) resources.set("rack", { id: "rack", capacity: o.rack, closed: [] });

  for (const plan of able) {
    const { context: c, placed } = plan;
    const job = c.job.id;
    const idOf = (i: number): string => `${job}/${placed[i].step.id}`;
    // one shop has one climate: only a room of its own makes the air another one
    const clockFor = (air: Air, of: DryingOf, film: Film | null = null): string => {
      const key = `${film?.roomC ?? null}|${film?.roomRh ?? null}|${of.waterBorne}|${of.minC}|${of.fan}|${of.limit}`;
      const found = clocks.get(key);
      if (found) return found.id;
      const made = { id: `air ${clocks.size + 1}`, rates: ratesOf(plan, air, of, origin, days, stretch) };
      clocks.set(key, made);
      return made.id;
    };
    /** the step that a film, or a time of its own, counts from: the last one before that ended then */
    const source = (at: number, before: number): number => {
      for (let j = before - 1; j >= 0; j--) if (placed[j].end === at) return known.has(placed[j]) ? j : -1;
      return -1;
    };
    const known = kept.get(plan)!;
    placed.forEach((p, i) => {
      if (!known.has(p)) return;
      const s = p.step;
      const kind = kindOf(s.kind);
      const done = p.actual;
      const minutes = done
        ? Math.max(0, Math.round((p.end as number) - (p.start as number)))
        : Math.max(0, Math.ceil(p.minutes as number));
      const asks = byBeam(s)
        ? [need(`machine ${c.machine?.id ?? "none"}`, 1, () => c.calendar), need("present", PRESENT, () => c.calendar)]
        : own(s, "method") === "oven"
          ? [need("oven", 1, () => c.calendar), need("present", PRESENT, () => c.calendar)]
          : sprayed(s, c)
            ? [need("hands", 1, () => c.calendar), need("spray", 1, () => c.sprayCalendar)]
            : [need("hands", 1, () => c.calendar)];
      // What is done takes nothing any more. What is under way does, but for work out of hours, or a second one of the same hands: both
      // are facts, and no schedule may be refused for them.
      const running =
        done !== null &&
        done.end === null &&
        (c.calendar.openAt(done.start)?.to ?? -Infinity) >= (p.end as number) &&
        asks.every((r) => r === "present" || !underWay.has(r));
      const uses = !done || running ? asks : [];
      if (running) for (const r of asks) underWay.add(r);
      const longest = c.calendar.longest;
      tasks.set(idOf(i), { job, step: s.id });
      const last = i === placed.length - 1;
      const due = last && c.job.due ? Math.max(0, c.clock.fromLocal(c.job.due) - origin) : null;
      list.push({
        id: idOf(i),
        minutes,
        uses: uses.map((resource) => ({ resource })),
        pausable: kind.divisible || own(s, "byLoad") || minutes > longest,
        due,
        earliest: Math.max(
          0,
          Math.ceil(Math.max(o.now ?? -Infinity, plan.now ?? -Infinity, c.clock.fromLocal(c.job.start))) - origin,
        ),
        // a log out of a file may know parts of a minute
        fixedStart: done ? Math.round(p.start as number) - origin : null,
      });
      if (done && i > 0 && placed[i - 1].actual) return; // what is past is as it is
      // what waits for something to dry stands on the rack until it goes on
      const rack =
        o.rack && i > 0 && (p.needs.length || placed[i - 1].step.waitMin !== null)
          ? [{ resource: "rack", amount: Math.min(o.rack, c.job.quantity) }]
          : [];
      if (i > 0 && known.has(placed[i - 1]))
        lags.push({ from: idOf(i - 1), to: idOf(i), min: placed[i - 1].step.waitMin ?? 0, holds: rack });
      if (done || i === 0 || placed[i - 1].step.waitMin !== null) return;
      for (const n of kind.needs(s, p.before, c)) {
        if (n.fixed) {
          const j = source(n.fixed.at, i);
          const of: DryingOf = {
            waterBorne: n.fixed.waterBorne,
            minC: n.fixed.waterBorne ? 0 : null,
            fan: true,
            limit: "plain",
          };
          if (j >= 0)
            lags.push({
              from: idOf(j),
              to: idOf(i),
              min: n.fixed.refMin,
              clock: n.fixed.plain ? null : clockFor(c.air, of),
            });
          continue;
        }
        const seen = new Set<string>();
        const take = (film: Film, ref: number | null): void => {
          const j = source(film.laidAt as number, i);
          if (j < 0) return;
          const paint = c.paintOf(film.productId);
          const windowed = n.state === "recoat" || n.state === "lift";
          const opens = dryingOf(paint, n.state, windowed ? "opens" : "plain");
          const air = airOf(c, film);
          const shut = !windowed
            ? { closes: null, reopens: null }
            : n.state === "lift"
              ? liftMinutes(paint, film.dryUm)
              : closingMinutes(paint, film.dryUm);
          let max: number | null = null;
          let closeClock: string | null = null;
          if (shut.closes !== null) {
            const closes = dryingOf(paint, n.state, "closes");
            closeClock = clockFor(air, closes, film);
            // The window speaks of the end of the coat, a lag of its beginning: less what the clock runs while it is laid.
            const while_ = dried(c.clock, air, closes, p.start as number, (p.start as number) + minutes);
            max = Math.max(0, shut.closes - while_);
          }
          const key = `${j}|${ref}|${max}`;
          if (seen.has(key) || (ref === null && max === null)) return;
          seen.add(key);
          const reopens = max === null || shut.reopens === null ? null : Math.max(shut.reopens, max);
          lags.push({
            from: idOf(j),
            to: idOf(i),
            min: ref ?? 0,
            max,
            reopens,
            soft: max !== null && reopens === null,
            clock: ref === null && reopens === null ? null : clockFor(air, opens, film),
            closeClock,
          });
        };
        for (const stack of n.stacks) for (const r of reached(stack.films, n.state, c)) take(r.film, r.ref);
      }
    });
  }
  return {
    origin,
    tasks,
    left,
    problem: readProblem({
      name: able
        .map((p) => p.context.job.title)
        .join(", ")
        .slice(0, 300),
      seed: o.seed ?? 1,
      limitSeconds: o.limitSeconds === undefined ? 10 : o.limitSeconds,
      limitIterations: o.limitIterations ?? null,
      resources: [...resources.values()],
      clocks: [...clocks.values()],
      tasks: list,
      lags,
      trip: resources.has("hands") ? { resource: "hands", gap: TRIP_GAP_MIN } : null,
      finishBucket: BUCKET,
    }),
  };
}

/** Where each step of each job begins, min since 1970. */
export function startsOf(shop: ShopProblem, answer: Pick<Answer, "tasks">): Map<string, Map<string, number>> {
  const out = new Map<string, Map<string, number>>();
  for (const t of answer.tasks) {
    const at = shop.tasks.get(t.id);
    if (!at) continue;
    (out.get(at.job) ?? out.set(at.job, new Map()).get(at.job)!).set(at.step, shop.origin + t.start);
  }
  return out;
}
