import { context } from "../core/process/context";
import { toBegin } from "../core/process/pieces";
import { piecesToBegin } from "../core/models/spares/spares";
import { safe } from "../core/records/machine";
import { shopAct } from "./shop";
import { own } from "../core/process/kinds";
import { PIECES } from "../core/catalogue/pieces";
import { defaultMachine } from "../core/catalogue/starter";
import { faceMm2 } from "../core/geometry/blank";
import { chooseRoutes } from "../core/plan/choose";
import { BEAMS } from "../core/records/ids";
import { a1, e1, shop } from "../core/testing/worlds";
import { fold } from "../core/plan/fold";
import { findStep, makePlan, planFor, turns } from "../core/plan/plan";
import { firstPiece, isFirst } from "../core/plan/proof";
import { open, snagsOf } from "../core/judge/judge";
import { whereOf } from "../core/judge/snag";
import { gatesOf } from "../core/bench/gates";
import { standing } from "../core/bench/next";
import { zonedClock } from "../core/time/zoned";
import { change, commit, undo } from "../store/acts";
import type { Job } from "../core/records/job";
import { db } from "../store/db";
import { readWorld } from "../store/queries";
import { stocked } from "../testing/stocked";
import { benchAct } from "./bench";
import { houseAct } from "./house";
import { jobAct, wrapUpAct } from "./job";
import { shelfAct } from "./shelf";
import { elsewhereView } from "../views/elsewhere";
import { railBlocks, snagRows, stepCard, stepRows, waitText } from "../views/layers";
import { todayRows } from "../views/today";
import { wrapUpView } from "../views/wrap-up";

const utc = zonedClock("UTC");
const MONDAY = utc.fromLocal("2027-01-11T10:00");
let clock = MONDAY;
let n = 0;
beforeEach(async () => {
  clock = MONDAY;
  globalThis.__richLayerClock = () => clock * 60000;
  await stocked(`acts-${n++}`, { job: e1().job, tile: { ...a1().job, title: "Tiles" } });
});
afterEach(() => {
  db().close();
  globalThis.__richLayerClock = undefined;
});
const world = async (id = "job") => (await readWorld(id))!;
const set = (field: string, value: string, more: Record<string, string> = {}) =>
  jobAct("job", { intent: "set", field, value, ...more });

/** The bench step by step, each when its wait is over; whoever asks does it, or is given it again. */
async function* along() {
  for (let guard = 0; guard < 200; guard++) {
    const now = Math.floor(clock);
    const plan = makePlan(await world(), now);
    const s = standing(plan, now);
    if (s.is === "waiting" && s.opens !== null) clock = s.opens + 1;
    else if (s.is === "ready") yield { id: s.step.step.id, plan, s };
    else throw new Error(s.is);
  }
}

/** Everything in front of a step answered as a maker would, and its wait over. */
async function cleared(step: string, id = "job"): Promise<void> {
  for (let guard = 0; guard < 30; guard++) {
    const plan = makePlan(await world(id), Math.floor(clock));
    const p = findStep(plan, step)!;
    const s = standing(plan, Math.floor(clock));
    if (s.is === "waiting" && s.step.step.id === step && s.opens !== null) clock = s.opens + 1;
    else {
      const [g] = gatesOf(planFor(plan, step), p);
      if (!g) return;
      if (g.by === "tick") await benchAct(id, { intent: "tick", step, tick: g.id });
      else if (g.by === "proof") await benchAct(id, { intent: "proof-accepted", step });
      else await jobAct(id, { intent: "fix", rule: String(g.snag!.rule), where: g.snag!.where, fix: "accept" });
    }
  }
  throw new Error(`${step} stays barred`);
}

