/**
 * Between plans and the scheduler (M18). There: one or several jobs' steps become tasks on the shop's hands, presence, spray corner,
 * machines and ovens, their waits lags on the climate's clock. Back: the times that were found are where the steps of a plan begin; the
 * plan is placed again from them, so that drying, windows and hours are judged by its own models once more.
 */
import { needsOf } from "../process/effects";
import { dried } from "../models/drying/clock";
import { closingMinutes, dryingOf, liftMinutes } from "../process/film-times";
import type { DryingOf } from "../models/drying/clock";
import type { Air } from "../models/drying/climate";
import type { Film } from "../piece/state";
import type { WorkCalendar } from "../time/hours";
import { ownProblem, type Answer, type Problem, type ProblemInput } from "../schedule/problem";
import type { Context } from "../process/context";
import { byBeam, own } from "../process/kinds";
import { jigOf } from "../process/on-bed";
import { inTurn, sprayed, type Placed } from "./placed";
import { APART_MIN, type Session } from "./sessions";
import { NO_RESTS, restNeed, type Rests } from "./rest";
import { airOf, reached } from "../process/ready";
import type { Need } from "../process/step";
import type { WaitState } from "../records/ids";
import { TRIP_GAP_MIN } from "./trips";

/** What of a plan the scheduler asks for. */
export interface Planned {
  context: Context;
  placed: Placed[];
  /** when the batch may go on behind a piece that goes first; absent: nobody said */
  proof?: { accepted: number | null } | null;
  now: number | null;
  /** why there is no ready time */
  stuck: string | null;
  missing: { say: string }[];
  /** coats that rest before they are laid; absent: none does */
  rests?: Rests;
}
export interface ShopProblem {
  problem: Problem;
  /** minute since 1970 at which the problem's time begins */
  origin: number;
  /** what a task is, by its id */
  tasks: Map<string, { job: string; step: string }>;
  /** tasks that lie in another one's oven load: they begin when that one does, and are written down as its end */
  within: ReadonlyMap<string, { head: string; minutes: number }>;
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
  /** closed times and drying speeds worked out for problems of the same shop, laid from the same day */
  memo?: Map<string, [number, number][]>;
  /** what is done together with what */
  sessions?: readonly Session[];
  /** several of a machine, of the oven, of the spray corner, by lane: a second one asked about */
  more?: Readonly<Record<string, number>>;
}
const STRETCH = 10;
/** days before the next step for which what is done is still looked at: longer than any window takes to reopen */
export const PAST_DAYS = 30;
const DAYS = 90;
const DAY = 1440;
/** finishes within the same half hour are as good */
export const BUCKET = 30;
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
type Tasks = NonNullable<ProblemInput["tasks"]>;

/** What of a shop a step takes up: hands and spray corner, or oven or machine with somebody there, with the jig that its pieces lie in. */
export function lanesOf(p: Placed, c: Context): string[] {
  if (byBeam(p.step)) {
    const jig = jigOf(c);
    return [`machine ${c.machine?.id ?? "none"}`, ...(jig ? [`jig ${jig.id}`] : []), "present"];
  }
  if (own(p.step, "method") === "oven") return ["oven", "present"];
  return sprayed(p.step, c) ? ["hands", "spray"] : ["hands"];
}

/** Resources, clocks, tasks and lags of one shop as its jobs are written down one after another. */
class Writing {
  readonly tasks = new Map<string, { job: string; step: string }>();
  readonly list: Tasks = [];
  readonly lags: Lags = [];
  readonly clocks = new Map<string, { id: string; rates: [number, number][] }>();
  readonly resources = new Map<string, { id: string; capacity: number; closed: [number, number][] }>();
  /** resources that a step under way already holds */
  readonly underWay = new Set<string>();
  readonly within = new Map<string, { head: string; minutes: number }>();

  constructor(
    readonly origin: number,
    readonly days: number,
    readonly stretch: number,
    readonly o: ShopOptions,
  ) {
    if (o.rack) this.resources.set("rack", { id: "rack", capacity: o.rack, closed: [] });
  }

