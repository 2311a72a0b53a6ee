/** Plates of several cans told together: seeded truths, one, two and five plates. */
import { many } from "../../testing/worlds";
import { randomOf } from "../../units/random";
import { pooled } from "./pool";
import type { Interval } from "./plate";

const gauss = (r: { next(): number }): number =>
  Math.sqrt(-2 * Math.log(1 - r.next())) * Math.cos(2 * Math.PI * r.next());
const of = (mean: number, sd: number): Interval => ({
  low: Math.exp(mean - 1.6449 * sd),
  mid: Math.exp(mean),
  high: Math.exp(mean + 1.6449 * sd),
});
const width = (i: Interval): number => Math.log(i.high / i.low);

test.each([1, 2, 5])(
  "%i plates of other cans: nine in ten intervals hold today's can; its own plate makes them narrower",
  (n) => {
    let [held, heldOwn, tried] = [0, 0, 0];
    let [alone, both] = [0, 0];
    const own = 0.08;
    for (let seed = 1; seed <= many(400); seed++) {
      const r = randomOf(seed * 131 + n);
      const tau = Math.exp(Math.log(0.15) + 0.5 * gauss(r));
      const centre = Math.log(0.7) + 0.2 * gauss(r);
      const can = (): number => centre + tau * gauss(r);
      const others = Array.from({ length: n }, () => {
        const sd = 0.03 + 0.05 * r.next();
        return of(can() + sd * gauss(r), sd);
      });
      const today = can();
      const mine = of(today + own * gauss(r), own);
      const [a, b] = [pooled(others, null)!, pooled(others, mine)!];
      tried++;
      held += Number(a.low <= Math.exp(today) && Math.exp(today) <= a.high);
      heldOwn += Number(b.low <= Math.exp(today) && Math.exp(today) <= b.high);
      alone += width(a);
      both += width(b);
    }
    const off = 3 * Math.sqrt((0.9 * 0.1) / tried);
    expect(Math.abs(held / tried - 0.9)).toBeLessThan(off + 0.03);
    expect(Math.abs(heldOwn / tried - 0.9)).toBeLessThan(off + 0.03);
    expect(both).toBeLessThan(alone);
    // and no wider than this can’s own plate by itself
    expect(both / tried).toBeLessThan(width(of(0, own)));
  },
);
test("nothing known is nothing; one plate of another can says less of today's than of its own", () => {
  const one = of(Math.log(0.7), 0.05);
  expect(pooled([], null)).toBeNull();
  expect(pooled([], one)).toBe(one);
  expect(width(pooled([one], null)!)).toBeGreaterThan(2 * width(one));
  // five that agree say more than one
  expect(width(pooled([one, one, one, one, one], null)!)).toBeLessThan(width(pooled([one], null)!));
});
