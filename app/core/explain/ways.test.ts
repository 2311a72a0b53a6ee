/** Ways side by side: each row is the plan that choosing it makes, paints follow from what is wanted, and nothing is lost on the way. */
import { finishNamed } from "../catalogue/finishes";
import { route, ROUTES, takes } from "../catalogue/routes";
import { difference, linear } from "../models/film/colour";
import { open } from "../judge/judge";
import { byRoute } from "../plan/goes";
import { inTurn } from "../plan/placed";
import { makePlan, type Plan } from "../plan/plan";
import { byBeam } from "../process/kinds";
import { fitting, isStandIn, OTHER_COLOUR } from "../process/wanted";
import type { PlanEdit } from "../records/job";
import { Rates } from "../records/shop";
import type { World } from "../records/world";
import { brief } from "../testing/briefs";
import { a1, e1, many } from "../testing/worlds";
import { costOf } from "./cost";
import { figuresOf } from "./figures";
import { smallestStroke } from "./letters";
import { routesReport, waysInTurn } from "./ways";

/** A brief whose zones say what is to be seen, and not with what. */
const wanting = (n: number, colours: readonly string[] = []): World => {
  const w = brief(n);
  const zones = w.job.zones.map((z, i) => ({
    ...z,
    productId: null,
    wanted: colours[i] ?? w.products.find((p) => p.id === z.productId)!.colour,
  }));
  return { ...w, job: { ...w.job, zones } };
};
const SEEDS = Array.from({ length: many(200) }, (_, k) => k * 7 + 1);
/** the worst edge of all coats, by the figure that each shows on its card */
const creepsBy = (plan: Plan): number | null => {
  const all = plan.placed.flatMap((p) => figuresOf(plan, p.index).filter((f) => f.id === "bleed"));
  return all.length ? Math.max(...all.map((f) => f.leads!.value)) : null;
};
const total = (list: { minutes: number | null }[]): number | null =>
  list.some((p) => p.minutes === null) ? null : list.reduce((n, p) => n + p.minutes!, 0);

test("each figure of a row is the one of the plan that choosing it makes; A, then B, then A is A", () => {
  let rows = 0;
  for (const n of SEEDS) {
    const bare = wanting(n);
    // in every second shop an hour of hands has its price
    const w = n % 2 ? bare : { ...bare, shop: { ...bare.shop, rates: { ...new Rates(), handsMinor: 2000 } } };
    const ways = [...waysInTurn(w, null)];
    expect(ways.map((x) => x.id).sort()).toEqual(ROUTES.map((r) => r.id).sort());
    for (const x of ways.filter((y) => y.figures)) {
      rows++;
      const there = byRoute(w, x.id);
      const plan = makePlan(there, null, true);
      const all = inTurn(plan.placed);
      const { parts } = costOf(plan);
      expect(parts.reduce((a, part) => a + (part.minor ?? 0), 0) > 0).toBe(n % 2 === 0);
      expect({ n, id: x.id, ...x.figures, section: null }).toEqual({
        n,
        id: x.id,
        steps: plan.placed.length,
        handsMin: total(all.filter((p) => !byBeam(p.step))),
        laserMin: total(all.filter((p) => byBeam(p.step))),
        start: plan.start,
        ready: plan.missing.length ? null : plan.ready,
        pieces: plan.context.pieces,
        loss: route(x.id).loss,
        finestMm: smallestStroke(plan)!.strokeMm,
        costMinor: parts.reduce((a, part) => a + (part.minor ?? 0), 0),
        costAtLeast: parts.some((part) => part.minor === null),
        creeps: creepsBy(plan),
        bears: w.job.use.map((use) => ({ use, is: expect.stringMatching(/^(yes|sealed|no)$/) })),
        toBuy: plan.toBuy.map((p) => ({ id: p.id, name: p.name, finish: p.finish, colour: p.colour })),
        lacks: plan.missing.map((m) => m.say),
        snags: open(plan).map((s) => ({ severity: s.severity, rule: s.rule, why: s.why })),
        stuck: plan.stuck,
        section: null,
      });
      expect(byRoute(there, w.job.route)).toEqual(w);
    }
  }
  expect(rows).toBeGreaterThan(SEEDS.length * 3);
});

test("what was changed by hand stays with its route, and is there again with it", () => {
  const edit: PlanEdit = { id: "m1", op: "remove", step: "dust", after: null, field: "", value: null };
  const w = wanting(4);
  const A = { ...w, job: { ...w.job, edits: [edit] } };
  const other = ROUTES.find((r) => r.id !== A.job.route)!.id;
  const B = byRoute(A, other);
  expect([B.job.edits, B.job.left]).toEqual([[], [{ route: A.job.route, edits: [edit] }]]);
  expect(byRoute(B, A.job.route)).toEqual(A);
  expect(byRoute(A, A.job.route)).toBe(A);
});

