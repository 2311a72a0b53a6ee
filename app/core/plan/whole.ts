/**
 * All jobs of a shop laid together on its hands, machines, oven and spray corner. Each is planned as if it were alone, all of them go to
 * the scheduler as one problem, and each is placed again from the times that were found: drying, windows and hours are judged by its own
 * models once more, so that what the shop's calendar says is what the job's own says.
 */
import type { World } from "../records/world";
import type { Answer, Problem } from "../schedule/problem";
import { replan } from "../schedule/replan";
import { solveInTurn, type Progress } from "../schedule/solve";
import { ALONE, laidOf, makePlan, type Plan } from "./plan";
import { brokenWindows, inTurn } from "./placed";
import { lanesOf, shopProblem, startsOf, type ShopProblem } from "./schedule";

export interface Queued {
  /** as it would be if it were alone */
  alone: Plan;
  /** among the others */
  plan: Plan;
  starts: ReadonlyMap<string, number>;
}
export interface WholeShop {
  jobs: Queued[];
  left: { job: string; title: string; why: string; held: boolean }[];
  /** null: there is nothing to lay */
  answer: Answer | null;
  /** minute since 1970 from which the answer counts */
  origin: number;
  /** little was moved, and nothing was searched for */
  kept: boolean;
}
export interface LayOptions {
  now: number;
  /** seconds of search; 0: as it stood with little moved, or the first good one */
  seconds: number;
  /** seconds, from any moment, for the limit */
  clock?: () => number;
  stop?: () => boolean;
  more?: Readonly<Record<string, number>>;
  /** where jobs stood counts for nothing: they are laid anew */
  anew?: boolean;
  /** lists laid for a first answer */
  iterations?: number;
}
export type LayWord = { is: "searching"; progress: Progress } | { is: "found"; shop: WholeShop };

const FIRST = 60;
/** share of the steps to come whose place must be known for them to be kept */
const KNOWN = 0.6;

/** Is a job still open? What is finished is laid no more; what is held is named, and left out. */
export const queued = (w: World): boolean => w.job.wrapUp.closedAt === null;

type Starts = ReadonlyMap<string, number>;
/** Where steps stood, as an answer of the scheduler. @param of beginnings of a job's steps, min since 1970; null: it has none */
function stood(shop: ShopProblem, of: (job: string) => Starts | null | undefined): Pick<Answer, "tasks"> {
  const tasks = shop.problem.tasks.flatMap((t) => {
    const { job, step } = shop.tasks.get(t.id)!;
    const start = of(job)?.get(step);
    return start === undefined || start < shop.origin
      ? []
      : [{ id: t.id, start: Math.ceil(start) - shop.origin, end: 0, pauses: [] }];
  });
  return { tasks };
}

/** Jobs placed again from what was found. */
function placedFrom(plans: Plan[], shop: ShopProblem, answer: Answer, now: number): Queued[] {
  const starts = startsOf(shop, answer);
  return plans.flatMap((alone) => {
    const mine = starts.get(alone.context.job.id);
    if (!mine) return [];
    // what is done is where it is; what is to come begins no earlier than found
    const toCome = new Map([...mine].filter(([step]) => !alone.bench.actuals.has(step)));
    return [{ alone, starts: toCome, plan: makePlan(alone.context.world, now, true, toCome) }];
  });
}

/** Jobs where the calendar that is gone by has them; null: it does not know all of their steps. */
function standing(plans: readonly Plan[], now: number): Queued[] | null {
  const list = plans.map((alone): Queued | null => {
    const starts = laidOf(alone.context.job);
    const known = starts && alone.placed.every((p) => p.actual || starts.has(p.step.id));
    return known ? { alone, starts, plan: makePlan(alone.context.world, now, true, starts) } : null;
  });
  return list.every((q) => q !== null) ? list : null;
}
/** Beginnings as they came out: laid by them again nothing moves. */
const asPlaced = (q: Queued): Queued => ({
  ...q,
  starts: new Map(
    inTurn(q.plan.placed).flatMap((p) => (p.actual || p.start === null ? [] : [[p.step.id, p.start] as const])),
  ),
});

