/** The shop put to the scheduler, and works of several jobs tried as one: each kept that makes nothing worse. */
import { ProblemError, type Answer } from "../schedule/problem";
import { boundsFor, laidInOrder } from "../schedule/replan";
import type { World } from "../records/world";
import type { Known } from "./known";
import type { Plan } from "./plan";
import { BUCKET, shopProblem, type ShopOptions, type ShopProblem } from "./schedule";
import { candidates, carrying, holding, sameShared, withOne, wins, type Session } from "./sessions";
import type { Queued } from "./settle";

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
  /** what was worked out for jobs of this shop before; absent: nothing was */
  known?: Known;
}
/** Places to dry at, of the shop as it is by now; null: as many as it takes. */
export const placesIn = (w: World | undefined): number | null => (w?.elsewhere ?? w)?.shop.rackPlaces ?? null;
export const shopOptions = (o: LayOptions, plans: readonly Plan[]): ShopOptions => ({
  now: o.now,
  more: o.more,
  limitSeconds: null,
  rack: placesIn(plans[0]?.context.world),
});

/** The shop put to the scheduler, with what is done together. */
export interface Put {
  plans: Plan[];
  shop: ShopProblem;
  sessions: Session[];
}
/** What was worked out already for one laying of the shop. */
export interface Memo {
  times: NonNullable<ShopOptions["memo"]>;
  known: Known;
  /** minutes that a plan of a job alone may be older than now */
  stale: number;
}
/** Jobs with what they do together as far as it holds. */
export function holdingPlans(
  open: readonly World[],
  plain: readonly Plan[],
  sessions: readonly Session[],
  o: LayOptions,
  { known, stale }: Memo,
): Omit<Put, "shop"> {
  const holds = holding(sessions, plain);
  const worlds = carrying(open, holds, plain);
  const by = new Map(plain.map((p) => [p.context.job.id, p]));
  const plans = worlds.flatMap((w) => {
    const was = by.get(w.job.id);
    if (!was) return [];
    return [sameShared(was.context.job.queue?.shared, w.job.queue?.shared) ? was : known.alone(w, o.now, stale)];
  });
  return { plans, sessions: holds };
}
/** @throws ProblemError where what is done together goes in a circle */
function put(
  open: readonly World[],
  plain: readonly Plan[],
  sessions: readonly Session[],
  o: LayOptions,
  memo: Memo,
): Put {
  const { plans, sessions: holds } = holdingPlans(open, plain, sessions, o, memo);
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
export function* togetherInTurn(
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
  let offered = only?.size === 0 ? [] : candidates(now.sessions, laid);
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

/** As {@link put}; what goes in a circle by now is done apart. */
export function putOrApart(
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
