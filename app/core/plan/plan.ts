/** From a world to a plan: generate, lay the edits on, place in time, add up. Pure; under 20 ms for 40 steps and 6 zones. */
import { fold, type BenchState } from "./fold";
import { blank, type Piece } from "../piece/state";
import type { Context } from "../process/context";
import type { Job } from "../records/job";
import type { World } from "../records/world";
import { amounts, stepUse } from "./amounts";
import { decides, type Decider } from "./decides";
import { applyEdits } from "./edits";
import type { Facts } from "./facts";
import type { Generated, Missing } from "./builder";
import { supplied } from "./supply";
import type { Product } from "../records/product";
import { withHistory } from "./history";
import type { Step } from "../process/kinds";
import { isFirst, keptOf, proofOf, type Proof } from "./proof";
import { layingOf, restedSooner, soonest, type Laying } from "./lay";
import { NO_RESTS, type Rests } from "./rest";
import { place, stillStands, type Before } from "./place";
import { inTurn, contextAt, hoursOf, type Placed, type PlaceResult } from "./placed";

export interface Plan extends Facts {
  missing: Missing[];
  /** what it is planned with and is not on the Shelf */
  toBuy: readonly Product[];
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
  /** coats that rest before they are laid, so that what follows waits less */
  rests: Rests;
  /** the job on the scheduler, for what is counted back */
  laying: Laying;
  decides: Decider[];
  /** piece 1 on its way up to the proof: the steps behind which it sets out, and those that it goes through alone; null: none does */
  first: Plan | null;
  /** of a first piece’s plan: the plan that it belongs to; null: this is a whole one */
  whole: Plan | null;
  /** steps that would have belonged before what is done by now: left out */
  late: Step[];
  /** what piece 1 goes through before the rest; null: all go together */
  proof: Proof | null;
}

/** Beginnings that the shop's calendar has given a job, by step; null: it is planned as if it were alone. */
export function laidOf(job: Job): ReadonlyMap<string, number> | null {
  const given = [...(job.queue?.laid ?? []), ...(job.queue?.pins ?? [])];
  return given.length ? new Map(given.map((x) => [x.step, x.at])) : null;
}
/** For a plan as if the job were alone, whatever the shop's calendar says. */
export const ALONE: ReadonlyMap<string, number> = new Map();

/** What of a plan its world decides, wherever in time its steps lie. */
interface Prepared {
  c: Context;
  made: Generated;
  bench: BenchState;
  unfit: Facts["unfit"];
  steps: Step[];
  late: Step[];
  fixed: ReadonlySet<string>;
  proof: Proof | null;
  first: Piece;
}
/** as long as a plan is there, by its context */
const prepared = new WeakMap<Context, Prepared>();
function prepare(world: World): Prepared {
  const { c, made } = supplied(world);
  const bench = fold(world.log);
  const edited = applyEdits(made.steps, world.job.edits, c);
  const mine = withHistory(edited.steps, keptOf(world.job.begun, false), bench.actuals, c.allZones);
  const { steps, late } = mine;
  const proof = proofOf(steps, c, world.job.begun, bench);
  const fixed = proof ? new Set([...mine.fixed, ...proof.fixed]) : mine.fixed;
  const first = blank(
    world.job.zones.map((z) => z.id),
    c.substrate,
    c.route?.side,
  );
  const all = { c, made, bench, unfit: edited.unfit, steps, late, fixed, proof, first };
  prepared.set(c, all);
  return all;
}
/** plans placed again of late, by context: a shop that is laid over and over asks for the same ones */
const placedOfLate = new WeakMap<Context, Plan[]>();
const OF_LATE = 8;

/** A plan with its steps no earlier than other moments: what is done and how is the same. As {@link makePlan}, lean. */
export function placedAgain(plan: Plan, now: number | null, given: ReadonlyMap<string, number>): Plan {
  const { context } = plan;
  const late = placedOfLate.get(context) ?? [];
  const known = late.find((p) => alike(p.starts, given) && standsAt(p, now));
  const made = known ?? planFrom(prepared.get(context) ?? prepare(context.world), now, true, given);
  placedOfLate.set(context, [made, ...late.filter((p) => p !== made)].slice(0, OF_LATE));
  return made;
}
/** When the steps of a plan are, and when it is ready. */
export type Times = Pick<Plan, "placed" | "ready">;
/** The times alone of {@link placedAgain}, coats resting where they rest in the plan: for what is only tried. */
export function timesAgain({ context, rests }: Plan, now: number, given: ReadonlyMap<string, number>): Times {
  const { placed, stuck } = placedIn(prepared.get(context) ?? prepare(context.world), now)(given, rests);
  return { placed, ready: stuck ? null : (placed[placed.length - 1]?.end ?? null) };
}
const alike = (a: Plan["starts"], b: ReadonlyMap<string, number>): boolean =>
  a?.size === b.size && [...b].every(([step, at]) => a.get(step) === at);

/** Would it be laid just so at this moment too? */
export const standsAt = (p: Plan, now: number | null): boolean => stillStands(p.placed, p.now, now);

/** how a job's steps were placed of late, by its context: what nothing has changed for is not placed anew */
const before = new WeakMap<Context, Before[]>();
const BEFORE = 12;

/**
 * @param now the moment it is planned at, minutes since 1970; null: the job's own start (what the door uses)
 * @param given moments before which steps don't begin, by id: times out of a schedule; null: those that the shop's calendar gave it
 * @param lean leave out what decides the date, which plans again several times: for lists of many jobs
 */
export function makePlan(
  world: World,
  now: number | null = null,
  lean = false,
  given: ReadonlyMap<string, number> | null = null,
): Plan {
  return planFrom(prepare(world), now, lean, given ?? laidOf(world.job));
}

