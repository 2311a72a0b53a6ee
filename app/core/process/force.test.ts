/** The setting in force: what a step shows is what its setting does, wherever that came from. */
import { allSafe } from "../records/machine";
import { brief } from "../testing/briefs";
import { a1, e1, many, seeded, SHELF, stocked } from "../testing/worlds";
import { defaultMachine } from "../catalogue/starter";
import { openShares, phi } from "../models/film/reveal";
import { makePlan, type Plan } from "../plan/plan";
import { zoneOf } from "../piece/state";
import { snagsOf } from "../judge/judge";
import type { Machine } from "../records/machine";
import type { PlanEdit } from "../records/job";
import type { World } from "../records/world";
import { cutsThrough, digs, dose, keptSpeed, shareOf, topSpeed, wattsOf } from "./beam";
import { workOf } from "./force";
import { cutsOf } from "./kinds/laser-work";
import { kindOf, own } from "./kinds";
import { substrate } from "../catalogue/substrates";

const edit = (w: World, ...sets: [step: string, field: string, value: PlanEdit["value"]][]): World => ({
  ...w,
  job: {
    ...w.job,
    edits: sets.map(([step, field, value], i) => ({ id: `t${i}`, op: "set", step, after: null, field, value })),
  },
});
const at = (p: Plan, id: string) => p.placed.find((x) => x.step.id === id)!;
const laser = (p: Plan, id: string) => own(at(p, id).step, "laser")!;
const plate = (w: World, of: string, more: object = {}): World => {
  const p = makePlan(w);
  const work = workOf(at(p, of).step, at(p, of).before, p.context);
  const { machineId } = w.job;
  return {
    ...w,
    job: {
      ...w.job,
      plate: {
        power: 0.33,
        speed: 150,
        interval: 0.07,
        passes: 1,
        at: "2027-01-11T10:00",
        note: "",
        machineId: machineId!,
        work,
        ...more,
      },
    },
  };
};

describe("depth, title, minutes, level and snags follow the setting", () => {
  test("eight per cent, one pass, another speed: each digs what it digs, and says so", () => {
    for (const [field, value] of [
      ["power", 0.15],
      ["passes", 1],
      ["passes", 7],
      ["speed", 400],
      ["interval", 0.2],
    ] as const) {
      const p = makePlan(edit(e1({ choices: { depthMm: 1.5 } }), ["engrave", field, value]));
      const set = laser(p, "engrave");
      expect(set.from).toBe("typed");
      expect(set[field]).toBe(value);
      // by hand: watts by speed and interval, less the threshold, 0.3 mm a joule, as often as it is run
      const e = (40 * set.power) / (set.speed * set.interval);
      const mm = set.passes * 0.3 * Math.max(0, e - 0.15);
      expect(own(at(p, "engrave").step, "depthMm")).toBeCloseTo(Math.min(8, mm), 9);
      expect(zoneOf(at(p, "engrave").after, "leaf").depthUm).toBeCloseTo(Math.min(8000, mm * 1000), 6);
      expect(at(p, "engrave").step.title).toContain(`${set.passes} ${set.passes === 1 ? "pass" : "passes"}`);
      expect(at(p, "engrave").step.title).not.toContain("1.5 mm");
      const told = snagsOf(p).find((s) => s.rule === 50);
      expect(told?.why).toMatch(/this setting \(typed\) digs/);
      expect(own(at(p, "engrave").step, "wishMm")).toBe(1.5);
    }
  });
  test("a tube turned below its readings: what it digs is unknown until somebody has measured it", () => {
    const low = makePlan(edit(e1(), ["engrave", "power", 0.08]));
    expect(own(at(low, "engrave").step, "depthMm")).toBeNull();
    const read = e1();
    read.machines[0] = {
      ...read.machines[0],
      powerPoints: [
        { set: 5, watts: 1 },
        { set: 20, watts: 9 },
        { set: 100, watts: 38 },
      ],
    };
    const p = makePlan(edit(read, ["engrave", "power", 0.08]));
    const set = laser(p, "engrave");
    // between 5 % at 1 W and 20 % at 9 W
    expect(dose(read.machines[0], set)).toBeCloseTo((set.passes * (1 + 8 * 0.2)) / (set.speed * set.interval), 9);
  });
  test("nothing is dug deeper than the piece is thick", () => {
    const p = makePlan(edit(e1(), ["engrave", "passes", 40], ["engrave", "speed", 20]));
    expect(zoneOf(at(p, "engrave").after, "leaf").depthUm).toBe(8000);
    expect(own(at(p, "engrave").step, "depthMm")).toBe(8);
  });
  test("the speed is solved for the depth, with the least passes that the body bears", () => {
    for (const mm of [0.3, 0.55, 0.6, 1.5, 2.2]) {
      const p = makePlan(e1({ choices: { depthMm: mm } }));
      const set = laser(p, "engrave");
      expect(own(at(p, "engrave").step, "depthMm")! / mm).toBeCloseTo(1, 2);
      expect(set.passes).toBe(Math.ceil(mm / (0.3 * (2 - 0.15)) - 1e-9));
      expect((40 * set.power) / (set.speed * set.interval)).toBeLessThan(2.03);
    }
  });
  test("slate in eleven passes, metal not in a hundred and more", () => {
    const slate = makePlan(
      e1({ job: { route: "D2", substrate: { id: "slate", w: 100, h: 100, t: 6 } }, choices: { depthMm: 0.4 } }),
    );
    const cut = slate.placed.find((x) => kindOf(x.step.kind).beam === "body");
    expect(own(cut?.step, "laser")?.passes).toBe(11);
    for (let n = 0; n < 240; n++) {
      const p = makePlan(brief(n), null, true);
      for (const x of p.placed) expect(own(x.step, "laser")?.passes ?? 1).toBeLessThanOrEqual(40);
    }
  });
});