describe("acts on a job", () => {
  test("a laser put in is asked about before it burns; another beam opens what was found with the old one", async () => {
    const on = (intent: string, more: Record<string, string>) => shopAct({ intent, ...more });
    await on("machine-add", { beam: "blue", watts: "10" });
    const [m] = (await db().machines.toArray()).filter((x) => x.beam === "blue");
    expect([safe(m, "enclosed"), safe(m, "extraction")]).toEqual([null, null]);
    await set("machineId", m.id);
    const never = async () =>
      open(makePlan(await world()))
        .filter((s) => s.rule === 73)
        .map((s) => s.why);
    expect((await never()).join()).toMatch(/Nobody has said yet whether Blue diode, 10 W has extraction/);
    const machine = (field: string, value: string) => on("machine", { id: m.id, field, value });
    await machine("extraction", "false");
    expect((await never()).join()).toMatch(/has no extraction/);
    await machine("extraction", "true");
    expect(await never()).toEqual([]);
    await machine("enclosed", "true");
    for (const [field, value] of Object.entries({ spotMm: "0.1", depthPerJ: "0.2", powerPoints: "50 4\n100 10" }))
      await machine(field, value);
    const now = async () => (await db().machines.get(m.id))!;
    expect(await now()).toMatchObject({ spotMm: 0.1, depthPerJ: 0.2 });
    expect((await now()).unanswered).toBeUndefined();
    await machine("setupMin", "12 min");
    expect((await now()).setupMin).toBe(12);
    expect((await machine("setupMin", "-2")).error).toBeTruthy();
    await machine("setupMin", "");
    expect((await now()).setupMin).toBeUndefined();
    await machine("beam", "blue");
    expect(await now()).toMatchObject({ spotMm: 0.1, depthPerJ: 0.2 });
    await machine("beam", "um1");
    const other = await now();
    expect(other).toMatchObject({ beam: "um1", spotMm: null, depthPerJ: null, powerPoints: [], extraction: true });
    expect([safe(other, "enclosed"), safe(other, "extraction")]).toEqual([null, true]);
  });
  test("times of day as the maker types them: hours, spraying; how clocks and weeks are written is the shop's", async () => {
    const stored = async () => (await db().shop.get("shop"))!;
    const put = (field: string, value: string) => shopAct({ intent: "set", field, value });
    for (const [typed, is] of [
      ["10:00 to 16:00", ["10:00", "16:00"]],
      ["9 to 5pm", ["09:00", "17:00"]],
      ["8:30 am – 4:15 pm", ["08:30", "16:15"]],
      ["9:00-24:00", ["09:00", "24:00"]],
      ["10 16", ["10:00", "16:00"]],
    ] as const) {
      expect(await put("sprayHours", typed)).toMatchObject({ done: "stored" });
      expect((await stored()).sprayHours).toEqual(is);
    }
    for (const nonsense of ["10:00", "late to early", "16:00 to 10:00", "9 to 25:00", "1 2 3", "9 to"])
      expect((await put("sprayHours", nonsense)).error).toMatch(/is not two clock times|must come after/);
    await put("loudHours", "8 to 8pm");
    await put("rackPlaces", "24");
    expect(await stored()).toMatchObject({ loudHours: ["08:00", "20:00"], rackPlaces: 24 });
    for (const nonsense of ["0", "-3", "2.5", "many"]) expect((await put("rackPlaces", nonsense)).error).toBeTruthy();
    await put("loudHours", "");
    await put("rackPlaces", " ");
    expect([(await stored()).loudHours, (await stored()).rackPlaces]).toEqual([undefined, undefined]);
    const open = (field: string, value: string) => shopAct({ intent: "outdoors", field, value });
    await open("on", "true");
    for (const [field, value] of Object.entries({ latitude: "-33.9", longitude: "151.2", coldC: "4", warmC: "61 °F" }))
      expect((await open(field, value)).error).toBeUndefined();
    expect((await stored()).outdoors).toMatchObject({ latitude: -33.9, longitude: 151.2, coldC: 4, leastC: 10 });
    expect((await stored()).outdoors!.warmC).toBeCloseTo(16.11, 2);
    expect((await open("latitude", "80")).error).toMatch(/between -66° and 66°/);
    expect((await open("warmC", "1")).error).toMatch(/colder than sunrise/);
    expect((await open("coldC", "")).error).toBeUndefined();
    await open("on", "false");
    expect((await stored()).outdoors).toBeUndefined();
    expect(await shopAct({ intent: "hours", field: "sat.open", value: "true" })).toMatchObject({ done: "stored" });
    await shopAct({ intent: "hours", field: "sat.to", value: "00:00" });
    expect((await stored()).hours.sat).toEqual(["09:00", "24:00"]);
    const said = async () => makePlan(await world(), Math.floor(clock)).context.clock.face;
    expect(await said()).toBe("24");
    await put("clockFace", "12");
    expect([await said(), (await stored()).clockFace]).toEqual(["12", "12"]);
    expect((await put("clockFace", "13")).error).toMatch(/must be one of 24, 12/);
    // a job that has begun is read by it too
    await benchAct("job", { intent: "start", step: makePlan(await world(), Math.floor(clock)).placed[0].step.id });
    await put("clockFace", "24");
    expect([await said(), "clockFace" in (await stored())]).toEqual(["24", false]);
    await put("weekStart", "sun");
    expect((await stored()).weekStart).toBe("sun");
    await put("weekStart", "");
    expect("weekStart" in (await stored())).toBe(false);
  });
  test("a job keeps its units whatever the shop's become: shown and typed", async () => {
    await shopAct({ intent: "set", field: "units", value: "inch" });
    await set("substrate.w", "50");
    expect((await world()).job.substrate.w).toBe(50);
    expect((await world()).shop.units).toBe("metric");
    await set("units", "inch");
    await set("substrate.w", "2");
    expect((await world()).job.substrate.w).toBeCloseTo(50.8, 9);
    expect((await world()).shop.units).toBe("inch");
    expect((await set("units", "ells")).error).toMatch(/units/);
  });
  test("pieces begun: as typed, no fewer than ordered, worked out when emptied", async () => {
    const begin = (value: string) => set("begin", value, { intent: "choice" });
    expect((await begin("4")).error).toMatch(/4 are fewer than the 6 ordered/);
    await begin("9");
    expect(context(await world()).pieces).toBe(9);
    await begin("");
    expect(context(await world()).pieces).toBe(toBegin((await world()).job)!.pieces);
    await set("lossShare", "50 %", { intent: "choice" });
    await set("lossOn", "40", { intent: "choice" });
    const { pieces } = context(await world());
    expect(pieces).toBe(piecesToBegin(6, 0.5, 40)!.pieces);
    await set("lossShare", "", { intent: "choice" });
    expect((await world()).job.choices.lossOn).toBeUndefined();
  });
  test("typed text becomes figures, in the shop's units", async () => {
    expect(await set("substrate.w", "5 3/8 in")).toMatchObject({ done: "stored" });
    expect(await set("quantity", "12")).toMatchObject({ done: "stored" });
    expect(await set("due", "2027-02-01T16:00")).toMatchObject({ done: "stored" });
    expect((await world()).job).toMatchObject({
      quantity: 12,
      due: "2027-02-01T16:00",
      substrate: { w: expect.closeTo(136.525, 6) },
    });
  });
  test.each([
    ["quantity", "many", /not a number/],
    ["quantity", "2.5", /whole number/],
    ["quantity", "0", /at least 1/],
    ["substrate.w", "wide", /length/],
    ["substrate.id", "cheese", /no substrate/],
    ["due", "soon", /local time/],
    ["start", "", /from when/],
    ["shoe", "1", /nothing called/],
  ])("%s “%s” is refused in words and changes nothing", async (field, value, says) => {
    const before = JSON.stringify((await world()).job);
    const said = await set(field, value);
    expect(said.error).toMatch(says);
    expect(said.field).toBe(field);
    expect(JSON.stringify((await world()).job)).toBe(before);
  });
  test("choices, use, zones", async () => {
    await jobAct("job", { intent: "choice", field: "undercoat", value: "false" });
    await jobAct("job", { intent: "choice", field: "depthMm", value: "2 mm" });
    await jobAct("job", { intent: "use", field: "wet", value: "true" });
    await jobAct("job", { intent: "use", field: "handled", value: "true" });
    await jobAct("job", { intent: "use", field: "wet", value: "false" });
    await jobAct("job", { intent: "zone", zone: "leaf", field: "finish", value: "bare" });
    await jobAct("job", { intent: "zone", zone: "lettering", field: "name", value: "Word" });
    const { job } = await world();
    expect(job.choices).toMatchObject({ undercoat: false, depthMm: 2 });
    expect(job.use).toEqual(["handled"]);
    expect(job.zones.map((z) => [z.name, z.bare, z.productId])).toEqual([
      ["Word", false, "beet"],
      ["leaf", true, null],
    ]);
  });
  test("steps: set, empty, move, copy, add, remove, all forgotten", async () => {
    const step = (intent: string, more: Record<string, string>) => jobAct("job", { intent, step: "engrave", ...more });
    await step("step-set", { field: "depthMm", value: "1.8 mm" });
    await step("step-set", { field: "power", value: "60" });
    await step("step-duplicate", {});
    await step("step-move", { after: "dust" });
    await jobAct("job", { intent: "step-add", kind: "rest", after: "label" });
    await jobAct("job", { intent: "step-remove", step: "proof" });
    let plan = makePlan(await world());
    expect(plan.unfit).toEqual([]);
    expect(plan.placed.filter((p) => p.step.kind === "engrave")).toHaveLength(2);
    expect(plan.placed.find((p) => p.step.id === "engrave")!.step).toMatchObject({
      wishMm: 1.8,
      laser: { power: 0.6, from: "typed" },
    });
    expect(plan.placed.some((p) => p.step.kind === "proof")).toBe(false);
    await step("step-set", { field: "depthMm", value: "" });
    expect(own(makePlan(await world()).placed.find((p) => p.step.id === "engrave")!.step, "wishMm")).toBe(0.4);
    await jobAct("job", { intent: "edits-forget" });
    plan = makePlan(await world());
    expect(plan.context.job.edits).toEqual([]);
    expect((await step("step-set", { field: "speed", value: "fast" })).error).toMatch(/speed/);
    expect((await step("step-set", { field: "colour", value: "1" })).error).toMatch(/nothing called/);
  });
  test("a fix in one press, a waiver with its reason, raised again, undone", async () => {
    await jobAct("job", { intent: "choice", field: "depthMm", value: "0.3" });
    const snag = open(makePlan(await world(), clock)).find((s) => s.rule === 50)!;
    expect((await jobAct("job", { intent: "waive", rule: "50", where: whereOf(snag), reason: " " })).error).toMatch(
      /why/,
    );
    await jobAct("job", { intent: "waive", rule: "50", where: whereOf(snag), reason: "a trial" });
    expect(open(makePlan(await world(), clock)).some((s) => s.rule === 50)).toBe(false);
    await jobAct("job", { intent: "unwaive", rule: "50", where: whereOf(snag) });
    await jobAct("job", { intent: "fix", rule: "50", where: whereOf(snag), fix: snag.fixes[0].id });
    expect(open(makePlan(await world(), clock)).some((s) => s.rule === 50)).toBe(false);
    await undo();
    expect(open(makePlan(await world(), clock)).some((s) => s.rule === 50)).toBe(true);
    expect((await jobAct("job", { intent: "fix", rule: "50", where: "nowhere/", fix: "deeper" })).error).toMatch(
      /gone already/,
    );
  });
  test("the setting found on the plate rules the laser steps; percent of speed needs a top speed", async () => {
    const plate = {
      intent: "plate",
      power: "42",
      speed: "300 mm/s",
      interval: "363 dpi",
      passes: "1",
      at: "2027-01-12T10:00",
      note: "clean",
    };
    expect((await jobAct("tile", plate)).error).toBeUndefined();
    const reveal = makePlan(await world("tile")).placed.find((p) => p.step.kind === "reveal")!;
    expect(own(reveal.step, "laser")).toMatchObject({
      power: 0.42,
      speed: 300,
      passes: 1,
      from: "test plate",
      interval: expect.closeTo(0.07, 3),
    });
    expect((await world("tile")).log.map((e) => [e.kind, e.note])).toEqual([
      ["plate", "42 %, 300 mm/s, 0.07 mm, 1 pass: clean"],
    ]);
    await undo();
    expect([(await world("tile")).log.length, (await world("tile")).job.plate]).toEqual([0, null]);
    clock += 1;
    await jobAct("tile", { ...plate, speed: "60 %" });
    expect(own(makePlan(await world("tile")).placed.find((p) => p.step.kind === "reveal")!.step, "laser")!.speed).toBe(
      300,
    );
    expect((await jobAct("tile", { ...plate, power: "0" })).error).toMatch(/at least/);
  });
  test("what a job lacks is added where it is asked for", async () => {
    await jobAct("job", { intent: "add-machine", beam: "blue", watts: "10", name: "Diode" });
    await jobAct("job", {
      intent: "add-product",
      name: "Leek green",
      finish: "craft-acrylic",
      colour: "#3c7a4e",
      zone: "leaf",
    });
    const w = await world();
    expect(w.machines.find((m) => m.id === w.job.machineId)).toMatchObject({
      name: "Diode",
      beam: "blue",
      watts: 10,
    });
    expect(w.job.zones[1].productId).toBe("leek-green");
    expect(
      (await jobAct("job", { intent: "add-product", name: " ", finish: "craft-acrylic", colour: "#000000" })).error,
    ).toMatch(/name/);
    expect(
      (await jobAct("job", { intent: "add-product", name: "x", finish: "craft-acrylic", colour: "red" })).error,
    ).toMatch(/colour/);
    expect((await jobAct("ghost", { intent: "set", field: "title", value: "x" })).error).toMatch(/no longer there/);
    expect((await jobAct("job", { intent: "dance" })).error).toMatch(/no act/);
  });
});

