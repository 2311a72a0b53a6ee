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
