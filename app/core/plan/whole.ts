/**
 * All jobs of a shop laid together on its hands, machines, oven and spray corner. Each is planned as if it were alone, all of them go to
 * the scheduler as one problem, and each is placed again from the times that were found: drying, windows and hours are judged by its own
 * models once more, so that what the shop's calendar says is what the job's own says.
 */
import type { World } from "../records/world";
import { ProblemError, type Answer, type Problem } from "../schedule/problem";
import { boundsFor, laidInOrder, replan } from "../schedule/replan";
import { solveInTurn, type Progress } from "../schedule/solve";
import { ALONE, laidOf, makePlan, placedAgain, type Plan } from "./plan";
import { brokenWindows, inTurn, sharedOf } from "./placed";
import { BUCKET, lanesOf, shopProblem, startsOf, type ShopOptions, type ShopProblem } from "./schedule";
import { APART_MIN, candidates, carried, carrying, holding, sameShared, withOne, wins, type Session } from "./sessions";

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
  /** works that are done together, and the minutes that each wins */
  together: { session: Session; wins: number }[];
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
  /** look for works that could be done together, besides those that are */
  together?: boolean;
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
  /** what it is done together with */
  session: string | null;
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
            session: sharedOf(p.step, q.plan.context)?.id ?? null,
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
    if (y && y.job !== x.job && x.from < y.to - MINUTE && !(x.done && y.done) && !asOne(x, y)) return [y, x];
    if (!y || x.to > y.to) last.set(x.lane, x);
  }
  return null;
}
/** In one load of the oven nobody is in another's way. */
const asOne = (x: Taken, y: Taken): boolean => x.session !== null && x.session === y.session && x.lane === "oven";
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
  const list = [...jobs];
  let taken = inOrder(list.map((q, i) => takenBy(q, i, more)));
  const most = MENDS * jobs.reduce((n, q) => n + q.plan.placed.length, 0);
  const crowd = jobs.length > CROWD;
  for (let k = 0; k < most; k++) {
    const clash = firstClash(taken);
    if (!clash) return list;
    const [a, b] = clash;
    const pushed = (x: Taken, behind: Taken): { of: number; q: Queued; cost: number } | null => {
      if (x.done) return null;
      const q = list[x.job];
      const at = Math.ceil(crowd ? freeFrom(taken, x, behind.to) : behind.to);
      const starts = new Map([...q.starts, [x.step, at] as const]);
      const plan = placedAgain(q.alone, now, starts);
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
    list[way.of] = way.q;
    taken = merged(
      taken.filter((x) => x.job !== way.of),
      inOrder([takenBy(way.q, way.of, more)]),
    );
  }
  return list;
}
/** jobs from which on whoever gives way goes to the next free place at once, not step by step */
const CROWD = 60;
/** The first moment from which on a step has its lanes to itself. @param taken in order */
function freeFrom(taken: readonly Taken[], x: Taken, from: number): number {
  const lanes = new Set(taken.filter((y) => y.job === x.job && y.step === x.step).map((y) => y.lane));
  const long = x.to - x.from;
  let at = from;
  for (const y of taken) {
    if (y.job === x.job || y.to <= at + MINUTE || !lanes.has(y.lane)) continue;
    if (y.from >= at + long - MINUTE) break;
    at = y.to;
  }
  return at;
}
/** Two lists in order as one. */
function merged(a: readonly Taken[], b: readonly Taken[]): Taken[] {
  const out: Taken[] = [];
  let i = 0;
  for (const x of a) {
    while (i < b.length && (b[i].from < x.from || (b[i].from === x.from && b[i].to < x.to))) out.push(b[i++]);
    out.push(x);
  }
  return [...out, ...b.slice(i)];
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
const clashesIn = (list: readonly Queued[], more: Readonly<Record<string, number>>): boolean =>
  firstClash(inOrder(list.map((q, i) => takenBy(q, i, more)))) !== null;

/** Places to dry at, of the shop as it is by now; null: as many as it takes. */
export const placesIn = (w: World | undefined): number | null => (w?.elsewhere ?? w)?.shop.rackPlaces ?? null;
const shopOptions = (o: LayOptions, plans: readonly Plan[]): ShopOptions => ({
  now: o.now,
  more: o.more,
  limitSeconds: null,
  rack: placesIn(plans[0]?.context.world),
});

/** Sessions whose members came to lie at other times than they were found at: they are none. */
function torn(list: readonly Queued[], sessions: readonly Session[]): Session[] {
  const plans = new Map(list.map((q) => [q.plan.context.job.id, q.plan]));
  return sessions.filter((s) => {
    const all = s.members.map((m) => inTurn(plans.get(m.job)?.placed ?? []).find((p) => p.step.id === m.step));
    return all.some((p, i) => {
      const before = all[i - 1];
      if (!p || p.start === null) return true;
      if (!before || before.start === null) return false;
      return s.as === "oven"
        ? Math.abs(p.start - before.start) > MINUTE
        : p.start < before.end - MINUTE || p.start - before.end > APART_MIN;
    });
  });
}

/** Members of one load that came to lie apart wait for the one that is last ready; what comes behind moves with them. */
function met(jobs: Queued[], apart: readonly Session[], now: number): Queued[] {
  const floors = new Map<string, [string, number][]>();
  for (const s of apart) {
    const at = s.members.map((m) => {
      const q = jobs.find((x) => x.plan.context.job.id === m.job);
      return (q && inTurn(q.plan.placed).find((p) => p.step.id === m.step)?.start) ?? Infinity;
    });
    const last = Math.ceil(Math.max(...at));
    if (Number.isFinite(last))
      for (const m of s.members) (floors.get(m.job) ?? floors.set(m.job, []).get(m.job)!).push([m.step, last]);
  }
  return jobs.map((q) => {
    const mine = floors.get(q.plan.context.job.id);
    if (!mine) return q;
    const starts = new Map([...q.starts, ...mine]);
    return { ...q, starts, plan: placedAgain(q.alone, now, starts) };
  });
}
/** rounds in which members of a load wait for one another */
const MEETS = 4;
/** Nobody in another's way, and loads whole where some waiting does it. */
function settledTogether(
  list: Queued[],
  sessions: readonly Session[],
  now: number,
  more: LayOptions["more"],
): Queued[] {
  let jobs = settled(list, now, more ?? {}).map(asPlaced);
  for (let k = 0; k < MEETS; k++) {
    const apart = torn(jobs, sessions).filter((s) => s.as === "oven");
    if (!apart.length) break;
    jobs = settled(met(jobs, apart, now), now, more ?? {}).map(asPlaced);
  }
  return jobs;
}

/** The shop put to the scheduler, with what is done together. */
interface Put {
  plans: Plan[];
  shop: ShopProblem;
  sessions: Session[];
}
/** What was worked out already for one laying of the shop. */
interface Memo {
  times: NonNullable<ShopOptions["memo"]>;
  /** plans by job and what it does together with others */
  plans: Map<string, Plan>;
}
/** @throws ProblemError where what is done together goes in a circle */
function put(
  open: readonly World[],
  plain: readonly Plan[],
  sessions: readonly Session[],
  o: LayOptions,
  memo: Memo,
): Put {
  const holds = holding(sessions, plain);
  const worlds = carrying(open, holds, plain);
  const by = new Map(plain.map((p) => [p.context.job.id, p]));
  const plans = worlds.flatMap((w) => {
    const was = by.get(w.job.id);
    if (!was) return [];
    if (sameShared(was.context.job.queue?.shared, w.job.queue?.shared)) return [was];
    const key = JSON.stringify([w.job.id, w.job.queue?.shared]);
    const known = memo.plans.get(key) ?? makePlan(w, o.now, true, ALONE);
    memo.plans.set(key, known);
    return [known];
  });
  return {
    plans,
    shop: shopProblem(plans, { ...shopOptions(o, plans), sessions: holds, memo: memo.times }),
    sessions: holds,
  };
}

/** works that are tried together at most */
const TRIES = 60;
/** seconds for them */
const TOGETHER_S = 4;
/** minutes that a job may be done later for a load of the oven less, and for a set-up less, besides what is won */
const LATER_MIN = { oven: 240, spray: 60, beam: 60 } as const;
const doneBy = (put: Put, a: Answer): Map<string, number> => {
  const out = new Map<string, number>();
  for (const t of a.tasks) {
    const { job } = put.shop.tasks.get(t.id)!;
    out.set(job, Math.max(out.get(job) ?? 0, t.end));
  }
  return out;
};
/** An answer that is no worse for what is done together: nothing shuts, nothing misses its day, all of it is done in the same half hour. */
function noWorse(
  now: { put: Put; answer: Answer },
  next: { put: Put; answer: Answer },
  later: number,
  finish: number,
): boolean {
  const [a, b] = [next.answer, now.answer];
  if (a.windowsBroken > b.windowsBroken || a.lateness > b.lateness || a.finish > finish) return false;
  const was = doneBy(now.put, b);
  return [...doneBy(next.put, a)].every(([job, end]) => end <= (was.get(job) ?? Infinity) + later);
}
/**
 * Works done together one after another, nearest first, as long as no window shuts for it and nothing is later.
 * @param only jobs of which one must be among them; null: any
 */
function* togetherInTurn(
  from: { put: Put; answer: Answer; placed: readonly Queued[] },
  open: readonly World[],
  plain: readonly Plan[],
  only: ReadonlySet<string> | null,
  o: LayOptions,
  memo: Memo,
): Generator<null, { put: Put; answer: Answer }> {
  let { put: now, answer } = from;
  const finish = answer.finish + BUCKET;
  const clock = o.clock ?? ((): number => 0);
  const begun = clock();
  const tried = new Set<string>();
  const laid = from.placed.map((q) => q.plan);
  let offered = candidates(now.sessions, laid);
  for (let k = 0; k < TRIES; k++) {
    const next = offered.find((s) => !tried.has(keyOf(s)) && (!only || s.members.some((m) => only.has(m.job))));
    if (!next || o.stop?.() || clock() - begun > TOGETHER_S) break;
    tried.add(keyOf(next));
    try {
      const with_ = put(open, plain, withOne(now.sessions, next), o, memo);
      const starts = new Map(answer.tasks.map((t) => [t.id, t.start]));
      const before = new Map(
        with_.shop.problem.tasks.flatMap((t) => {
          const at = starts.get(now.shop.within.get(t.id)?.head ?? t.id);
          return at === undefined ? [] : [[t.id, at + (with_.shop.within.get(t.id)?.minutes ?? 0)] as const];
        }),
      );
      const own = new Set(next.members.map((m) => m.job));
      const found =
        with_.shop.origin === now.shop.origin
          ? laidInOrder(with_.shop.problem, before, (id) => own.has(with_.shop.tasks.get(id)!.job), NO_BOUNDS)
          : null;
      const later = LATER_MIN[next.as] + wins(next, plain);
      if (found && noWorse({ put: now, answer }, { put: with_, answer: found }, later, finish)) {
        [now, answer] = [with_, found];
        offered = candidates(now.sessions, laid);
      }
    } catch {
      // what goes in a circle, or fits no window, is done apart
    }
    yield null;
  }
  if (now === from.put) return { put: now, answer };
  const bounds = boundsFor(now.shop.problem);
  return { put: now, answer: { ...answer, bounds, bound: bounds.finish } };
}
const NO_BOUNDS = { windowsBroken: 0, lateness: 0, finish: 0 };
const keyOf = (s: Session): string => JSON.stringify(s.members);

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
/** As {@link put}; what goes in a circle by now is done apart. */
function putOrApart(
  open: readonly World[],
  plain: readonly Plan[],
  sessions: Session[],
  o: LayOptions,
  memo: Memo,
): Put {
  try {
    return put(open, plain, sessions, o, memo);
  } catch (e) {
    if (!(e instanceof ProblemError) || !sessions.length) throw e;
    return put(open, plain, [], o, memo);
  }
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

/** Works of different jobs that want the same hands, machine or oven at once, begun by a moment: where each job is planned by itself. */
export function clashesBy(jobs: readonly Queued[], until: number): number {
  const last = new Map<string, Taken>();
  let n = 0;
  for (const x of inOrder(jobs.map((q, i) => takenBy(q, i, {})))) {
    if (x.done || x.from > until) continue;
    const y = last.get(x.lane);
    if (y && y.job !== x.job && x.from < y.to - MINUTE && !asOne(x, y)) n++;
    if (!y || x.to > y.to) last.set(x.lane, x);
  }
  return n;
}
