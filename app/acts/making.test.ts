/** Acts round the making: plates, lessons, blanks, pieces, sizes, votes, how far off a piece lay; each undone in one. */
import { a1, e1 } from "../core/testing/worlds";
import { costOf, lotFor } from "../core/explain/cost";
import { cellsOf, firstOf, fitOf, LABEL_MM } from "../core/explain/plate";
import { gridOf, readPhoto, stackHex } from "../core/explain/plate-photo";
import { pooledFor, type Pooled } from "../core/explain/pooled";
import { linear } from "../core/models/film/colour";
import type { Job, TestPlate } from "../core/records/job";
import { testView } from "../views/test";
import { lessonsAt } from "../core/plan/lessons";
import { makePlan } from "../core/plan/plan";
import { open } from "../core/judge/judge";
import { workCard } from "../core/explain/card";
import { piecesOf } from "../core/process/pieces";
import { zonedClock } from "../core/time/zoned";
import { drawingIn, labelTexts, plateSheet } from "../io/export/plate-sheet";
import { cellColour, HAND_HELD, photograph } from "../simulators/plate-camera";
import { undo } from "../store/acts";
import { db } from "../store/db";
import { readHeads, readShop, readWorld } from "../store/queries";
import { stocked } from "../testing/stocked";
import { benchAct } from "./bench";
import { jobAct, wrapUpAct } from "./job";
import { learnedAct, shopAct } from "./shop";
import { shelfAct } from "./shelf";

const NOW = zonedClock("UTC").fromLocal("2027-01-11T10:00");
let n = 0;
beforeEach(async () => {
  globalThis.__richLayerClock = () => NOW * 60000;
  await stocked(`making-${n++}`, { job: e1().job, tile: { ...a1().job, title: "Tiles" } });
});
afterEach(() => {
  db().close();
  globalThis.__richLayerClock = undefined;
});
const world = async (id = "job") => (await readWorld(id))!;

