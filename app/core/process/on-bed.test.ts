/** Pieces in the pockets of a jig: what lies where, how many loads that makes, and that minutes, batches and the calendar go by it. */
import { BED_GAP_MM, pocketAt, pocketLayout, type PocketRows } from "../geometry/bed";
import { loadsOf } from "../explain/loads";
import { placementOf } from "../plan/visits";
import { makePlan } from "../plan/plan";
import { lanesOf } from "../plan/schedule";
import { layShop } from "../plan/whole";
import { inTurn } from "../plan/placed";
import { Gear, type Pockets } from "../records/shop";
import type { Job } from "../records/job";
import type { World } from "../records/world";
import { byBeam, kindOf } from "./kinds";
import { LOAD_MIN, setupMin } from "./kinds/laser-work";
import { a1, many, seeded } from "../testing/worlds";

const jig = (pockets: Partial<Pockets>, more: Partial<Gear> = {}): Gear => ({
  ...new Gear(),
  id: "tray",
  kind: "jig",
  name: "Tray",
  pockets: { across: 3, down: 2, w: 100, h: 70, gap: BED_GAP_MM, x: 10, y: 20, ...pockets },
  ...more,
});
const world = (gear: Gear, job: Partial<Job> = {}, emptyPockets?: number[]): World => {
  const w = a1({ choices: { placedBy: "tray", emptyPockets, proof: false } });
  const substrate = { ...w.job.substrate, w: 90, h: 60 };
  return { ...w, shop: { ...w.shop, gear: [gear] }, job: { ...w.job, substrate, quantity: 20, ...job } };
};

test("each piece lies whole in a pocket of its own that is not left empty, all of them in order over the loads", () => {
  const rnd = seeded(31);
  let laid = 0;
  for (let k = 0; k < many(400); k++) {
    const j: PocketRows = {
      across: 1 + Math.floor(rnd() * 6),
      down: 1 + Math.floor(rnd() * 5),
      w: 20 + rnd() * 80,
      h: 20 + rnd() * 80,
      gap: rnd() * 10,
      x: rnd() * 40,
      y: rnd() * 40,
    };
    const piece = { w: 15 + rnd() * 60, h: 15 + rnd() * 60 };
    const bed = { w: 200 + rnd() * 500, h: 200 + rnd() * 400 };
    const all = j.across * j.down;
    const empty = Array.from({ length: all }, (_v, i) => i + 1).filter(() => rnd() < 0.2);
    const n = 1 + Math.floor(rnd() * 50);
    const found = pocketLayout(n, piece, j, empty, bed);
    const [x, y] = pocketAt(j, all);
    const fits = (piece.w <= j.w && piece.h <= j.h) || (piece.h <= j.w && piece.w <= j.h);
    const room = x + j.w <= bed.w + 1e-9 && y + j.h <= bed.h + 1e-9;
    expect(found !== null).toBe(fits && room && empty.length < all);
    if (!found) continue;
    laid++;
    const [pw, ph] = found.turned ? [piece.h, piece.w] : [piece.w, piece.h];
    expect(found.loads.flat().map((p) => p.piece)).toEqual(Array.from({ length: n }, (_v, i) => i + 1));
    for (const load of found.loads) {
      const used = load.map((p) =>
        Array.from({ length: all }, (_v, i) => i + 1).filter((q) => {
          const [qx, qy] = pocketAt(j, q);
          return p.x >= qx - 1e-9 && p.y >= qy - 1e-9 && p.x + pw <= qx + j.w + 1e-9 && p.y + ph <= qy + j.h + 1e-9;
        }),
      );
      expect(used.every((u) => u.length === 1 && !empty.includes(u[0]))).toBe(true);
      expect(new Set(used.flat()).size).toBe(load.length);
    }
  }
  expect(laid).toBeGreaterThan(0);
});

test("minutes of the beam and loads follow the pockets that are filled", () => {
  for (const [gear, empty, holds] of [
    [jig({}), undefined, 6],
    [jig({}), [2, 5], 4],
    [jig({ across: 1, down: 1 }), undefined, 1],
  ] as const) {
    const plan = makePlan(world(gear, {}, empty ? [...empty] : undefined));
    const p = inTurn(plan.placed).find((x) => byBeam(x.step) && kindOf(x.step.kind).tries !== "setting")!;
    const loads = loadsOf(p, plan.context)!;
    expect([loads.perLoad, loads.loads, loads.on.name]).toEqual([holds, Math.ceil(20 / holds), "Tray"]);
    expect(p.setupMin).toBeCloseTo(setupMin(plan.context.machine!) + LOAD_MIN * Math.ceil(20 / holds), 6);
  }
});

test("how closely it comes back: as measured, else what the pocket leaves it, a nest’s own error at least", () => {
  const by = (gear: Gear): number => placementOf(makePlan(world(gear))).errorMm;
  expect(by(jig({}, { errorMm: 0.25 }))).toBe(0.25);
  expect(by(jig({ w: 90.4, h: 60.8 }))).toBeCloseTo(0.8, 9);
  expect(by(jig({ w: 60.3, h: 91 }))).toBeCloseTo(1, 9);
  expect(by(jig({ w: 90, h: 60 }))).toBe(0.1);
  // too small for it: nothing is known of how it lies
  expect(by(jig({ w: 50, h: 50 }))).toBe(0.3);
});

test("a jig lies on one bed at a time: two lasers wait for it, and don’t where each job has its own", () => {
  const two = (second: string): World[] => {
    const other = { ...jig({}), id: "second", name: "Second" };
    return ["a", "b"].map((id) => {
      const w = world(jig({}), { id, title: id, start: "2027-01-11T08:00", quantity: 90 });
      const m = { ...w.machines[0], id: `laser-${id}` };
      const choices = { ...w.job.choices, placedBy: id === "a" ? "tray" : second };
      return {
        ...w,
        shop: { ...w.shop, gear: [jig({}), other] },
        machines: [m],
        job: { ...w.job, choices, machineId: m.id },
      };
    });
  };
  const overlaps = (worlds: World[]): { jig: number; both: number } => {
    const s = layShop(worlds, { now: 30_000_480, seconds: 0, clock: () => 0, iterations: 20 });
    const [a, b] = s.jobs.map((q) =>
      inTurn(q.plan.placed).flatMap((p) =>
        lanesOf(p, q.plan.context)
          .filter((l) => l.startsWith("jig "))
          .map((l) => ({ l, from: p.start!, to: p.end! })),
      ),
    );
    const met = a.flatMap((x) => b.filter((y) => x.from < y.to - 1e-6 && y.from < x.to - 1e-6).map((y) => [x, y]));
    expect(Math.min(a.length, b.length)).toBeGreaterThan(0);
    return { jig: met.filter(([x, y]) => x.l === y.l).length, both: met.length };
  };
  expect(overlaps(two("tray"))).toEqual({ jig: 0, both: 0 });
  // two beams at once, each with its own jig: nothing keeps them apart
  expect(overlaps(two("second")).both).toBeGreaterThan(0);
});