test("temperatures of a paint are typed in the units that are shown, and kept in °C", async () => {
  const beet = async () => (await db().products.get("beet"))!;
  const put = (field: string, value: string, units = ""): Promise<{ error?: string }> =>
    shelfAct({ intent: "set", id: "beet", field, value, units });
  await put("minC", "12");
  expect((await beet()).minC).toBe(12);
  await shopAct({ intent: "set", field: "units", value: "inch" });
  for (const [field, typed, kept] of [
    ["minC", "50", 10],
    ["holdC", "356", 180],
    ["flowC", "248", 120],
    ["limitC", "140", 60],
  ] as const) {
    await put(field, typed);
    expect([field, (await beet())[field]]).toEqual([field, kept]);
    // a job in mm shows °C in the same shop; a unit that is typed wins over both
    await put(field, String(kept), "metric");
    expect((await beet())[field]).toBe(kept);
    await put(field, `${kept} °C`);
    expect((await beet())[field]).toBe(kept);
    await put(field, "");
    expect((await beet())[field] ?? null).toBeNull();
  }
  expect((await put("minC", "cold")).error).toBeTruthy();
});

describe("taps at the bench", () => {
  const tap = async (intent: string, step: string, more: Record<string, string> = {}) => {
    clock += 1;
    if (intent === "start") await cleared(step);
    return benchAct("job", { intent, step, ...more });
  };
  test("pieces in order, the last one said, one put aside passed over, none twice", async () => {
    await tap("start", "label");
    expect(await tap("piece", "label")).toMatchObject({ done: "Piece 1" });
    await tap("aside", "label", { piece: "2" });
    expect(await tap("piece", "label")).toMatchObject({ done: "Piece 3" });
    expect((await tap("piece", "label", { piece: "3" })).error).toMatch(/done already/);
    await tap("piece", "label", { piece: "6" });
    await tap("piece", "label");
    expect(await tap("piece", "label")).toMatchObject({ done: "Piece 5: that was the last" });
    const s = fold((await world()).log);
    expect(s.steps.get("label")!.pieces).toEqual([1, 3, 6, 4, 5]);
    expect([...s.aside]).toEqual([2]);
  });
  test("a finished coat is counted off its can, and taking it back puts it in again", async () => {
    const left = async (): Promise<number> =>
      (await world()).products.find((p) => p.id === "shellac")!.cans[0].leftMl as number;
    const full = await left();
    await tap("start", "coat.seal.1");
    expect((await tap("done", "coat.seal.1")).error).toMatch(/6 of 6 pieces are not tapped/);
    await tap("done", "coat.seal.1", { rest: "done" });
    expect(await left()).toBeLessThan(full);
    const entry = (await world()).log.find((e) => e.kind === "done")!;
    expect(entry).toMatchObject({ stepKind: "coat", productId: "shellac", c: 20, rh: 0.5 });
    expect(full - (await left())).toBeCloseTo(entry.ml as number, 1);
    await tap("back", "coat.seal.1");
    expect(await left()).toBeCloseTo(full, 1);
    expect(fold((await world()).log).steps.get("coat.seal.1")!.doneAt).toBeNull();
  });
  test("early only with a reason; notes not empty; nothing to take back says so", async () => {
    expect((await tap("back", "label")).error).toMatch(/nothing to take back/);
    expect((await tap("early", "coat.seal.2", { reason: "" })).error).toMatch(/why/);
    expect((await tap("note", "label", { text: " " })).error).toMatch(/empty/);
    await tap("early", "coat.seal.2", { reason: "rain is coming" });
    await tap("check", "label", { answer: "mend" });
    const s = fold((await world()).log);
    expect(s.steps.get("coat.seal.2")!.early).toBe("risk");
    expect(s.steps.get("label")!.answer).toBe("mend");
  });
  test("ids of quick taps differ and sort in time", async () => {
    for (let i = 0; i < 30; i++) await benchAct("job", { intent: "note", step: "label", text: `n${i}` });
    const log = (await world()).log;
    expect(new Set(log.map((e) => e.id)).size).toBe(30);
    expect(log.map((e) => e.note)).toEqual(Array.from({ length: 30 }, (_, i) => `n${i}`));
  });
});

