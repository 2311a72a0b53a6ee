/** Paint that a plan takes (M7), reckoned a second way: by the box that is aimed at, by what is still open, by the glass. */
import { allSafe } from "../records/machine";
import { a1, zone } from "../testing/worlds";
import { brief, FULL_SHELF, GEAR } from "../testing/briefs";
import { defaultMachine } from "../catalogue/starter";
import { GROUND, surfaceUm, zoneOf } from "../piece/state";
import { own } from "../process/kinds";
import type { Zone } from "../records/job";
import type { World } from "../records/world";
import { makePlan, type Plan } from "./plan";
import type { Placed } from "./placed";

/** Rows of a box, mm, as a zone has them. */
const rows = (x0: number, x1: number, y0: number, y1: number): number[] => [
  y0,
  y1,
  ...Array.from({ length: 64 }, () => [x0, x1]).flat(),
];
function job(route: World["job"]["route"], body: object, zones: Zone[], more: Partial<World["job"]> = {}): World {
  const w = a1({ products: FULL_SHELF(), shop: { gear: GEAR() } });
  const beam = body && (body as { id: string }).id.includes("bare") ? "um1" : "co2";
  return {
    ...w,
    machines: [allSafe(defaultMachine(beam, 40, "m"))],
    job: {
      ...w.job,
      route,
      machineId: "m",
      quantity: 1,
      substrate: { w: 200, h: 150, t: 6, ...body } as World["job"]["substrate"],
      zones,
      choices: { ...w.job.choices, maskChlorinated: false, ...more.choices },
      ...more,
    },
  };
}
const coats = (p: Plan, role: string): { x: Placed; i: number }[] =>
  p.placed.flatMap((x, i) => (own(x.step, "role") === role ? [{ x, i }] : []));
const SPRAY = { eta: 0.65, margin: 40 };
const AIRBRUSH = { eta: 0.75, margin: 10 };
/** ml out of the can for an area inside a box. */
const takes = (areaMm2: number, wetUm: number, w: number, h: number, by = SPRAY): number => {
  const share = Math.min(by.eta, (by.eta * areaMm2) / ((w + 2 * by.margin) * (h + 2 * by.margin)));
  return (areaMm2 * wetUm) / 1e6 / share;
};

test("a can is aimed at the box of what is open, not at the whole blank", () => {
  const small = zone("z0", "e-rust", { areaMm2: 900, perimeterMm: 120, rows: rows(10, 40, 10, 40) });
  const p = makePlan(job("D1", { id: "slate" }, [small]), null, true);
  const [{ x, i }] = coats(p, "colour");
  const depth = zoneOf(x.before, "z0").depthUm / 1000;
  const area = 900 + 120 * depth;
  expect(p.uses[i]!.ml).toBeCloseTo(takes(area, 12 / 0.13, 30, 30), 6);
  // two zones at two ends of the blank: the box round both
  const far = zone("z1", "e-rust", { areaMm2: 900, perimeterMm: 120, rows: rows(160, 190, 110, 140) });
  const both = makePlan(job("D1", { id: "slate" }, [small, far]), null, true);
  const k = coats(both, "colour")[0];
  expect(both.uses[k.i]!.ml).toBeCloseTo(takes(2 * area, 12 / 0.13, 180, 130), 6);
  // the whole blank is coated: the box of all pieces together
  const clear = coats(p, "clear")[0];
  const face = 200 * 150 + 120 * depth;
  expect(p.uses[clear.i]!.ml).toBeCloseTo(takes(face, 10 / 0.1, 200, 150), 6);
});

test("an airbrush goes round each zone; of an area alone the box is its square", () => {
  const air = (zones: Zone[]): { p: Plan; ml: number; depth: number } => {
    const w = job("D1", { id: "slate" }, zones);
    const p = makePlan(
      { ...w, products: w.products.map((x) => (x.id === "e-rust" ? { ...x, finish: "airbrush-acrylic" } : x)) },
      null,
      true,
    );
    const { x, i } = coats(p, "colour")[0];
    return { p, ml: p.uses[i]!.ml!, depth: zoneOf(x.before, "z0").depthUm / 1000 };
  };
  const z0 = zone("z0", "e-rust", { areaMm2: 900, perimeterMm: null, rows: rows(10, 40, 10, 40) });
  const z1 = zone("z1", "e-rust", { areaMm2: 900, perimeterMm: null, rows: rows(160, 190, 110, 140) });
  const wet = 5 / 0.2;
  expect(air([z0]).ml).toBeCloseTo(takes(900, wet, 30, 30, AIRBRUSH), 6);
  expect(air([z0, z1]).ml).toBeCloseTo(2 * takes(900, wet, 30, 30, AIRBRUSH), 6);
  const blind = zone("z0", "e-rust", { areaMm2: 900, perimeterMm: null, rows: [] });
  expect(air([blind]).ml).toBeCloseTo(takes(900, wet, 30, 30, AIRBRUSH), 6);
  // a can over the same two takes much more: the box between them is sprayed too
  const can = makePlan(job("D1", { id: "slate" }, [z0, z1]), null, true);
  expect(can.uses[coats(can, "colour")[0].i]!.ml! / ((1800 * 12) / 0.13 / 1e6)).toBeGreaterThan(
    (2 * air([z0, z1]).ml) / ((1800 * wet) / 1e6),
  );
});

