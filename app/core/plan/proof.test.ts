/** A proof is a full cycle on one piece: over all routes, what it goes through, when, with what, and what it holds up. */
import { gatesOf } from "../bench/gates";
import { atBench, numbersAt, standing } from "../bench/next";
import { ROUTES } from "../catalogue/routes";
import { latestStart } from "./backward";
import { read } from "../explain/why/figure";
import { kindOf } from "../process/kinds";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import { brief } from "../testing/briefs";
import { many } from "../testing/worlds";
import { keptWith } from "./begun";
import { makePlan, planFor, type Plan } from "./plan";
import { inTurn, type Placed } from "./placed";
import { batchOf, firstPiece, isFirst } from "./proof";
import { shopProblem } from "./schedule";
import { trips } from "./trips";

/** a brief for a set, with or without a piece that goes first */
const set = (n: number, proof: boolean | null, more: Partial<World["job"]> = {}): World => {
  const w = brief(n);
  const job = { ...w.job, quantity: 5, due: null, ...more };
  return { ...w, job: { ...job, choices: { ...job.choices, begin: 6, proof } } };
};
const proofAt = (p: Plan): Placed | undefined => p.placed.find((x) => x.cycle.length > 0);
/** briefs of every route in which a piece can go first */
const SETS = Array.from({ length: Math.max(ROUTES.length, many(60)) }, (_, n) => set(n * 17, true)).filter((w) =>
  proofAt(makePlan(w, null, true)),
);
const tapped = (w: World, list: Placed[], from = 0): World => ({
  ...w,
  log: [
    ...w.log,
    ...list.flatMap((x, i) =>
      (["start", "done"] as const).map((kind) => ({
        ...new LogEntry(),
        id: `p${String(from + i).padStart(4, "0")}.${kind}`,
        jobId: w.job.id,
        kind,
        step: x.step.id,
        at: (kind === "start" ? x.start : x.end)!,
      })),
    ),
  ],
});
const dated = (w: World, at: string | null): World => ({
  ...w,
  job: { ...w.job, order: { ...w.job.order, proofAccepted: at } },
});

test("on every route piece 1 goes through all that the rest go through, before the first of them does", () => {
  expect(new Set(SETS.map((w) => w.job.route)).size).toBeGreaterThan(10);
  for (const w of SETS) {
    const p = makePlan(w, null, true);
    const look = proofAt(p)!;
    const behind = p.placed.slice(look.index + 1);
    const hands = behind.filter((x) => kindOf(x.step.kind).packs || kindOf(x.step.kind).tries);
    expect(look.cycle.map((x) => batchOf(x.step.id))).toEqual(
      behind.filter((x) => !hands.includes(x)).map((x) => x.step.id),
    );
    // one piece, then the five others, and all six where they are handed over
    expect(look.cycle.every((x) => x.pieces === 1 && isFirst(x.step.id))).toBe(true);
    expect(behind.map((x) => x.pieces)).toEqual(behind.map((x) => (hands.includes(x) ? 6 : 5)));
    expect(p.placed.slice(0, look.index).every((x) => x.pieces === 6)).toBe(true);
    // one after another: nothing of the batch before the proof has been looked at
    const line = inTurn(p.placed);
    line.forEach((x, i) => i > 0 && x.start !== null && expect(x.start).toBeGreaterThanOrEqual(line[i - 1].end!));
    // it is looked at as the last of the batch will be: the same films on the same face
    const last = [look.cycle[look.cycle.length - 1], behind.findLast((x) => !hands.includes(x))!];
    const faces = last.map((x) =>
      x.after.zones.map((z) => [z.zone, Math.round(z.depthUm), z.films.map((f) => [batchOf(f.step), f.left, f.dryUm])]),
    );
    expect(faces[0]).toEqual(faces[1]);
  }
});

test("paint and minutes of six pieces are the same with a piece that goes first, but for what every start costs", () => {
  for (const w of SETS) {
    const [one, all] = [w, { ...w, job: { ...w.job, choices: { ...w.job.choices, proof: false } } }].map((x) =>
      makePlan(x, null, true),
    );
    const sum = (p: Plan, of: "laidMl" | "g"): number => p.amounts.reduce((a, x) => a + (x[of] ?? 0), 0);
    expect(sum(one, "laidMl")).toBeCloseTo(sum(all, "laidMl"), 6);
    expect(sum(one, "g")).toBeCloseTo(sum(all, "g"), 6);
    const [x, y] = [one, all].map((p) => read(p, { of: "hands" })?.value ?? null);
    if (x !== null) expect(x).toBeGreaterThan(y!);
    if (one.ready !== null) expect(one.ready).toBeGreaterThanOrEqual(all.ready!);
  }
});