describe("a computed setting is a function of what lies there", () => {
  const black = (coatUm: number) => SHELF().map((p) => (p.id === "black" ? { ...p, coatUm } : p));
  test("a thicker dark top takes more energy, without a press", () => {
    const doses = [8, 12, 18].map((um) => {
      const p = makePlan(a1({ products: black(um) }));
      return dose(p.context.machine!, laser(p, "reveal")) as number;
    });
    expect(doses[1]).toBeGreaterThan(doses[0] * 1.1);
    expect(doses[2]).toBeGreaterThan(doses[1] * 1.1);
  });
  test("it lies in the middle of its window, whichever machine and interval", () => {
    for (const [beam, watts, interval] of [
      ["co2", 40, null],
      ["co2", 100, 0.05],
      ["blue", 10, 0.04],
      ["co2", 30, 0.1],
    ] as const) {
      const w = a1({ choices: { intervalMm: interval } });
      const m = allSafe(defaultMachine(beam, watts, "m"));
      const p = makePlan({ ...w, machines: [m], job: { ...w.job, machineId: "m" } });
      const x = at(p, "reveal");
      const all = cutsOf(zoneOf(x.before, "flower"), p.context, laser(p, "reveal").interval, 1);
      const e = dose(m, laser(p, "reveal")) as number;
      const [lo, hi] = [all[0].c * Math.exp(1.96 * all[0].sigma), all[1].c * Math.exp(-1.96 * all[1].sigma)];
      if (lo < hi) expect(e / Math.sqrt(lo * hi)).toBeCloseTo(1, 1);
      expect(openShares(all, e)[0]).toBeCloseTo(phi((Math.log(e) - Math.log(all[0].c)) / all[0].sigma), 9);
    }
  });
  test("every route: the door's step, its title and its piece speak of the same setting", () => {
    const rnd = seeded(7);
    for (let k = 0; k < many(500); k++) {
      const w = brief(Math.floor(rnd() * 5000));
      const plain = makePlan(w, null, true);
      const beams = plain.placed.filter((x) => own(x.step, "laser") && kindOf(x.step.kind).starts);
      if (!beams.length) continue;
      const x = beams[Math.floor(rnd() * beams.length)];
      const [power, passes] = [Math.round((0.2 + 0.7 * rnd()) * 100) / 100, 1 + Math.floor(rnd() * 4)];
      const p = makePlan(edit(w, [x.step.id, "power", power], [x.step.id, "passes", passes]), null, true);
      const y = at(p, x.step.id);
      const set = own(y.step, "laser")!;
      expect([set.power, set.passes, set.from]).toEqual([power, passes, "typed"]);
      const m = p.context.machine!;
      const e = (passes * (m.powerPoints.length ? wattsOf(m, power)! : m.watts * power)) / (set.speed * set.interval);
      const zone = y.step.zones[0];
      if (kindOf(y.step.kind).beam === "body") {
        const mm = digs(m, set, p.context.substrate) as number;
        expect(own(y.step, "depthMm")).toBe(Math.min(mm, w.job.substrate.t));
        const [was, is] = [zoneOf(y.before, zone).depthUm, zoneOf(y.after, zone).depthUm];
        expect(is).toBeCloseTo(Math.min(w.job.substrate.t * 1000, was + mm * 1000), 6);
        expect(y.step.title).toMatch(/^Engrave [\d.]+ mm, \d+ pass/);
      } else if (kindOf(y.step.kind).beam === "film") {
        const before = zoneOf(y.before, zone);
        const open = openShares(cutsOf(before, p.context, set.interval, passes), e);
        const left = zoneOf(y.after, zone).films.filter((f) => f.left > 0).length;
        if (open[0] < 0.05) expect(left).toBe(before.films.length);
        if (open.every((o) => o > 0.95)) expect(left).toBe(0);
      } else if (kindOf(y.step.kind).beam === "outline")
        expect(y.after.cutOut).toBe((cutsThrough(m, set, p.context.substrate) ?? 0) >= w.job.substrate.t - 0.05);
    }
  });
});

