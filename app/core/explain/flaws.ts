/** After a flaw: its causes weighed by what the log says really happened, and what each flaw has cost so far. */
import { flawKind, type Cause, type FlawId, type Story } from "../catalogue/flaws";
import { snagsOf } from "../judge/judge";
import { INTERVAL_LIMIT } from "../models/laser/energy";
import { breaksWindow } from "../plan/placed";
import { turns, type Plan } from "../plan/plan";
import { byBeam, isSet, kindOf, own } from "../process/kinds";
import type { Job } from "../records/job";

/** the rule of finishes that attack each other */
const ATTACKS = 33;

/** What really happened on a job so far. */
export function storyOf(plan: Plan): Story {
  const c = plan.context;
  const did = turns(plan).filter((t) => t.p.actual !== null);
  const coats = did.filter((t) => kindOf(t.p.step.kind).lays === "film");
  const air = c.world.log.filter((e) => coats.some((t) => t.p.step.id === e.step) && e.c !== null);
  const early = did.filter((t) => plan.bench.steps.get(t.p.step.id)?.early != null);
  const cutFor = (...states: string[]): boolean => early.some((t) => t.p.needs.some((n) => states.includes(n.state)));
  const products = [...new Set(coats.map((t) => own(t.p.step, "productId")))].flatMap((id) => c.paint(id) ?? []);
  const shares = products.flatMap((p) =>
    p.product.cans.filter((k) => k.leftMl !== null && k.fullMl > 0).map((k) => k.leftMl! / k.fullMl),
  );
  const set = did.filter((t) => isSet(t.p.step)).flatMap((t) => own(t.p.step, "laser") ?? []);
  const beams = did.filter((t) => byBeam(t.p.step) && isSet(t.p.step));
  const last = did[did.length - 1]?.p.after;
  const depths = last ? last.zones.map((z) => z.depthUm).filter((d) => d > 0) : [];
  return {
    coldest: air.length ? Math.min(...air.map((e) => e.c!)) : null,
    dampest: air.some((e) => e.rh !== null) ? Math.max(...air.map((e) => e.rh ?? 0)) : null,
    cut: {
      laser: cutFor("laser-safe"),
      recoat: cutFor("recoat", "flash"),
      mask: cutFor("maskable"),
      lift: cutFor("lift"),
      sand: cutFor("sandable"),
      cold: cutFor("cold", "cured"),
    },
    windowMissed: did.some((t) => t.p.actual && breaksWindow({ ...t.p, actual: null }, null)),
    canLeft: shares.length ? Math.min(...shares) : null,
    plated: beams.length ? beams.every((t) => own(t.p.step, "laser")?.from === "test plate") : null,
    wide: c.spotMm !== null && set.some((s) => s.interval > INTERVAL_LIMIT * c.spotMm! + 1e-9),
    attacked: snagsOf(plan).some((s) => s.rule === ATTACKS),
    sanded: last && depths.length ? last.sandedUm / Math.min(...depths) : null,
    passes: set.length ? Math.max(...set.map((s) => s.passes)) : null,
    tapeHot: did.some((t) => t.p.refused !== null),
    forced: c.job.choices.sunOrHotAir || c.job.choices.driedInEnclosure === true,
    wetSolvent: did.some((t) => kindOf(t.p.step.kind).wets === "solvent") && cutFor("dry"),
    airOn: c.job.choices.airStaysOn === true,
  };
}

export interface Likely {
  cause: Cause;
  /** share of all its causes' weights */
  share: number;
}
/** Causes of a flaw, the likeliest first. */
export function causesOf(id: FlawId, story: Story): Likely[] {
  const all = flawKind(id).causes.map((cause) => ({ cause, w: Math.max(0, cause.weight(story)) }));
  const sum = all.reduce((a, x) => a + x.w, 0) || 1;
  return all.map(({ cause, w }) => ({ cause, share: w / sum })).sort((a, b) => b.share - a.share);
}

export interface FlawCount {
  id: FlawId;
  /** times noted, and pieces that were spoilt by it */
  noted: number;
  spoilt: number;
  jobs: { id: string; title: string }[];
  /** of pieces made before and after a lesson about it was written down, how many had it; null: no lesson yet */
  before: { pieces: number; had: number } | null;
  after: { pieces: number; had: number } | null;
}
/** severity from which a piece counts as spoilt */
const SPOILT = 3;
/** Pieces of a job that have a flaw: one that is named twice is one; where no piece is named each note is of another. */
function piecesWith(j: Job, flaw: FlawId, severity = 1): number {
  const mine = j.wrapUp.flaws.filter((f) => f.flaw === flaw && f.severity >= severity);
  const named = new Set(mine.flatMap((f) => f.piece ?? []));
  return Math.min(j.quantity, named.size + mine.filter((f) => f.piece === null).length);
}
/** Flaws of all jobs, the costliest first. @param learned when a lesson was first written down, `YYYY-MM-DD` by kind of step */
export function flawCounts(jobs: readonly Job[], learned: ReadonlyMap<string, string>): FlawCount[] {
  const out = new Map<FlawId, FlawCount>();
  for (const j of jobs)
    for (const id of new Set(j.wrapUp.flaws.map((f) => f.flaw))) {
      const row = out.get(id) ?? { id, noted: 0, spoilt: 0, jobs: [], before: null, after: null };
      row.noted += j.wrapUp.flaws.filter((f) => f.flaw === id).length;
      row.spoilt += piecesWith(j, id, SPOILT);
      row.jobs.push({ id: j.id, title: j.title });
      out.set(id, row);
    }
  for (const row of out.values()) {
    const since = learned.get(flawKind(row.id).next.kind);
    if (!since) continue;
    const half = (after: boolean): { pieces: number; had: number } => {
      const some = jobs.filter((j) => j.wrapUp.closedAt !== null && j.wrapUp.closedAt.slice(0, 10) > since === after);
      return {
        pieces: some.reduce((a, j) => a + j.quantity, 0),
        had: some.reduce((a, j) => a + piecesWith(j, row.id), 0),
      };
    };
    [row.before, row.after] = [half(false), half(true)];
  }
  return [...out.values()].sort((a, b) => b.spoilt - a.spoilt || b.noted - a.noted);
}
