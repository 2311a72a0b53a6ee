/** What is bought: needs of the chosen jobs less what stands on the Shelf, in whole cans; unknown stays unknown. */
import { a1, e1, many, SHELF } from "../testing/worlds";
import { brief } from "../testing/briefs";
import { ALONE, makePlan } from "../plan/plan";
import { canMl, onShelf } from "../plan/amounts";
import { own } from "../process/kinds";
import type { World } from "../records/world";
import { writeShopping } from "../../io/csv";
import { shopping } from "./shopping";

const named = (w: World, id: string): World => ({ ...w, job: { ...w.job, id, title: `Job ${id}` } });
/** ml out of a text such as “12.3 ml” or “1.2 l” */
const ml = (t: string): number => (t.endsWith(" l") ? 1000 : 1) * parseFloat(t);

test("seeded shops: cans are what all jobs take, less what is there, rounded up", () => {
  let bought = 0;
  for (let seed = 1; seed <= many(60); seed++) {
    const made = [0, 1, 2].map((k) => named(brief(seed * 11 + k * 5), `j${k}`));
    const [{ shop, products }] = made;
    // nearly empty cans: some jobs want more than is there
    const low = products.map((p) => ({ ...p, cans: p.cans.map((c) => ({ ...c, leftMl: seed % 9 })) }));
    const worlds = made.map((w) => ({ ...w, shop, products: low }));
    const list = shopping(worlds);
    const takes = new Map<string, number>();
    for (const w of worlds) {
      const plan = makePlan(w, null, true, ALONE);
      for (const a of plan.amounts) {
        const weighed = plan.placed.some(
          (p, i) => own(p.step, "productId") === a.product && (plan.uses[i]?.g ?? 0) > 0,
        );
        if (!weighed && a.toComeMl) takes.set(a.product, (takes.get(a.product) ?? 0) + a.toComeMl);
      }
    }
    const c = makePlan(worlds[0], null, true, ALONE).context;
    for (const [id, need] of takes) {
      const row = list.paints.find((p) => p.id === id)!;
      const paint = c.hasPaint(id) ? c.paintOf(id) : null;
      if (!paint) continue;
      const has = paint.product.cans.length ? onShelf(paint.product.cans)! : 0;
      expect([seed, id, row.cans]).toEqual([seed, id, Math.max(0, Math.ceil((need - has) / canMl(paint) - 1e-9))]);
      expect(Math.abs(ml(row.takes) - need)).toBeLessThan(Math.max(0.06, need * 0.06));
      bought += row.cans!;
    }
  }
  expect(bought).toBeGreaterThan(0);
});
test("what is not on the Shelf is named as such; a can that nobody has weighed is to be looked at", () => {
  const none: World = { ...a1(), products: [] };
  const list = shopping([
    { ...none, job: { ...none.job, zones: none.job.zones.map((z) => ({ ...z, productId: null, wanted: "#c8442f" })) } },
  ]);
  expect(list.paints.length).toBeGreaterThan(1);
  expect(list.paints.every((p) => p.unknown && p.cans !== 0)).toBe(true);
  const cans = (leftMl: number | null) =>
    SHELF().map((p) => ({
      ...p,
      cans: [{ id: "c", fullMl: 400, leftMl, fullG: null, emptyG: null, nowG: null, opened: null }] as never,
    }));
  expect(shopping([{ ...a1(), products: cans(null) }]).paints.every((p) => p.cans === null && p.has === null)).toBe(
    true,
  );
  expect(shopping([{ ...a1(), products: cans(400) }]).paints.every((p) => p.cans === 0)).toBe(true);
  expect(shopping([])).toEqual({ paints: [], blanks: [], left: [] });
});
test("blanks are those begun with, the same kind and size together; a job without a way says so", () => {
  const list = shopping([
    named(e1({ job: { quantity: 10 } }), "one"),
    named(e1({ job: { quantity: 5 } }), "two"),
    named(a1({ job: { route: null } }), "three"),
  ]);
  expect(list.blanks).toHaveLength(1);
  expect(list.blanks[0]).toMatchObject({ ordered: 15, jobs: "Job one and Job two" });
  expect(list.blanks[0].pieces).toBeGreaterThanOrEqual(15);
  expect(list.left.map((l) => l.title)).toEqual(["Job three"]);
  const csv = writeShopping(list).split("\r\n");
  expect(csv[0]).toBe("what,kind,needed,on the Shelf,buy,for");
  expect(csv).toHaveLength(list.paints.length + list.blanks.length + 2);
});