describe("a plate counts for the work it was made on", () => {
  test("that stack goes by it; a thicker top, another can, interval or machine computes again", () => {
    const w = plate(a1(), "reveal");
    expect(laser(makePlan(w), "reveal")).toMatchObject({ power: 0.33, speed: 150, from: "test plate" });
    const other: [string, World][] = [
      ["film", { ...w, products: w.products.map((p) => (p.id === "black" ? { ...p, coatUm: 14 } : p)) }],
      [
        "paint",
        {
          ...w,
          products: [...w.products, stocked("ink", "Ink black", "spray-enamel", "#101010")],
          job: { ...w.job, choices: { ...w.job.choices, topId: "ink" } },
        },
      ],
      ["interval", { ...w, job: { ...w.job, choices: { ...w.job.choices, intervalMm: 0.1 } } }],
      [
        "can",
        {
          ...w,
          products: w.products.map((p) =>
            p.id === "black" ? { ...p, cans: p.cans.map((k) => ({ ...k, id: "another" })) } : p,
          ),
        },
      ],
      [
        "machine",
        {
          ...w,
          machines: [...w.machines, allSafe(defaultMachine("blue", 20, "b"))],
          job: { ...w.job, machineId: "b" },
        },
      ],
      ["body", { ...w, job: { ...w.job, substrate: { ...w.job.substrate, id: "slate" } } }],
    ];
    for (const [what, x] of other) expect([what, laser(makePlan(x), "reveal").from]).toEqual([what, "computed"]);
    const same = { ...w, job: { ...w.job, quantity: 40, title: "another name" } };
    expect(laser(makePlan(same), "reveal").from).toBe("test plate");
  });
  test.each(["A1", "A2", "A3", "A4", "D1", "B", "H"] as const)(
    "%s: each step of that work goes by it, and no other",
    (route) => {
      let met = 0;
      for (let n = 0; n < 2000 && met < 4; n++) {
        const w = brief(n);
        if (w.job.route !== route) continue;
        const first = makePlan(w, null, true).placed.find((x) => own(x.step, "laser") && kindOf(x.step.kind).starts);
        if (!first) continue;
        met++;
        const p = makePlan(plate(w, first.step.id), null, true);
        const key = p.context.job.plate!.work;
        const mine = p.placed.filter((x) => kindOf(x.step.kind).starts && own(x.step, "laser"));
        for (const x of mine)
          expect([x.step.id, own(x.step, "laser")!.from]).toEqual([
            x.step.id,
            workOf(x.step, x.before, p.context) === key ? "test plate" : "computed",
          ]);
        expect(mine.some((x) => own(x.step, "laser")!.from === "test plate")).toBe(true);
      }
      expect(met).toBeGreaterThan(0);
    },
  );
});

