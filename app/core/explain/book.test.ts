import { defaultMachine } from "../catalogue/starter";
import { dose } from "../process/beam";
import { own, isSet } from "../process/kinds";
import { keptWith } from "../plan/begun";
import { makePlan } from "../plan/plan";
import { doneUpTo } from "../testing/done";
import { a1 } from "../testing/worlds";
import { bookOf, carriesOver, onMachine, reliable } from "./book";

const made = () => {
  const w = a1();
  const plan = makePlan(w, null);
  const at = plan.placed.findIndex((p) => isSet(p.step) && p.step.kind === "reveal");
  const done = doneUpTo(w, plan, at + 1);
  const there = makePlan(done, plan.placed[at].end!);
  const begun = keptWith(there, null, plan.start!);
  const wrapUp = { ...w.job.wrapUp, good: 3, lost: 1, closedAt: "2027-02-01T10:00" };
  return { w, set: own(plan.placed[at].step, "laser")!, job: { ...w.job, begun, wrapUp } };
};

test("every setting that a step of the beam was done with stands there, with what it was on and what came of it", () => {
  const { w, job, set } = made();
  const rows = bookOf([job], w.machines, w.products);
  expect(rows).toHaveLength(1);
  expect(rows[0]).toMatchObject({
    job: job.title,
    substrate: "Glazed tile",
    good: 3,
    tried: 4,
    on: "2027-02-01",
    machineId: "co2-40",
  });
  expect(rows[0].set.power).toBe(set.power);
  expect(rows[0].e).toBeCloseTo(dose(w.machines[0], set)!, 9);
  expect(rows[0].stack).toMatch(/Poppy/);
  expect(bookOf([a1().job], w.machines, w.products)).toEqual([]);
});
test("a plate is told with the films that it was made on; a machine that is gone by the one kept with the job", () => {
  const { w, job } = made();
  const work = `co2-40|co2|0.07|tile-glazed|film|black 10.0 black.can1|poppy 30.0 poppy.can1`;
  const plate = {
    power: 0.4,
    speed: 200,
    interval: 0.07,
    passes: 1,
    at: "2027-01-12T10:00",
    machineId: "co2-40",
    note: "",
    work,
  };
  const rows = bookOf([{ ...job, plate }], [], w.products);
  expect(rows.find((r) => r.work === "Test plate")).toMatchObject({
    stack: "Black over Poppy",
    on: "2027-01-12",
    machine: w.machines[0].name,
  });
});
test("ten good of ten are relied on more than one of one, and never wholly", () => {
  const [one, ten, mixed] = [reliable(1, 1)!, reliable(10, 10)!, reliable(6, 10)!];
  expect(one.low).toBeLessThan(ten.low);
  expect(mixed.low).toBeLessThan(ten.low);
  expect(ten.low).toBeLessThan(1);
  expect(ten.low).toBeGreaterThan(0.75);
  expect(reliable(0, 0)).toBeNull();
});
test("on another machine of the same beam the energy is the same; another beam is no start", () => {
  const [a, b] = [defaultMachine("co2", 40, "a"), { ...defaultMachine("co2", 80, "b"), maxSpeed: 500 }];
  const set = { power: 0.5, speed: 200, interval: 0.07, passes: 2, from: "typed" as const };
  const there = onMachine(set, a, b)!;
  const e = dose(b, { ...there, from: "typed" })!;
  expect(e).toBeCloseTo(dose(a, set)!, 2);
  expect(carriesOver(a, b)).toBeNull();
  expect(carriesOver(a, defaultMachine("blue", 10, "c"))).toMatch(/no start/);
});
