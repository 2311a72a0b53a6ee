/** Stock over all open jobs: what others will take is not there for this one, and follows whatever happens to them. */
import { makePlan } from "../core/plan/plan";
import { LogEntry } from "../core/records/log";
import type { Product } from "../core/records/product";
import { Can } from "../core/records/product";
import { snagsOf } from "../core/judge/judge";
import { brief } from "../core/testing/briefs";
import { e1, many, SHELF, shop } from "../core/testing/worlds";
import { commit } from "./acts";
import { db, RichLayerDb, useDb } from "./db";
import { drawsOf, MOST_COUNTED, readDraws } from "./draws";
import { readShop, readWorld, readWorldsOf } from "./queries";

let n = 0;
const can = (ml: number): Can[] => [{ ...new Can(), id: "k", label: "k", fullMl: 400, leftMl: ml }];
const job = (id: string, more: object = {}) => ({ ...e1().job, id, title: id, ...more });
const takes = (id: string, more: object = {}): number =>
  makePlan({ ...e1(), job: job(id, more) }, null, true).amounts.find((a) => a.product === "beet")!.ml!;
const beet = async (id: string) => {
  const plan = makePlan((await readWorld(id))!, null, true);
  return plan.amounts.find((a) => a.product === "beet")!;
};

beforeEach(async () => {
  useDb(new RichLayerDb(`draws-${n++}`));
  await commit("beginning", [
    { table: "shop", id: "shop", next: shop() },
    { table: "machines", id: "co2", next: e1().machines[0] },
    ...SHELF().map((p: Product) => ({
      table: "products" as const,
      id: p.id,
      next: p.id === "beet" ? { ...p, cans: can(2 * takes("a") - 0.01) } : p,
    })),
    { table: "jobs", id: "a", next: job("a") },
  ]);
});
afterEach(() => db().close());

test("one job alone has all of a can; two together want more than is left, and both say so", async () => {
  const one = takes("a");
  expect(await beet("a")).toMatchObject({ othersMl: 0, cans: 0 });
  await commit("another", [{ table: "jobs", id: "b", next: job("b") }]);
  for (const id of ["a", "b"]) {
    const a = await beet(id);
    expect(a.othersMl).toBeCloseTo(one, 9);
    expect(a.cans).toBe(1);
    const snag = snagsOf(makePlan((await readWorld(id))!)).find((s) => s.rule === 32 && /other open jobs/.test(s.why))!;
    expect(snag.numbers.othersMl).toBeCloseTo(one, 1);
  }
  expect((await readDraws((await readShop())!)).all.beet).toBeCloseTo(2 * one, 9);
  // read together they say the same as each alone
  for (const w of await readWorldsOf(["a", "b"])) expect(w.drawn).toEqual((await readWorld(w.job.id))!.drawn);
});

test("what a job draws is what its whole plan takes, however that is laid round its windows", () => {
  let moved = 0;
  for (let k = 0; k < many(60); k++) {
    const plan = makePlan(brief(k * 17), null, true);
    const whole = plan.amounts.filter((a) => a.toComeMl !== null).map((a) => [a.product, a.toComeMl]);
    expect(Object.entries(drawsOf(plan.context.world))).toEqual(whole);
    if (plan.placed.some((p) => p.needs.some((r) => r.closes !== null))) moved++;
  }
  expect(moved).toBeGreaterThan(0);
});

test("a bigger order takes more, a coat that is done takes nothing more, and a job without a route or wrapped up nothing", async () => {
  await commit("another", [{ table: "jobs", id: "b", next: job("b") }]);
  const small = (await beet("a")).othersMl;
  const big = { quantity: 60, choices: { ...e1().job.choices, proof: false } };
  const many = job("b", big);
  await commit("more", [{ table: "jobs", id: "b", next: many }]);
  expect((await beet("a")).othersMl).toBeCloseTo(takes("b", big), 9);
  expect((await beet("a")).othersMl).toBeGreaterThan(small);
  const plan = makePlan({ ...e1(), job: many }, null, true);
  const coat = plan.placed.find((p) => p.step.id === "coat.colour.beet.1")!;
  const log = (["start", "done"] as const).map((kind) => ({
    ...new LogEntry(),
    id: `b.${kind}`,
    jobId: "b",
    kind,
    step: coat.step.id,
    at: coat.start! + (kind === "done" ? 9 : 0),
  }));
  await commit(
    "coated",
    log.map((e) => ({ table: "log" as const, id: e.id, next: e })),
  );
  expect((await beet("a")).othersMl).toBeCloseTo(takes("b", big) - plan.uses[coat.index]!.ml!, 6);
  await commit("closed", [
    { table: "jobs", id: "b", next: { ...many, wrapUp: { ...many.wrapUp, closedAt: "2027-02-01T10:00" } } },
  ]);
  expect((await beet("a")).othersMl).toBe(0);
  await commit("only a thought", [{ table: "jobs", id: "b", next: { ...many, route: null } }]);
  expect(await beet("a")).toMatchObject({ othersMl: 0, cans: 0 });
});

test("of very many jobs those under way and due soonest are counted", async () => {
  // the beginning's job "a" has neither a date nor a tap; the last six are the latest, and one of them is under way
  const day = (i: number): string =>
    `2027-${String(3 + Math.floor(i / 28)).padStart(2, "0")}-${String((i % 28) + 1).padStart(2, "0")}`;
  const all = Array.from({ length: MOST_COUNTED + 5 }, (_, i) => job(`j${i}`, { due: `${day(i)}T10:00` }));
  const last = `j${MOST_COUNTED + 4}`;
  await commit("many", [
    // stored from the last to the first, so that the order is the reading's own
    ...all.reverse().map((j) => ({ table: "jobs" as const, id: j.id, next: j })),
    {
      table: "log",
      id: "t",
      next: { ...new LogEntry(), id: "t", jobId: last, kind: "start", step: "label", at: 1 },
    },
  ]);
  const { of } = await readDraws((await readShop())!);
  const counted = [last, ...Array.from({ length: MOST_COUNTED - 1 }, (_, i) => `j${i}`)];
  expect([...of.keys()]).toEqual(counted);
});

test("a paint that goes on thicker is reckoned anew in all jobs; a can that is emptied changes nothing", async () => {
  const draws = async (): Promise<number> => (await readDraws((await readShop())!)).all.beet;
  const before = await draws();
  expect(before).toBeCloseTo(takes("a"), 9);
  const beet = (await db().products.get("beet"))!;
  await commit("emptied", [{ table: "products", id: "beet", next: { ...beet, cans: can(1) } }]);
  expect(await draws()).toBe(before);
  const thick = { ...beet, coatUm: 24, origin: "measured here" as const };
  await commit("thicker", [{ table: "products", id: "beet", next: thick }]);
  const products = SHELF().map((p) => (p.id === "beet" ? thick : p));
  const want = makePlan({ ...e1(), products, job: job("a") }, null, true).amounts.find(
    (a) => a.product === "beet",
  )!.ml!;
  expect(want).not.toBeCloseTo(before, 3);
  expect(await draws()).toBeCloseTo(want, 9);
});
