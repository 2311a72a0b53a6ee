import { defaultMachine } from "../catalogue/starter";
import { dose } from "../process/beam";
import { context } from "../process/context";
import { makePlan } from "../plan/plan";
import { TestPlate } from "../records/job";
import { allSafe } from "../records/machine";
import { brief } from "../testing/briefs";
import { a1, e1, many } from "../testing/worlds";
import { spaced } from "../models/laser/plate";
import { cellsOf, firstPlate, fitOf, guardsOf, plateMinutes, questionOf, sizeOf, zoomed } from "./plate";

const plate = (more: Partial<TestPlate> = {}): TestPlate => ({
  ...new TestPlate(),
  id: "p",
  at: "2027-01-11T10:00",
  question: "window",
  machineId: "co2-40",
  powers: spaced(0.2, 0.7, 5, "geometric"),
  speeds: spaced(100, 400, 6, "geometric"),
  interval: 0.07,
  cells: [],
  ...more,
});
const plan = () => makePlan(a1(), null);

test("each cell gets what its power and speed put on the surface, in the passes of the whole plate", () => {
  const m = a1().machines[0];
  const t = plate({ passes: 2 });
  const cells = cellsOf(t, m);
  expect(cells).toHaveLength(30);
  for (const c of cells)
    expect(c.e).toBeCloseTo(dose(m, { power: c.power, speed: c.speed, interval: 0.07, passes: 2, from: "typed" })!, 9);
  expect(cellsOf(t, null).every((c) => c.e === null)).toBe(true);
  expect(sizeOf(t)).toEqual({ w: 14 + 6 * 8 + 5 * 2, h: 14 + 5 * 8 + 4 * 2 });
  expect(plateMinutes({ ...t, passes: 4 }, m)).toBeCloseTo(2 * plateMinutes(t, m)!, 6);
});
test("guards: beyond the machine, larger than the scrap, watts unknown, too long, charred; a sound plate has none that stops", () => {
  const c = context(a1());
  const says = (t: TestPlate) => guardsOf(t, c).map((g) => `${g.stops ? "!" : ""}${g.say}`);
  expect(says(plate({ speeds: [100, 9000] })).join()).toMatch(/!1 of the speeds are above/);
  expect(says(plate({ powers: [0.5, 1.2] })).join()).toMatch(/!1 of the powers/);
  expect(says(plate({ scrapW: 60, scrapH: 60 })).join()).toMatch(
    /!With labels it takes 72 mm × 62 mm, and the scrap has 60 mm × 60 mm/,
  );
  expect(says(plate({ scrapW: 62, scrapH: 72 })).filter((x) => x.startsWith("!"))).toEqual([]);
  expect(says(plate({ powers: [0.06, 0.5] })).join()).toMatch(/1 row the watts are not known/);
  expect(says(plate({ powers: [1], speeds: [2] })).join()).toMatch(/char/);
  expect(says(plate({ powers: Array(12).fill(0.5), speeds: Array(12).fill(10), cellMm: 20 })).join()).toMatch(
    /somebody stays with it/,
  );
  expect(guardsOf(plate(), { ...c, machine: null })[0].stops).toBe(true);
});
test("over all ways a first plate lies round the computed setting, within the machine; it asks what the beam does", () => {
  for (let n = 0; n < many(120); n++) {
    const p = makePlan(brief(n), null, true);
    const first = firstPlate(p);
    if (!first) continue;
    expect(first.powers[0]).toBeLessThan(first.powers[1]);
    expect(first.powers[1]).toBeLessThanOrEqual(1);
    expect(first.speeds[0]).toBeGreaterThan(0);
  }
  expect(questionOf(context(a1()))).toBe("window");
  expect(questionOf(context(e1()))).toBe("depth");
});
test("read whole, it says a setting that the machine does, and a closer plate lies within what is open", () => {
  const p = plan();
  const m = p.context.machine!;
  const t = plate();
  const cells = cellsOf(t, m).map((c) => ({
    row: c.row,
    col: c.col,
    top: c.e! < 0.4 ? ("whole" as const) : c.e! < 0.55 ? ("partly" as const) : ("gone" as const),
    under: c.e! < 1.4 ? ("whole" as const) : c.e! < 1.8 ? ("partly" as const) : ("gone" as const),
  }));
  const fit = fitOf({ ...t, cells }, p);
  expect(fit.advice!.e).toBeGreaterThan(0.55);
  expect(fit.advice!.e).toBeLessThan(1.4);
  expect(dose(m, { ...fit.advice!, interval: t.interval, passes: 1, from: "test plate" })).toBeCloseTo(
    fit.advice!.e,
    1,
  );
  const near = zoomed(t, fit, m)!;
  expect(Math.max(...near.powers)).toBeLessThanOrEqual(1);
  const span = (x: Pick<TestPlate, "powers" | "speeds">) =>
    Math.max(...x.powers) / Math.min(...x.powers) / (Math.min(...x.speeds) / Math.max(...x.speeds));
  expect(span(near)).toBeLessThan(span(t));
  const tops = fitOf({ ...t, cells: cells.map(({ under: _, ...c }) => c) }, p);
  expect(tops.advice!.says).toMatch(/not read/);
  expect(tops.advice!.e).toBeLessThan(1);
});
test("what it can’t say yet it says so: nothing read, a shut window, a machine that is gone, a peak at the rim", () => {
  const p = plan();
  expect(fitOf(plate(), p).lacks).toMatch(/No cell is read/);
  expect(fitOf(plate({ machineId: "gone" }), p).lacks).toMatch(/no longer/);
  const cells = cellsOf(plate(), p.context.machine).map((c) => ({
    row: c.row,
    col: c.col,
    top: "gone" as const,
    under: "gone" as const,
  }));
  expect(fitOf(plate({ cells }), p).window).not.toBeNull();
  const marks = cellsOf(plate({ question: "darken" }), p.context.machine).map((c) => ({
    row: c.row,
    col: c.col,
    mark: Math.min(10, c.e!),
  }));
  expect(fitOf(plate({ question: "darken", cells: marks }), p).lacks).toMatch(/more energy/);
});
test("depths measured give the millimetres by energy, kept with the machine", () => {
  const w = { ...e1(), machines: [{ ...allSafe(defaultMachine("co2", 40, "co2-40")), maxSpeed: 500 }] };
  const p = makePlan(w, null);
  const t = plate({ question: "depth", passes: 2 });
  const cells = cellsOf(t, w.machines[0]).map((c) => ({
    row: c.row,
    col: c.col,
    mm: Math.max(0, 2 * 0.3 * (c.e! / 2 - 0.15)),
  }));
  const fit = fitOf({ ...t, cells: cells.filter((c) => c.mm > 0) }, p);
  expect(fit.depth!.perJ).toBeCloseTo(0.3, 6);
});