test("a plate is designed, read, gone by, zoomed in on; nonsense is refused by name with what was meant", async () => {
  const form = {
    intent: "test-add",
    question: "window",
    powers: "20 to 70 %",
    rows: "4",
    speeds: "100 to 400 mm/s",
    cols: "5",
    interval: "0.07 mm",
  };
  expect((await jobAct("tile", { ...form, powers: "20 to 4250 %" })).error).toMatch(
    /4250 % is more than all of the power; 42.5 % was probably meant/,
  );
  expect((await jobAct("tile", { ...form, speeds: "0 to 90 m/s" })).error).toMatch(/“.*|no speed/);
  expect((await jobAct("tile", { ...form, scrapW: "20", scrapH: "20" })).error).toMatch(/With labels it takes/);
  expect((await jobAct("tile", form)).error).toBeUndefined();
  const [t] = (await world("tile")).job.tests!;
  expect(t.powers[0]).toBeCloseTo(0.2, 9);
  expect(t.work).toMatch(/^co2-40\|/);
  const press = (row: number, col: number, field: string, value: string) =>
    jobAct("tile", { intent: "test-cell", id: t.id, row: String(row), col: String(col), field, value });
  await press(0, 0, "top", "next");
  await press(0, 0, "top", "next");
  expect((await world("tile")).job.tests![0].cells).toEqual([{ row: 0, col: 0, top: "partly" }]);
  await press(0, 0, "top", "next");
  await press(0, 0, "top", "next");
  expect((await world("tile")).job.tests![0].cells).toEqual([]);
  expect((await press(9, 0, "top", "gone")).error).toMatch(/no such cell/);
  for (let row = 0; row < 4; row++)
    for (let col = 0; col < 5; col++) {
      const e = (40 * t.powers[row]) / (t.speeds[col] * 0.07);
      await press(row, col, "top", e < 0.45 ? "whole" : "gone");
      await press(row, col, "under", e < 1.6 ? "whole" : "gone");
    }
  expect((await jobAct("tile", { intent: "test-use", id: t.id })).error).toBeUndefined();
  const w = await world("tile");
  expect(w.job.plate!.work).toBe(t.work);
  const reveal = makePlan(w, NOW).placed.find((p) => p.step.kind === "reveal")!;
  expect((reveal.step as { laser: { from: string } }).laser.from).toBe("test plate");
  expect((await jobAct("tile", { intent: "test-zoom", id: t.id })).error).toBeUndefined();
  expect((await world("tile")).job.tests).toHaveLength(2);
  await undo();
  await undo();
  expect((await world("tile")).job.plate).toBeNull();
});
test("a photo of a plate is read and taken over; what is not sure stays open; its cells may show the drawing", async () => {
  const form = { intent: "test-add", question: "window", powers: "15 to 70 %", rows: "5", speeds: "100 to 400 mm/s" };
  await jobAct("tile", { ...form, cols: "6", interval: "0.07 mm", shows: "drawing" });
  const w = await world("tile");
  const [t] = w.job.tests!;
  const plan = makePlan(w, NOW);
  const [m] = w.machines;
  const stack = stackHex(plan)!;
  // the black over the poppy over the glazed tile
  expect([stack.top, stack.under]).toEqual(["#17161b", "#d8432f"]);
  const cells = cellsOf(t, m);
  const hex = { top: linear(stack.top), under: linear(stack.under), below: linear(stack.below!) };
  const truth = { c1: 0.62, s1: 0.12, c2: 1.9, s2: 0.12 };
  const e = (row: number, col: number): number => cells.find((c) => c.row === row && c.col === col)!.e!;
  const { photo, marks } = photograph(gridOf(t), hex.top, (r, c) => cellColour(hex, truth, e(r, c)), {
    ...HAND_HELD,
    seed: 5,
  });
  const read = readPhoto(t, m, stack, firstOf(plan), photo, marks);
  const sure = read.filter((c) => !c.unsure);
  expect(sure.length).toBeGreaterThan(20);
  const act = (list: object[]) => jobAct("tile", { intent: "test-photo", id: t.id, cells: JSON.stringify(list) });
  expect((await act(sure)).error).toBeUndefined();
  const now = await world("tile");
  expect(now.job.tests![0].cells).toHaveLength(sure.length);
  const fit = fitOf(now.job.tests![0], makePlan(now, NOW));
  // gone from C₁·e^(1.96 s) on, touched from C₂·e^(−1.96 s) on
  expect(fit.window!.best).toBeGreaterThan(0.62 * Math.exp(1.96 * 0.12));
  expect(fit.window!.best).toBeLessThan(1.9 * Math.exp(-1.96 * 0.12));
  expect((await act([{ row: 40, col: 0, top: "gone" }])).error).toMatch(/no such cell/);
  // a square of 10 by 5 in a cell of 8 mm: as wide as the cell, in its middle
  const box = { outline: "M0 0H10V5H0Z", bare: false };
  const [shape] = drawingIn([box], 8);
  expect(shape.points.map(([x, y]) => [x, y].map((v) => Math.round(100 * v) / 100))).toEqual([
    [0, 2],
    [8, 2],
    [8, 6],
    [0, 6],
  ]);
  const zones = [{ ...now.job.zones[0], ...box }];
  const sheet = plateSheet(
    t,
    cells,
    labelTexts(t).map(() => []),
    zones,
  );
  const [x, y] = sheet.layers.find((l) => l.layer.id === "cell-2-3")!.paths[0].points[0];
  expect([x, y]).toEqual([LABEL_MM + 2 * 10, LABEL_MM + 10 + 2]);
  expect(
    plateSheet(
      { ...t, shows: undefined },
      cells,
      labelTexts(t).map(() => []),
      zones,
    ).layers[1].paths[0].points,
  ).toHaveLength(4);
});
test("a plate that nobody has read yet is made of the fewest cells that answer it, over the same stretch; a read one stays", async () => {
  await jobAct("tile", {
    intent: "test-add",
    question: "window",
    powers: "15 to 70 %",
    rows: "5",
    speeds: "100 to 400 mm/s",
    cols: "6",
    interval: "0.07 mm",
  });
  const t = async () => (await world("tile")).job.tests!.at(-1)!;
  const was = await t();
  expect(await jobAct("tile", { intent: "test-fewer", id: was.id })).toMatchObject({ done: "stored" });
  const is = await t();
  expect(is.powers.length * is.speeds.length).toBeLessThan(20);
  const ends = (v: readonly number[]) => [Math.min(...v), Math.max(...v)];
  expect([ends(is.speeds), is.id]).toEqual([ends(was.speeds), was.id]);
  ends(is.powers).forEach((p, i) => expect(p).toBeCloseTo(ends(was.powers)[i], 9));
  await jobAct("tile", { intent: "test-cell", id: is.id, row: "0", col: "0", field: "top", value: "gone" });
  expect(await jobAct("tile", { intent: "test-fewer", id: is.id })).toMatchObject({
    error: expect.stringMatching(/read already/),
  });
});
test("plates on other cans say something of today's, with wider intervals; its own narrows them; another stack says nothing", async () => {
  const form = { intent: "test-add", question: "window", powers: "15 to 70 %", rows: "5", speeds: "100 to 400 mm/s" };
  await jobAct("tile", { ...form, cols: "6", interval: "0.07 mm" });
  const w0 = await world("tile");
  const { job: tile } = w0;
  const [t] = tile.tests!;
  const cells = (c1: number): TestPlate["cells"] =>
    cellsOf(t, w0.machines[0]).map(({ row, col, e }) => ({
      row,
      col,
      top: e! < c1 * 0.8 ? ("whole" as const) : e! < c1 * 1.25 ? ("partly" as const) : ("gone" as const),
      under: e! < c1 * 2.2 ? ("whole" as const) : e! < c1 * 3 ? ("partly" as const) : ("gone" as const),
    }));
  const other = (id: string, work: string, c1: number): Job => ({
    ...tile,
    id,
    title: `Earlier ${id}`,
    tests: [{ ...t, id, work, cells: cells(c1) }],
  });
  const can = t.work!.replaceAll(".can1", ".can0");
  expect(can).not.toBe(t.work);
  const plan = makePlan(w0, NOW);
  const [a, b] = [other("a", can, 0.5), other("b", can.replaceAll(".can0", ".can9"), 0.55)];
  const one = pooledFor(plan, [tile, a])!;
  expect([one.others, one.own, one.from]).toEqual([1, 0, ["Earlier a"]]);
  const wide = (p: Pooled): number => Math.log(p.lo.high / p.lo.low);
  const two = pooledFor(plan, [tile, a, b])!;
  expect(two.others).toBe(2);
  const mine = pooledFor(plan, [{ ...tile, tests: [{ ...t, cells: cells(0.5) }] }, a, b])!;
  expect([mine.own, wide(mine) < wide(two)]).toEqual([1, true]);
  const alone = fitOf({ ...t, cells: cells(0.5) }, plan).window!;
  expect(wide(one)).toBeGreaterThan(Math.log(alone.lo.high / alone.lo.low));
  // a thicker film, or another interval, is another stack
  expect(pooledFor(plan, [other("c", can.replace(/ [\d.]+ /, " 99.0 "), 0.5)])).toBeNull();
  expect(testView(plan, [tile, a, b]).pooled!.says).toMatch(/By 2 plates on other cans: gone from/);
});
test("a lesson is told at its step, on card and in plan; as a rule it is a snag; put away for a job it is silent", async () => {
  const add = {
    intent: "lesson-add",
    text: "Warm the can first",
    kind: "coat",
    substrate: "hard-maple",
    productId: "beet",
    route: "",
    jobId: "job",
  };
  expect((await learnedAct({ ...add, text: " " })).error).toMatch(/otherwise/);
  expect((await learnedAct(add)).error).toBeUndefined();
  const told = async (id: string) => {
    const p = makePlan(await world(id), NOW);
    return p.placed
      .filter((x) => lessonsAt(x.step, p.context).length)
      .map((x) => (x.step as { productId?: string }).productId);
  };
  expect(new Set(await told("job"))).toEqual(new Set(["beet"]));
  expect(await told("tile")).toEqual([]);
  const plan = makePlan(await world(), NOW);
  expect(JSON.stringify(workCard(plan, NOW, null))).toContain("Learned here: Warm the can first");
  const [lesson] = (await readShop())!.shop.lessons!;
  expect(open(plan).some((s) => s.rule === 91)).toBe(false);
  await learnedAct({ intent: "lesson", id: lesson.id, field: "rule", value: "true" });
  expect(open(makePlan(await world(), NOW)).filter((s) => s.rule === 91)).toHaveLength(1);
  await jobAct("job", { intent: "lesson-off", id: lesson.id });
  expect(await told("job")).toEqual([]);
  expect((await learnedAct({ intent: "lesson-remove", id: lesson.id })).error).toBeUndefined();
  expect((await readShop())!.shop.lessons).toBeUndefined();
});
test("blanks are taken from their lot with the first tap; turned away they are no more than came; prices are read as typed", async () => {
  const lot = {
    intent: "lot-add",
    name: "Maple",
    substrate: "hard-maple",
    w: "120 mm",
    h: "60 mm",
    t: "8 mm",
    diameter: "",
    came: "20",
    each: "1,15",
  };
  expect((await shopAct({ ...lot, w: "wide" })).error).toMatch(/wide/);
  expect((await shopAct(lot)).error).toBeUndefined();
  const [made] = (await readShop())!.shop.blanks!;
  expect(made).toMatchObject({ came: 20, eachMinor: 115, substrate: "hard-maple" });
  expect((await shopAct({ intent: "lot-reject", id: made.id, n: "21", why: "knot" })).error).toMatch(/20 came/);
  await shopAct({ intent: "lot-reject", id: made.id, n: "2", why: "knot" });
  expect((await shopAct({ intent: "lot", id: made.id, field: "came", value: "1" })).error).toMatch(/turned away/);
  const w = await world();
  expect(lotFor(w.job, w.shop)?.id).toBe(made.id);
  const first = makePlan(w, NOW).placed[0].step.id;
  expect((await benchAct("job", { intent: "start", step: first })).error).toBeUndefined();
  expect((await world()).job.blankLot).toBe(made.id);
  const taken = (await readHeads()).find((h) => h.id === "job")!.blanks;
  expect({ ...taken, pieces: piecesOf(taken.begins) }).toMatchObject({ lot: made.id, begun: true, pieces: 6 });
  await shopAct({ intent: "rate", field: "handsMinor", value: "24" });
  await shelfAct({ intent: "price", id: "beet", value: "4.80" });
  expect((await shelfAct({ intent: "price", id: "beet", value: "cheap" })).error).toMatch(/“cheap” is not an amount/);
  const parts = costOf(makePlan(await world(), NOW)).parts;
  expect(parts.find((p) => p.id === "blanks")!.minor).toBe(6 * 115);
  expect(parts.find((p) => p.id === "product.beet")!.minor).toBeGreaterThan(0);
  await jobAct("job", { intent: "set", field: "price.margin", value: "120 %" });
  expect((await world()).job.price?.margin).toBeUndefined();
  await jobAct("job", { intent: "set", field: "price.margin", value: "35 %" });
  expect((await world()).job.price).toEqual({ margin: 0.35 });
});
test("pieces marked make the counts; a further size stands beside; votes count; a piece put back says how far off it lay", async () => {
  const marks = [["1", "good"], ["2", "lost"], ["3", "good"], ["2", ""]]; // prettier-ignore
  for (const [k, is] of marks) await wrapUpAct("job", { intent: "piece-mark", n: k, is });
  expect((await world()).job.wrapUp).toMatchObject({ good: 2, lost: 0 });
  expect((await wrapUpAct("job", { intent: "piece-mark", n: "99", is: "good" })).error).toMatch(/no piece 99/);
  expect((await jobAct("job", { intent: "size-add", w: "240 mm", h: "120 mm", pieces: "2" })).error).toBeUndefined();
  const heads = await readHeads();
  const other = heads.find((h) => h.set === "job" && h.id !== "job")!;
  expect((await world(other.id)).job).toMatchObject({ quantity: 2, substrate: { w: 240, h: 120 } });
  expect((await world(other.id)).job.zones[0].areaMm2).toBe(4 * (await world()).job.zones[0].areaMm2);
  await jobAct("job", { intent: "vote", key: "E1", as: "keep" });
  await jobAct("job", { intent: "vote", key: "E1", as: "keep" });
  await jobAct("job", { intent: "vote", key: "E1", as: "drop" });
  expect((await world()).job.choices.trialVotes).toEqual([{ key: "E1", keep: 2, drop: 1 }]);
  expect((await jobAct("job", { intent: "winner", key: "E1" })).error).toBeUndefined();
  expect((await readShop())!.shop.lessons![0].text).toMatch(/best of 1 trial card/);
  expect((await benchAct("job", { intent: "off", step: "engrave", mm: "0.4 mm" })).error).toBeUndefined();
  expect((await world()).log.find((e) => e.offMm !== undefined)!.offMm).toBeCloseTo(0.4, 9);
  expect((await benchAct("job", { intent: "off", step: "engrave", mm: "-2 mm" })).error).toBeTruthy();
});
test("an exercise is counted by what the model says of it, with the best of its tries", async () => {
  const tried = (answer: object) =>
    learnedAct({ intent: "tried", exercise: "way-round", level: "1", seed: "3", answer: JSON.stringify(answer) });
  await tried({ invert: "yes", mirror: "yes" });
  await tried({ invert: "no", mirror: "no" });
  const [p] = (await readShop())!.shop.practised!;
  expect(p).toMatchObject({ exercise: "way-round", level: 1, tries: 2 });
  expect(p.best).toBeGreaterThan(0);
  expect((await learnedAct({ intent: "tried", exercise: "no", level: "1", seed: "1", answer: "{}" })).error).toMatch(
    /no such exercise/,
  );
});
test("zones are joined, moved as a group, bordered as a zone of their own", async () => {
  const shape = {
    outline: "M0 0L9 0L9 4L0 4Z",
    areaMm2: 36,
    perimeterMm: 26,
    narrowestMm: 4,
    pieces: 1,
    holes: 0,
    smallestMm2: 36,
    rows: [],
  };
  await jobAct("job", {
    intent: "zone-shape",
    zone: "lettering",
    gone: "leaf",
    name: "",
    colour: "",
    found: JSON.stringify(shape),
  });
  expect((await world()).job.zones.map((z) => [z.id, z.areaMm2])).toEqual([["lettering", 36]]);
  await jobAct("job", {
    intent: "zone-shape",
    zone: "",
    gone: "",
    name: "Border",
    colour: "#2b6fa6",
    found: JSON.stringify(shape),
  });
  expect((await world()).job.zones.map((z) => z.name)).toEqual(["lettering", "Border"]);
  await jobAct("job", { intent: "zones-move", zones: "lettering", dx: "2.5", dy: "-1" });
  expect((await world()).job.zones[0].outline).toBe("M2.5 -1L11.5 -1L11.5 3L2.5 3Z");
  await jobAct("job", { intent: "zone", zone: "lettering", field: "finish", value: "burn" });
  expect((await world()).job.zones[0]).toMatchObject({ bare: true, burn: true, productId: null });
  await jobAct("job", { intent: "zone", zone: "lettering", field: "finish", value: "beet" });
  expect((await world()).job.zones[0].burn).toBeUndefined();
});