  private need(id: string, capacity: number, calendar: WorkCalendar): string {
    if (!this.resources.has(id)) {
      const closed = this.known(`closed ${id}`, () => closedOf(calendar, this.origin, this.days));
      this.resources.set(id, { id, capacity, closed });
    }
    return id;
  }
  /** As it was worked out for a problem before this one. */
  private known(key: string, work: () => [number, number][]): [number, number][] {
    const { memo } = this.o;
    const at = `${this.origin} ${key}`;
    return memo?.get(at) ?? (memo ? memo.set(at, work()).get(at)! : work());
  }
  /** What a step takes up while somebody works on it. */
  resourcesOf(p: Placed, c: Context): string[] {
    return lanesOf(p, c).map((id) =>
      this.need(
        id,
        id === "present" ? PRESENT : (this.o.more?.[id] ?? 1),
        id === "spray" ? c.sprayCalendar : id.startsWith("machine ") ? c.loudCalendar : c.calendar,
      ),
    );
  }
  /** What is done together: one soon behind the other, or all of them in one load. What has a time of its own is left at it. */
  tie(s: Session): void {
    const byId = new Map(this.list.map((t) => [t.id, t]));
    const all = s.members.flatMap((m) => byId.get(`${m.job}/${m.step}`) ?? []);
    if (all.length < s.members.length) return;
    const [head, ...others] = all;
    const pinned = [head, ...others].find((t) => t.fixedStart != null);
    others.forEach((t, i) => {
      const after = (s.as === "oven" ? head : all[i]).id;
      if (s.as !== "oven") {
        this.lags.push({ from: after as string, to: t.id as string, min: 0, max: pinned ? null : APART_MIN });
        return;
      }
      // it lies in there with the first: nobody else's hands, nor a second run; what it waits for, all of them wait for
      t.uses = [];
      if (pinned) {
        head.fixedStart ??= pinned.fixedStart;
        t.fixedStart ??= pinned.fixedStart;
        return;
      }
      this.within.set(t.id as string, { head: head.id as string, minutes: t.minutes as number });
      t.minutes = 0;
      t.pausable = false;
      head.earliest = Math.max(head.earliest ?? 0, t.earliest ?? 0);
      for (const l of this.lags) if (l.to === t.id) l.to = head.id;
      this.lags.push({ from: head.id, to: t.id, min: 0, max: 0 });
    });
  }
  /** One shop has one climate: only a room of its own makes the air another one. */
  clockFor(plan: Planned, air: Air, of: DryingOf, film: Film | null = null): string {
    const key = `${film?.roomC ?? null}|${film?.roomRh ?? null}|${of.waterBorne}|${of.minC}|${of.fan}|${of.limit}`;
    const found = this.clocks.get(key);
    if (found) return found.id;
    const rates = this.known(key, () => ratesOf(plan, air, of, this.origin, this.days, this.stretch));
    const made = { id: `air ${this.clocks.size + 1}`, rates };
    this.clocks.set(key, made);
    return made.id;
  }
  /**
   * What is done takes nothing any more. What is under way does, but for work out of hours, or a second one of the same hands: both
   * are facts, and no schedule may be refused for them.
   */
  usesOf(p: Placed, c: Context): string[] {
    const asks = this.resourcesOf(p, c);
    if (!p.actual) return asks;
    const open = c.calendar.openAt(p.actual.start);
    const running =
      p.actual.end === null &&
      open !== null &&
      open.from <= p.actual.start &&
      open.to >= (p.end as number) &&
      asks.every((r) => r === "present" || !this.underWay.has(r));
    if (!running) return [];
    for (const r of asks) this.underWay.add(r);
    return asks;
  }
}

/** One job written down as tasks and lags of its shop. */
class JobWriting {
  private readonly c: Context;
  constructor(
    private readonly shop: Writing,
    private readonly plan: Planned,
    /** its steps that still count */
    private readonly known: ReadonlySet<Placed>,
  ) {
    this.c = plan.context;
  }

  private idOf(i: number): string {
    return `${this.c.job.id}/${this.plan.placed[i].step.id}`;
  }
  private minutesOf(p: Placed): number {
    return p.actual
      ? Math.max(0, Math.round((p.end as number) - (p.start as number)))
      : Math.max(0, Math.ceil(p.minutes as number));
  }
  /** the step that a film, or a time of its own, counts from: the last one before that ended then; -1: it is past */
  private source(at: number, before: number): number {
    const { placed } = this.plan;
    for (let j = before - 1; j >= 0; j--) if (placed[j].end === at) return this.known.has(placed[j]) ? j : -1;
    return -1;
  }

