/** What the log has taught of one machine holds for that machine, before what holds for all. */
import { spreadOf } from "../models/learn/factor";
import { makePlan } from "../plan/plan";
import { a1 } from "../testing/worlds";
import { kindOf } from "./kinds";

test("minutes of the beam go by the machine's own factor, else by the one for all, else by the model", () => {
  const base = a1();
  const id = base.job.machineId!;
  const minutes = (learned: { kind: string; factor: number; n: number; machineId?: string }[]): number => {
    const p = makePlan({ ...base, shop: { ...base.shop, learned } }, null, true).placed;
    return p.find((x) => kindOf(x.step.kind).beam === "film")!.minutes!;
  };
  const plain = minutes([]);
  const all = { kind: "reveal", factor: 1.5, n: 4 };
  expect(minutes([all])).toBeCloseTo(1.5 * plain, 9);
  expect(minutes([all, { kind: "reveal", factor: 0.8, n: 9, machineId: id }])).toBeCloseTo(0.8 * plain, 9);
  expect(minutes([{ kind: "reveal", factor: 0.8, n: 9, machineId: "another" }])).toBe(plain);
  expect(minutes([all, { kind: "reveal", factor: 0.8, n: 9, machineId: "another" }])).toBeCloseTo(1.5 * plain, 9);
});
test("how far runs lie apart is told from two on", () => {
  expect(spreadOf([{ predicted: 10, actual: 12 }])).toBeNull();
  expect(spreadOf([10, 10, 10].map((actual) => ({ predicted: 8, actual })))).toBeCloseTo(0, 9);
  const two = spreadOf([
    { predicted: 10, actual: 10 },
    { predicted: 10, actual: 12.1 },
  ]);
  // logs 0 and ln 1.21: their deviation is ln 1.21 / √2
  expect(two).toBeCloseTo(Math.exp(Math.log(1.21) / Math.SQRT2) - 1, 9);
});
