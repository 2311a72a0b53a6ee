/** What is done at a step, line by line: what its kind says, and what only the whole plan knows. */
import { byBeam, kindOf, own } from "../process/kinds";
import { inTurn, sharedOf, type Placed } from "../plan/placed";
import type { Context } from "../process/context";
import { lessonsAt } from "../plan/lessons";
import type { Plan } from "../plan/plan";
import { showLength } from "../units/show";

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

/** How the machine is to run at this visit: filled or along lines, how far it runs past each end, what its power does. */
function modesAhead(plan: Plan, p: Placed): string[] {
  const m = plan.context.machine;
  if (!kindOf(p.step.kind).places || !m) return [];
  const all = visit(plan, p);
  const rows = all.filter((x) => kindOf(x.step.kind).runs !== "lines" && own(x.step, "laser"));
  const lines = all.filter((x) => kindOf(x.step.kind).runs === "lines");
  const fastest = Math.max(0, ...rows.map((x) => own(x.step, "laser")!.speed));
  const past = m.overscanMm ?? fastest ** 2 / (2 * m.accel);
  return [
    ...(rows.length
      ? [
          `Filled, line by line, ${m.bothWays ? "both ways" : "one way"}; ` +
            (m.galvo
              ? "power constant"
              : `overrun ${showLength(Math.ceil(10 * past) / 10)} at each end, power constant: the edges come out like the middle`),
        ]
      : []),
    ...(lines.length
      ? ["Along the lines: power follows the speed in corners where the machine can, or they burn"]
      : []),
  ];
}

const TOGETHER = {
  oven: "One load of the oven with",
  spray: "Sprayed with one can, one behind the other, with",
  beam: "On one set-up of the machine with",
} as const;
/** How a step is done together with those of other jobs, in words; null: it is done alone. */
export function togetherWords(p: Pick<Placed, "step">, c: Context): string | null {
  const s = sharedOf(p.step, c);
  if (!s?.with.length) return null;
  const names = s.with.map((t) => `“${t}”`);
  const list = names.length === 1 ? names[0] : `${names.slice(0, -1).join(", ")} and ${names[names.length - 1]}`;
  const turn = s.as === "oven" ? "" : s.place === 0 ? ": this one first" : ": it is set up already";
  return `${TOGETHER[s.as]} ${list}${turn}`;
}

/** Every line of a step's work, as card, paper and bench say it. */
export const cuesOf = (plan: Plan, p: Placed): string[] => [
  ...lessonsAt(p.step, plan.context).map((l) => `Learned here: ${l.text.replace(/\.$/, "")}`),
  ...[togetherWords(p, plan.context)].filter((x) => x !== null),
  ...kindOf(p.step.kind).cues(p.step, plan.context),
  ...passesAhead(plan, p),
  ...modesAhead(plan, p),
];