describe("gates at the bench", () => {
  const first = async () => makePlan(await world(), Math.floor(clock)).placed[0].step.id;
  const act = (intent: string, step: string, more: Record<string, string> = {}) => {
    clock += 1;
    return benchAct("job", { intent, step, ...more });
  };
  test("a hazard that is not read bars its step, by whatever tap it is begun", async () => {
    const plan = makePlan(await world(), Math.floor(clock));
    const p = plan.placed.find((x) => gatesOf(plan, x).some((g) => g.by === "accept"))!;
    for (const intent of ["start", "piece", "done"])
      expect((await act(intent, p.step.id, { rest: "done" })).error).toMatch(/^Not yet: /);
    expect((await world()).log).toEqual([]);
    await cleared(p.step.id);
    expect((await act("start", p.step.id)).error).toBeUndefined();
  });
  test("a stop stops; it goes on when looked at again, or against advice with a reason that is kept", async () => {
    const [a, b] = makePlan(await world(), Math.floor(clock)).placed.map((p) => p.step.id);
    await cleared(a);
    await act("start", a);
    await act("done", a, { rest: "done" });
    await act("check", a, { answer: "stop" });
    expect((await act("start", b)).error).toMatch(/answered with stop/);
    expect((await act("against", a, { reason: " " })).error).toMatch(/why/);
    expect((await act("against", b, { reason: "in a hurry" })).error).toMatch(/not stopped/);
    await act("against", a, { reason: "in a hurry" });
    await cleared(b);
    expect((await act("start", b)).error).toBeUndefined();
    const rows = wrapUpView(makePlan(await world()), clock, []).rows;
    expect(rows[0].notes).toEqual(["Went on after a stop: in a hurry"]);
  });
  test("pieces that nobody tapped: done too, or put aside; never passed over in silence", async () => {
    const a = await first();
    await cleared(a);
    await act("start", a);
    await act("piece", a);
    await act("aside", a, { piece: "4" });
    expect((await act("done", a)).error).toMatch(/4 of 6 pieces are not tapped/);
    expect(fold((await world()).log).steps.get(a)!.doneAt).toBeNull();
    await act("done", a, { rest: "aside" });
    const s = fold((await world()).log);
    expect([s.steps.get(a)!.pieces, [...s.aside].sort()]).toEqual([[1], [2, 3, 4, 5, 6]]);
    expect(s.steps.get(a)!.doneAt).not.toBeNull();
  });
  test("an hour of the day typed anew leaves the other hours as they were measured", async () => {
    const hourly = Array.from({ length: 24 }, (_, i) => ({ c: 14.3 + i / 7, rh: 0.512 + i / 300 }));
    const s = { ...shop(), units: "inch" as const, climate: { ...shop().climate, kind: "hourly" as const, hourly } };
    await commit("air", [{ table: "shop", id: "shop", next: s }]);
    const put = (field: string, value: string) => shopAct({ intent: "climate", field, value });
    // typed down a column, the next before the one before is stored
    await Promise.all([put("c.7", "59"), put("rh.7", "40"), put("c.8", "60 F"), put("rh.23", "0.5 %")]);
    const now = (await world()).shop.climate;
    expect(now.hourly[7]).toEqual({ c: 15, rh: 0.4 });
    expect(now.hourly[8].rh).toBe(hourly[8].rh);
    expect(now.hourly[8].c).toBeCloseTo(15.556, 3);
    expect(now.hourly[23]).toEqual({ c: hourly[23].c, rh: 0.005 });
    const rest = (all: typeof hourly) => all.filter((_h, i) => ![7, 8, 23].includes(i));
    expect(rest(now.hourly)).toEqual(rest(hourly));
    expect((await put("c.7", "cold")).error).toMatch(/“cold” is not a temperature/);
    expect((await put("rh.7", "140")).error).toBe("Humidity lies between 0 and 100 %.");
    // a bound is told in what is typed there, and what was typed as it was
    expect((await put("c.7", "400")).error).toMatch(/at most 140 °F/);
    const machine = (await world()).machines[0].id;
    const bed = (value: string) => shopAct({ intent: "machine", id: machine, field: "bedW", value });
    expect((await bed("200000 mm")).error).toMatch(/bedW.* must be at most 393\.7 in/);
    expect((await put("c.24", "15")).error).toMatch(/nothing called “c.24”/);
    expect((await world()).shop.climate).toEqual(now);
  });
  test("a proof that is not accepted: another piece goes first in one press, and the first is out of it", async () => {
    let tries = 0;
    const first: number[] = [];
    for await (const { id, plan, s } of along()) {
      if (tries === 2) break;
      const gates = gatesOf(planFor(plan, id), s.step);
      if (gates.some((g) => g.by === "proof")) {
        await act("proof-sent", id);
        await act("proof-accepted", id);
        // a change of mind: what was sent and accepted was that piece, not the next
        const could = gates.find((g) => g.by === "proof")!.next!;
        clock += 30;
        expect((await act("proof-again", id)).done).toMatch(`piece ${could} goes first`);
        const then = makePlan(await world(), Math.floor(clock));
        expect(firstPiece(then)).toBe(could);
        expect(then.proof!.accepted).toBeNull();
        expect([...then.bench.aside]).toContain(first[tries]);
        expect(then.placed[then.proof!.at].cycle.every((p) => p.actual === null)).toBe(true);
        tries++;
        continue;
      }
      await cleared(id);
      await act("start", id);
      if (isFirst(id)) {
        await act("piece", id);
        const [n] = fold((await world()).log).steps.get(id)!.pieces;
        if (!first.includes(n)) first.push(n);
      }
      await act("done", id, isFirst(id) ? {} : { rest: "done" });
    }
    expect(tries).toBe(2);
    expect(first).toEqual([1, 2]);
    // taken back, the second piece is the one that went first again
    await act("back", "");
    expect(firstPiece(makePlan(await world(), Math.floor(clock)))).toBe(2);
  });
  test("the piece that goes first is put aside on the way: the next steps ask for another one", async () => {
    for await (const { id } of along()) {
      await cleared(id);
      if (isFirst(id)) {
        await act("aside", id, { piece: "1" });
        expect((await act("start", id)).error).toMatch(/Piece 1, which goes first, is put aside: piece 2 can go first/);
        await act("proof-again", id);
        expect((await act("start", id)).error).toBeUndefined();
        await act("piece", id);
        expect(fold((await world()).log).steps.get(id)!.pieces).toEqual([2]);
        return;
      }
      await act("start", id);
      await act("done", id, { rest: "done" });
    }
    throw new Error("nothing went first");
  });
  test("a proof: one piece goes first, its dates go on the Brief, and the others wait for them", async () => {
    let alone = 0;
    let sent = false;
    for await (const { id, plan, s } of along()) {
      if (gatesOf(planFor(plan, id), s.step).some((g) => g.by === "proof")) {
        // nothing of the batch begins before it is accepted
        expect((await act("start", id)).error).toMatch(/waits for the proof/);
        await act("proof-sent", id);
        expect((await world()).job.order.proofSent).toBe(utc.toLocal(Math.floor(clock)));
        expect((await world()).job.order.proofAccepted).toBeNull();
        expect((await act("start", id)).error).toMatch(/waits for the proof, sent/);
        clock += 1440;
        await act("proof-accepted", id);
        expect((await world()).job.order.proofAccepted).toBe(utc.toLocal(Math.floor(clock)));
        sent = true;
        await cleared(id);
        await act("start", id);
        // the next of the others is piece 2, since piece 1 has gone first
        await act("piece", id);
        expect(fold((await world()).log).steps.get(id)!.pieces).toEqual([2]);
        break;
      }
      await cleared(id);
      await act("start", id);
      if (isFirst(id)) {
        alone++;
        expect(s.step.pieces).toBe(1);
      }
      await act("done", id, isFirst(id) ? {} : { rest: "done" });
    }
    expect(sent).toBe(true);
    expect(alone).toBe(makePlan(await world(), Math.floor(clock)).placed.find((p) => p.cycle.length)!.cycle.length);
  });
  test("a touch check near its time is taken; long before it is asked twice and kept as a risk", async () => {
    for (let guard = 0; guard < 40; guard++) {
      const plan = makePlan(await world(), Math.floor(clock));
      const s = standing(plan, Math.floor(clock));
      if (s.is === "waiting") break;
      if (s.is !== "ready") throw new Error(s.is);
      const { id } = s.step.step;
      await cleared(id);
      await act("start", id);
      await act("done", id, { rest: "done" });
    }
    const s = standing(makePlan(await world(), Math.floor(clock)), Math.floor(clock));
    if (s.is !== "waiting" || s.opens === null) throw new Error("nothing is waited for");
    const { id } = s.step.step;
    expect((await act("start", id)).error).toMatch(/can’t begin yet/);
    expect((await act("touch", id)).error).toMatch(/long before its time/);
    expect(fold((await world()).log).steps.get(id)?.early ?? null).toBeNull();
    await act("touch", id, { sure: "yes" });
    const run = fold((await world()).log).steps.get(id)!;
    expect([run.early, run.risk?.text]).toEqual(["risk", expect.stringMatching(/asked twice: by the model it takes/)]);
    await act("back", id);
    clock = s.opens - 2;
    await act("touch", id);
    expect(fold((await world()).log).steps.get(id)!.early).toBe("touch");
  });
});

