/** Plans of before, held: several hundred odd briefs, a line for every twenty of them. What a plan ought to be is tested beside this. */
import { createHash } from "node:crypto";
import { simulate } from "../explain/report";
import { odd, tappedOdd } from "../testing/odd";
import { context } from "../process/context";
import { generate } from "./generate";
import { makePlan, type Plan } from "./plan";

const N = 400;
const TOGETHER = 20;
const digest = (lines: unknown[]): string =>
  createHash("sha256").update(JSON.stringify(lines)).digest("hex").slice(0, 10);

const told = (p: Plan): unknown[][] => {
  const end = p.placed[p.placed.length - 1];
  return [
    // what is done, in which order, with which figures
    p.placed
      .map((x) => [x.step, x.minutes, x.refused])
      .concat([[p.missing, p.unfit.map((u) => u.why), p.hiding, p.depth] as never]),
    // when, and what decides it
    [
      ...p.placed.map((x) => [
        x.start,
        x.end,
        x.pauses,
        x.blocked,
        x.needs.map((r) => [r.state, r.opens, r.closes, r.reopens]),
      ]),
      p.ready,
      p.stuck,
    ],
    // what comes of it, and what it takes
    [p.amounts, end ? simulate(p, end) : null],
  ];
};

test("steps, times and results of odd briefs are what they were", () => {
  const lines: string[] = [];
  for (let k = 0; k < N / TOGETHER; k++) {
    const parts: unknown[][] = [[], [], []];
    for (let n = k * TOGETHER; n < (k + 1) * TOGETHER; n++) {
      let w = odd(n, (x) => generate(context(x)).steps);
      const first = makePlan(w, null, true);
      if (n % 4 === 3)
        w = tappedOdd(
          w,
          n,
          first.placed.map((p) => ({ id: p.step.id, start: p.start, end: p.end })),
        );
      const p = n % 4 === 3 ? makePlan(w) : first;
      told(p).forEach((x, i) => parts[i].push(x));
      if (n % 10 === 0) parts[1].push(makePlan(w).decides);
    }
    lines.push(`${k * TOGETHER} on: steps ${digest(parts[0])}, times ${digest(parts[1])}, results ${digest(parts[2])}`);
  }
  expect(lines).toMatchSnapshot();
});
