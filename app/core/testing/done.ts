/** A plan begun: its first steps done as planned. */
import { inTurn } from "../plan/placed";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import type { Plan } from "../plan/plan";

/** The world in which all steps before number k are done at their planned times. */
export function doneUpTo(w: World, plan: Plan, k: number): World {
  const log = inTurn(plan.placed.slice(0, k)).flatMap((x, i) =>
    (["start", "done"] as const).map((kind) => ({
      ...new LogEntry(),
      id: `l${String(i).padStart(2, "0")}.${kind}`,
      jobId: w.job.id,
      kind,
      step: x.step.id,
      at: (kind === "start" ? x.start : x.end) as number,
    })),
  );
  return { ...w, log };
}
