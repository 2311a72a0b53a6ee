/**
 * All jobs of a shop laid together on its hands, machines, oven and spray corner. Each is planned as if it were alone, all of them go to
 * the scheduler as one problem, and each is placed again from the times that were found: drying, windows and hours are judged by its own
 * models once more, so that what the shop's calendar says is what the job's own says.
 */
import type { World } from "../records/world";
import type { Answer, Problem } from "../schedule/problem";
import { laidInOrder, replan } from "../schedule/replan";
import { solveInTurn, type Progress } from "../schedule/solve";
import { ALONE, laidOf, makePlan, placedAgain, type Plan } from "./plan";
import { inTurn } from "./placed";
import { shopProblem, startsOf, type ShopProblem } from "./schedule";
import { carried, carrying, wins, type Session } from "./sessions";
import { asPlaced, clashesIn, settledTogether, torn, type Queued } from "./settle";
import { putOrApart, shopOptions, togetherInTurn, type LayOptions, type Memo, type Put } from "./together";

export interface WholeShop {
  jobs: Queued[];
  left: { job: string; title: string; why: string; held: boolean }[];
  /** null: there is nothing to lay */
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
  const list = plans.map((alone): Queued | null => {
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
/**
 * @param worlds jobs of one shop; those wrapped up are no part of it
 * @returns the last that was found; null answers where there is nothing to lay
 */
export function* layShopInTurn(worlds: readonly World[], o: LayOptions): Generator<LayWord, WholeShop> {
  const open = worlds.filter(queued);
  const held = open.filter((w) => w.job.queue?.hold);
  const goes = open.filter((w) => !w.job.queue?.hold);
  const memo: Memo = { times: new Map(), plans: new Map() };
  const all = carrying(goes, [], []).map((w) => makePlan(w, o.now, true, ALONE));
  const able = all.filter((p) => !p.missing.length);
  let now = putOrApart(goes, able, carried(goes), o, memo);
  const title = (job: string): string => open.find((w) => w.job.id === job)?.job.title ?? job;
  const left = [
    ...all.filter((p) => p.missing.length).map((p) => ({ job: p.context.job.id, why: p.missing[0].say })),
    ...now.shop.left,
  ]
    .map((x) => ({ ...x, title: title(x.job), held: false }))
    .concat(held.map(({ job }) => ({ job: job.id, title: job.title, why: "It is held.", held: true })));
  const more = o.more ?? {};
  /** Placed; what does not come to lie together is taken apart. */
  const made = ({ plans, shop, sessions }: Put, answer: Answer, kept: boolean, rounds = ROUNDS): WholeShop => {
    const stands = kept ? standing(plans, o.now) : null;
    let jobs =
      stands && !clashesIn(stands, more) && !torn(stands, sessions).length
        ? stands
        : agreed(plans, shop, answer, o, sessions, rounds);
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
  const before = stood(now.shop, (job) => laid.get(job));
  const placed = new Set(before.tasks.map((t) => t.id));
  const free = now.shop.problem.tasks.filter((t) => t.fixedStart === null);
  const known = free.filter((t) => placed.has(t.id)).length;
  let first = known >= KNOWN * free.length && free.length > 0 ? replan(now.shop.problem, before) : null;
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
        if (r.value.put !== now) best = made(r.value.put, r.value.answer, false);
        [now, first] = [r.value.put, r.value.answer];
        break;
      }
      yield { is: "trying" };
    }
  }
  if (!o.together || best.answer !== told) yield { is: "found", shop: best };
  if (o.seconds > 0) {
    const begin = startsIn(now.shop.problem, first);
    const better = yield* searched(now.shop.problem, { iterations: null, seconds: o.seconds, begin }, o);
    best = made(now, better, false);
    yield { is: "found", shop: best };
  }
  return best;
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
/** Beginnings of an answer, as the problem’s tasks stand. */
function startsIn(problem: Problem, answer: Answer): Float64Array {
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