describe("a job that has begun", () => {
  const tap = async (intent: string, step: string) => {
    clock += 1;
    if (intent === "start") await cleared(step);
    return benchAct("job", { intent, step, ...(intent === "done" ? { rest: "done" } : {}) });
  };
  const planned = async () => makePlan(await world(), Math.floor(clock), true);
  const told = async (): Promise<string> =>
    JSON.stringify((await planned()).placed.map((p) => [p.step, p.uncorrected]));
  const lines = async (): Promise<string[]> => elsewhereView(await planned(), Math.floor(clock))?.lines ?? [];
  beforeEach(async () => {
    for (const { step } of (await planned()).placed.slice(0, 2)) {
      await tap("start", step.id);
      await tap("done", step.id);
    }
  });

  test("goes on by the Shelf that it was begun with, until the change is taken over or left", async () => {
    const before = await told();
    const [first, second] = (await planned()).placed.map((p) => p.step);
    await shelfAct({ intent: "set", id: "shellac", field: "coatUm", value: "4" });
    await shelfAct({ intent: "set", id: "beet", field: "hideUm", value: "150" });
    expect(await told()).toBe(before);
    expect((await lines()).join(" ")).toMatch(/Beet/);
    // one that has not begun reads it at once
    expect((await world("tile")).products.find((p) => p.id === "beet")!.hideUm).toBe(150);
    expect((await jobAct("job", { intent: "keep-begun" })).done).toMatch(/as it was begun/);
    expect([await lines(), await told()]).toEqual([[], before]);
    await undo();
    expect(await lines()).not.toEqual([]);
    expect((await jobAct("job", { intent: "take-over" })).error).toBeUndefined();
    const after = await planned();
    expect(after.placed.slice(0, 2).map((p) => p.step)).toEqual([first, second]);
    expect(await told()).not.toBe(before);
    expect(await lines()).toEqual([]);
    expect((await jobAct("job", { intent: "take-over" })).error).toMatch(/Nothing has changed/);
    await undo();
    expect(await told()).toBe(before);
  });
  test("a paint thrown out elsewhere is still the one it is made with; paint is counted off the can as it is", async () => {
    const coat = (await planned()).placed.find((p) => own(p.step, "productId") === "shellac")!;
    await shelfAct({ intent: "set", id: "shellac", field: "note", value: "bought anew" });
    await shelfAct({ intent: "can", id: "shellac", can: "shellac.can1", field: "leftMl", value: "100 ml" });
    await tap("start", coat.step.id);
    await tap("done", coat.step.id);
    const shelf = (await db().products.get("shellac"))!;
    expect(shelf.note).toBe("bought anew");
    expect(shelf.cans[0].leftMl).toBeLessThan(100);
    expect(shelf.cans[0].leftMl).toBeGreaterThan(50);
    await db().products.delete("shellac");
    const p = (await planned()).placed.find((x) => x.step.id === coat.step.id)!;
    expect([p.step.title, p.actual === null]).toEqual([coat.step.title, false]);
  });
  test("what is done is not changed by hand; the wait behind it may be", async () => {
    const [first] = (await planned()).placed;
    for (const act of <Record<string, string>[]>[
      { intent: "step-set", field: "minutes", value: "99" },
      { intent: "step-set", field: "title", value: "Something else" },
      { intent: "step-remove" },
      { intent: "step-move", after: "" },
    ])
      expect((await jobAct("job", { ...act, step: first.step.id })).error).toMatch(/begun or done/);
    expect(
      (await jobAct("job", { intent: "step-set", step: first.step.id, field: "waitMin", value: "45" })).error,
    ).toBeUndefined();
    expect((await planned()).placed[0].step).toEqual({ ...first.step, waitMin: 45 });
  });
  test("all taps taken back: it has not begun, and reads the shop as it is", async () => {
    expect((await world()).job.begun!.done).toHaveLength(2);
    for (let k = 0; k < 60 && !(await tap("back", "")).error; k++);
    expect((await world()).job.begun).toBeUndefined();
    await shelfAct({ intent: "set", id: "beet", field: "hideUm", value: "150" });
    expect((await world()).products.find((p) => p.id === "beet")!.hideUm).toBe(150);
  });
  test("a set made into lots is several jobs in one press, each with an id of its own, and one job again by one undo", async () => {
    const lots = async (id: string): Promise<void> => {
      const s = snagsOf(makePlan(await world(id))).find((x) => x.rule === 28)!;
      const sent = { intent: "fix", rule: "28", where: whereOf(s), fix: "lots" };
      expect((await jobAct(id, sent)).error).toBeUndefined();
    };
    const jobs = async (): Promise<[string, number][]> =>
      (await db().jobs.toArray()).map((j): [string, number] => [j.id, j.quantity]).sort();
    await commit("a set", [{ table: "jobs", id: "set", next: { ...a1().job, id: "set", quantity: 150 } }]);
    const before = await jobs();
    await lots("set");
    expect((await jobs()).filter(([id]) => id.startsWith("set"))).toEqual([
      ["set", 75],
      ["set-lot-2", 75],
    ]);
    expect((await world("set-lot-2")).job.title).toBe("A job, lot 2 of 2");
    // and once more, with that id taken
    await change<Job>("more", "jobs", "set", (j) => ({ ...j, quantity: 150, choices: { ...j.choices, begin: 150 } }));
    await lots("set");
    expect((await jobs()).map(([id]) => id)).toContain("set-lot-2-2");
    await undo();
    await undo();
    await undo();
    expect(await jobs()).toEqual(before);
  });
  test("a fix that changes the shop counts for the job and for the shop", async () => {
    await shelfAct({ intent: "can", id: "beet", can: "beet.can1", field: "leftMl", value: "0.1 ml" });
    const p = await planned();
    const fix = snagsOf(p)
      .flatMap((s) => s.fixes.map((f) => ({ s, f })))
      .find(({ f }) => f.apply(p.context.world).products !== p.context.world.products);
    expect(fix).toBeDefined();
    const { s, f } = fix!;
    const wanted = f.apply(p.context.world).products;
    const changed = wanted.filter((x) => !p.context.world.products.includes(x)).map((x) => x.id);
    expect(
      (await jobAct("job", { intent: "fix", rule: String(s.rule), where: whereOf(s), fix: f.id })).error,
    ).toBeUndefined();
    for (const id of changed) {
      const [kept, now] = [(await world()).products.find((x) => x.id === id), await db().products.get(id)];
      expect(kept).toEqual(wanted.find((x) => x.id === id));
      expect(now!.cans).toEqual(kept!.cans);
    }
  });
  test("wrapped up, it reads nothing of the shop any more", async () => {
    await wrapUpAct("job", { intent: "close" });
    const before = JSON.stringify(makePlan(await world(), null, true).amounts);
    await shelfAct({ intent: "set", id: "beet", field: "coatUm", value: "90" });
    await shelfAct({ intent: "can-remove", id: "beet", can: "beet.can1" });
    expect(JSON.stringify(makePlan(await world(), null, true).amounts)).toBe(before);
    expect(await lines()).toEqual([]);
    // one that nobody tapped keeps its shop too
    await wrapUpAct("tile", { intent: "close" });
    expect((await world("tile")).job.begun!.done).toEqual([]);
  });
});

