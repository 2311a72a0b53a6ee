/** Gates over all routes: what bars a step is there because of what the step does, opens by its own answer, and by nothing else. */
import { kindOf, own } from "../process/kinds";
import { snagsOf } from "../judge/judge";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import { makePlan, type Plan } from "../plan/plan";
import { brief } from "../testing/briefs";
import { a1, e1, many } from "../testing/worlds";
import { gatesOf, stoppedAt, type Gate } from "./gates";

let n = 0;
const log = (w: World, kind: LogEntry["kind"], step: string, at: number, more: Partial<LogEntry> = {}): World => ({
  ...w,
  log: [
    ...w.log,
    { ...new LogEntry(), id: `t${String(n++).padStart(6, "0")}`, jobId: w.job.id, kind, step, at, ...more },
  ],
});
const ids = (g: Gate[]): string[] => g.map((x) => x.id);
/** The world in which a gate has been answered. */
function answered(w: World, step: string, g: Gate, at: number): World {
  switch (g.by) {
    case "tick":
      return log(w, "check", step, at, { tick: g.id });
    case "accept":
      return { ...w, job: { ...w.job, acknowledged: [...w.job.acknowledged, g.snag!.rule] } };
    case "proof":
      return { ...w, job: { ...w.job, order: { ...w.job.order, proofAccepted: "2027-01-12T12:00" } } };
    case "look":
      return log(w, "check", g.step!, at, { answer: "good" });
    case "plan":
      return {
        ...w,
        job: { ...w.job, waivers: [...w.job.waivers, { rule: g.snag!.rule, where: g.snag!.where, reason: "meant" }] },
      };
    default:
      return { ...w, machines: w.machines.map(({ changeOver: _, ...m }) => m) };
  }
}
const gate = (p: Plan, step: string): string[] =>
  ids(
    gatesOf(
      p,
      p.placed.find((x) => x.step.id === step)!,
    ),
  );

test("every gate opens by its own answer alone, on every route, and then stays open", () => {
  const seen = new Set<string>();
  for (let k = 0; k < 28; k++) {
    let w = brief(k * 5);
    let plan = makePlan(w, null, true);
    for (const { step, end } of plan.placed) {
      for (let guard = 0; guard < 20; guard++) {
        const gates = gatesOf(
          plan,
          plan.placed.find((p) => p.step.id === step.id)!,
        );
        if (!gates.length) break;
        const [g] = gates;
        seen.add(g.id.split(":")[0]);
        w = answered(w, step.id, g, (end ?? 0) - 1);
        plan = makePlan(w, null, true);
        const left = gatesOf(
          plan,
          plan.placed.find((p) => p.step.id === step.id)!,
        );
        expect(ids(left)).toEqual(ids(gates).filter((id) => id !== g.id));
      }
      expect(gate(plan, step.id)).toEqual([]);
    }
  }
  expect([...seen].sort()).toEqual(["adhesion", "cleaner", "coats", "colours", "cool", "hazard", "proof"]);
});

test("what is ticked follows from what steps do, on every route", () => {
  for (let k = 0; k < many(47); k++) {
    const plan = makePlan(brief(k * 3), null, true);
    const gates = new Map(plan.placed.map((p) => [p.index, ids(gatesOf(plan, p))]));
    const of = (id: string): number[] => [...gates].filter(([, list]) => list.includes(id)).map(([i]) => i);
    const last = (test: (p: Plan["placed"][number]) => boolean): number => plan.placed.findLastIndex(test);
    // sanding and lifting for good: only once all colours are laid
    const colour = last((p) => own(p.step, "role") === "colour");
    for (const i of of("colours")) expect(i).toBeGreaterThan(colour);
    // one piece is tested between the first coat and the second, on what does not drink
    expect(of("adhesion").length).toBeLessThanOrEqual(plan.context.substrate.absorbent ? 0 : 1);
    // whatever heat touches was wiped before, and is asked about once
    expect(of("cleaner").length).toBeLessThanOrEqual(1);
    for (const i of of("cleaner"))
      expect(plan.placed.slice(0, i).some((p) => kindOf(p.step.kind).cleans === "solvent")).toBe(true);
    // lifting a mask off what was melted: cold first
    plan.placed.forEach((p) => {
      const hot = kindOf(p.step.kind).lifts === "mask" && p.before.warm !== null;
      if (hot) expect(of("cool")).toContain(p.index);
    });
    const proof = last((p) => kindOf(p.step.kind).tries === "piece");
    if (proof >= 0) expect(of("proof")).toEqual(plan.placed.slice(proof + 1).map((p) => p.index));
  }
});

test("a stop stops all that comes after, whatever it is, until it is looked at again", () => {
  for (const w of [e1(), a1()]) {
    const [first] = makePlan(w).placed;
    const stopped = log(log(w, "start", first.step.id, 1), "check", first.step.id, 2, { answer: "stop" });
    const plan = makePlan(stopped);
    expect(stoppedAt(plan)!.step.id).toBe(first.step.id);
    for (const p of plan.placed) expect(gate(plan, p.step.id).includes("stop")).toBe(p.index > 0);
    // stopped before it has begun: it does not begin
    const unbegun = makePlan(log(w, "check", first.step.id, 2, { answer: "stop" }));
    expect(gate(unbegun, first.step.id)[0]).toBe("stop");
    for (const answer of ["good", "mend"] as const)
      expect(stoppedAt(makePlan(log(stopped, "check", first.step.id, 3, { answer })))).toBeNull();
    const against = makePlan(
      log(stopped, "check", first.step.id, 3, { answer: "mend", note: "the customer wants it so" }),
    );
    expect(against.bench.steps.get(first.step.id)!.against).toEqual([{ at: 3, text: "the customer wants it so" }]);
    expect(
      makePlan(log(stopped, "check", first.step.id, 3, { answer: "mend" })).bench.steps.get(first.step.id)!.against,
    ).toEqual([]);
  }
});

test("what would ruin the piece bars its step and those behind it; a hazard only its own; a machine with its list open every burn", () => {
  // acrylic laid straight into bare metal
  const w = e1({ job: { use: ["food"] }, choices: { cleaner: "chlorinated" } });
  const plan = makePlan({
    ...w,
    job: { ...w.job, quantity: 2 },
    machines: w.machines.map((m) => ({ ...m, changeOver: ["bed"] })),
  });
  for (const s of snagsOf(plan)) {
    const at = plan.placed.findIndex((p) => p.step.id === s.step);
    const barred = plan.placed
      .filter((p) => gate(plan, p.step.id).some((id) => id.includes(`:${s.rule}`)))
      .map((p) => p.index);
    if (s.severity === "stop" || s.severity === "never")
      expect(barred).toEqual(plan.placed.slice(Math.max(0, at)).map((p) => p.index));
    else if (s.severity === "hazard") expect(barred).toContain(Math.max(0, at));
    else expect(barred).toEqual([]);
  }
  for (const p of plan.placed)
    expect([p.step.kind, gate(plan, p.step.id).includes("change-over")]).toEqual([
      p.step.kind,
      kindOf(p.step.kind).beam !== undefined,
    ]);
});