  write(): void {
    this.plan.placed.forEach((p, i) => {
      if (!this.known.has(p)) return;
      this.task(p, i);
      const { placed } = this.plan;
      if (i === 0 || (p.actual && placed[i - 1].actual)) return; // what is past is as it is
      this.follows(p, i);
      if (p.actual || placed[i - 1].step.waitMin !== null) return;
      const needs = [...needsOf(p.step, p.before, this.c), ...restNeed(p.step, p.before, this.plan.rests ?? NO_RESTS)];
      for (const n of needs) this.waits(p, i, n);
    });
  }

  private task(p: Placed, i: number): void {
    const { c, shop } = this;
    const minutes = this.minutesOf(p);
    const uses = shop.usesOf(p, c);
    const last = i === this.plan.placed.length - 1;
    // the batch waits for the day on which the proof is accepted
    const held = this.plan.placed[i - 1]?.cycle.length ? (this.plan.proof?.accepted ?? null) : null;
    const notBefore = Math.max(
      shop.o.now ?? -Infinity,
      this.plan.now ?? -Infinity,
      c.clock.fromLocal(c.job.start),
      held ?? -Infinity,
    );
    const pin = c.job.queue?.pins?.find((x) => x.step === p.step.id);
    shop.tasks.set(this.idOf(i), { job: c.job.id, step: p.step.id });
    shop.list.push({
      id: this.idOf(i),
      minutes,
      uses: uses.map((resource) => ({ resource })),
      pausable: p.unit !== null || minutes > c.calendar.longest,
      due: last && c.job.due ? Math.max(0, c.clock.fromLocal(c.job.due) - shop.origin) : null,
      weight: c.job.queue?.weight ?? 1,
      earliest: Math.max(0, Math.ceil(notBefore) - shop.origin),
      // a log out of a file may know parts of a minute; what a pin says that is past says nothing any more
      fixedStart: p.actual
        ? Math.round(p.start as number) - shop.origin
        : pin && pin.at >= notBefore
          ? pin.at - shop.origin
          : null,
    });
  }

  /** It comes behind the step before it; what waits for something to dry stands on the rack until it goes on. */
  private follows(p: Placed, i: number): void {
    const before = this.plan.placed[i - 1];
    if (!this.known.has(before)) return;
    const { rack } = this.shop.o;
    const holds = rack && liesBetween(before, p) ? [{ resource: "rack", amount: Math.min(rack, this.c.pieces) }] : [];
    this.shop.lags.push({ from: this.idOf(i - 1), to: this.idOf(i), min: before.step.waitMin ?? 0, holds });
  }

  private waits(p: Placed, i: number, n: Need): void {
    if (n.fixed) return this.waitsPlainly(i, n.fixed);
    const seen = new Set<string>();
    for (const stack of n.stacks)
      for (const r of reached(stack.films, n.state, this.c, n.more)) this.waitsForFilm(p, i, n.state, r, seen);
  }

  /** A wait on a clock of its own. */
  private waitsPlainly(i: number, fixed: NonNullable<Need["fixed"]>): void {
    const j = this.source(fixed.at, i);
    if (j < 0) return;
    const of: DryingOf = { waterBorne: fixed.waterBorne, minC: fixed.waterBorne ? 0 : null, fan: true, limit: "plain" };
    const clock = fixed.plain ? null : this.shop.clockFor(this.plan, this.c.air, of);
    this.shop.lags.push({ from: this.idOf(j), to: this.idOf(i), min: fixed.refMin, clock });
  }

