/** From a world to a plan: generate, lay the edits on, place in time, add up. Pure; under 20 ms for 40 steps and 6 zones. */
import { fold, type BenchState } from "./fold";
import { blank } from "../piece/state";
import type { World } from "../records/world";
import { amounts, stepUse } from "./amounts";
import { context } from "../process/context";
import { decides, type Decider } from "./decides";
import { applyEdits } from "./edits";
import type { Facts } from "./facts";
import type { Missing } from "./builder";
import { generate } from "./generate";
import { withHistory } from "./history";
import type { Step } from "../process/kinds";
import { layingOf, soonest, type Laying } from "./lay";
import { place, type PlaceResult } from "./place";
import { hoursOf } from "./placed";

export interface Plan extends Facts {
  missing: Missing[];
  /** the moment it was planned at; null: the job's own start */
  now: number | null;
  bench: BenchState;
  /** moment the first step begins; null: nothing to do */
  start: number | null;
  /** moment the last step ends; null: something is unknown or never dries */
  ready: number | null;
  /** why there is no ready time */
  stuck: string | null;
  /** moments before which steps don't begin, where it was placed from a schedule of several jobs */
  starts: ReadonlyMap<string, number> | null;
  /** the job on the scheduler, for what is counted back */
  laying: Laying;
  decides: Decider[];
  /** steps that would have belonged before what is done by now: left out */
  late: Step[];
}

/**
 * @param now the moment it is planned at, minutes since 1970; null: the job's own start (what the door uses)
 * @param starts moments before which steps don't begin, by id: times out of a schedule
 * @param lean leave out what decides the date, which plans again several times: for lists of many jobs
 */
export function makePlan(
  world: World,
  now: number | null = null,
  lean = false,
  starts: ReadonlyMap<string, number> | null = null,
): Plan {
  const c = context(world);
  const bench = fold(world.log);
  const made = generate(c);
  const edited = applyEdits(made.steps, world.job.edits, c);
  const { steps, fixed, late } = withHistory(edited.steps, world.job.begun, bench.actuals, c.allZones);
  const begin = Math.max(c.clock.fromLocal(world.job.start), now ?? -Infinity);
  const first = blank(
    world.job.zones.map((z) => z.id),
    c.substrate,
    c.route?.side,
  );
  const from = (given: ReadonlyMap<string, number> | null): PlaceResult =>
    place(steps, begin, first, c, bench.actuals, now, { starts: given, fixed });
  const once = from(starts);
  const on = (r: PlaceResult): Laying =>
    layingOf({ context: c, placed: r.placed, now, stuck: r.stuck?.why ?? null, missing: made.missing });
  // A window is in the way: the scheduler may know a sooner way round it.
  const laid = once.moved && !starts ? soonest(once, from, on(once)(0, null)) : { result: once, starts };
  const { placed, stuck } = laid.result;
  // Leaving a wait out changes nothing before it.
  const without = (i: number): PlaceResult => {
    const again = (given: ReadonlyMap<string, number> | null): PlaceResult =>
      place(steps, placed[i - 1].end ?? begin, placed[i - 1].after, c, bench.actuals, now, {
        relax: i,
        skip: i,
        starts: given,
        fixed,
      });
    const r = again(starts);
    return laid.starts && !starts ? soonest(r, again, [{ starts: laid.starts }]).result : r;
  };
  const uses = placed.map((p) => stepUse(p, c));
  const last = placed[placed.length - 1];
  const ready = stuck ? null : (last?.end ?? null);
  const facts: Facts = {
    context: c,
    placed,
    uses,
    amounts: amounts(placed, uses, c),
    hiding: made.hiding,
    depth: made.depth,
    unfit: edited.unfit,
  };
  // Worked out when first asked for: a list of many jobs wants times only.
  let decided: Decider[] | null = lean ? [] : null;
  return {
    ...facts,
    missing: made.missing,
    now,
    starts,
    laying: on(laid.result),
    bench,
    late,
    start: placed[0]?.start ?? null,
    ready,
    stuck: stuck ? `“${steps[stuck.index].title}” has no time: ${stuck.why}.` : null,
    get decides() {
      return (decided ??= decides(
        placed,
        ready,
        now,
        (p) => hoursOf(p.step, c),
        (i) => {
          const r = without(i);
          return r.stuck ? null : (r.placed[r.placed.length - 1]?.end ?? null);
        },
      ));
    },
  };
}