const beginOf = (c: Context, now: number | null): number =>
  Math.max(c.clock.fromLocal(c.world.job.start), now ?? -Infinity);
/** Places the steps of a job. */
const placedIn =
  ({ c, steps, first, bench, fixed, proof }: Prepared, now: number | null) =>
  (starts: ReadonlyMap<string, number> | null, rests: Rests = NO_RESTS): PlaceResult => {
    const known = before.get(c) ?? [];
    const o = { starts, rests, fixed, proof, before: known };
    const result = place(steps, beginOf(c, now), first, c, bench.actuals, now, o);
    before.set(c, [{ result, starts, rests, now }, ...known].slice(0, BEFORE));
    return result;
  };

function planFrom(
  whole: Prepared,
  now: number | null,
  lean: boolean,
  starts: ReadonlyMap<string, number> | null,
): Plan {
  const { c, made, bench, unfit, steps, late, fixed, proof, first } = whole;
  const begin = Math.max(c.clock.fromLocal(c.world.job.start), now ?? -Infinity);
  const from = (at: ReadonlyMap<string, number> | null, rests: Rests = NO_RESTS): PlaceResult => {
    const known = before.get(c) ?? [];
    const result = place(steps, begin, first, c, bench.actuals, now, {
      starts: at,
      rests,
      fixed,
      proof,
      before: known,
    });
    before.set(c, [{ result, starts: at, rests, now }, ...known].slice(0, BEFORE));
    return result;
  };
  const once = from(starts);
  const on = (r: PlaceResult): Laying =>
    layingOf({ context: c, placed: r.placed, now, stuck: r.stuck?.why ?? null, missing: made.missing, proof });
  // A window is in the way: the scheduler may know a sooner way round it.
  const laid = once.moved && !starts ? soonest(once, from, on(once)(null, null)) : { result: once, starts };
  const rest = restedSooner(laid.result, (rests) => from(laid.starts, rests), c);
  const { placed, stuck } = rest.result;
  // Leaving a wait out changes nothing before it.
  const without = (p: Placed): PlaceResult => {
    const i = isFirst(p.step.id) ? proof!.at : p.index;
    const again = (at: ReadonlyMap<string, number> | null): PlaceResult =>
      place(steps, placed[i - 1]?.end ?? begin, placed[i - 1]?.after ?? first, c, bench.actuals, now, {
        relax: p.step.id,
        skip: i,
        starts: at,
        rests: rest.rests,
        fixed,
        proof,
      });
    const r = again(starts);
    return laid.starts && !starts ? soonest(r, again, [{ starts: laid.starts }]).result : r;
  };
  const uses = placed.map((p) => stepUse(p, c));
  const all = inTurn(placed);
  const last = placed[placed.length - 1];
  const ready = stuck ? null : (last?.end ?? null);
  const facts: Facts = {
    context: c,
    placed,
    uses,
    amounts: amounts(
      all,
      all.map((p) => (isFirst(p.step.id) ? stepUse(p, c) : uses[p.index])),
      c,
    ),
    hiding: made.hiding,
    depth: made.depth,
    unfit,
  };
  // Worked out when first asked for: a list of many jobs wants times only.
  let decided: Decider[] | null = lean ? [] : null;
  const base: Omit<Plan, "decides" | "first" | "whole"> = {
    ...facts,
    missing: made.missing,
    toBuy: c.standIns,
    now,
    starts,
    rests: rest.rests,
    laying: on(rest.result),
    bench,
    late,
    proof,
    start: all[0]?.start ?? null,
    ready,
    stuck: stuck ? `“${steps[stuck.index].title}” has no time: ${stuck.why}.` : null,
  };
  const plan: Plan = {
    ...base,
    get decides() {
      return (decided ??= decides(
        all,
        ready,
        now,
        (p) => hoursOf(p.step, c),
        (p) => {
          const r = without(p);
          return r.stuck ? null : (r.placed[r.placed.length - 1]?.end ?? null);
        },
        starts,
      ));
    },
    first: null,
    whole: null,
  };
  if (proof) plan.first = firstOf(base, plan, proof.at);
  return plan;
}

/** The plan of piece 1 up to where it is looked at. */
function firstOf(base: Omit<Plan, "decides" | "first" | "whole">, whole: Plan, at: number): Plan {
  const { context: c, uses } = base;
  const looked = base.placed[at];
  const alone = looked.cycle;
  // as it lies there it has been through all of them; the rest of the set lies as it did
  const gone = alone[alone.length - 1].after;
  const look = { ...looked, index: at + alone.length, cycle: [], before: gone, after: gone };
  const placed = [...base.placed.slice(0, at), ...alone, look];
  return {
    ...base,
    context: contextAt(looked, c),
    placed,
    uses: [...uses.slice(0, at), ...alone.map((p) => stepUse(p, c)), uses[at]],
    ready: looked.end,
    laying: () => [],
    decides: [],
    first: null,
    whole,
  };
}

/** The steps of a plan in the order they are done, each in the plan in which it stands. */
export const turns = (plan: Plan): { plan: Plan; p: Placed }[] =>
  inTurn(plan.placed).map((p) => ({ plan: planFor(plan, p.step.id), p }));

/** A step of a plan by its id, those of piece 1 among them; undefined: there is none. */
export const findStep = (plan: Plan, id: string | null | undefined): Placed | undefined =>
  id == null ? undefined : planFor(plan, id).placed.find((p) => p.step.id === id);

/** The plan in which a step stands: that of piece 1 for those it goes through alone. */
export const planFor = (plan: Plan, step: string): Plan => (plan.first && isFirst(step) ? plan.first : plan);
