/** Lines of work that only the whole plan knows. */
import { brief } from "../testing/briefs";
import { many } from "../testing/worlds";
import { byBeam, kindOf, own } from "../process/kinds";
import { inTurn } from "../plan/placed";
import { makePlan } from "../plan/plan";
import { cuesOf } from "./cues";

const LINE = /^Passes on the machine: (.+); those of the job before may still stand there$/;

test("at every placing the passes of what follows until the piece is taken away, and nowhere else", () => {
  let said = 0;
  for (let n = 0; n < many(120); n++) {
    const plan = makePlan(brief(n * 3), null, true);
    let open: string | null = null;
    let passes: number[] = [];
    const close = (): void => {
      if (open !== null) expect([n, open]).toEqual([n, [...new Set(passes)].join(", then ")]);
      open = null;
      passes = [];
    };
    for (const p of inTurn(plan.placed)) {
      const told = cuesOf(plan, p).flatMap((x) => LINE.exec(x)?.[1] ?? []);
      if (kindOf(p.step.kind).places) {
        close();
        open = told[0] ?? "";
        said += told.length;
        continue;
      }
      expect(told).toEqual([]);
      if (byBeam(p.step)) passes.push(...(own(p.step, "laser") ? [own(p.step, "laser")!.passes] : []));
      else if (!kindOf(p.step.kind).stays) close();
    }
    close();
  }
  expect(said).toBeGreaterThan(many(60));
});

test("at every placing how the machine runs: filled with an overrun long enough, along lines with less power in corners", () => {
  let [filled, lined] = [0, 0];
  for (let n = 0; n < 60; n++) {
    const plan = makePlan(brief(n * 5 + 1), null, true);
    const m = plan.context.machine;
    const line = inTurn(plan.placed);
    line.forEach((p, i) => {
      const said = cuesOf(plan, p);
      const rows = said.find((x) => x.startsWith("Filled, line by line"));
      const lines = said.some((x) => x.startsWith("Along the lines"));
      if (!kindOf(p.step.kind).places || !m) return expect([n, rows, lines]).toEqual([n, undefined, false]);
      const next = line.slice(i + 1);
      const end = next.findIndex((x) => !byBeam(x.step) && !kindOf(x.step.kind).stays);
      const work = (end < 0 ? next : next.slice(0, end)).filter((x) => byBeam(x.step));
      const sets = work.filter((x) => kindOf(x.step.kind).runs !== "lines").flatMap((x) => own(x.step, "laser") ?? []);
      expect([n, p.step.id, rows !== undefined]).toEqual([n, p.step.id, sets.length > 0]);
      expect(lines).toBe(work.some((x) => kindOf(x.step.kind).runs === "lines"));
      if (lines) lined++;
      if (!rows || m.galvo) return;
      filled++;
      const told = Number(/overrun ([\d.]+) mm/.exec(rows)![1]);
      const needs = m.overscanMm ?? Math.max(...sets.map((s) => s.speed ** 2 / (2 * m.accel)));
      expect(told).toBeGreaterThanOrEqual(needs - 1e-9);
      expect(told).toBeLessThan(needs + 0.11);
    });
  }
  expect(filled).toBeGreaterThan(10);
  expect(lined).toBeGreaterThan(0);
});