describe("what is wanted, and what follows", () => {
  const zone = async (field: string, value: string, at = 0) =>
    jobAct("job", { intent: "zone", zone: (await world()).job.zones[at].id, field, value });
  const got = async (at = 0) => {
    const c = makePlan(await world(), Math.floor(clock), true).context;
    return c.paint(c.job.zones[at].productId)?.product;
  };

  test("a colour is wanted and its paint follows the route; picked ones stay; what is bought opens the bench", async () => {
    const before = (await world()).job;
    await zone("wanted", "#12A0C8");
    const bought = (await got())!;
    expect([bought.finish, bought.colour, bought.name]).toEqual([
      "craft-acrylic",
      "#12a0c8",
      "Turquoise craft acrylic",
    ]);
    expect((await zone("wanted", "sea")).error).toMatch(/“sea” is not a colour/);
    expect(standing(makePlan(await world(), clock), clock)).toEqual({
      is: "lacking",
      say: expect.stringContaining("Not on the Shelf yet: Turquoise craft acrylic"),
    });
    // by another route another paint follows, and what was changed by hand waits at the one before
    await jobAct("job", { intent: "step-remove", step: "dust" });
    const edits = (await world()).job.edits;
    expect(edits).not.toEqual([]);
    await set("route", "E2");
    expect([(await got())!.finish, (await world()).job.edits]).toEqual(["powder", []]);
    await set("route", "E1");
    expect([(await got())!.finish, (await world()).job.edits]).toEqual(["craft-acrylic", edits]);
    expect((await world()).job.left).toBeUndefined();
    // put on the Shelf: it is the one that follows, and nothing is lacking
    await jobAct("job", { intent: "add-product", name: bought.name, finish: bought.finish, colour: bought.colour });
    expect(makePlan(await world(), clock, true).toBuy).toEqual([]);
    // one that was picked is kept where it fits, and is there again where it fits again
    await zone("finish", before.zones[0].productId!);
    expect((await got())!.id).toBe(before.zones[0].productId);
    await set("route", "E2");
    expect((await got())!.finish).toBe("powder");
    await set("route", "E1");
    expect((await got())!.id).toBe(before.zones[0].productId);
    await zone("finish", "");
    expect((await got())!.colour).toBe("#12a0c8");
    await jobAct("job", { intent: "one-colour", zone: before.zones[0].id });
    const last = before.zones.length - 1;
    expect((await got(last))!.colour).toBe("#12a0c8");
    expect((await jobAct("job", { intent: "one-colour", zone: "none" })).error).toMatch(/no zone “none”/);
  });

  test("a job that has begun keeps the paints it was begun with, whatever comes on the Shelf", async () => {
    const have = (await got())!;
    await zone("wanted", have.colour);
    expect((await got())!.id).toBe(have.id);
    await zone("wanted", "#a8245b"); // near that one, and not it
    expect((await got())!.id).toBe(have.id);
    for await (const { id } of along()) {
      await benchAct("job", { intent: "start", step: id });
      break;
    }
    await jobAct("job", { intent: "add-product", name: "Nearer", finish: "craft-acrylic", colour: "#a8245b" });
    expect((await got())!.id).toBe(have.id);
    // another colour is wanted after all: nothing that was there comes near it, so the bench waits until it is bought, and no longer
    await zone("wanted", "#12a0c8");
    const { name, finish, colour } = (await got())!;
    expect(standing(makePlan(await world(), clock), clock).is).toBe("lacking");
    await jobAct("job", { intent: "add-product", name, finish, colour });
    expect([(await got())!.colour, makePlan(await world(), clock, true).toBuy]).toEqual([colour, []]);
    expect(standing(makePlan(await world(), clock), clock).is).not.toBe("lacking");
  });
});

