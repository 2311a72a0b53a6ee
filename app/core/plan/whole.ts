/**
 * All jobs of a shop laid together on its hands, machines, oven and spray corner. Each is planned as if it were alone, all of them go to
 * the scheduler as one problem, and each is placed again from the times that were found: drying, windows and hours are judged by its own
 * models once more, so that what the shop's calendar says is what the job's own says.
 */
import type { World } from "../records/world";
import type { Answer, Problem } from "../schedule/problem";
import { laidInOrder, replan } from "../schedule/replan";
import { solveInTurn, type Progress } from "../schedule/solve";
import { Known } from "./known";
import { ALONE, laidOf, makePlan, placedAgain, type Plan } from "./plan";
import { brokenWindows, inTurn } from "./placed";
import { BUCKET, shopProblem, startsOf, whyLeft, type ShopProblem } from "./schedule";
import { carried, carrying, wins, type Session } from "./sessions";
import { asPlaced, clashesIn, rackOver, settledSoon, settledTogether, torn, type Queued } from "./settle";
import {
  holdingPlans,
  placesIn,
  putOrApart,
  shopOptions,
  togetherInTurn,
  type LayOptions,
  type Memo,
  type Put,
} from "./together";

export interface WholeShop {
  jobs: Queued[];
  left: { job: string; title: string; why: string; held: boolean }[];
  /** null: there is nothing to lay, or it stands as it stood and how good that is is not worked out yet */
  answer: Answer | null;
  /** minute since 1970 from which the answer counts */
  origin: number;
  /** little was moved, and nothing was searched for */
  kept: boolean;
  /** works that are done together, and the minutes that each wins */
  together: { session: Session; wins: number }[];
}
export type LayWord =
  | { is: "searching"; progress: Progress }
  | { is: "found"; shop: WholeShop }
  /** works were tried together: it goes on */
  | { is: "trying" };

const FIRST = 60;
/** of them as many before something is shown, and seconds for all of them where somebody looks on */
const QUICK = 3;
const FIRST_S = 4;
/** shares of a search’s time: with the waits as first thought, and as they came out */
const SHARES = [0.85, 0.15];
/** share of the steps to come, of jobs that go by the calendar, whose place must be known for them to be kept */
const KNOWN = 0.6;
/** where less of all steps to come has a place than this share, all of it is laid anew */
const OLD = 0.25;

/** Is a job still open? What is finished is laid no more; what is held is named, and left out. */
export const queued = (w: World): boolean => w.job.wrapUp.closedAt === null;

type Starts = ReadonlyMap<string, number>;
/** Where steps stood, as an answer of the scheduler. @param of beginnings of a job's steps, min since 1970; null: it has none */
function whereStood(shop: ShopProblem, of: (job: string) => Starts | null | undefined): Pick<Answer, "tasks"> {
  const tasks = shop.problem.tasks.flatMap((t) => {
    const { job, step } = shop.tasks.get(t.id)!;
    const start = of(job)?.get(step);
    return start === undefined || start < shop.origin
      ? []
      : [
          {
            id: t.id,
            start: Math.ceil(start) - shop.origin + (shop.within.get(t.id)?.minutes ?? 0),
            end: 0,
            pauses: [],
          },
        ];
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
    return [{ alone, starts: toCome, plan: placedAgain(alone, now, toCome) }];
  });
}

