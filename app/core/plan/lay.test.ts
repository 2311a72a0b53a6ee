import { brief } from "../testing/briefs";
import { many } from "../testing/worlds";
import { countBack, holds } from "./backward";
import { better } from "./lay";
import { place } from "./place";
import { inTurn, brokenWindows, type PlaceResult } from "./placed";
import { LogEntry } from "../records/log";
import { makePlan, type Plan } from "./plan";
import { shopProblem } from "./schedule";

/** The same steps placed one after another, without the scheduler. */
const stepByStep = (p: Plan): PlaceResult =>
  place(
    p.placed.map((x) => x.step),
    p.context.clock.fromLocal(p.context.job.start),
    p.placed[0].before,
    p.context,
    new Map(),
    null,
    { proof: p.proof },
  );
const asPlaced = (p: Plan): PlaceResult => ({ placed: p.placed, stuck: null, moved: true, runs: [] });
const plans = Array.from({ length: many(120) }, (_, k) => makePlan(brief(k * 17), null, true));
const windowed = plans.filter((p) => stepByStep(p).moved);

test("where no window is in the way, the scheduler and placing step by step agree to the minute, or to the piece", () => {
  const plain = plans.filter((p) => !windowed.includes(p));
  expect(plain.length).toBeGreaterThan(many(120) / 3);
  let whole = 0;
  for (const p of plain) {
    const laid = p.laying(null, null);
    expect(laid.length).toBeGreaterThan(0);
    // the scheduler lets closing time fall into the midst of a piece; placed, the piece waits for the morning
    let waits = 0;
    for (const x of inTurn(p.placed)) {
      if (x.unit) waits += x.unit * (1 + x.pauses.length);
      const from = laid[0].starts.get(x.step.id)!;
      const off = p.context.calendar.workedBetween(from, x.start!);
      expect([x.step.id, from <= x.start! && off <= waits]).toEqual([x.step.id, true]);
      if (from !== x.start) whole++;
    }
  }
  if (plain.length > 20) expect(whole).toBeGreaterThan(0);
});

test("where one is, the plan is never later for being laid by it, breaks no window more, and is often sooner", () => {
  expect(windowed.length).toBeGreaterThan(many(120) / 5);
  let sooner = 0;
  for (const p of windowed) {
    const once = stepByStep(p);
    expect(better(once, asPlaced(p))).toBe(false);
    expect(brokenWindows(p.placed)).toBeLessThanOrEqual(brokenWindows(once.placed));
    for (const x of p.placed) expect(x.start! >= (p.placed[x.index - 1]?.end ?? -Infinity)).toBe(true);
    if (p.ready! < once.placed[once.placed.length - 1].end!) sooner++;
  }
  expect(sooner / windowed.length).toBeGreaterThan(0.4);
});

test("counted back on the scheduler too: the planned beginnings hold, the latest do, and a minute later none does", () => {
  for (const p of windowed.slice(0, 5)) {
    const due = p.ready! + 2 * 1440;
    const dated = makePlan(
      { ...p.context.world, job: { ...p.context.job, due: p.context.clock.toLocal(due) } },
      null,
      true,
    );
    for (const b of countBack(dated)!) {
      const broken = brokenWindows(dated.placed.slice(b.index));
      const planned = dated.placed[b.index].start!;
      expect([
        b.step,
        b.start! >= planned,
        holds(dated, b.index, planned, due, broken),
        holds(dated, b.index, b.start!, due, broken),
        holds(dated, b.index, b.start! + 1, due, broken),
      ]).toEqual([b.step, true, true, true, false]);
    }
  }
});

test("steps done two years ago are no part of the problem: time begins with what still counts", () => {
  const w = windowed[0].context.world;
  const first = makePlan(w, null, true);
  const log = first.placed.slice(0, 4).flatMap((x, i) =>
    (["start", "done"] as const).map((kind) => ({
      ...new LogEntry(),
      id: `l${i}.${kind}`,
      jobId: w.job.id,
      kind,
      step: x.step.id,
      at: (kind === "start" ? x.start : x.end) as number,
    })),
  );
  const now = first.placed[3].end! + 2 * 365 * 1440;
  const late = makePlan({ ...w, log }, now, true);
  const sp = shopProblem([late]);
  expect(sp.origin).toBeGreaterThan(now - 31 * 1440);
  expect(sp.problem.tasks).toHaveLength(inTurn(late.placed).length - 4);
  expect(sp.problem.clocks.every((c) => c.rates.length < 91 * 144)).toBe(true);
  const laid = late.laying(null, null);
  expect(laid.length).toBeGreaterThan(0);
  expect([...laid[0].starts.values()].every((t) => t >= now)).toBe(true);
});

test("parts of a minute in a log, and a job with an id of any length, are planned all the same", () => {
  const w = windowed[0].context.world;
  const first = makePlan(w, null, true);
  const log = first.placed.slice(0, 3).flatMap((x, i) =>
    (["start", "done"] as const).map((kind) => ({
      ...new LogEntry(),
      id: `l${i}.${kind}`,
      jobId: w.job.id,
      kind,
      step: x.step.id,
      at: (kind === "start" ? x.start : x.end)! + 0.4,
    })),
  );
  const parts = makePlan({ ...w, log }, first.placed[2].end! + 1.4, true);
  expect(parts.ready).not.toBeNull();
  expect(parts.laying(null, null).length).toBeGreaterThan(0);
  const long = makePlan({ ...w, job: { ...w.job, id: "x".repeat(300) } }, null, true);
  expect(long.laying(null, null)).toEqual(first.laying(null, null));
  expect(long.placed.map((p) => p.start)).toEqual(first.placed.map((p) => p.start));
});
