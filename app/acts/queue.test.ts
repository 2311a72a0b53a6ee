/** The calendar of the shop as acts: jobs go by it or each alone again, held, weighed, pinned; hours of single days; undo covers each. */
import { a1, e1 } from "../core/testing/worlds";
import { layShop } from "../core/plan/whole";
import { wholeRows } from "../core/explain/whole";
import { cuesOf } from "../core/explain/cues";
import { findStep, makePlan } from "../core/plan/plan";
import { zonedClock } from "../core/time/zoned";
import { workCalendar } from "../core/time/hours";
import { undo } from "../store/acts";
import { db } from "../store/db";
import { readShop, readWorld, readWorldsOf } from "../store/queries";
import { writeShopCalendar } from "../io/export/ics";
import { axisOf, drawnRow, shopStretch } from "../views/shop-calendar";
import { todayView } from "../views/today";
import { shopApi } from "../workers/shop-api";
import { stocked } from "../testing/stocked";
import { houseAct } from "./house";

const utc = zonedClock("UTC");
const NOW = utc.fromLocal("2027-01-11T09:30");
let n = 0;
beforeEach(async () => {
  globalThis.__richLayerClock = () => NOW * 60000;
  await stocked(`queue-${n++}`, {
    job: { ...e1().job, title: "Markers" },
    tile: { ...a1().job, title: "Tiles", due: "2027-01-12T12:00" },
  });
});
afterEach(() => {
  db().close();
  globalThis.__richLayerClock = undefined;
});
const worlds = () => readWorldsOf(["job", "tile"], false);
const laid = async () => layShop(await worlds(), { now: NOW, seconds: 0, clock: () => 0, iterations: 40 });
const rowsNow = async () => wholeRows(await laid(), await worlds(), NOW, new Map());
const queue = (id: string, field: string, value: string, step = "") =>
  houseAct({ intent: "queue", id, field, value, step });