/** Jobs where the calendar that is gone by has them; null: it does not know all of their steps. */
function standing(plans: readonly Plan[], now: number): Queued[] | null {
  const list = plans
    .filter((p) => whyLeft(p) === null)
    .map((alone): Queued | null => {
      const starts = laidOf(alone.context.job);
      const known = starts && alone.placed.every((p) => p.actual || starts.has(p.step.id));
      return known ? { alone, starts, plan: placedAgain(alone, now, starts) } : null;
    });
  return list.every((q) => q !== null) ? list : null;
}
/** times that jobs are put to the scheduler again as they came out: how long a stack dries depends on when its coats were laid */
const ROUNDS = 3;
/** Placed, and put to the scheduler again with the waits that came of it, until nobody is in another’s way or it gets no better. */
function agreed(
  plans: Plan[],
  shop: ShopProblem,
  answer: Answer,
  o: LayOptions,
  sessions: readonly Session[],
  rounds = ROUNDS,
): Queued[] {
  const more = o.more ?? {};
  let list = placedFrom(plans, shop, answer, o.now);
  const alone = new Map(list.map((q) => [q.plan.context.job.id, q.alone]));
  for (let k = 0; k < rounds && clashesIn(list, more); k++) {
    const next = shopProblem(
      list.map((q) => q.plan),
      { ...shopOptions(o, plans), sessions },
    );
    const at = new Map(list.map((q) => [q.plan.context.job.id, asPlaced(q).starts]));
    const again = replan(
      next.problem,
      whereStood(next, (job) => at.get(job)),
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
/** minutes that a plan of a job alone may be older, for what is shown first */
export const STALE_MIN = 360;

/** Jobs that go, each as if it were alone and did nothing together with another. */
const plainPlans = (goes: readonly World[], o: LayOptions, { known, stale }: Memo): Plan[] =>
  carrying(goes, [], []).map((w) => known.alone(w, o.now, stale));

/** What is not laid, and why. @param all plans of those that go */
function leftOf(open: readonly World[], all: readonly Plan[]): WholeShop["left"] {
  const title = new Map(open.map((w) => [w.job.id, w.job.title]));
  return [
    ...all.flatMap((p) => {
      const { id } = p.context.job;
      const why = p.missing[0]?.say ?? whyLeft(p);
      return why === null ? [] : [{ job: id, title: title.get(id) ?? id, why, held: false }];
    }),
    ...open
      .filter((w) => w.job.queue?.hold)
      .map(({ job }) => ({ job: job.id, title: job.title, why: "It is held.", held: true })),
  ];
}

/** Jobs where the calendar that is gone by has them. */
interface Stood {
  jobs: Queued[];
  sessions: Session[];
  /** a few works gave way: it may be that another calendar is better */
  gaveWay: boolean;
}
/** null: somewhere it is not known, or too many would have to give way */
function asItStands(goes: readonly World[], able: readonly Plan[], memo: Memo, o: LayOptions): Stood | null {
  const { plans, sessions } = holdingPlans(goes, able, carried(goes), o, memo);
  const more = o.more ?? {};
  const stands = standing(plans, o.now);
  if (!stands?.length || rackOver(stands, placesIn(goes[0]))) return null;
  const jobs = settledSoon(stands, sessions, o.now, more);
  return jobs && { jobs, sessions, gaveWay: clashesIn(stands, more) };
}

/** Windows that are missed, minutes that are late by weight, the moment all is done: of jobs as they really came to lie. */
function costOf(list: readonly Queued[]): [missed: number, late: number, done: number] {
  let [missed, late, done] = [0, 0, -Infinity];
  for (const { plan } of list) {
    const { job, clock } = plan.context;
    missed += brokenWindows(plan.placed);
    done = Math.max(done, plan.ready ?? -Infinity);
    if (job.due !== null && plan.ready !== null)
      late += (job.queue?.weight ?? 1) * Math.max(0, plan.ready - clock.fromLocal(job.due));
  }
  return [missed, late, done];
}
/** Does one calendar miss more windows than another, or more days, by more than some minutes? @param whole is it done later, too? */
function worse(a: readonly Queued[], b: readonly Queued[], whole = false): boolean {
  const [[missed, late, done], [was, before, end]] = [costOf(a), costOf(b)];
  return missed > was || late > before + BUCKET || (whole && done > end + 2 * BUCKET);
}
/** The calendar that misses less, is less late, is done sooner; of two alike the first. */
function betterOf(a: WholeShop, b: WholeShop): WholeShop {
  const [x, y] = [costOf(a.jobs), costOf(b.jobs)];
  const k = x.findIndex((v, i) => Math.abs(v - y[i]) >= 1);
  return k < 0 || x[k] < y[k] ? a : b;
}

/**
 * @param worlds jobs of one shop; those wrapped up are no part of it
 * @returns the last that was found; null answers where there is nothing to lay
 */
export function* layShopInTurn(worlds: readonly World[], o: LayOptions): Generator<LayWord, WholeShop> {
  const open = worlds.filter(queued);
  const goes = open.filter((w) => !w.job.queue?.hold);
  const known = o.known ?? new Known();
  known.begins();
  const more = o.more ?? {};
  const memo: Memo = { times: new Map(), known, stale: o.known ? STALE_MIN : 0 };
  const all = plainPlans(goes, o, memo);
  const able = all.filter((p) => !p.missing.length);
  const left = leftOf(open, all);
  const stood = o.anew ? null : asItStands(goes, able, memo, o);
  if (o.known && stood) {
    // there at once; how good it is comes behind
    const together = stood.sessions.map((session) => ({ session, wins: wins(session, able) }));
    yield { is: "found", shop: { jobs: stood.jobs, left, answer: null, origin: 0, kept: true, together } };
  }
  let now = putOrApart(goes, able, carried(goes), o, memo);
  /** Placed; what does not come to lie together is taken apart. */
  const made = ({ plans, shop, sessions }: Put, answer: Answer, kept: boolean, rounds = ROUNDS): WholeShop => {
    const anew = kept && stood && !stood.gaveWay ? null : agreed(plans, shop, answer, o, sessions, rounds);
    let jobs = kept && stood && (!anew || !worse(stood.jobs, anew)) ? stood.jobs : anew!;
    let rest = [...sessions];
    for (let k = 0; k <= sessions.length; k++) {
      jobs = settledTogether(jobs, rest, o.now, more);
      const apart = torn(jobs, rest);
      if (!apart.length) break;
      rest = rest.filter((s) => !apart.includes(s));
      jobs = without(jobs, rest, able, o.now);
    }
    const together = rest.map((session) => ({ session, wins: wins(session, able) }));
    return { jobs, left, answer, origin: shop.origin, kept, together };
  };
  if (!now.shop.problem.tasks.length)
    return { jobs: [], left, answer: null, origin: now.shop.origin, kept: false, together: [] };
  const laid = new Map(open.map((w) => [w.job.id, o.anew ? null : laidOf(w.job)]));
  const before = whereStood(now.shop, (job) => laid.get(job));
  const placed = new Set(before.tasks.map((t) => t.id));
  const free = now.shop.problem.tasks.filter((t) => t.fixedStart === null);
  const mine = free.filter((t) => laid.get(now.shop.tasks.get(t.id)!.job));
  const stay = mine.filter((t) => placed.has(t.id)).length;
  const stands = stay > 0 && stay >= KNOWN * mine.length && stay >= OLD * free.length;
  let first = stands ? replan(now.shop.problem, before) : null;
  const kept = first !== null;
  if (!first) {
    let begin = oneByOne(now.shop);
    if (o.together) {
      // something to look at, and then a good one
      const quick = yield* searched(now.shop.problem, { iterations: QUICK, seconds: null, begin }, o);
      yield { is: "found", shop: made(now, quick, false, 0) };
      begin = startsIn(now.shop.problem, quick);
    }
    const seconds = o.together && o.clock ? FIRST_S : null;
    first = yield* searched(now.shop.problem, { iterations: o.iterations ?? FIRST, seconds, begin }, o);
  }
  let best = made(now, first, kept);
  const told = best.answer;
  if (o.together) {
    yield { is: "found", shop: best };
    // where jobs stand already only those that are new among them are looked at
    const only = kept && !o.seconds ? new Set([...laid].flatMap(([job, at]) => (at ? [] : [job]))) : null;
    const trials = togetherInTurn({ put: now, answer: first, placed: best.jobs }, goes, able, only, o, memo);
    for (;;) {
      const r = trials.next();
      if (r.done) {
        if (r.value.put === now) break;
        const together = made(r.value.put, r.value.answer, false);
        // what wins minutes may come to lie worse, once it is placed: then it is done apart, as before
        if (worse(together.jobs, best.jobs, true)) break;
        [best, now, first] = [together, r.value.put, r.value.answer];
        break;
      }
      yield { is: "trying" };
    }
  }
  if (!o.together || best.answer !== told) yield { is: "found", shop: best };
  // what could still be won is said of the waits as first thought
  let bounds: Pick<WholeShop, "answer" | "origin"> | null = null;
  for (const share of o.seconds > 0 ? SHARES : []) {
    if (o.stop?.()) break;
    const better: Answer = yield* searched(
      now.shop.problem,
      { iterations: null, seconds: share * o.seconds, begin: startsIn(now.shop.problem, first) },
      o,
    );
    const found = made(now, better, false);
    bounds ??= { answer: better, origin: now.shop.origin };
    best = { ...betterOf(best, found), ...bounds };
    yield { is: "found", shop: best };
    // once more with the waits as they came out: how long a stack dries depends on when its coats were laid
    const { plans, sessions } = now;
    const placed = best.jobs.map((q) => q.plan);
    now = { plans, sessions, shop: shopProblem(placed, { ...shopOptions(o, plans), sessions }) };
    first = { ...better, tasks: answerTasks(now.shop, best.jobs) };
  }
  const fresh = freshAlone(best, known, o.now);
  if (fresh !== best) yield { is: "found", shop: fresh };
  return fresh;
}
/** Beside each job how it would be if it were alone, as of now. */
function freshAlone(shop: WholeShop, known: Known, now: number): WholeShop {
  const jobs = shop.jobs.map((q) => {
    const alone = known.alone(q.alone.context.world, now);
    return alone === q.alone ? q : { ...q, alone };
  });
  return jobs.every((q, i) => q === shop.jobs[i]) ? shop : { ...shop, jobs };
}
/**
 * Where few places to dry at are shared, lists in any other order may take them from one another: one job after the other always goes,
 * what is due first and what is begun before all others. Null: there are places enough.
 */
function oneByOne({ problem, tasks }: ShopProblem): Float64Array | null {
  if (!problem.resources.some((r) => r.id === "rack")) return null;
  const jobs = new Map<string, { begun: boolean; due: number }>();
  for (const t of problem.tasks) {
    const { job } = tasks.get(t.id)!;
    const is = jobs.get(job) ?? jobs.set(job, { begun: false, due: Infinity }).get(job)!;
    is.begun ||= t.fixedStart !== null;
    is.due = Math.min(is.due, t.due ?? Infinity);
  }
  const order = [...jobs]
    .sort(([, a], [, b]) => Number(b.begun) - Number(a.begun) || a.due - b.due)
    .map(([job]) => job);
  const rank = new Map(order.map((job, i) => [job, i * problem.tasks.length]));
  const keys = new Map(problem.tasks.map((t, i) => [t.id, rank.get(tasks.get(t.id)!.job)! + i]));
  const found = laidInOrder(problem, keys);
  return found && startsIn(problem, found);
}
/** Jobs as they came to lie, as an answer. */
function answerTasks(shop: ShopProblem, jobs: readonly Queued[]): Answer["tasks"] {
  const at = new Map(jobs.map((q) => [q.plan.context.job.id, asPlaced(q).starts]));
  return whereStood(shop, (job) => at.get(job)).tasks;
}
/** Beginnings of an answer, as the problem’s tasks stand. */
function startsIn(problem: Problem, answer: Pick<Answer, "tasks">): Float64Array {
  const at = new Map(answer.tasks.map((t) => [t.id, t.start]));
  return Float64Array.from(problem.tasks, (t) => at.get(t.id) ?? 0);
}
/** Jobs that do no more together than these sessions, where they stand by now. */
function without(jobs: readonly Queued[], sessions: readonly Session[], plain: readonly Plan[], now: number): Queued[] {
  const worlds = carrying(
    jobs.map((q) => q.alone.context.world),
    sessions,
    plain,
  );
  return jobs.map((q, i) =>
    worlds[i] === q.alone.context.world
      ? q
      : { ...q, alone: makePlan(worlds[i], now, true, ALONE), plan: makePlan(worlds[i], now, true, q.starts) },
  );
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
