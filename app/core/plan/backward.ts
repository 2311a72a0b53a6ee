/**
 * Counted back from the due date: for every step the latest moment at which it may still begin, with what lies before it
 * done as planned. One minute later the due date, a recoat window or the shop's hours break.
 *
 * Placing steps forward never ends earlier for beginning later, so the moments that still work lie below one border, which
 * is found by halving; the border itself is a moment at which the step really begins, since the next opening after a working
 * moment works as well.
 */
import { place } from "./place";
import { brokenWindows, type Placed, type PlaceResult } from "./placed";
import type { Plan } from "./plan";

export interface Latest {
  step: string;
  index: number;
  /** latest moment to begin; null: done, under way, or the due date can't be met from here */
  start: number | null;
  /** minutes between the planned and the latest beginning; below 0: the plan is late by that much at the end */
  slack: number | null;
}

const ends = (placed: Placed[]): number => placed[placed.length - 1]?.end ?? Infinity;

/** minutes by which the scheduler's clocks, which run in stretches, may be out at the end */
const NEAR = 30;

/**
 * The rest of a plan from step k on when that step begins no earlier than t: as the scheduler lays it, or step by step.
 * @param broken windows that may be broken
 * @returns null: neither way keeps the date and the windows
 */
function rest(plan: Plan, k: number, t: number, due: number, broken: number): Placed[] | null {
  const before = plan.placed[k - 1];
  const steps = plan.placed.map((p) => p.step);
  const from = before?.end ?? plan.placed[k].start ?? t;
  const again = (starts: ReadonlyMap<string, number> | null): PlaceResult =>
    place(steps, from, plan.placed[k].before, plan.context, plan.bench.actuals, plan.now, {
      skip: k,
      notBefore: t,
      starts,
      rests: plan.rests,
      proof: plan.proof,
    });
  const good = (r: PlaceResult): boolean => ends(r.placed) <= due && brokenWindows(r.placed) <= broken;
  // Where there are windows the scheduler is asked first: it lays all of it in less than placing one step takes.
  const laid =
    plan.starts || !plan.placed.some((p) => p.needs.some((r) => r.closes !== null))
      ? []
      : plan.laying(plan.placed[k].step.id, t);
  for (const { starts, end } of laid) {
    if (end > due + NEAR) continue;
    const r = again(starts);
    if (good(r)) return r.placed;
  }
  if (laid.length && laid.every((x) => x.end > due + NEAR)) return null;
  const once = again(plan.starts);
  return good(once) ? once.placed : null;
}

/** May step k begin at t, everything after it as soon as it goes, and the due date still hold with no window broken that the plan keeps? */
export const holds = (plan: Plan, k: number, t: number, due: number, broken: number): boolean =>
  rest(plan, k, t, due, broken) !== null;

/**
 * @param due minute since 1970
 * @param guess minutes of slack to look near first: neighbouring steps mostly have the same
 * @returns null where step k has no latest beginning
 */
export function latestStart(plan: Plan, k: number, due: number, guess = 0): number | null {
  const p = plan.placed[k];
  if (p.actual || p.start === null || plan.ready === null || plan.ready > due) return null;
  const broken = brokenWindows(plan.placed.slice(k));
  const works = (t: number): boolean => holds(plan, k, t, due, broken);
  const from = p.start;
  const end = due - Math.ceil(p.minutes ?? 0) + 1;
  let lo = Math.min(from + Math.max(0, guess), end - 1);
  let hi: number;
  if (works(lo)) {
    // strides that double until one goes too far
    let step = 1;
    while (lo + step < end && works(lo + step)) {
      lo += step;
      step *= 2;
    }
    hi = Math.min(lo + step, end);
  } else {
    hi = lo;
    let step = 1;
    while (hi - step > from && !works(hi - step)) {
      hi -= step;
      step *= 2;
    }
    lo = Math.max(from, hi - step);
    if (!works(lo)) return null;
  }
  while (hi - lo > 1) {
    const mid = Math.floor((lo + hi) / 2);
    if (works(mid)) lo = mid;
    else hi = mid;
  }
  return rest(plan, k, lo, due, broken)![0].start;
}

/** All steps; null when there is no due date. */
export function countBack(plan: Plan): Latest[] | null {
  const steps = countBackInTurn(plan);
  for (;;) {
    const r = steps.next();
    if (r.done) return r.value;
  }
}

/** As `countBack`, one step of the plan between two yields. */
export function* countBackInTurn(plan: Plan): Generator<void, Latest[] | null> {
  const { job } = plan.context;
  if (job.due === null) return null;
  const due = plan.context.clock.fromLocal(job.due);
  const late = plan.ready === null ? null : due - plan.ready;
  const out: Latest[] = [];
  let guess = Math.max(0, late ?? 0);
  for (let index = plan.placed.length - 1; index >= 0; index--) {
    const p = plan.placed[index];
    const start = latestStart(plan, index, due, guess);
    const slack = start !== null && p.start !== null ? start - p.start : null;
    guess = slack ?? guess;
    yield;
    out.unshift({
      step: p.step.id,
      index,
      start,
      slack: slack ?? (p.actual || late === null ? null : Math.min(0, late)),
    });
  }
  return out;
}