describe("a new job", () => {
  const begin = (intent: string, form: Record<string, string>) => houseAct({ intent, field: "title", ...form });
  test("from a drawing: named after it, its colours wanted", async () => {
    const zone = {
      areaMm2: 50,
      perimeterMm: 30,
      narrowestMm: 2,
      pieces: 1,
      holes: 0,
      smallestMm2: 50,
      outline: "",
      rows: [],
    };
    const found = JSON.stringify({
      widthMm: 40,
      heightMm: 30,
      zones: [{ id: "z-12a0c8", colour: "#12a0c8", ...zone }],
    });
    const { done } = await begin("new-from-drawing", { name: "garden_gate-sign.SVG", svg: "<svg/>", found });
    const { job } = await world(done);
    expect([job.id, job.title, job.artwork!.w, job.zones[0].wanted, job.zones[0].productId]).toEqual([
      "garden-gate-sign",
      "Garden gate sign",
      40,
      "#12a0c8",
      null,
    ]);
  });
  test("of a kind of piece: its blank and use, whole and sound; a kind that there is none of is refused", async () => {
    for (const kind of PIECES) {
      const { done } = await begin("new-of-kind", { kind: kind.id });
      const { job } = await world(done);
      expect([job.title, job.substrate, job.use]).toEqual([kind.name, kind.blank, kind.use]);
      // what is cut out of it lies within it, and leaves most of it
      const face = faceMm2(job.substrate) / (job.substrate.w * job.substrate.h);
      expect([kind.id, face > 0.7 && face <= 1]).toEqual([kind.id, true]);
      // some laser makes it by some way
      const goes = BEAMS.some((beam) => {
        const machine = defaultMachine(beam, 40);
        const zones = [{ ...e1().job.zones[0], productId: null, wanted: "#2f6b3a", areaMm2: 300 }];
        const on = { ...job, zones, machineId: machine.id, route: null };
        return chooseRoutes(context({ ...e1(), machines: [machine], job: on })).some((r) => !r.no.length);
      });
      expect([kind.id, goes]).toEqual([kind.id, true]);
    }
    expect((await begin("new-of-kind", { kind: "teapot" })).error).toMatch(/no kind of piece “teapot”/);
    expect((await begin("new-of-kind", { kind: "" })).error).toMatch(/Choose the kind/);
  });
  test("an earlier one again: as many pieces and when it is due as they are typed; what cannot be read is refused", async () => {
    const { done } = await begin("job-again", { from: "tile", pieces: "30", due: "in 10 days", dayFirst: "true" });
    const [again, first] = [(await world(done)).job, (await world("tile")).job];
    expect([again.quantity, again.due, again.route, again.zones.map((z) => z.productId)]).toEqual([
      30,
      expect.stringMatching(/^2027-01-21T/),
      first.route,
      first.zones.map((z) => z.productId),
    ]);
    expect(again.id).not.toBe(first.id);
    expect((await begin("job-again", { from: "tile", due: "when it is done" })).error).toMatch(/when it is done/);
    expect((await begin("job-again", { from: "nothing" })).error).toMatch(/no longer there/);
    expect((await begin("job-again", { from: "" })).error).toMatch(/Choose the job/);
    expect((await begin("job-again", { from: "tile", pieces: "2.5" })).error).toMatch(/whole number/);
  });
});

