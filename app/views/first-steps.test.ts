/** First steps: each is done by what it is about and by nothing else; the list goes when the shop is no longer new. */
import { Shop } from "../core/records/shop";
import { e1, SHELF } from "../core/testing/worlds";
import { firstSteps, stillNew } from "./first-steps";

const bare = { shop: { ...new Shop(), zone: "UTC" }, machines: [], products: [] };
const done = (facts: typeof bare | Parameters<typeof firstSteps>[0], jobs = 0, saved = false): string =>
  firstSteps(facts, jobs, saved)
    .filter((s) => s.done)
    .map((s) => s.id)
    .join(" ");

test("an empty shop wants everything, in the order of three short screens first", () => {
  expect(firstSteps(bare, 0, false).map((s) => s.id)).toEqual(["machine", "shop", "job", "hours", "shelf", "copy"]);
  expect(done(bare)).toBe("");
});
test("each by its own", () => {
  expect(done({ ...bare, machines: e1().machines })).toBe("machine");
  expect(done({ ...bare, shop: { ...bare.shop, climate: { ...bare.shop.climate, measured: true } } })).toBe("shop");
  expect(done({ ...bare, shop: { ...bare.shop, hoursSet: true } })).toBe("hours");
  expect(done({ ...bare, products: SHELF() })).toBe("shelf");
  expect(done(bare, 1)).toBe("job");
  expect(done(bare, 0, true)).toBe("copy");
});
test("shown while there is one job at most and something is left", () => {
  const some = firstSteps(bare, 1, false);
  expect([stillNew(some, 0), stillNew(some, 1), stillNew(some, 2)]).toEqual([true, true, false]);
  expect(
    stillNew(
      some.map((s) => ({ ...s, done: true })),
      0,
    ),
  ).toBe(false);
});
