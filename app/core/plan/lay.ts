/**
 * One job on the scheduler. Placing steps one after another is the earliest there is as long as no window is in the way. Where one would
 * be missed, the whole job is laid by the scheduler's builder, which begins what lies before a window just as late as it must, and is
 * placed again from the times it found; the better of the two stands. Counting back does the same with what still follows.
 */
import { Builder, PUSH, REOPEN } from "../schedule/build";
import { compile, endOf, type Model } from "../schedule/model";
import { ProblemError } from "../schedule/problem";
import { inTurn, brokenWindows, type PlaceResult } from "./placed";
import { buries, NO_RESTS, type Rests } from "./rest";
import type { Context } from "../process/context";
import { PAST_DAYS, shopProblem, type Planned } from "./schedule";

const DAY = 1440;
/** days written out behind the end of the plan: room for a window that has to reopen */
const AFTER_DAYS = 21;
/** and no more than that: a year of waiting is not laid to the minute */
const MOST_DAYS = 200;

/** Beginnings to place a job's steps from, and when the last of them would end, min since 1970. */
export interface Laid {
  starts: ReadonlyMap<string, number>;
  end: number;
}
/**
 * Steps laid with one of them no earlier than a moment, those before it no earlier than planned; one answer a way of
 * treating windows that reopen. Without a step all of them as soon as they go.
 */
export type Laying = (step: string | null, from: number | null) => Laid[];

/** @param plan as placed step by step; made into a problem when first asked for */
export function layingOf(plan: Planned): Laying {
  let made: { m: Model; builder: Builder; origin: number; ids: string[]; number: Map<string, number> } | null = null;
  const make = (): NonNullable<typeof made> => {
    const [first, last] = [
      (plan.placed.find((p) => !p.actual) ?? plan.placed[0]).start as number,
      plan.placed[plan.placed.length - 1].end as number,
    ];
    const shop = shopProblem([plan], {
      days: Math.min(MOST_DAYS, PAST_DAYS + Math.ceil((last - first) / DAY) + AFTER_DAYS),
    });
    const m = compile(shop.problem);
    const ids = m.ids.map((id) => shop.tasks.get(id)!.step);
    return { m, builder: new Builder(m), origin: shop.origin, ids, number: new Map(ids.map((id, i) => [id, i])) };
  };
  const line = inTurn(plan.placed);
  return (step, from) => {
    if (plan.stuck !== null || !plan.placed.length) return [];
    try {
      made ??= make();
    } catch (e) {
      // what can't be put as a problem (an id of the longest, say) stays placed step by step
      if (e instanceof ProblemError) return [];
      throw e;
    }
    const { m, builder, origin, ids, number } = made;
    const floor = new Float64Array(m.n);
    for (const p of line) {
      if (step === null || p.step.id === step) break;
      const at = number.get(p.step.id);
      if (at !== undefined) floor[at] = (p.start as number) - origin;
    }
    if (step !== null && from !== null) floor[number.get(step)!] = Math.max(0, from - origin);
    const key = Float64Array.from(builder.blocks.tasks, (_b, i) => i);
    const out: Laid[] = [];
    let last: Float64Array | null = null;
    for (const way of m.lags.some((l) => l.reopens !== Infinity) ? [PUSH, REOPEN] : [PUSH]) {
      const start = builder.lay({ key, reopen: new Uint8Array(m.lags.length).fill(way), floor });
      // both ways may come to the same
      const same = start && last && start.every((x, i) => x === last![i]);
      if (start && !same) {
        last = Float64Array.from(start);
        out.push({
          starts: new Map(ids.flatMap((id, i) => (m.fixed[i] < 0 ? [[id, origin + start[i]] as const] : []))),
          end: origin + start.reduce((e, s, i) => Math.max(e, endOf(m, i, s)), 0),
        });
      }
    }
    return out;
  };
}

/** Is a placing better than another: nothing without a time, fewer windows broken, done sooner, and then each step as soon as it goes? */
export function better(a: PlaceResult, b: PlaceResult): boolean {
  if ((a.stuck === null) !== (b.stuck === null)) return a.stuck === null;
  const worth = ({ placed }: PlaceResult): number[] => [
    brokenWindows(placed),
    placed[placed.length - 1]?.end ?? Infinity,
    placed.reduce((sum, p) => sum + (p.start ?? 0), 0),
  ];
  const [x, y] = [worth(a), worth(b)];
  const k = x.findIndex((v, i) => v !== y[i]);
  return k >= 0 && x[k] < y[k];
}

/**
 * @param once placed step by step
 * @param again places it from given beginnings
 * @param laid what the scheduler has found
 */
export function soonest(
  once: PlaceResult,
  again: (starts: ReadonlyMap<string, number>) => PlaceResult,
  laid: Pick<Laid, "starts">[],
): { result: PlaceResult; starts: ReadonlyMap<string, number> | null } {
  let best: { result: PlaceResult; starts: ReadonlyMap<string, number> | null } = { result: once, starts: null };
  for (const { starts } of laid) {
    const result = again(starts);
    if (better(result, best.result)) best = { result, starts };
  }
  return best;
}

/** a rest is taken where it wins half a working day: nobody lets a piece lie for days to win minutes */
const WORTH_A_REST = 240;
const lastEnd = (r: PlaceResult): number => r.placed[r.placed.length - 1]?.end ?? Infinity;

/**
 * @param once as placed @param again places it with these rests
 * @returns the better of the two, rest by rest, and the rests that it takes
 */
export function restedSooner(
  once: PlaceResult,
  again: (rests: Rests) => PlaceResult,
  c: Context,
): { result: PlaceResult; rests: Rests } {
  let best: { result: PlaceResult; rests: Rests } = { result: once, rests: NO_RESTS };
  if (once.stuck) return best;
  for (const { step, state } of buries(once.placed, c)) {
    const rests = new Map([...best.rests, [step, state] as const]);
    const result = again(rests);
    if (better(result, best.result) && lastEnd(best.result) - lastEnd(result) >= WORTH_A_REST) best = { result, rests };
  }
  return best;
}
