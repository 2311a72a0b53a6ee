/**
 * A problem in, the best schedule found within its limits out, with bounds that tell how good it is. Pure: time comes in as a function,
 * chance from the problem's seed; with a limit of iterations the same problem gives the same answer. Driven in turns, so that a worker
 * can tell how far it is, hand out the best so far, and stop.
 */
import { edgeBound } from "./bounds/edge";
import { loadBound } from "./bounds/load";
import { oneMachineBound } from "./bounds/one-machine";
import { pathBound, pathsOf, type Paths } from "./bounds/path";
import { Builder, SOONER } from "./build";
import { contradiction, type Contradiction } from "./contradiction";
import { exact } from "./exact";
import { explain } from "./explain";
import { compare, compile, endOf, objectiveOf, type Model, type Objective } from "./model";
import { canFinish } from "./order";
import { polish } from "./polish";
import type { Answer, Decide, Problem } from "./problem";
import { randomOf } from "../units/random";
import { isShop, shopSearch, type ShopSearch } from "./shop";
import { reinsertSearch, type Reinsert } from "./reinsert";
import { prioritySearch, type Priorities } from "./priorities";
import { jobsOf, listSearch } from "./search";

/** tasks up to which all schedules are looked at, in so many nodes */
const EXACT_TASKS = 12;
const EXACT_NODES = 120_000;
/** tasks up to which an order is proved by branching, in so many nodes a try */
const ORDER_TASKS = 64;
const ORDER_NODES = 20_000;
/** tasks up to which edge finding tightens the bound */
const EDGE_TASKS = 400;
/** tabu rounds that count as one iteration: a list is laid in about the time of so many */
const ROUNDS = 20;
/** lists that the rules give at most, windows kept and windows reopening */
const RULES = 26;
/**
 * a turn lasts no longer, s, so that a worker hears of a cancel; limited by iterations, it lasts so many: nothing may
 * hang on the clock then
 */
const TURN_SECONDS = 0.05;
const TURN = 50;
/** seconds for the last touches and for telling what decides, besides the search's own */
const AFTER_SECONDS = 0.6;
/**
 * jobs from which on they are given priorities and moved as a whole; and the share of the search that goes by before
 * single jobs are laid anew
 */
const MANY = 4;
const SHAPING = 0.8;
/** lists laid without an answer after which a problem is looked at for a contradiction */
const HOPELESS = 60;

export interface SolveOptions {
  /** seconds, from any moment; without it only iterations limit the search */
  now?: () => number;
  limitSeconds?: number | null;
  limitIterations?: number | null;
  /** what decides is left out: it is solved several times more for it */
  plain?: boolean;
  /** asked often: true ends the search with the best so far */
  stop?: () => boolean;
  /** a schedule known already: the search begins from it, and never ends worse */
  begin?: Float64Array | null;
}
export interface Progress {
  iterations: number;
  seconds: number;
  objective: Objective | null;
  bound: number;
}
export type Solved =
  | { is: "answer"; answer: Answer }
  | { is: "none"; sets: Contradiction[]; say: string }
  | { is: "unsettled"; say: string };

/** Bounds of finish, lateness and broken windows, each the best of those that speak of it. */
export function boundsOf(m: Model, paths: Paths): { windowsBroken: number; lateness: number; finish: number } {
  const path = pathBound(m, paths);
  const machine = oneMachineBound(m, paths);
  return {
    windowsBroken: path.windowsBroken,
    lateness: Math.max(path.lateness, machine.late),
    finish: Math.max(path.finish, machine.finish, loadBound(m, paths)),
  };
}

export function answerOf(
  m: Model,
  start: Float64Array,
  rest: Pick<Answer, "bounds" | "proved" | "provedFor" | "decides" | "seconds" | "iterations">,
): Answer {
  const o = objectiveOf(m, start);
  const tasks = m.ids.map((id, i) => {
    const [s, e] = [start[i], endOf(m, i, start[i])];
    return {
      id,
      start: s,
      end: e,
      pauses: m.pausable[i]
        ? m.open[i].closed.filter(([a]) => a >= s && a < e).map(([a, b]): [number, number] => [a, b])
        : [],
    };
  });
  return { tasks, ...o, bound: rest.bounds.finish, ...rest };
}

