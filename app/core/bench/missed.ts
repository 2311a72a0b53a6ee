/**
 * A recoat window that shut before the next coat went on, and its ways out: wait until it reopens; scuff and recoat; strip and do all
 * anew that was done since the first coat. Each is a world that is planned to its end, and to the same finished face, before it is
 * offered.
 */
import { difference } from "../models/film/colour";
import { makePlan, planFor, type Plan } from "../plan/plan";
import { inWindow } from "../plan/placed";
import type { Placed } from "../plan/placed";
import { kindOf, type Step } from "../process/kinds";
import type { Readiness } from "../process/ready";
import { GROUND, shown, zoneOf } from "../piece/state";
import type { Job, PlanEdit } from "../records/job";
import type { World } from "../records/world";
import { withEdits } from "../judge/fixes";

/** CIEDE2000 within which two faces are one */
const SAME = 1;

/**
 * The need of a step whose window is shut at a moment; null: none, or it has reopened. A mask that only lifts worse as time goes by is
 * no such need: waiting mends nothing.
 */
export function missedWindow(p: Placed, now: number): Readiness | null {
  return p.needs.find((r) => r.closes !== null && !worsens(r) && !inWindow(r, now, p.minutes ?? 0)) ?? null;
}
/** Does a mask come off a film that will never again lift as clean as it does while soft? */
const worsens = (r: Readiness): boolean => r.state === "lift" && r.reopens === null;
/** Is a mask, begun to be lifted by now, lifted at its last out of a film that tears at its edge? */
export const liftsLate = (p: Placed, now: number): boolean =>
  p.needs.some((r) => r.closes !== null && worsens(r) && now + (p.minutes ?? 0) > r.closes);

/**
 * Did the plan mean to wait until it reopens? When the step before ended, the shop's own hours or the film's left no way into the
 * first stretch.
 */
export function meantToReopen(world: World, plan: Plan, p: Placed, r: Readiness): boolean {
  const before = plan.placed[p.index - 1];
  if (r.reopens === null || before?.actual?.end == null) return false;
  const then = planFor(makePlan(world, before.actual.end, true), p.step.id).placed[p.index];
  return then !== undefined && then.step.id === p.step.id && then.start !== null && then.start >= r.reopens;
}

/** Does a plan end with the face that another ends with? */
function sameFace(a: Plan, b: Plan): boolean {
  const [x, y] = [a, b].map((p) => p.placed[p.placed.length - 1]?.after);
  if (!x || !y) return false;
  const { substrate, paintOf, allZones } = a.context;
  return allZones.every((id) => {
    const [s, t] = [x, y].map((p) => shown(p, zoneOf(p, id), substrate.colour, paintOf));
    return difference(s, t) <= SAME;
  });
}

export interface MissedWay {
  id: "wait" | "scuff" | "strip";
  label: string;
  /** what it means, in a sentence */
  say: string;
  ready: number | null;
  apply(w: World): World;
}

type Draft = Pick<PlanEdit, "op" | "step"> & Partial<PlanEdit>;
const free = (job: Job, base: string): string => {
  for (let n = 1; ; n++)
    if (!job.edits.some((e) => e.step === `${base}.m${n}` || e.field === `${base}.m${n}`)) return `${base}.m${n}`;
};

/** @returns the ways that can be planned to an end, in the order wait, scuff, strip */
export function waysOutOf(world: World, plan: Plan, p: Placed, now: number): MissedWay[] {
  const missed = missedWindow(p, now);
  const before = plan.placed[p.index - 1];
  if (!missed || !before) return [];
  const c = plan.context;
  const all = c.allZones.join(",");
  const wood = c.substrate.family === "wood";
  const ways: Omit<MissedWay, "ready">[] = [];
  const coat = missed.state === "recoat";
  if (missed.reopens !== null)
    ways.push({
      id: "wait",
      label: "Wait until it reopens",
      say: coat
        ? "Costs time only. In between a coat would wrinkle the film beneath."
        : "Costs time only. In between it is neither soft nor firm, and its edge tears.",
      apply: (w) => w,
    });
  if (!coat) return planned(world, plan, ways, now);
  const scuffEdits = (job: Job): Draft[] => {
    const step = free(job, "scuff-film");
    const clean = free(job, wood ? "dust" : "degrease");
    return [
      { op: "add", step, after: before.step.id, field: "scuff-film" },
      { op: "set", step, field: "zones", value: p.step.zones.join(",") },
      { op: "add", step: clean, after: step, field: wood ? "dust" : "degrease" },
    ];
  };
  ways.push({
    id: "scuff",
    label: "Scuff and recoat",
    say: "As soon as the film can be scuffed; the scratches hold the next coat.",
    apply: (w) => withEdits(w, scuffEdits(w.job)),
  });
  const first = plan.placed.findIndex((x) => kindOf(x.step.kind).lays === "film");
  const again = plan.placed.slice(first, p.index).filter((x) => isDone(x.step));
  const coats = again.filter((x) => x.step.kind === "coat").length;
  // what is cut into the body, and what the laser took off with its colour, stays: nothing lays that anew
  const cut = p.before.zones.some((z) => z.zone !== GROUND && z.depthUm > 0);
  // the rest of the set lies whole beside a piece that goes first
  if (!cut && coats > 0 && !plan.whole)
    ways.push({
      id: "strip",
      label: "Strip it and begin again",
      say: `${coats} ${coats === 1 ? "coat is laid anew; its" : "coats are laid anew; their"} paint is spent twice.`,
      apply: (w) => {
        const step = free(w.job, "strip");
        const clean = free(w.job, wood ? "dust" : "degrease");
        const drafts: Draft[] = [
          { op: "add", step, after: before.step.id, field: "strip" },
          { op: "set", step, field: "zones", value: all },
          { op: "add", step: clean, after: step, field: wood ? "dust" : "degrease" },
        ];
        let after = clean;
        for (const x of again) {
          const id = free({ ...w.job, edits: [...w.job.edits, ...(drafts as PlanEdit[])] }, x.step.id);
          drafts.push({ op: "duplicate", step: x.step.id, field: id, after });
          after = id;
        }
        return withEdits(w, drafts);
      },
    });
  return planned(world, plan, ways, now);
}

/** Has it an effect on the pieces that stripping takes away, and that must be done anew? */
const isDone = (s: Step): boolean => {
  const k = kindOf(s.kind);
  return !k.labels && !k.tries && !k.rests;
};

/** Those that can be planned to an end, with the face that was meant. */
const planned = (world: World, plan: Plan, ways: Omit<MissedWay, "ready">[], now: number): MissedWay[] =>
  ways
    .map((way) => ({ way, next: makePlan(way.apply(world), now, true) }))
    .filter(({ next }) => next.ready !== null && sameFace(plan.whole ?? plan, next))
    .map(({ way, next }) => ({ ...way, ready: next.ready }));