test("the nearest that the route takes is taken; another colour is bought; a picked paint stays where it fits", () => {
  let taken = 0;
  let bought = 0;
  for (const n of SEEDS) {
    const w = wanting(n, ["#c23a8f", "#22345c", "#f2c230"]);
    const r = route(w.job.route!);
    const c = makePlan(w, null, true).context;
    for (const z of c.job.zones) {
      const off = (hex: string): number => (r.shows === "mark" ? 0 : difference(linear(hex), linear(z.wanted!)));
      const fit = w.products.filter((p) => !p.clear && takes(r, finishNamed(p.finish)));
      const least = Math.min(Infinity, ...fit.map((p) => off(p.colour)));
      const got = c.paintOf(z.productId!).product;
      expect(takes(r, finishNamed(got.finish))).toBe(true);
      if (isStandIn(got.id)) {
        bought++;
        expect([n, z.id, least > OTHER_COLOUR]).toEqual([n, z.id, true]);
        expect(c.standIns).toContainEqual(got);
        expect(got.colour).toBe(z.wanted);
      } else {
        taken++;
        expect(off(got.colour)).toBeCloseTo(least, 9);
        expect(least).toBeLessThanOrEqual(OTHER_COLOUR);
      }
    }
    // any other that the route takes, however far off
    const [z] = w.job.zones;
    const far = fitting(r, z.wanted!, w.products).at(-1)!.product;
    const zones = w.job.zones.map((x) => (x === z ? { ...x, productId: far.id } : x));
    const picked = makePlan({ ...w, job: { ...w.job, zones } }, null, true).context.job.zones[0];
    expect(picked.productId).toBe(far.id);
  }
  expect([taken > many(50), bought > many(50)]).toEqual([true, true]);
});

test("an empty Shelf makes no route impossible: what it lacks is to buy, and planned", () => {
  for (const n of SEEDS.slice(0, many(20))) {
    const w = { ...wanting(n), products: [] };
    const full = [...waysInTurn(wanting(n), null)];
    const bare = [...waysInTurn(w, null)];
    expect(bare.filter((x) => x.no.length === 0).map((x) => x.id)).toEqual(
      full.filter((x) => x.no.length === 0).map((x) => x.id),
    );
    for (const x of bare.filter((y) => y.figures)) {
      const plan = makePlan(byRoute(w, x.id), null, true);
      expect([n, x.id, plan.missing.filter((m) => !["machine", "oven"].includes(m.what))]).toEqual([n, x.id, []]);
      // the beam's own mark wants nothing but, on wood, its clear coat
      if (x.id !== "N") expect(x.figures!.toBuy.length).toBeGreaterThan(0);
    }
  }
});

test("a job of before, with a paint in every zone, plans as it did, and compares all ways too", () => {
  const w = e1();
  expect(makePlan(w, null, true).toBuy).toEqual([]);
  const ways = [...waysInTurn(w, null)].filter((x) => x.figures);
  expect(ways.length).toBeGreaterThan(5);
  expect(ways.find((x) => x.id === "E1")!.figures!.toBuy).toEqual([]);
});

test("what one press would change: another machine of the shop, one colour for all", () => {
  const w = brief(33); // slate, a blue beam, three colours
  const one = [...waysInTurn(w, null)].find((x) => x.id === "A1")!;
  expect([one.no.map((x) => x.of), one.mend?.act.intent]).toEqual([["colours"], "one-colour"]);
  const co2 = { ...w.machines[0], id: "tube", name: "The tube", beam: "co2" as const };
  const two = { ...w, machines: [...w.machines, co2] };
  const cut = [...waysInTurn(two, null)].find((x) => x.id === "D1")!;
  expect([cut.no.map((x) => x.of), cut.mend]).toEqual([
    ["cut"],
    { label: "Take The tube", act: { intent: "set", field: "machineId", value: "tube" } },
  ]);
  const there = { ...two, job: { ...two.job, machineId: "tube" } };
  expect([...waysInTurn(there, null)].find((x) => x.id === "D1")!.no).toEqual([]);
});

test("as the door answers: ranked, with what is missing, nothing unknown told as nought", () => {
  const w = a1();
  const zones = w.job.zones.map((z) => ({ ...z, productId: null, wanted: z.colour }));
  const all = routesReport({ ...w, products: [], job: { ...w.job, zones } }) as Record<string, unknown>[];
  expect(all).toHaveLength(ROUTES.length);
  const can = all.filter((x) => x.possible);
  expect(can.map((x) => x.rank)).toEqual(can.map((_, i) => i + 1));
  expect(can[0]).toMatchObject({
    id: "A1",
    costMinor: null,
    lossShare: 0.05,
    missing: expect.arrayContaining(["spray-enamel"]),
  });
  for (const x of all.filter((y) => !y.possible))
    expect(x).toMatchObject({ rank: null, handsMin: null, calendarMin: null, lossShare: null, risk: null });
});
