/** What is lifted, counted by hand over all ways that mask. */
import { ROUTES } from "../catalogue/routes";
import { GROUND } from "../piece/state";
import { makePlan } from "../plan/plan";
import { brief } from "../testing/briefs";
import { kindOf } from "../process/kinds";
import { weedingOf } from "./weeding";

test("pieces of mask over all ways that mask: zones by their own, the rest as one with the islands in it", () => {
  const met = new Set<string>();
  for (let n = 0; n < 241; n++) {
    const w = brief(n);
    if (met.has(w.job.route!)) continue;
    const zones = w.job.zones.map((z, i) => ({ ...z, pieces: 2 + i, holes: 1 + 2 * i, smallestMm2: 1 + i }));
    const plan = makePlan({ ...w, job: { ...w.job, zones } }, null, true);
    const lifts = plan.placed.filter((p) => kindOf(p.step.kind).lifts === "mask");
    if (!lifts.length || plan.placed.some((p) => p.refused)) continue;
    met.add(w.job.route!);
    for (const p of lifts) {
      const was = p.before.zones.filter((z) => z.mask).map((z) => z.zone);
      const is = p.after.zones.filter((z) => z.mask).map((z) => z.zone);
      const off = was.filter((z) => !is.includes(z));
      const got = weedingOf(p, plan.context)!;
      let pieces = 0;
      let islands = 0;
      for (const z of zones) {
        if (off.includes(z.id)) pieces += z.pieces;
        else if (off.includes(GROUND)) pieces += z.holes;
        if (off.includes(z.id) && !off.includes(GROUND)) islands += z.holes;
      }
      if (off.includes(GROUND)) pieces++;
      expect([w.job.route, p.step.id, got.pieces, got.islands]).toEqual([w.job.route, p.step.id, pieces, islands]);
      expect(got.minutes).toBeGreaterThan(0);
    }
  }
  expect(met.size).toBeGreaterThan(5);
  expect([...met].every((id) => ROUTES.some((r) => r.id === id))).toBe(true);
});
test("what lifts nothing has none, what was not measured is not counted", () => {
  const w = Array.from({ length: 240 }, (_v, n) => brief(n)).find((x) => x.job.route === "H")!;
  const plan = makePlan(
    { ...w, job: { ...w.job, zones: w.job.zones.map((z) => ({ ...z, pieces: null })) } },
    null,
    true,
  );
  let nulls = 0;
  for (const p of plan.placed) {
    const got = weedingOf(p, plan.context);
    expect(got === null).toBe(kindOf(p.step.kind).lifts !== "mask");
    if (got && p.step.zones.some((z) => z !== GROUND && p.before.zones.find((x) => x.zone === z)?.mask))
      nulls += Number(got.pieces === null);
  }
  expect(nulls).toBeGreaterThan(0);
});
