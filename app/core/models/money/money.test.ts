import { breakEven, marginOf, payback, priceFor } from "./money";

test("a price of which so much stays, rounded up to the last coin", () => {
  expect(priceFor(600, 0.4)).toBe(1000);
  expect(priceFor(601, 0.4)).toBe(1002);
  expect(marginOf(600, 1000)).toBeCloseTo(0.4, 12);
  expect(marginOf(600, 0)).toBeNull();
  for (const bad of [1, 1.2, -0.1]) expect(() => priceFor(600, bad)).toThrow(RangeError);
});
test("break-even is the least number that pays, whatever is fixed", () => {
  for (const [fixed, each, price] of [
    [1000, 300, 500],
    [5000, 450, 500],
    [0, 10, 10],
  ]) {
    const n = breakEven((k) => fixed + each * k, price, 1000);
    const slow = Array.from({ length: 1000 }, (_v, i) => i + 1).find((k) => price * k >= fixed + each * k);
    expect(n).toBe(slow ?? null);
  }
  expect(breakEven((k) => 600 * k, 500, 1000)).toBeNull();
});
test("a tool pays back after as many pieces as its price holds savings", () => {
  expect(payback(10000, 250)).toBe(40);
  expect(payback(10001, 250)).toBe(41);
  expect(payback(10000, 0)).toBeNull();
  expect(payback(10000, -5)).toBeNull();
});
