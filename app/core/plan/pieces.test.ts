/** Pieces begun (M15): blanks, paint, powder, minutes and loads are theirs, not those of the pieces ordered; and what is begun stays. */
import { ROUTES } from "../catalogue/routes";
import { workCard } from "../explain/card";
import { chanceBeta, piecesToBegin } from "../models/spares/spares";
import { context } from "../process/context";
import { piecesOf, toBegin } from "../process/pieces";
import type { Job } from "../records/job";
import type { World } from "../records/world";
import { brief } from "../testing/briefs";
import { keptWith } from "./begun";
import { waysOut } from "./rescue";
import { makePlan, type Plan } from "./plan";

const withJob = (w: World, more: Partial<Job>, choices: Partial<Job["choices"]> = {}): World => ({
  ...w,
  job: { ...w.job, ...more, choices: { ...w.job.choices, ...choices } },
});
const total = (p: Plan, of: "ml" | "g"): number => p.amounts.reduce((a, x) => a + (x[of] ?? 0), 0);

/** P(at least n of N good), term by term with products only. */
function reckoned(N: number, n: number, a: number, b: number): number {
  let p = 1; // all N good
  for (let i = 0; i < N; i++) p *= (a + i) / (a + b + i);
  let sum = 0;
  for (let lost = 0; lost <= N - n; lost++) {
    sum += p;
    p *= ((N - lost) / (lost + 1)) * ((b + lost) / (a + N - lost - 1));
  }
  return sum;
}

test("the least number of which enough come out good, over orders, losses and how much is known", () => {
  for (const n of [1, 2, 3, 7, 12, 40, 150])
    for (const loss of [0, 0.03, 0.05, 0.12, 0.25, 0.5])
      for (const worth of [1, 8, 40]) {
        const [a, b] = [worth * (1 - loss), worth * loss].map((x) => Math.max(1e-6, x));
        let N = n;
        while (N < 20 * n && reckoned(N, n, a, b) < 0.9) N++;
        const got = piecesToBegin(n, loss, worth)!;
        expect([n, loss, worth, got.pieces]).toEqual([n, loss, worth, N]);
        expect(got.chance).toBeCloseTo(reckoned(N, n, a, b), 9);
        expect(chanceBeta(N, n, a, b)).toBeCloseTo(reckoned(N, n, a, b), 9);
      }
  // what was seen besides counts as if the prior held it
  expect(piecesToBegin(12, 0.25, 8, { good: 72, lost: 0 })!.pieces).toBe(piecesToBegin(12, 2 / 80, 80)!.pieces);
  // a hundred thousand are no loop over all of them
  expect(piecesToBegin(100000, 0.05)!.pieces).toBeGreaterThan(110000);
});

test("a plan of any route is that of its pieces begun, however they come to be so many", () => {
  let spare = 0;
  for (let n = 0; n < ROUTES.length; n++) {
    const w = withJob(brief(n), { quantity: 9, due: null });
    const enough = toBegin(w.job)!.pieces;
    const [loss, worth] = [context(w).route!.loss, 8];
    expect(enough).toBe(piecesToBegin(9, loss, worth)!.pieces);
    const p = makePlan(w, null, true);
    expect(p.context.pieces).toBe(enough);
    spare += enough - 9;
    // as many typed, as many ordered, or a share lost that asks for as many: the same steps, minutes and amounts
    const typed = makePlan(withJob(w, {}, { begin: enough }), null, true);
    const ordered = makePlan(withJob(w, { quantity: enough }, { begin: enough }), null, true);
    const bare = makePlan(withJob(w, {}, { begin: 9 }), null, true);
    for (const other of [typed, ordered]) {
      expect(other.placed.map((x) => [x.step.id, x.minutes])).toEqual(p.placed.map((x) => [x.step.id, x.minutes]));
      expect(other.amounts.map((x) => [x.ml, x.g])).toEqual(p.amounts.map((x) => [x.ml, x.g]));
    }
    for (const [i, x] of p.placed.entries()) {
      const y = bare.placed[i];
      expect([enough, enough - 1, 1]).toContain(x.pieces);
      if (x.perPieceMin === null || y.perPieceMin === null || y.step.minutes !== null) continue;
      expect([x.step.id, x.uncorrected]).toEqual([x.step.id, x.setupMin! + x.perPieceMin * x.pieces]);
    }
    if (enough > 9 && !p.missing.length)
      expect(total(p, "ml") + total(p, "g")).toBeGreaterThan(total(bare, "ml") + total(bare, "g"));
    const card = workCard(p, 0);
    expect([card.pieces, card.ordered]).toEqual([enough, 9]);
  }
  expect(spare).toBeGreaterThan(20);
});

test("a share that was seen counts as much as the pieces it was seen on, never as certain", () => {
  const w = withJob(brief(0), { quantity: 12 }, { lossShare: 0.25 });
  const on = (lossOn?: number): number => toBegin(withJob(w, {}, { lossOn }).job)!.pieces;
  expect([on(), on(8), on(1000)]).toEqual([23, 23, 19]);
  expect(on(1)).toBeGreaterThan(on(8));
  expect(toBegin(withJob(w, {}, { lossShare: 0 }).job)!.pieces).toBe(12);
});

test("what has begun stays as many; fewer than ordered are never begun", () => {
  const w = withJob(brief(0), { quantity: 12 });
  const plan = makePlan(w, null, true);
  const begun = keptWith(plan, plan.placed[0].step.id, 0);
  expect(begun.pieces).toBe(plan.context.pieces);
  const later = withJob(w, { begun }, { lossShare: 0.5 });
  expect(piecesOf(later.job)).toBe(plan.context.pieces);
  // what the maker types counts even then, and so does a larger order
  expect(piecesOf(withJob(later, {}, { begin: 40 }).job)).toBe(40);
  expect(piecesOf(withJob(later, { quantity: 60 }).job)).toBe(60);
  expect(piecesOf(withJob(w, {}, { begin: 3 }).job)).toBe(12);
  // one that was begun before this was kept is as many as were ordered
  expect(piecesOf(withJob(w, { begun: { ...begun, pieces: undefined } }).job)).toBe(12);
});

test("fewer by a date are fewer begun, spares and all, in a job that has begun too", () => {
  const w = withJob(brief(0), { quantity: 60 });
  const plan = makePlan(w, null, true);
  const begun = keptWith(plan, null, 0);
  for (const job of [w, withJob(w, { begun })]) {
    const soon = makePlan(withJob(job, { quantity: 20 }, { begin: 24 }), null, true).ready!;
    const due = plan.context.clock.toLocal(soon);
    const late = makePlan(withJob(job, { due }), null, true);
    if (late.ready! <= soon) continue;
    const fewer = waysOut(withJob(job, { due }), soon, null).find((x) => x.label.startsWith("Make "));
    expect(fewer).toBeDefined();
    const { job: less } = fewer!.apply(withJob(job, { due }));
    expect(less.quantity).toBeLessThan(60);
    expect(piecesOf(less)).toBe(toBegin(less)!.pieces);
  }
});
