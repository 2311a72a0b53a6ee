/** A zone that is to show the bare material: under paint over the whole face it is uncovered down to the body; elsewhere it is left. */
import { route, ROUTES } from "../catalogue/routes";
import { snagsOf } from "../judge/judge";
import { context } from "../process/context";
import { chooseRoutes } from "./choose";
import { difference, linear } from "../models/film/colour";
import { shown, zoneOf } from "../piece/state";
import { kindOf, own } from "../process/kinds";
import type { World } from "../records/world";
import { brief } from "../testing/briefs";
import { makePlan, type Plan } from "./plan";

const LIFTS = ROUTES.filter((r) => r.lifts).map((r) => r.id);
const BRIEFS = Array.from({ length: 500 }, (_, k) => brief(k * 3));
/** briefs of every route that lifts a dark top, a body of each family once */
const UNDER = [
  ...new Map(
    BRIEFS.filter((w) => w.job.route && LIFTS.includes(w.job.route)).map((w) => [
      `${w.job.route}|${w.job.substrate.id}|${w.machines.find((m) => m.id === w.job.machineId)?.beam}`,
      w,
    ]),
  ).values(),
];
const bare = (w: World, which: (i: number) => boolean): World => ({
  ...w,
  job: { ...w.job, zones: w.job.zones.map((z, i) => (which(i) ? { ...z, bare: true, productId: null } : z)) },
});
const off = (p: Plan, zone: string): number => {
  const end = p.placed[p.placed.length - 1].after;
  const { substrate, paintOf } = p.context;
  return difference(shown(end, zoneOf(end, zone), substrate.colour, paintOf), linear(substrate.colour));
};

test("paint over the bare body alone: the dark coat, and the beam down to the material, on every body that takes it", () => {
  expect(UNDER.length).toBeGreaterThan(8);
  let weak = 0;
  for (const w of UNDER) {
    const p = makePlan(
      bare(w, () => true),
      null,
      true,
    );
    expect([w.job.route, p.missing]).toEqual([w.job.route, []]);
    expect(p.placed.some((x) => own(x.step, "role") === "colour")).toBe(false);
    const reveals = p.placed.filter((x) => kindOf(x.step.kind).beam === "film");
    expect(reveals.flatMap((x) => x.step.zones).sort()).toEqual(w.job.zones.map((z) => z.id).sort());
    for (const z of w.job.zones) expect(off(p, z.id)).toBeLessThan(p.context.tolerance);
    expect(snagsOf(p).filter((s) => s.severity === "stop")).toEqual([]);
    // a faster head is told by name where it no longer opens the zone, and only there
    const fast = (k: number): World => {
      const x = bare(w, () => true);
      const value = own(reveals[0].step, "laser")!.speed * k;
      return {
        ...x,
        job: {
          ...x.job,
          edits: [{ id: "e", op: "set", step: reveals[0].step.id, field: "speed", value, after: null }],
        },
      };
    };
    for (const k of [3, 8]) {
      const q = makePlan(fast(k), null, true);
      const told = snagsOf(q).filter((s) => s.rule === 16);
      const shut = w.job.zones.filter((z) => off(q, z.id) > q.context.tolerance + 0.01);
      expect(told.map((s) => s.zone).sort()).toEqual(shut.map((z) => z.id).sort());
      for (const s of told) {
        weak++;
        expect(s.why).toMatch(/\(typed\)/);
        expect(s.fixes.some((f) => f.id === "bare")).toBe(false);
      }
    }
  }
  expect(weak).toBeGreaterThan(10);
});

test("beside colours: what shows the body is opened to it, apart where one setting can’t do both", () => {
  let [met, apart] = [0, 0];
  for (const w of UNDER.filter((x) => x.job.zones.length > 1)) {
    const one = bare(w, (i) => i === 0);
    const p = makePlan(one, null, true);
    if (p.missing.length) continue;
    met++;
    expect(off(p, one.job.zones[0].id)).toBeLessThan(p.context.tolerance);
    const passes = p.placed.filter((x) => kindOf(x.step.kind).beam === "film" && !kindOf(x.step.kind).tries);
    const mine = passes.filter((x) => x.step.zones.includes(one.job.zones[0].id));
    expect(mine).toHaveLength(1);
    if (passes.length > 1) apart++;
    // and what shows a colour keeps it whole
    expect(snagsOf(p).filter((s) => s.rule === 16)).toEqual([]);
  }
  expect(met).toBeGreaterThan(5);
  expect(apart).toBeGreaterThan(2);
});

test("where nothing covers the whole face a bare zone is simply left", () => {
  for (const w of BRIEFS.filter((x) => x.job.route && !route(x.job.route).lifts && x.job.zones.length > 1).slice(
    0,
    40,
  )) {
    const one = bare(w, (i) => i === 0);
    const p = makePlan(one, null, true);
    const id = one.job.zones[0].id;
    expect(p.context.uncovered).toEqual([]);
    expect(
      p.placed.filter(
        (x) => kindOf(x.step.kind).on === "zones" && x.step.zones.includes(id) && own(x.step, "role") === "colour",
      ),
    ).toEqual([]);
  }
});

test("where no zone has a colour only the route that uncovers the body goes, and the others say so", () => {
  const w = UNDER.find((x) => x.job.substrate.id === "aluminium-bare")!;
  const nos = (x: World): string[] =>
    chooseRoutes(context(x)).flatMap((r) => (r.no.some((n) => n.of === "bare") ? [] : [r.route.id]));
  expect(nos(bare(w, () => true))).toEqual(["A1"]);
  // one that has, or no drawing yet, and all are weighed as ever
  expect(nos(bare(w, (i) => i > 0))).toHaveLength(ROUTES.length);
  expect(nos({ ...w, job: { ...w.job, zones: [] } })).toHaveLength(ROUTES.length);
});
