/** Where a job stands: what to do now, or what it waits for. */
import { needsOf } from "../process/effects";
import { meantToReopen, missedWindow } from "./missed";
import { readiness, type Readiness } from "../process/ready";
import type { Numbers } from "../plan/fold";
import type { Plan } from "../plan/plan";
import { firstPiece, isFirst } from "../plan/proof";
import { kindOf } from "../process/kinds";
import type { Placed } from "../plan/placed";

export type Standing =
  | { is: "closed" }
  | { is: "lacking"; say: string }
  | { is: "ready"; step: Placed; begun: boolean }
  | {
      is: "waiting";
      step: Placed;
      need: Readiness;
      opens: number | null;
      closes: number | null;
      reopens: number | null;
    }
  /** the window for the next coat shut; in between it would wrinkle */
  | { is: "missed"; step: Placed; need: Readiness; opens: number | null; closes: number; reopens: number | null }
  | { is: "done" };

/** The need that a step must sit out at a moment, from what was really done. */
export function holding(p: Placed, plan: Plan, now: number): Readiness | null {
  const needs = needsOf(p.step, p.before, plan.context).map((n) => readiness(n, plan.context));
  const late = needs.filter((r) => r.opens === null || r.opens > now);
  return late.reduce<Readiness | null>(
    (w, r) => (!w || r.opens === null || (w.opens !== null && r.opens > w.opens) ? r : w),
    null,
  );
}

/** The plan that the bench goes by: that of piece 1 while it goes first. */
export function atBench(plan: Plan): Plan {
  const undone = (p: Placed): boolean => plan.bench.steps.get(p.step.id)?.doneAt == null;
  const next = plan.placed.find(undone);
  return plan.first && next?.cycle.some(undone) && !next.actual ? plan.first : plan;
}

/** The pieces that a step is done to, by their numbers. @param plan in which it stands */
export function numbersAt(plan: Plan, p: Placed): Numbers {
  const whole = plan.whole ?? plan;
  const first = firstPiece(whole);
  const { aside } = plan.bench;
  if (first !== null && (isFirst(p.step.id) || kindOf(p.step.kind).tries === "piece"))
    return { from: first, to: first, out: aside };
  const alone = first !== null && whole.proof!.gone.has(p.step.id);
  return { from: 1, to: whole.context.pieces, out: alone ? new Set([...aside, first]) : aside };
}

/** @param skip a step whose wait was ended by a touch check or on purpose */
export function standing(whole: Plan, now: number): Standing {
  const plan = atBench(whole);
  if (plan.context.job.wrapUp.closedAt !== null) return { is: "closed" };
  if (plan.missing.length) return { is: "lacking", say: plan.missing[0].say };
  if (plan.toBuy.length)
    return {
      is: "lacking",
      say: `Not on the Shelf yet: ${plan.toBuy.map((p) => p.name).join(", ")}. What you have bought goes on it from the Route page.`,
    };
  const runs = plan.bench.steps;
  const step = plan.placed.find((p) => runs.get(p.step.id)?.doneAt == null);
  if (!step) return plan.placed.length ? { is: "done" } : { is: "lacking", say: "There are no steps yet." };
  const run = runs.get(step.step.id);
  const begun = run?.startedAt != null;
  if (begun || run?.early) return { is: "ready", step, begun };
  const prev = plan.placed[step.index - 1];
  const typed = prev?.step.waitMin ?? null;
  if (typed !== null && prev?.actual?.end != null) {
    const opens = prev.actual.end + typed;
    if (opens > now)
      return {
        is: "waiting",
        step,
        need: {
          state: "set-time",
          why: "the wait set by hand is over",
          film: null,
          productId: null,
          refMin: typed,
          from: prev.actual.end,
          opens,
          closes: null,
          reopens: null,
          stretches: [],
          unknown: false,
        },
        opens,
        closes: null,
        reopens: null,
      };
    return { is: "ready", step, begun };
  }
  const h = holding(step, plan, now);
  const missed = missedWindow(step, now);
  if (missed && missed.reopens !== null && meantToReopen(plan.context.world, plan, step, missed))
    return { is: "waiting", step, need: missed, opens: missed.reopens, closes: null, reopens: null };
  if (missed)
    return {
      is: "missed",
      step,
      need: missed,
      opens: missed.reopens,
      closes: missed.closes as number,
      reopens: missed.reopens,
    };
  if (!h) return { is: "ready", step, begun };
  const win = step.needs.find((n) => n.closes !== null);
  return { is: "waiting", step, need: h, opens: h.opens, closes: win?.closes ?? null, reopens: win?.reopens ?? null };
}