describe("the machine's own figures", () => {
  const m: Machine = allSafe(defaultMachine("co2", 40));
  test("watts: by readings in per cent or milliamperes, else by rating, a tube's low end unknown", () => {
    expect([wattsOf(m, 0.5), wattsOf(m, 0.12), wattsOf(m, 0.11)]).toEqual([20, 4.8, null]);
    expect(wattsOf({ ...m, galvo: true }, 0.05)).toBe(2);
    const percent = {
      ...m,
      powerPoints: [
        { set: 10, watts: 2 },
        { set: 60, watts: 30 },
        { set: 100, watts: 42 },
      ],
    };
    expect(wattsOf(percent, 0.35)).toBeCloseTo(16, 9);
    expect(wattsOf(percent, 0.05)).toBeNull();
    const ma = {
      ...m,
      powerPoints: [
        { set: 4, watts: 5 },
        { set: 20, watts: 41 },
      ],
    };
    expect(wattsOf(ma, 0.6)).toBeCloseTo(5 + (36 * 8) / 16, 9);
    for (const x of [m, percent, ma]) for (const w of [6, 12, 30]) expect(wattsOf(x, shareOf(x, w))).toBeCloseTo(w, 6);
  });
  test("a computed setting is never quicker than 0.8 of the top, nor than short rows are worth; unknown is never endless", () => {
    expect(keptSpeed(m, null)).toBe(400);
    expect(keptSpeed(m, 20)).toBeCloseTo(Math.sqrt((3000 * 20) / 2), 9);
    expect(keptSpeed({ ...m, galvo: true }, 20)).toBe(400);
    expect([topSpeed({ ...m, maxSpeed: null }), topSpeed({ ...m, beam: "blue", maxSpeed: null })]).toEqual([400, 150]);
  });
  test("depth in each material is its own; wood's figure is never carried to slate", () => {
    const set = { power: 0.5, speed: 100, interval: 0.1, passes: 1, from: "typed" as const };
    expect(digs(m, set, substrate("slate"))).toBeCloseTo(0.02 * 1.85, 9);
    expect(digs({ ...m, depthPerJ: 0.5 }, set, substrate("slate"))).toBeCloseTo(0.02 * 1.85, 9);
    expect(digs({ ...m, depthPerJ: 0.5 }, set, substrate("oak"))).toBeCloseTo(0.5 * 1.85, 9);
    expect(digs({ ...m, depths: [{ substrate: "slate", perJ: 0.04 }] }, set, substrate("slate"))).toBeCloseTo(
      0.04 * 1.85,
      9,
    );
    expect(digs(m, set, substrate("canvas"))).toBeNull();
  });
  test("cutting through: watts by kerf wall, in at most six passes", () => {
    const set = { power: 0.8, speed: 10, interval: 0.1, passes: 2, from: "typed" as const };
    expect(cutsThrough(m, set, substrate("birch-ply"))).toBeCloseTo((2 * 32) / (0.6 * 10), 9);
    expect(cutsThrough(m, set, substrate("slate"))).toBeNull();
  });
});
