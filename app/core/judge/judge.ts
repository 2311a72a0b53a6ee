/** How the findings of all rules become snags, and what a fix would change. */
import { differences, type Differences } from "../plan/differences";
import type { Facts } from "../plan/facts";
import { makePlan, type Plan } from "../plan/plan";
import { batchOf, isFirst } from "../plan/proof";
import type { World } from "../records/world";
import { RULES } from "./rules";
import { whereOf, type Fix, type Snag } from "./snag";

const ORDER = { never: 0, stop: 1, hazard: 2, risk: 3, advice: 4 };

/** Hazards are read once a job. */
const accept = (rule: number): Fix => ({
  id: "accept",
  label: "Read and accepted",
  apply: (w) => ({ ...w, job: { ...w.job, acknowledged: [...new Set([...w.job.acknowledged, rule])] } }),
});

/** Everything that stands against a plan, worst first. Waived ones stay, marked with their reason. */
export function judge(f: Facts): Snag[] {
  const { waivers, acknowledged } = f.context.job;
  const out: Snag[] = [];
  for (const r of RULES) {
    for (const found of r.find(f)) {
      const severity = found.severity ?? r.severity;
      const where = whereOf(found);
      const waived =
        severity === "never"
          ? null
          : severity === "hazard"
            ? acknowledged.includes(r.id)
              ? "accepted"
              : null
            : (waivers.find((w) => w.rule === r.id && w.where === where)?.reason ?? null);
      out.push({ ...found, rule: r.id, severity, fixes: severity === "hazard" ? [accept(r.id)] : found.fixes, waived });
    }
  }
  return sorted(out);
}

const sorted = (list: Snag[]): Snag[] =>
  list.sort(
    (a, b) =>
      Number(a.waived !== null) - Number(b.waived !== null) || ORDER[a.severity] - ORDER[b.severity] || a.rule - b.rule,
  );

/** What stands against a plan, and against the way of the piece that goes first where that differs: other days, other waits. */
function inTurnOf(p: Plan): Snag[] {
  const all = judge(p);
  if (!p.first) return all;
  const key = (s: Snag): string => `${s.rule}|${batchOf(s.step ?? "")}|${s.zone}`;
  const known = new Set(all.map(key));
  const own = judge(p.first).filter((s) => s.step !== null && isFirst(s.step) && !known.has(key(s)));
  return sorted([...all, ...own.map((s) => ({ ...s, why: `The piece that goes first: ${s.why}` }))]);
}

const judged = new WeakMap<Plan, Snag[]>();
/** Everything that stands against a plan, worked out when first asked for: a list of many jobs wants times only. */
export function snagsOf(p: Plan): Snag[] {
  if (p.whole) return snagsOf(p.whole);
  const known = judged.get(p) ?? inTurnOf(p);
  judged.set(p, known);
  return known;
}
/** Snags that still ask for something. */
export const open = (p: Plan): Snag[] => snagsOf(p).filter((s) => s.waived === null);

/** A fix of a plan found again by name. */
export function findFix(p: Plan, rule: number, where: string, fix: string): Fix | null {
  return (
    snagsOf(p)
      .find((s) => s.rule === rule && whereOf(s) === where)
      ?.fixes.find((x) => x.id === fix) ?? null
  );
}

export interface Preview extends Differences {
  steps: [number, number];
  ready: [number | null, number | null];
  /** further jobs that it makes of the job */
  more: number;
  gone: Snag[];
  fresh: Snag[];
}

/** What a fix would change, before it is pressed. */
export function preview(world: World, plan: Plan, fix: Fix, now: number | null): Preview {
  const { beside, ...then } = fix.apply(world);
  const next = makePlan(then, now);
  // where it makes further jobs of it, ready is what all of them are
  const last = (beside ?? []).reduce<number | null>((at, job) => {
    const { ready } = makePlan({ ...then, job }, now, true);
    return at === null || ready === null ? null : Math.max(at, ready);
  }, next.ready);
  const key = (s: Snag): string => `${s.rule}|${whereOf(s)}`;
  const before = new Set(open(plan).map(key));
  const after = new Set(open(next).map(key));
  return {
    steps: [plan.placed.length, next.placed.length],
    ...differences(
      plan.placed.map((p) => p.step),
      next.placed.map((p) => p.step),
    ),
    ready: [plan.ready, last],
    more: beside?.length ?? 0,
    gone: open(plan).filter((s) => !after.has(key(s))),
    fresh: open(next).filter((s) => !before.has(key(s))),
  };
}

/** A fix that was tried in a plan of its own. */
export interface Offered {
  fix: Fix;
  preview: Preview;
}

/**
 * Does a plan with the fix no longer have the snag, and no new one as grave? One of the same rule elsewhere is none such, as long as the
 * rule speaks less often than before: a wait that is over sooner moves what follows.
 */
export function sound(s: Snag, p: Preview): boolean {
  // a job is taken apart for nothing but its time
  const [before, after] = p.ready;
  if (p.more && (after === null || (before !== null && after >= before))) return false;
  const mine = (list: Snag[]): number => list.filter((x) => x.rule === s.rule).length;
  const worse = p.fresh.filter((x) => x.severity !== "hazard" && ORDER[x.severity] <= ORDER[s.severity]);
  return (
    p.gone.some((g) => g.rule === s.rule && whereOf(g) === whereOf(s)) &&
    worse.every((x) => x.rule === s.rule) &&
    mine(p.gone) > mine(worse)
  );
}

/** The fixes of a snag that clear it and raise nothing as bad, each tried before it is offered. A hazard is only read. */
export const offered = (world: World, plan: Plan, s: Snag, now: number | null): Offered[] =>
  s.fixes.map((fix) => ({ fix, preview: preview(world, plan, fix, now) })).filter((x) => sound(s, x.preview));