test("gone by, each job's own plan is the calendar's; alone again nothing is left of it; undo brings it back", async () => {
  const before = (await readWorld("job"))!.job;
  const rows = await rowsNow();
  expect((await houseAct({ intent: "lay-shop", starts: JSON.stringify(rows.starts) })).error).toBeUndefined();
  for (const w of await worlds()) {
    const row = rows.jobs.find((j) => j.id === w.job.id)!;
    expect(makePlan(w, NOW, true).ready).toBe(row.readyAt);
  }
  expect((await houseAct({ intent: "lay-alone" })).error).toBeUndefined();
  expect((await readWorld("job"))!.job).toEqual(before);
  await undo();
  expect((await readWorld("job"))!.job.queue!.laid!.length).toBeGreaterThan(3);
});
test("Today tells of trips and of work that wants the same hands; laid together none does", async () => {
  const alone = todayView(await worlds(), NOW);
  expect(alone.trips.length).toBeGreaterThan(0);
  expect(alone.clashes).toBeGreaterThan(0);
  await houseAct({ intent: "lay-shop", starts: JSON.stringify((await rowsNow()).starts) });
  expect(todayView(await worlds(), NOW).clashes).toBe(0);
});
test("held, weighed, pinned, each by its words; nonsense is refused and nothing is changed", async () => {
  await queue("job", "hold", "true");
  expect((await rowsNow()).left).toMatchObject([{ job: "job", title: "Markers", held: true }]);
  await queue("job", "hold", "");
  expect((await readWorld("job"))!.job.queue).toBeUndefined();
  await queue("tile", "weight", "2.5");
  expect((await readWorld("tile"))!.job.queue).toEqual({ weight: 2.5 });
  expect((await queue("tile", "weight", "0")).error).toMatch(/between 0.1 and 10/);
  expect((await queue("tile", "weight", "much")).error).toBeTruthy();
  await queue("job", "pin", "fri 10:00", "inspect-blank");
  expect((await readWorld("job"))!.job.queue).toEqual({
    pins: [{ step: "inspect-blank", at: utc.fromLocal("2027-01-15T10:00") }],
  });
  expect((await rowsNow()).jobs.find((j) => j.id === "job")!.bars[0]).toMatchObject({
    from: utc.fromLocal("2027-01-15T10:00"),
    pinned: true,
  });
  expect((await queue("job", "pin", "some day", "inspect-blank")).error).toMatch(/some day/);
  // a bare number is no moment, and what has gone by pins nothing
  expect((await queue("job", "pin", "10000000", "inspect-blank")).error).toBeTruthy();
  expect((await queue("job", "pin-at", String(NOW - 60), "inspect-blank")).error).toMatch(/has gone by/);
  await queue("job", "pin-at", String(NOW + 600), "inspect-blank");
  expect((await readWorld("job"))!.job.queue!.pins).toEqual([{ step: "inspect-blank", at: NOW + 600 }]);
  await queue("job", "pin", "", "inspect-blank");
  expect((await readWorld("job"))!.job.queue).toBeUndefined();
  expect((await queue("gone", "hold", "true")).error).toMatch(/no longer there/);
  expect((await queue("job", "colour", "red")).error).toMatch(/nothing called “colour”/);
});
test("what is done together is kept with the jobs, told at the step, done apart where the maker says so; undo brings it back", async () => {
  const d = db();
  await d.jobs.put({ ...(await d.jobs.get("tile"))!, id: "more", title: "More tiles", due: null });
  const three = () => readWorldsOf(["job", "tile", "more"], false);
  const now = async () =>
    wholeRows(
      layShop(await three(), { now: NOW, seconds: 0, clock: () => 0, iterations: 40, together: true }),
      await three(),
      NOW,
      new Map(),
    );
  const rows = await now();
  const [one] = rows.together;
  expect(rows.together.every((s) => s.members.length > 1 && s.wins.length > 0)).toBe(true);
  expect(rows.trips.flatMap((t) => t.items).filter((x) => x.together).length).toBe(
    rows.together.reduce((sum, s) => sum + s.members.length, 0),
  );
  await houseAct({ intent: "lay-shop", starts: JSON.stringify(rows.starts), shared: JSON.stringify(rows.shared) });
  expect((await now()).gone).toBe(true);
  const [m] = one.members;
  const cuesAt = async (): Promise<string[]> => {
    const plan = makePlan((await readWorld(m.job))!, NOW);
    return cuesOf(plan, findStep(plan, m.step)!);
  };
  expect((await cuesAt()).join()).toContain(one.members[1].title);
  await queue(m.job, "apart", "", m.step);
  expect((await cuesAt()).join()).not.toContain(one.members[1].title);
  const apart = await now();
  expect(apart.together.flatMap((s) => s.members)).not.toContainEqual(m);
  expect(apart.jobs.find((j) => j.id === m.job)!.bars.find((b) => b.step === m.step)!.apart).toBe(true);
  await queue(m.job, "with", "", m.step);
  expect((await readWorld(m.job))!.job.queue!.apart).toBeUndefined();
  await undo();
  await undo();
  expect((await cuesAt()).join()).toContain(one.members[1].title);
});
test("a day with hours of its own: a long evening, shut, and as usual again; the calendar and every plan go by it", async () => {
  const set = (day: string, value: string) => houseAct({ intent: "day-hours", day, value });
  const open = async (day: string): Promise<string | null> => {
    const s = (await readShop())!.shop;
    const cal = workCalendar(utc, s.hours, s.daysOff, s.otherHours);
    const at = cal.openAt(utc.fromLocal(`${day}T00:00`));
    return at && utc.toLocal(at.from).startsWith(day)
      ? `${utc.toLocal(at.from).slice(11)}-${utc.toLocal(at.to).slice(11)}`
      : null;
  };
  const usual = await open("2027-01-12");
  await set("2027-01-12", "9:00 - 21:30");
  expect(await open("2027-01-12")).toBe("09:00-21:30");
  await set("2027-01-12", "shut");
  expect(await open("2027-01-12")).toBeNull();
  await set("2027-01-12", "");
  expect(await open("2027-01-12")).toBe(usual);
  const s = (await readShop())!.shop;
  expect([s.otherHours, s.daysOff]).toEqual([undefined, []]);
  for (const bad of ["9", "21:00 - 9:00", "9 - 25", "always"])
    expect((await set("2027-01-12", bad)).error).toMatch(/two clock times|must come after|no time/);
  expect((await set("tomorrow", "shut")).error).toMatch(/no day/);
});

