/** Plans of before, held: several hundred odd briefs, a line for some of them together. What a plan ought to be is tested beside this. */
import { createHash } from "node:crypto";
import { simulate } from "../explain/report";
import { LATER } from "../testing/briefs";
import { odd, tappedOdd } from "../testing/odd";
import { SCHOOLS } from "../catalogue/schools";
import { context } from "../process/context";
import type { World } from "../records/world";
import { countBack } from "./backward";
import { asked, chooseRoutes } from "./choose";
import { differences } from "./differences";
import { generate } from "./generate";
import { makePlan, type Plan } from "./plan";
import { waysOut } from "./rescue";
import { shopProblem } from "./schedule";
import { mattersHere, trialCards } from "../explain/trials";
import { trips } from "./trips";
import { placementOf, visitsOf } from "./visits";

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

/** An odd brief, every fourth of them begun at the bench. */
function brief(n: number): World {
  const w = odd(n, (x) => generate(context(x)).steps);
  if (n % 4 !== 3) return w;
  const times = makePlan(w, null, true).placed.map((p) => ({ id: p.step.id, start: p.start, end: p.end }));
  return tappedOdd(w, n, times);
}
const groups = (n: number, of: number): number[] => Array.from({ length: n / of }, (_, k) => k * of);

test.each(groups(N, TOGETHER))("steps, times and results of odd briefs are what they were, %i on", (from) => {
  const parts: unknown[][] = [[], [], []];
  for (let n = from; n < from + TOGETHER; n++) {
    const w = brief(n);
    const p = makePlan(w, null, n % 4 !== 3);
    told(p).forEach((x, i) => parts[i].push(x));
    if (n % 10 === 0) parts[1].push(makePlan(w).decides);
  }
  expect(`steps ${digest(parts[0])}, times ${digest(parts[1])}, results ${digest(parts[2])}`).toMatchSnapshot();
});

const FOLLOWS = 30;
const FEW = 3;
test.each(groups(FOLLOWS, FEW))("what follows from odd plans is what it was, %i on", (from) => {
  const lines = Array.from({ length: FEW }, (_, k) => {
    const n = from + k;
    const w = brief(n * 5 + 1);
    const p = makePlan(w, null, true);
    const { clock } = p.context;
    const due = (p.ready ?? (p.start as number)) + [-2880, 60, 4320][n % 3];
    const dated = makePlan({ ...w, job: { ...w.job, due: clock.toLocal(Math.floor(due)) } }, null, true);
    // a way that came later, and what is asked for it, are tried elsewhere
    const routes = chooseRoutes(p.context)
      .filter((r) => !LATER.has(r.route.id))
      .map((r) => [r.route.id, r.no, r.points, r.reasons]);
    const cards = trialCards(
      w,
      ["route:D1", "route:E1", "school:edge:both", `school:${SCHOOLS[n % SCHOOLS.length].id}:x`],
      [],
    );
    const other = makePlan(brief(n * 5 + 2), null, true);
    const steps = (x: Plan) => x.placed.map((y) => y.step);
    const { problem } = shopProblem([p]);
    return {
      routes: digest([routes, { ...asked(p.context), picture: undefined }]),
      turns: digest([visitsOf(p), placementOf(p), trips(p)]),
      back: digest([countBack(dated)?.map((b) => [b.index, b.start, b.slack]) ?? null]),
      ways: digest(waysOut(w, Math.floor(due), null).map((x) => [x.label, x.ready, x.keeps])),
      trials: digest([
        cards.map(({ n, key, name, steps, minutes, out }) => [n, key, name, steps, minutes, out]),
        n % 10 === 0 ? mattersHere(w) : null,
      ]),
      change: digest([differences(steps(p), steps(other))]),
      problem: digest([problem.tasks, problem.lags, problem.resources]),
    };
  });
  const keys = Object.keys(lines[0]) as (keyof (typeof lines)[0])[];
  expect(keys.map((k) => `${k} ${digest(lines.map((l) => l[k]))}`).join(", ")).toMatchSnapshot();
});
