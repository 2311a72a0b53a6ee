/** Loads and cycles, reckoned by hand beside the plan's own minutes. */
import { contextAt } from "../plan/placed";
import { makePlan } from "../plan/plan";
import { byBeam, kindOf, own } from "../process/kinds";
import { brief } from "../testing/briefs";
import { a1 } from "../testing/worlds";
import { figuresOf } from "./figures";
import { loadsOf } from "./loads";

test("over all ways: as many at once as the bed holds, each begins when the one before is done", () => {
  let [beams, ovens] = [0, 0];
  for (let n = 0; n < 241; n += 3) {
    const w = brief(n);
    const plan = makePlan({ ...w, job: { ...w.job, quantity: 1 + (n % 40) } }, null, true);
    for (const p of plan.placed) {
      const run = loadsOf(p, contextAt(p, plan.context));
      if (!run || p.start === null) continue;
      const oven = own(p.step, "method") === "oven";
      const { w: pw, h: ph, shape } = plan.context.job.substrate;
      const m = plan.context.machine!;
      if (!oven && !shape) {
        // laid by hand: rows and columns with 5 mm between, either way round
        const lie = (x: number, y: number): number => {
          let across = 0;
          let down = 0;
          for (let at = 0; at + x <= m.bedW + 1e-9; at += x + 5) across++;
          for (let at = 0; at + y <= m.bedH + 1e-9; at += y + 5) down++;
          return across * down;
        };
        expect(run.perLoad).toBe(Math.min(p.pieces, Math.max(lie(pw, ph), lie(ph, pw))));
      }
      expect(run.perLoad * run.loads).toBeGreaterThanOrEqual(p.pieces);
      expect(run.perLoad * (run.loads - 1)).toBeLessThan(p.pieces);
      expect(run.cycleMin * run.perLoad).toBeCloseTo(run.runMin + run.changeMin, 6);
      expect(run.begins).toHaveLength(run.loads);
      run.begins.forEach((at, k) => {
        expect(at).toBeGreaterThanOrEqual(p.start!);
        expect([w.job.id, p.step.kind, at <= p.end!]).toEqual([w.job.id, p.step.kind, true]);
        if (k) expect(at - run.begins[k - 1]).toBeGreaterThanOrEqual(run.runMin - 1e-6);
        // nobody is called in shut hours
        for (const [from, to] of p.pauses) expect(at > from + 1e-6 && at < to - 1e-6).toBe(false);
      });
      if (oven) ovens++;
      else beams++;
      expect(figuresOf(plan, p.index).some((f) => f.id === "loads")).toBe(true);
    }
    for (const p of plan.placed)
      if (!byBeam(p.step) && own(p.step, "method") !== "oven")
        expect([p.step.kind, loadsOf(p, contextAt(p, plan.context))]).toEqual([p.step.kind, null]);
  }
  expect(beams).toBeGreaterThan(60);
  expect(ovens).toBeGreaterThan(3);
});
test("a run over an hour says how long somebody stays by, and when loads change", () => {
  const w = a1();
  const big = { ...w, job: { ...w.job, quantity: 60, substrate: { ...w.job.substrate, w: 200, h: 150 } } };
  const plan = makePlan(big, null, true);
  const p = plan.placed.find((x) => kindOf(x.step.kind).beam === "film")!;
  const panel = figuresOf(plan, p.index).find((f) => f.id === "loads")!;
  const run = loadsOf(p, contextAt(p, plan.context))!;
  expect(run.loads).toBeGreaterThan(3);
  const row = (name: string) => panel.rows.find((r) => r.name === name);
  expect(row("Loads begin")!.value.split(", ").length).toBeGreaterThan(3);
  expect(row("Somebody stays by for")).toBeDefined();
});
test("minutes typed for the whole step are shared out; a bed too small for a piece says nothing", () => {
  const w = a1();
  const plan = makePlan(w, null, true);
  const p = plan.placed.find((x) => kindOf(x.step.kind).beam === "film")!;
  const typed = loadsOf({ ...p, step: { ...p.step, minutes: 30 }, perPieceMin: 0 }, plan.context)!;
  expect(typed.cycleMin * p.pieces).toBeCloseTo(30, 9);
  const small = { ...plan.context, machine: { ...plan.context.machine!, bedW: 20, bedH: 20 } };
  expect(loadsOf(p, small)).toBeNull();
});
