/**
 * A proof is a full cycle on one piece: where the proof stands, piece 1 goes through every step behind it first, is looked at and
 * accepted, and only then do the rest follow. Its steps are those of the batch, as they stand in the plan, done to one piece.
 */
import { kindOf, type Step } from "../process/kinds";
import type { Context } from "../process/context";
import type { Begun } from "../records/begun";
import { FIRST } from "../records/log";
import type { BenchState } from "./fold";
import { withHistory } from "./history";

/** What piece 1 goes through before the rest. */
export interface Proof {
  /** index of the step at which it is looked at */
  at: number;
  steps: Step[];
  /** ids of the batch’s steps that it has been through by then */
  gone: ReadonlySet<string>;
  /** moment from which the batch may go on by the Brief, min since 1970; null: not said */
  accepted: number | null;
}

/** Is a step one of those that piece 1 goes through alone? */
export const isFirst = (step: string): boolean => step.startsWith(FIRST);
/** A step’s title where steps of piece 1 and of the batch stand together. */
export const titleIn = ({ id, title }: { id: string; title: string }): string =>
  isFirst(id) ? `${title}, first piece` : title;
/** The step of the batch that a step of piece 1 repeats; any other step itself. */
export const batchOf = (step: string): string => (isFirst(step) ? step.slice(FIRST.length) : step);

/** What is kept of a job’s steps that are done: those of piece 1 alone, or all the others. */
export const keptOf = (begun: Begun | undefined, first: boolean): Begun | undefined =>
  begun && {
    ...begun,
    done: begun.done.filter((s) => isFirst(s.id) === first),
    steps: first ? begun.steps.map((id) => FIRST + id) : begun.steps,
  };

/** Is it done to piece 1 before the rest? What tries something out, and what hands the set over, is not. */
const goesFirst = (s: Step): boolean => !kindOf(s.kind).tries && !kindOf(s.kind).packs;

/**
 * @param steps of the batch, what is done already first
 * @returns null: no proof stands in the plan, there is no second piece, or it was looked at without a cycle of its own
 */
export function proofOf(
  steps: Step[],
  c: Context,
  begun: Begun | undefined,
  { actuals, again }: BenchState,
): (Proof & { fixed: ReadonlySet<string> }) | null {
  const at = steps.findIndex((s) => kindOf(s.kind).tries === "piece");
  if (at < 0 || c.pieces < 2) return null;
  const behind = steps.slice(at + 1).filter(goesFirst);
  if (!behind.length) return null;
  const looked = actuals.has(steps[at].id) || behind.some((s) => actuals.has(s.id));
  const did = [...actuals.keys()].some(isFirst);
  if (looked && !did) return null;
  const planned = behind.map((s) => ({ ...s, id: FIRST + s.id }));
  const { steps: all, fixed } = withHistory(planned, keptOf(begun, true), actuals, c.allZones);
  return {
    at,
    // what was left out of a cycle that is over stays left out
    steps: looked ? all.filter((s) => actuals.has(s.id)) : all,
    gone: new Set(behind.map((s) => s.id)),
    accepted: proofDates(c, again).accepted,
    fixed,
  };
}

/** The Brief's dates of the proof, min since 1970. @param again those before it are about a piece that was not accepted */
export function proofDates(c: Context, again: number | null): { sent: number | null; accepted: number | null } {
  const of = (date: string | null): number | null => {
    const at = date === null ? null : c.clock.fromLocal(date);
    return at !== null && again !== null && at < Math.floor(again) ? null : at;
  };
  return { sent: of(c.job.order.proofSent), accepted: of(c.job.order.proofAccepted) };
}

type Going = { proof: Proof | null; bench: BenchState };
const lowest = (out: ReadonlySet<number>): number => {
  for (let n = 1; ; n++) if (!out.has(n)) return n;
};

/** Number of the piece that goes first: the lowest that was neither put aside before nor tried; null: none goes first. */
export function firstPiece({ proof, bench }: Going): number | null {
  if (!proof) return null;
  const before = [...bench.steps].flatMap(([id, run]) => (isFirst(id) || proof.gone.has(id) ? [] : run.aside));
  return lowest(new Set([...before, ...bench.tried]));
}

/** The piece that could go first instead; null: none does, the rest is under way, or there is none left. */
export function nextFirst(plan: Going & { context: Context }): number | null {
  const { bench, proof, context } = plan;
  const first = firstPiece(plan);
  if (first === null || [...proof!.gone].some((id) => bench.actuals.has(id))) return null;
  const next = lowest(new Set([...bench.aside, ...bench.tried, first]));
  return next <= context.pieces ? next : null;
}