/** One job's step that takes up a lane for a while. */
interface Taken {
  job: number;
  step: string;
  lane: string;
  from: number;
  to: number;
  done: boolean;
}
const takenBy = (q: Queued, job: number, more: Readonly<Record<string, number>>): Taken[] =>
  inTurn(q.plan.placed).flatMap((p) =>
    p.start === null || p.end === null || p.end <= p.start
      ? []
      : lanesOf(p, q.plan.context)
          .filter((lane) => lane !== "present" && !more[lane])
          .map((lane) => ({
            job,
            step: p.step.id,
            lane,
            from: p.start as number,
            to: p.end as number,
            done: p.actual !== null,
          })),
  );
const inOrder = (lists: readonly Taken[][]): Taken[] => lists.flat().sort((a, b) => a.from - b.from || a.to - b.to);
/** The first two that want the same at once. */
function firstClash(list: readonly Taken[]): [Taken, Taken] | null {
  const last = new Map<string, Taken>();
  for (const x of list) {
    const y = last.get(x.lane);
    if (y && y.job !== x.job && x.from < y.to - MINUTE && !(x.done && y.done)) return [y, x];
    if (!y || x.to > y.to) last.set(x.lane, x);
  }
  return null;
}
/** parts of a minute add up to one */
const MINUTE = 1;
/** clashes that are mended at most, a step of all jobs */
const MENDS = 2;
/** minutes that a job may be later for giving way, besides what it gives way by: more, and the other one is asked */
const MEEK = 30;

/**
 * Placed again a job may need some minutes more or less than the scheduler took it for: where that makes two want the same at once, one
 * of them gives way, whichever costs less.
 */
function settled(jobs: Queued[], now: number, more: Readonly<Record<string, number>>): Queued[] {
  let list = jobs;
  const taken = list.map((q, i) => takenBy(q, i, more));
  const most = MENDS * jobs.reduce((n, q) => n + q.plan.placed.length, 0);
  for (let k = 0; k < most; k++) {
    const clash = firstClash(inOrder(taken));
    if (!clash) return list;
    const [a, b] = clash;
    const pushed = (x: Taken, behind: Taken): { of: number; q: Queued; cost: number } | null => {
      if (x.done) return null;
      const q = list[x.job];
      const starts = new Map([...q.starts, [x.step, Math.ceil(behind.to)] as const]);
      const plan = makePlan(q.alone.context.world, now, true, starts);
      const cost =
        (plan.ready ?? Infinity) -
        (q.plan.ready ?? 0) +
        1440 * (brokenWindows(plan.placed) - brokenWindows(q.plan.placed));
      return { of: x.job, q: { ...q, starts, plan }, cost };
    };
    const first = pushed(b, a);
    const second = !first || first.cost > a.to - b.from + MEEK ? pushed(a, b) : null;
    const way = !first || (second && second.cost < first.cost - MINUTE) ? second : first;
    if (!way) return list;
    list = list.map((q, i) => (i === way.of ? way.q : q));
    taken[way.of] = takenBy(way.q, way.of, more);
  }
  return list;
}

/** times that jobs are put to the scheduler again as they came out: how long a stack dries depends on when its coats were laid */
const ROUNDS = 3;
/** Placed, and put to the scheduler again with the waits that came of it, until nobody is in another’s way or it gets no better. */
function agreed(plans: Plan[], shop: ShopProblem, answer: Answer, o: LayOptions): Queued[] {
  const more = o.more ?? {};
  let list = placedFrom(plans, shop, answer, o.now);
  const alone = new Map(list.map((q) => [q.plan.context.job.id, q.alone]));
  for (let k = 0; k < ROUNDS && clashesIn(list, more); k++) {
    const next = shopProblem(
      list.map((q) => q.plan),
      { now: o.now, more: o.more, limitSeconds: null },
    );
    const at = new Map(list.map((q) => [q.plan.context.job.id, asPlaced(q).starts]));
    const again = replan(
      next.problem,
      stood(next, (job) => at.get(job)),
    );
    if (!again) break;
    list = placedFrom(
      list.map((q) => alone.get(q.plan.context.job.id)!),
      next,
      again,
      o.now,
    );
  }
  return list;
}
const clashesIn = (list: readonly Queued[], more: Readonly<Record<string, number>>): boolean =>
  firstClash(inOrder(list.map((q, i) => takenBy(q, i, more)))) !== null;

/**
 * @param worlds jobs of one shop; those wrapped up are no part of it
 * @returns the last that was found; null answers where there is nothing to lay
 */