test("the bench follows piece 1 to the proof, holds the batch until the day it is accepted, and goes on with the others", () => {
  for (const w0 of SETS.filter((w) => makePlan(w, null, true).ready !== null).slice(0, 12)) {
    const plan = makePlan(w0, null, true);
    const look = proofAt(plan)!;
    const before = plan.placed.slice(0, look.index);
    let w = tapped(w0, before);
    look.cycle.forEach((x, k) => {
      const now = x.start!;
      const p = makePlan(w, now, true);
      const bench = atBench(p);
      const s = standing(p, now);
      expect("step" in s && [s.is, s.step.step.id]).toEqual(["ready", x.step.id]);
      expect(bench.whole).toBe(p);
      expect(numbersAt(bench, x)).toMatchObject({ from: 1, to: 1 });
      expect(planFor(p, x.step.id)).toBe(bench);
      w = tapped(w, [x], 100 + k);
    });
    const done = makePlan(w, look.start!, true);
    expect(atBench(done)).toBe(done);
    w = tapped(w, [look], 300);
    const next = makePlan(w, look.end!, true).placed[look.index + 1];
    const gates = (x: World, now: number): string[] => {
      const p = makePlan(x, now, true);
      return gatesOf(
        p,
        p.placed.find((y) => y.step.id === next.step.id)!,
      ).map((g) => g.id);
    };
    expect(gates(w, look.end!)).toContain("proof");
    // ten days on by the Brief: held until then, planned from then
    const { clock } = plan.context;
    const day = look.end! + 14400;
    const later = dated(w, clock.toLocal(day));
    expect(gates(later, look.end!)).toContain("proof");
    expect(gates(later, day)).not.toContain("proof");
    const waits = makePlan(later, look.end!, true).placed[look.index + 1];
    expect(waits.start).toBeGreaterThanOrEqual(day);
    // and the others go on without the one that has gone first
    const after = makePlan(dated(w, clock.toLocal(look.end!)), look.end!, true);
    const batch = after.placed.find((y) => y.step.id === next.step.id)!;
    expect(numbersAt(after, batch).out).toEqual(new Set([1]));
    expect(after.placed.slice(look.index + 1).map((x) => [x.step.id, x.pieces])).toEqual(
      plan.placed.slice(look.index + 1).map((x) => [x.step.id, x.pieces]),
    );
  }
});

test("a piece put aside before does not go first; a proof looked at before there were cycles stays as it was", () => {
  const w0 = SETS.find((w) => proofAt(makePlan(w, null, true))!.index > 0)!;
  const plan = makePlan(w0, null, true);
  const look = proofAt(plan)!;
  const before = tapped(w0, plan.placed.slice(0, look.index));
  const aside = {
    ...before,
    log: [
      ...before.log,
      ...[1, 2].map((piece) => ({
        ...new LogEntry(),
        id: `q${piece}`,
        jobId: "j",
        kind: "aside" as const,
        step: plan.placed[0].step.id,
        at: plan.placed[0].end!,
        piece,
      })),
    ],
  };
  expect(firstPiece(makePlan(aside, look.start!, true))).toBe(3);
  const old = tapped(before, [look], 50);
  const p = makePlan(old, look.end!, true);
  expect(p.first).toBeNull();
  expect(p.placed.slice(look.index).every((x) => x.pieces === 6 || kindOf(x.step.kind).tries)).toBe(true);
  // one piece alone has no set to go before
  const one = { ...w0, job: { ...w0.job, quantity: 1 } };
  expect(makePlan({ ...one, job: { ...one.job, choices: { ...one.job.choices, begin: 1 } } }, null, true).first).toBe(
    null,
  );
});

test("what piece 1 went through is history: kept as it was done, whatever the Shelf says later", () => {
  for (const w0 of SETS.slice(0, 20)) {
    const plan = makePlan(w0, null, true);
    const look = proofAt(plan)!;
    const half = look.cycle.slice(0, Math.ceil(look.cycle.length / 2));
    if (half.some((x) => x.start === null)) continue;
    const list = [...plan.placed.slice(0, look.index), ...half];
    const world = tapped(w0, list);
    const begun = keptWith(makePlan(world, half[half.length - 1].end!, true), null, 0);
    expect(begun.done.map((s) => s.id)).toEqual(list.map((x) => x.step.id));
    const thicker = {
      ...world,
      job: { ...world.job, begun },
      products: world.products.map((x) => ({ ...x, coatUm: (x.coatUm ?? 20) * 1.5 })),
    };
    const then = proofAt(makePlan(thicker, half[half.length - 1].end!, true))!;
    expect(then.cycle.slice(0, half.length).map((x) => x.step)).toEqual(begun.done.slice(-half.length));
  }
});

test("its steps are tasks of the schedule, visits of the calendar, and have a latest beginning behind them", () => {
  for (const w of SETS.filter((x) => makePlan(x, null, true).ready !== null).slice(0, 12)) {
    const p = makePlan(w, null, true);
    const ids = inTurn(p.placed).map((x) => x.step.id);
    expect([...shopProblem([p]).tasks.values()].map((t) => t.step)).toEqual(ids);
    expect(trips(p).flatMap((t) => t.steps.map((s) => s.id))).toEqual(ids);
    const due = p.ready! + 3000;
    const first = p.placed[0];
    expect(latestStart(p, 0, due)!).toBeGreaterThanOrEqual(first.start!);
  }
});