test("more pieces take no more than so many times as much, and never less than one", () => {
  for (let n = 0; n < 60; n++) {
    const w = brief(n * 7);
    const at = (quantity: number): (number | null)[] =>
      makePlan(
        { ...w, job: { ...w.job, quantity, choices: { ...w.job.choices, proof: false, begin: quantity } } },
        null,
        true,
      ).uses.map((u) => u?.ml ?? null);
    const [one, six] = [at(1), at(6)];
    expect(six.length).toBe(one.length);
    one.forEach((ml, i) => {
      if (ml === null) return expect(six[i]).toBeNull();
      expect([w.job.id, i, six[i]! <= 6 * ml * (1 + 1e-9), six[i]! >= ml]).toEqual([w.job.id, i, true, true]);
    });
  }
});

test("metal is flooded level: the second coat is as thick as what is open leaves solids, and takes as much enamel", () => {
  const z = zone("z0", "b-rust", { areaMm2: 400, perimeterMm: 80 });
  const p = makePlan(job("D2", { id: "steel-bare" }, [z]), null, true);
  const [first, second] = coats(p, "colour");
  expect(own(first.x.step, "dryUm")).toBe(30);
  const open = surfaceUm(zoneOf(second.x.before, "z0"));
  // 250 µm deep, 30 µm in it
  expect(open).toBeCloseTo(220, 0);
  expect(own(second.x.step, "dryUm")).toBeCloseTo(open * 0.45, 0);
  const walls = 400 + 80 * (zoneOf(second.x.before, "z0").depthUm / 1000);
  expect(p.uses[second.i]!.ml).toBeCloseTo((walls * (own(second.x.step, "dryUm")! / 0.45)) / 1e6 / 0.9, 6);
  // what it dries to leaves the cut open by what was no solid: depth·(1−VS)
  expect(surfaceUm(zoneOf(second.x.after, "z0"))).toBeCloseTo(open * 0.55, 0);
});

test("epoxy finds its level: what the recesses hold open comes on top of the face", () => {
  const z = zone("z0", "c-rust", { areaMm2: 3000, perimeterMm: 220 });
  const p = makePlan(
    job("E1", { id: "hard-maple" }, [z], {
      choices: { ...job("E1", { id: "hard-maple" }, []).job.choices, finishing: ["epoxy"] },
    }),
    null,
    true,
  );
  const i = p.placed.findIndex((x) => x.step.kind === "flood-epoxy");
  const { before, after } = p.placed[i];
  const open = Math.max(0, surfaceUm(zoneOf(before, "z0")) - before.sandedUm);
  expect(open).toBeGreaterThan(100);
  const um = own(p.placed[i].step, "dryUm")!;
  expect(p.uses[i]!.ml).toBeCloseTo((200 * 150 * um + 3000 * open) / 1e6 / 0.9, 6);
  // level in the end: the face and what was a recess stand as high
  const top = (zoneId: string): number => surfaceUm(zoneOf(after, zoneId));
  expect(top("z0") - before.sandedUm).toBeCloseTo(-um, 6);
  expect(top(GROUND)).toBeLessThan(0);
});

test("poured inside a ball and a cylinder: the wall, a tenth to swirl with, and a cylinder's bottom", () => {
  const at = (shape: "ball" | "cylinder"): { ml: number; wet: number } => {
    const w = brief(0);
    const glass: World = {
      ...job("J", { id: "glass-coated", shape, diameter: 80, h: 120 }, [zone("z0", "j-rust", { areaMm2: 500 })]),
      machines: [allSafe(defaultMachine("um1", 20, "m"))],
    };
    expect(w.job.route).toBe("A1");
    const p = makePlan(glass, null, true);
    const i = p.placed.findIndex((x) => x.step.kind === "pour-paint");
    return { ml: p.uses[i]!.ml!, wet: own(p.placed[i].step, "dryUm")! / p.context.paintOf("j-rust").solids.value! };
  };
  const [ball, cup] = [at("ball"), at("cylinder")];
  expect(ball.ml).toBeCloseTo((Math.PI * 80 * 80 * ball.wet * 1.1) / 1e6, 9);
  expect(cup.ml).toBeCloseTo(((Math.PI * 80 * 120 + Math.PI * 40 * 40) * cup.wet * 1.1) / 1e6, 9);
});