test("a stretch of days: open hours wide, nights narrow, in order; what lies outside is not drawn", async () => {
  const s = (await readShop())!.shop;
  const cal = workCalendar(utc, s.hours, s.daysOff);
  const first = utc.dayNumber(NOW);
  const axis = axisOf(first, 7, utc, cal);
  const at = (t: string): number => axis.at(utc.fromLocal(t));
  expect(at("2027-01-11T00:00")).toBe(0);
  expect(at("2027-01-18T00:00")).toBeCloseTo(1, 12);
  const steps = Array.from({ length: 7 * 96 }, (_v, k) => axis.at(first * 1440 + k * 15));
  steps.forEach((x, i) => i && expect(x).toBeGreaterThan(steps[i - 1]));
  const open = at("2027-01-12T18:00") - at("2027-01-12T09:00");
  expect(open * 7).toBeCloseTo(0.86, 6);
  const rows = await rowsNow();
  const drawn = shopStretch(rows, utc, cal, first, 7);
  expect(drawn.days.map((d) => d.open !== null)).toEqual([true, true, true, true, true, false, false]);
  expect(drawn.days[0]).toMatchObject({ today: true, date: "2027-01-11", hours: "09:00 to 18:00" });
  // what is shown can be typed, by either clock
  const twelve = shopStretch(rows, zonedClock("UTC", "12"), cal, first, 7).days[0].hours;
  expect(twelve).toMatch(/am to .*pm/);
  for (const value of [drawn.days[0].hours, twelve])
    expect((await houseAct({ intent: "day-hours", day: "2027-01-11", value })).error).toBeUndefined();
  expect((await readShop())!.shop.otherHours).toEqual([{ day: "2027-01-11", hours: ["09:00", "18:00"] }]);
  const rowsIn = (of: typeof drawn) => of.jobs.map((j) => drawnRow(j, of.axis));
  const all = rowsIn(drawn).flatMap((j) => j.drawn);
  expect(all.length).toBeGreaterThan(5);
  for (const b of all) expect([b.left >= 0, b.left + b.width <= 1 + 1e-9]).toEqual([true, true]);
  expect(rowsIn(drawn).find((j) => j.id === "tile")!.dueAtShare).toBeCloseTo(at("2027-01-12T12:00"), 9);
  const later = shopStretch(rows, utc, cal, first + 200, 7);
  expect([rowsIn(later).flatMap((j) => [...j.drawn, ...j.waits]), later.trips, later.now]).toEqual([[], [], null]);
});
test("trips of the shop as a calendar file: one event each, its name that of its first step", async () => {
  const rows = await rowsNow();
  const file = writeShopCalendar("My shop", rows.trips, NOW * 60000);
  expect(file.match(/BEGIN:VEVENT/g)).toHaveLength(rows.trips.length);
  for (const t of rows.trips) expect(file.replace(/\r\n /g, "")).toContain(`UID:${t.id}@richlayer.invalid`);
  expect(writeShopCalendar("My shop", rows.trips, NOW * 60000)).toBe(file);
});
test("the worker tells what it finds on the way, stops when it is told, and answers with the best", async () => {
  const api = shopApi();
  const found: number[] = [];
  const ask = { worlds: await worlds(), now: NOW, seconds: 30, anew: false };
  const going = api.lay(
    ask,
    () => api.stop(),
    (rows) => found.push(rows.jobs.length),
  );
  const rows = await going;
  expect(found[0]).toBe(2);
  expect(rows.jobs).toHaveLength(2);
  expect(rows.says.done).toMatch(/Jan/);
  const promised = api.promise({ worlds: ask.worlds, now: NOW }, { like: "tile", pieces: 3 }, "2027-01-11T09:30");
  expect(promised.why).toBeNull();
  for (const x of [promised.ready, promised.surely, promised.soonest, promised.evenings]) expect(x).toMatch(/Jan/);
  await expect(
    api.lay(
      {
        ...ask,
        worlds: ask.worlds.map((w) => ({
          ...w,
          job: { ...w.job, queue: { pins: [{ step: "final-check", at: NOW + 5 }] } },
        })),
      },
      () => undefined,
      () => undefined,
    ),
  ).rejects.toThrow(/could not be laid/);
});