describe("what the pages are given", () => {
  test("rows, rail, snags and card speak of the same plan", async () => {
    const w = await world("tile");
    const plan = makePlan(w, clock);
    const rows = stepRows(plan, clock);
    expect(rows.map((r) => r.id)).toEqual(turns(plan).map((t) => t.p.step.id));
    expect(rows.filter((r) => r.n !== null).map((r) => [r.id, r.n])).toEqual(
      plan.placed.map((p, i) => [p.step.id, i + 1]),
    );
    expect(railBlocks(plan, clock).map((b) => b.id)).toEqual(rows.map((r) => r.id));
    const coat = plan.placed.findIndex((p) => own(p.step, "role") === "top");
    const card = stepCard(plan, coat);
    expect(card.load!.text).toMatch(/ml each, .* in all/);
    expect(card.load!.why.rows().map((r) => r.from)).toContain("default");
    expect(card.then!.text).toMatch(/^laser-safe/);
    expect(snagRows(plan, w, clock).map((s) => s.rule)).toEqual(snagsOf(plan).map((s) => s.rule));
  });
  test("a window that shut before the step ended is not told as one that shuts", async () => {
    const plan = makePlan(await world("tile"), clock);
    plan.placed.forEach((_p, i) => expect(waitText(plan, i) ?? "").not.toMatch(/-\d/));
  });
  test("Today puts what has begun first", async () => {
    await cleared("inspect-blank", "tile");
    await benchAct("tile", { intent: "start", step: "inspect-blank" });
    const rows = todayRows([await world(), await world("tile")], Math.floor(clock));
    expect(rows.map((r) => [r.id, r.begun])).toEqual([
      ["tile", true],
      ["job", false],
    ]);
    expect(rows[0]).toMatchObject({ is: "ready", step: "Look over the blanks" });
  });
});

describe("the blank and what is laid on it", () => {
  const set = (field: string, value: string) => jobAct("job", { intent: "set", field, value });
  const put = (field: string, value: string) => jobAct("job", { intent: "place", field, value });
  const blank = async () => (await world()).job.substrate;
  test("outline, corners, holes and margin as they are typed; a rectangle again without a trace", async () => {
    const was = await blank();
    await set("substrate.blank", "oval");
    expect(faceMm2(await blank()) / ((Math.PI / 4) * was.w * was.h)).toBeCloseTo(1, 2);
    // nothing rounded by nothing: a corner is begun with
    await set("substrate.blank", "rounded");
    expect((await blank()).blank!.cornerMm).toBe(6);
    await set("substrate.cornerMm", "1/4 in");
    expect((await blank()).blank).toEqual({ form: "rounded", cornerMm: 6.35 });
    await set("substrate.holes", "4 at 10, 12; 1/4 in at 20 mm, 15 mm");
    expect((await blank()).holes).toEqual([
      { d: 4, x: 10, y: 12 },
      { d: 6.35, x: 20, y: 15 },
    ]);
    for (const [typed, why] of [
      ["two holes", /“two holes” is no hole/],
      ["4 at 10", /is no hole/],
      ["4 at 1, 12", /does not lie within the piece/],
      [`4 at 10, ${was.h}`, /does not lie within/],
      ["0 at 10, 12", /needs some width/],
      ["x at 10, 12", /./],
    ] as const) {
      const { error } = await set("substrate.holes", typed);
      expect(error).toMatch(why);
      expect((await blank()).holes).toHaveLength(2);
    }
    // twice as wide: holes keep their place in it
    await set("substrate.w", String(2 * was.w));
    expect((await blank()).holes!.map((k) => k.x)).toEqual([20, 40]);
    expect((await set("substrate.w", "0")).error).toMatch(/some width/);
    expect((await set("substrate.blank", "path")).error).toMatch(/Give the file/);
    await set("substrate.w", String(was.w));
    for (const f of ["substrate.holes", "substrate.keepMm"]) await set(f, "");
    await set("substrate.blank", "");
    expect(JSON.parse(JSON.stringify(await blank()))).toEqual(JSON.parse(JSON.stringify(was)));
  });
  test("an outline out of a file takes its size; what is none is refused by its name, and nothing is changed", async () => {
    const svg = (d: string): string =>
      `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60"><path d="${d}"/></svg>`;
    await jobAct("job", { intent: "blank-file", name: "shield.svg", text: svg("M10 5H80V40L45 55L10 40Z") });
    const s = await blank();
    expect([s.w, s.h, s.blank!.form, faceMm2(s)]).toEqual([70, 50, "path", 70 * 35 + (70 * 15) / 2]);
    const { error } = await jobAct("job", { intent: "blank-file", name: "line.svg", text: svg("M10 5H80") });
    expect(error).toMatch(/^“line.svg”: The file holds no line that comes round/);
    expect(await blank()).toEqual(s);
    await undo();
    expect((await blank()).blank).toBeUndefined();
  });
  test("moved and turned by numbers; the middle and upright are nothing that is kept", async () => {
    const art = async () => (await world()).job.artwork!;
    expect((await put("dx", "5")).error).toMatch(/no drawing/);
    const outline = "M0 0L20 0L20 10L0 10Z";
    await change<Job>("drawn", "jobs", "job", (j) => ({
      ...j,
      artwork: { name: "a.svg", svg: "", w: 20, h: 10 },
      zones: j.zones.map((z, i) => (i ? z : { ...z, outline, rows: [] })),
    }));
    await put("dx", "1/2 in");
    await put("dy", "-2.5");
    expect(await art()).toMatchObject({ dx: 12.7, dy: -2.5 });
    await jobAct("job", { intent: "place-at", dx: "3.456", dy: "-0.001" });
    expect([(await art()).dx, (await art()).dy]).toEqual([3.46, undefined]);
    await put("turn", "90°");
    expect((await world()).job.zones[0].outline).toBe("M15 -5L15 15L5 15L5 -5Z");
    await put("turn", "");
    expect((await world()).job.zones[0].outline).toBe(outline);
    expect((await put("turn", "upside down")).error).toBeDefined();
    await put("dx", "");
    expect(Object.keys(JSON.parse(JSON.stringify(await art()))).sort()).toEqual(["h", "name", "svg", "w"]);
  });
});

describe("the questions that choose a way", () => {
  const ask = (intent: string, more: Record<string, string> = {}) => shopAct({ intent, ...more });
  const own = async () => (await world()).shop.routeWeights;
  test("a weight of the shop's own is kept where it differs, and moves the advice; all as given again by one press", async () => {
    const weigh = (value: string) => ask("route-weight", { rule: "one-off-wood", route: "D1", value });
    await set("quantity", "1");
    const best = async () => chooseRoutes(context(await world()))[0].route.id;
    const was = await best();
    expect((await weigh("15")).error).toBeUndefined();
    expect(await own()).toEqual([{ rule: "one-off-wood", route: "D1", weight: 15 }]);
    expect([was, await best()]).toEqual(["E1", "D1"]);
    // what it is given with is kept nowhere
    await weigh("");
    expect(await own()).toBeUndefined();
    await weigh("3");
    await ask("route-rule", { field: "veneer", value: "" });
    await ask("route-rules-reset");
    expect([await own(), (await world()).shop.routeRulesOff]).toEqual([undefined, undefined]);
    await undo();
    expect(await own()).toHaveLength(1);
    expect((await weigh("300")).error).toMatch(/between −20 and 20/);
    expect((await ask("route-weight", { rule: "no-such", route: "D1", value: "1" })).error).toMatch(/no such question/);
  });
});