const sayNone = (sets: Contradiction[]): string => `There is no schedule: ${sets.map((s) => s.say).join("; and ")}.`;

/** One turn after another until the limits, a proof, or a contradiction. */
export function* solveInTurn(problem: Problem, o: SolveOptions = {}): Generator<Progress, Solved> {
  const clock = o.now ?? (() => 0);
  const begun = clock();
  const most = o.limitIterations !== undefined ? o.limitIterations : problem.limitIterations;
  const seconds =
    most !== null && o.limitSeconds === undefined
      ? null
      : o.limitSeconds !== undefined
        ? o.limitSeconds
        : problem.limitSeconds;
  const until = seconds === null || !o.now ? Infinity : begun + seconds;
  const limit = most ?? (until === Infinity ? 1000 : Infinity);
  const m = compile(problem);
  const paths = pathsOf(m);
  const random = randomOf(problem.seed);
  let iterations = 0;
  let stopped = false;
  const over = (): boolean => (stopped ||= iterations >= limit || clock() >= until || (o.stop?.() ?? false));
  const none = (): Solved => {
    const sets = contradiction(problem, o.stop);
    return sets
      ? { is: "none", sets, say: sayNone(sets) }
      : { is: "unsettled", say: "No schedule was found, and no contradiction either: give it more time" };
  };
  if (
    paths.head.some(
      (h, i) =>
        !(h <= m.horizon) ||
        (m.fixed[i] >= 0 && m.open[i].slot(m.fixed[i], m.work[i], m.pausable[i]).start !== m.fixed[i]),
    )
  )
    return none();

  const bounds = boundsOf(m, paths);
  const builder = new Builder(m);
  const lists = listSearch(
    m,
    builder,
    paths,
    random,
    m.prefer.some((p) => p >= 0),
  );
  if (o.begin) lists.best = { start: Float64Array.from(o.begin), objective: objectiveOf(m, o.begin) };
  let best: { start: Float64Array; objective: Objective } | null = lists.best;
  let proved: "all" | "finish" | null = null;
  const told = (): Progress => ({
    iterations,
    seconds: clock() - begun,
    objective: best?.objective ?? null,
    bound: bounds.finish,
  });
  /** Nothing can be better than what is there. */
  const closed = (): boolean => {
    if (!best) return false;
    const { windowsBroken, lateness, finish } = best.objective;
    if (
      windowsBroken > bounds.windowsBroken ||
      lateness > bounds.lateness + 1e-6 ||
      Math.ceil(finish / m.bucket) > Math.ceil(bounds.finish / m.bucket)
    )
      return false;
    proved = m.trip < 0 && m.prefer.every((p) => p < 0) ? "all" : "finish";
    return proved === "all";
  };

  // The rules first: most often one of them is near.
  for (let k = 0; k < RULES && (k < 1 || !over()); k++) {
    lists.round();
    iterations++;
    const first = !best && lists.best;
    best = lists.best;
    if (first || o.now) yield told();
  }
  yield told();
  if (m.n <= EXACT_TASKS) {
    const all = exact(m, paths, best?.objective ?? null, EXACT_NODES, () => clock() >= until || (o.stop?.() ?? false));
    iterations += Math.ceil(all.nodes / 100);
    if (all.start) best = { start: all.start, objective: objectiveOf(m, all.start) };
    if (all.complete && !best) return none();
    if (all.complete) proved = "all";
  }
  if (!proved && best && m.n <= EDGE_TASKS)
    bounds.finish = Math.max(bounds.finish, edgeBound(m, paths, bounds.finish, best.objective.finish));
  if (!proved && !closed()) {
    const shop: ShopSearch | null = best && isShop(m) ? shopSearch(m, best.start, random) : null;
    const many = best && !shop && jobsOf(m).some((j) => j >= MANY - 1);
    const shape: Priorities | null = many ? prioritySearch(m, builder, paths, bounds.finish, random) : null;
    let touch: Reinsert | null = null;
    const progress = (): number =>
      Math.max(
        limit === Infinity ? 0 : iterations / limit,
        until === Infinity ? 0 : (clock() - begun) / (until - begun),
      );
    let tried = Infinity;
    let hopeless = 0;
    while (!over()) {
      const turn = clock();
      for (let k = 0; (until !== Infinity ? clock() - turn < TURN_SECONDS : k < TURN) && !over(); k++) {
        iterations++;
        if (shop) {
          let better = false;
          for (let r = 0; r < ROUNDS; r++) better = shop.round() || better;
          if (better && shop.finish < best!.objective.finish)
            best = { start: Float64Array.from(shop.best), objective: objectiveOf(m, shop.best) };
        } else if (best && shape && progress() < SHAPING) {
          shape.round(progress() / SHAPING);
          if (shape.best && compare(m, shape.best.objective, best.objective) < 0) best = shape.best;
        } else if (best && shape) {
          touch ??= reinsertSearch(
            m,
            builder.blocks,
            best.start,
            best === shape.best ? shape.best.ways : new Uint8Array(m.lags.length).fill(SOONER),
            paths,
            bounds.finish,
            random,
          );
          // as much as laying one list
          for (const enough = touch.laid + m.n; touch.laid < enough;)
            touch.round((progress() - SHAPING) / (1 - SHAPING));
          best = touch.best;
        } else {
          lists.round();
          best = lists.best && (!best || compare(m, lists.best.objective, best.objective) < 0) ? lists.best : best;
          if (!best && ++hopeless === HOPELESS) {
            const sets = contradiction(problem, o.stop);
            if (sets) return { is: "none", sets, say: sayNone(sets) };
          }
        }
      }
      // A finish that has stood for a while: can it be proved?
      if (
        best &&
        m.n <= ORDER_TASKS &&
        bounds.finish < best.objective.finish &&
        best.objective.finish < tried &&
        iterations > 100 &&
        best.objective.windowsBroken <= bounds.windowsBroken &&
        best.objective.lateness <= bounds.lateness + 1e-6
      ) {
        tried = best.objective.finish;
        while (bounds.finish < best.objective.finish && !over()) {
          const r = canFinish(m, paths, best.objective.finish - 1, ORDER_NODES, over);
          iterations += Math.ceil(r.nodes / 20);
          if (r.is === "refuted") bounds.finish = best.objective.finish;
          else if (r.is === "ordered" && isShop(m) && r.start)
            best = { start: r.start, objective: objectiveOf(m, r.start) };
          else break;
        }
      }
      if (closed()) break;
      yield told();
    }
  }
  if (!best) return none();
  // What follows is cut short by a cancel, and by the clock where the clock set the limit; never where iterations did.
  const ended = clock();
  function* touches(steps: Generator<void, void>): Generator<Progress, void> {
    let turn = clock();
    for (let r = steps.next(); !r.done; r = steps.next()) {
      if ((o.stop?.() ?? false) || (until !== Infinity && clock() > ended + AFTER_SECONDS)) return;
      if (clock() - turn < TURN_SECONDS) continue;
      yield told();
      turn = clock();
    }
  }
  if (proved !== "all") {
    const start = Float64Array.from(best.start);
    yield* touches(polish(m, start));
    const objective = objectiveOf(m, start);
    if (compare(m, objective, best.objective) < 0) best = { start, objective };
    if (closed()) proved = "all";
  }
  const decides: Decide[] = [];
  if (!o.plain) yield* touches(explain(problem, m, builder, best.start, decides));
  return {
    is: "answer",
    answer: answerOf(m, best.start, {
      bounds,
      proved: proved !== null,
      provedFor: proved ?? "all",
      decides,
      seconds: clock() - begun,
      iterations,
    }),
  };
}

/** As {@link solveInTurn}, at one go. */
export function solve(problem: Problem, o: SolveOptions = {}): Solved {
  const turns = solveInTurn(problem, o);
  for (;;) {
    const r = turns.next();
    if (r.done) return r.value;
  }
}
