/** Small sections of every route: nothing outside the picture, films upon one another, cuts where the plan cuts. */
import { ROUTES } from "../catalogue/routes";
import { makePlan } from "../plan/plan";
import { simulate } from "./report";
import { guideWorld } from "../../demo/guide";
import { smallSection } from "./small-section";

test.each(ROUTES.map((r) => r.id))("%s", (id) => {
  const plan = makePlan(guideWorld(id), null, true);
  const s = smallSection(plan)!;
  const end = simulate(plan, plan.placed[plan.placed.length - 1]);
  expect(s.columns).toHaveLength(end.length + 1);
  expect(s.columns[0]).toEqual(s.columns[s.columns.length - 1]);
  const zones = [end.find((z) => z.zone === "ground")!, ...end.filter((z) => z.zone !== "ground")];
  zones.forEach((z, i) => {
    const column = s.columns[i];
    expect(column.cut).toBeLessThanOrEqual(0.7 + 1e-9);
    const flat = s.columns.filter((_, k) => k < zones.length && zones[k].depthUm === 0).map((x) => x.cut);
    // a cut lies lower than what is not cut
    for (const f of flat) expect(column.cut > f).toBe(z.depthUm > 0);
    let under = Infinity;
    for (const f of [...column.films].sort((a, b) => b.top - a.top)) {
      expect([f.top >= 0.08 - 1e-9, f.bottom > f.top, f.bottom <= under + 1e-9]).toEqual([true, true, true]);
      under = f.top;
    }
    expect(column.films.length).toBe(z.layers.filter((l) => l.left > 0.01 && l.product && l.bottomUm > l.topUm).length);
  });
  // what a route is for is to be seen: colour on the piece, a mark or a cut in it
  expect(s.columns.some((x) => x.films.length > 0 || x.mark !== null) || end.some((z) => z.depthUm > 0)).toBe(true);
});
test("of nothing there is no picture", () => {
  const plan = makePlan(guideWorld("A1"), null, true);
  expect(smallSection({ ...plan, placed: [] })).toBeNull();
});