export function* layShopInTurn(worlds: readonly World[], o: LayOptions): Generator<LayWord, WholeShop> {
  const open = worlds.filter(queued);
  const held = open.filter((w) => w.job.queue?.hold);
  const plans = open.filter((w) => !w.job.queue?.hold).map((w) => makePlan(w, o.now, true, ALONE));
  const able = plans.filter((p) => !p.missing.length);
  const shop = shopProblem(able, { now: o.now, more: o.more, limitSeconds: null });
  const title = (job: string): string => open.find((w) => w.job.id === job)?.job.title ?? job;
  const left = [
    ...plans.filter((p) => p.missing.length).map((p) => ({ job: p.context.job.id, why: p.missing[0].say })),
    ...shop.left,
  ]
    .map((x) => ({ ...x, title: title(x.job), held: false }))
    .concat(held.map(({ job }) => ({ job: job.id, title: job.title, why: "It is held.", held: true })));
  const more = o.more ?? {};
  const made = (answer: Answer, kept: boolean): WholeShop => {
    const stands = kept ? standing(able, o.now) : null;
    const jobs = stands && !clashesIn(stands, more) ? stands : agreed(able, shop, answer, o);
    return { jobs: settled(jobs, o.now, more).map(asPlaced), left, answer, origin: shop.origin, kept };
  };
  if (!shop.problem.tasks.length) return { jobs: [], left, answer: null, origin: shop.origin, kept: false };
  const laid = new Map(open.map((w) => [w.job.id, o.anew ? null : laidOf(w.job)]));
  const before = stood(shop, (job) => laid.get(job));
  const placed = new Set(before.tasks.map((t) => t.id));
  const free = shop.problem.tasks.filter((t) => t.fixedStart === null);
  const known = free.filter((t) => placed.has(t.id)).length;
  let first = known >= KNOWN * free.length && free.length > 0 ? replan(shop.problem, before) : null;
  const kept = first !== null;
  if (!first)
    first = yield* searched(shop.problem, { iterations: o.iterations ?? FIRST, seconds: null, begin: null }, o);
  let best = made(first, kept);
  yield { is: "found", shop: best };
  if (o.seconds > 0) {
    const byId = new Map(first.tasks.map((t) => [t.id, t.start]));
    const begin = Float64Array.from(shop.problem.tasks, (t) => byId.get(t.id) ?? 0);
    const better = yield* searched(shop.problem, { iterations: null, seconds: o.seconds, begin }, o);
    best = made(better, false);
    yield { is: "found", shop: best };
  }
  return best;
}

/** @throws Error with the scheduler's own sentence where pins and windows contradict one another */
function* searched(
  problem: Problem,
  { iterations, seconds, begin }: { iterations: number | null; seconds: number | null; begin: Float64Array | null },
  o: LayOptions,
): Generator<LayWord, Answer> {
  const search = solveInTurn(problem, {
    ...(o.clock ? { now: o.clock } : {}),
    limitIterations: iterations,
    limitSeconds: seconds,
    stop: o.stop,
    plain: true,
    begin,
  });
  for (;;) {
    const r = search.next();
    if (!r.done) yield { is: "searching", progress: r.value };
    else if (r.value.is === "answer") return r.value.answer;
    else throw new Error(r.value.say);
  }
}

/** As {@link layShopInTurn}, at one go. */
export function layShop(worlds: readonly World[], o: LayOptions): WholeShop {
  const turns = layShopInTurn(worlds, o);
  for (;;) {
    const r = turns.next();
    if (r.done) return r.value;
  }
}

/** Every step of all jobs that is still to come or under way, in the order they begin. */
export const comingUp = (jobs: readonly Queued[]): { job: Queued; p: ReturnType<typeof inTurn>[number] }[] =>
  jobs
    .flatMap((job) => inTurn(job.plan.placed).map((p) => ({ job, p })))
    .filter(({ p }) => p.start !== null && p.actual?.end == null)
    .sort((a, b) => (a.p.start as number) - (b.p.start as number));

/** Works of different jobs that want the same hands, machine or oven at once, begun by a moment: where each job is planned by itself. */
export function clashesBy(jobs: readonly Queued[], until: number): number {
  const last = new Map<string, Taken>();
  let n = 0;
  for (const x of inOrder(jobs.map((q, i) => takenBy(q, i, {})))) {
    if (x.done || x.from > until) continue;
    const y = last.get(x.lane);
    if (y && y.job !== x.job && x.from < y.to - MINUTE) n++;
    if (!y || x.to > y.to) last.set(x.lane, x);
  }
  return n;
}
