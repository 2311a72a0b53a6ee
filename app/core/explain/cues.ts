/** What is done at a step, line by line: what its kind says, and what only the whole plan knows. */
import { byBeam, kindOf, own } from "../process/kinds";
import { inTurn, type Placed } from "../plan/placed";
import { lessonsAt } from "../plan/lessons";
import type { Plan } from "../plan/plan";

/** Work of the beam from a placing on, until the piece is taken away from where it lies. */
function visit(plan: Plan, p: Placed): Placed[] {
  const line = inTurn(plan.placed);
  const after = line.slice(line.findIndex((x) => x.step.id === p.step.id) + 1);
  const away = after.findIndex((x) => !byBeam(x.step) && !kindOf(x.step.kind).stays);
  return (away < 0 ? after : after.slice(0, away)).filter((x) => byBeam(x.step));
}

/** Passes are kept by a machine from one job to the next: read off before it starts. Empty: nothing is known of them. */
function passesAhead(plan: Plan, p: Placed): string[] {
  if (!kindOf(p.step.kind).places) return [];
  const set = visit(plan, p).flatMap((x) => own(x.step, "laser") ?? []);
  const each = [...new Set(set.map((s) => s.passes))];
  if (!each.length) return [];
  return [`Passes on the machine: ${each.join(", then ")}; those of the job before may still stand there`];
}

/** Every line of a step's work, as card, paper and bench say it. */
export const cuesOf = (plan: Plan, p: Placed): string[] => [
  ...lessonsAt(p.step, plan.context).map((l) => `Learned here: ${l.text.replace(/\.$/, "")}`),
  ...kindOf(p.step.kind).cues(p.step, plan.context),
  ...passesAhead(plan, p),
];