  /** A film that must have come so far, and must not be past its window. @param seen lags of this step that are written already */
  private waitsForFilm(
    p: Placed,
    i: number,
    state: WaitState,
    { film, ref }: { film: Film; ref: number | null },
    seen: Set<string>,
  ): void {
    const { c, shop } = this;
    const j = this.source(film.laidAt as number, i);
    if (j < 0) return;
    const paint = c.paintOf(film.productId);
    const windowed = state === "recoat" || state === "lift";
    const air = airOf(c, film);
    const window = windowed ? (state === "lift" ? liftMinutes : closingMinutes)(paint, film.dryUm) : NO_WINDOW;
    let max: number | null = null;
    let closeClock: string | null = null;
    if (window.closes !== null) {
      const closes = dryingOf(paint, state, "closes");
      closeClock = shop.clockFor(this.plan, air, closes, film);
      // The window speaks of the end of the coat, a lag of its beginning: less what the clock runs while it is laid.
      const start = p.start as number;
      max = Math.max(0, window.closes - dried(c.clock, air, closes, start, start + this.minutesOf(p)));
      // what no beginning could keep is told by the plan, and bends no schedule
      if (ref !== null && max <= ref && window.reopens === null) max = null;
    }
    const key = `${j}|${ref}|${max}`;
    if (seen.has(key) || (ref === null && max === null)) return;
    seen.add(key);
    const reopens = max === null || window.reopens === null ? null : Math.max(window.reopens, max);
    const opens = dryingOf(paint, state, windowed ? "opens" : "plain");
    shop.lags.push({
      from: this.idOf(j),
      to: this.idOf(i),
      min: ref ?? 0,
      max,
      reopens,
      soft: max !== null && reopens === null,
      clock: ref === null && reopens === null ? null : shop.clockFor(this.plan, air, opens, film),
      closeClock,
    });
  }
}
/** Does a piece lie at a place to dry between two steps? */
const liesBetween = (before: Placed, p: Placed): boolean => p.needs.length > 0 || before.step.waitMin !== null;
/** Between which steps that are not both past a job's pieces lie at places to dry. */
export const dryingPlaces = ({ placed }: Pick<Planned, "placed">): { before: Placed; p: Placed }[] =>
  inTurn(placed).flatMap((p, i, all) => {
    const before = all[i - 1];
    return before && !(p.actual && before.actual) && liesBetween(before, p) ? [{ before, p }] : [];
  });
const NO_WINDOW = { closes: null, reopens: null };

/** What was done long before the next step opens and shuts nothing any more. */
function stillCounts(p: Planned): Set<Placed> {
  const next = p.placed.find((s) => !s.actual)?.start ?? Infinity;
  return new Set(p.placed.filter((s) => !s.actual || (s.end as number) > (next as number) - PAST_DAYS * DAY));
}

/** Why a job is not laid; null: it is. */
export const whyLeft = (p: Pick<Planned, "placed" | "stuck" | "missing">): string | null =>
  p.placed.length > 0 && p.stuck === null ? null : (p.stuck ?? p.missing[0]?.say ?? "it has no steps");

/** @param given plans of open jobs in one shop, each as it stands */
export function shopProblem(given: Planned[], o: ShopOptions = {}): ShopProblem {
  const plans = given.map(({ context, placed, now, stuck, missing, rests }) => ({
    context,
    placed: inTurn(placed),
    now,
    stuck,
    missing,
    rests,
  }));
  const able = plans.filter((p) => whyLeft(p) === null);
  const left = plans.flatMap((p) => {
    const why = whyLeft(p);
    return why === null ? [] : [{ job: p.context.job.id, why }];
  });
  const kept = new Map(able.map((p) => [p, stillCounts(p)]));
  // the horizon begins with the first thing that is known, on a whole day so that stretches are alike in every problem
  const first = Math.min(
    ...[...kept.values()].flatMap((all) => [...all].map((s) => s.start as number)),
    o.now ?? Infinity,
  );
  const origin = Math.floor(first / DAY) * DAY;
  const shop = new Writing(origin, o.days ?? DAYS, o.stretch ?? STRETCH, o);
  for (const plan of able) new JobWriting(shop, plan, kept.get(plan)!).write();
  for (const s of o.sessions ?? []) shop.tie(s);
  const titles = able.map((p) => p.context.job.title).join(", ");
  const problem = ownProblem({
    name: titles.slice(0, 300),
    seed: o.seed ?? 1,
    limitSeconds: o.limitSeconds === undefined ? 10 : o.limitSeconds,
    limitIterations: o.limitIterations ?? null,
    resources: [...shop.resources.values()],
    clocks: [...shop.clocks.values()],
    tasks: shop.list,
    lags: shop.lags,
    trip: shop.resources.has("hands") ? { resource: "hands", gap: TRIP_GAP_MIN } : null,
    finishBucket: BUCKET,
  });
  return { origin, tasks: shop.tasks, within: shop.within, left, problem };
}

/** Where each step of each job begins, min since 1970. */
export function startsOf(shop: ShopProblem, answer: Pick<Answer, "tasks">): Map<string, Map<string, number>> {
  const out = new Map<string, Map<string, number>>();
  const began = new Map(answer.tasks.map((t) => [t.id, t.start]));
  for (const t of answer.tasks) {
    const at = shop.tasks.get(t.id);
    if (!at) continue;
    const start = began.get(shop.within.get(t.id)?.head ?? t.id) as number;
    (out.get(at.job) ?? out.set(at.job, new Map()).get(at.job)!).set(at.step, shop.origin + start);
  }
  return out;
}
