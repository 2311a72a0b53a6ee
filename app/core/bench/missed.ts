/**
 * A recoat window that shut before the next coat went on, and its ways out: wait until it reopens; scuff and recoat; strip and
 * lay the coats anew. Each is a world that is planned to its end before it is offered.
 */
import { makePlan, type Plan } from "../plan/plan";
import { inWindow } from "../plan/placed";
import type { Placed } from "../plan/placed";
import type { Readiness } from "../process/ready";
import { GROUND } from "../piece/state";
import type { Job, PlanEdit } from "../records/job";
import type { World } from "../records/world";
import { withEdits } from "../judge/fixes";

/** The need of a step whose window is shut at a moment; null: none, or it has reopened. */
export function missedWindow(p: Placed, now: number): Readiness | null {
  return p.needs.find((r) => r.closes !== null && !inWindow(r, now, p.minutes ?? 0)) ?? null;
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
  if (missed.reopens !== null)
    ways.push({
      id: "wait",
      label: "Wait until it reopens",
      say: "Costs time only. In between a coat would wrinkle the film beneath.",
      apply: (w) => w,
    });
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
  const coats = plan.placed.slice(0, p.index).filter((x) => x.step.kind === "coat");
  const cut = p.before.zones.some((z) => z.zone !== GROUND && z.depthUm > 0);
  if (!cut && coats.length)
    ways.push({
      id: "strip",
      label: "Strip it and begin again",
      say: `${coats.length} ${coats.length === 1 ? "coat is laid anew; its" : "coats are laid anew; their"} paint is spent twice.`,
      apply: (w) => {
        const step = free(w.job, "strip");
        const clean = free(w.job, wood ? "dust" : "degrease");
        const drafts: Draft[] = [
          { op: "add", step, after: before.step.id, field: "strip" },
          { op: "set", step, field: "zones", value: all },
          { op: "add", step: clean, after: step, field: wood ? "dust" : "degrease" },
        ];
        let after = clean;
        for (const x of coats) {
          const id = free({ ...w.job, edits: [...w.job.edits, ...(drafts as PlanEdit[])] }, x.step.id);
          drafts.push({ op: "duplicate", step: x.step.id, field: id, after });
          after = id;
        }
        return withEdits(w, drafts);
      },
    });
  return ways
    .map((way) => ({ ...way, ready: makePlan(way.apply(world), now).ready }))
    .filter((way) => way.ready !== null);
}
