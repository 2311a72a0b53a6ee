/** Boundaries of what a plan is put together from: fields, steps put in by hand, slots in a calendar, windows, trips, placements, runs. */
import { LogEntry } from "../records/log";
import type { PlanEdit } from "../records/job";
import type { World } from "../records/world";
import { context } from "../process/context";
import { newStep, own, type Step } from "../process/kinds";
import type { Readiness } from "../process/ready";
import { brief, GEAR } from "../testing/briefs";
import { e1, shop, swing } from "../testing/worlds";
import { workCalendar } from "../time/hours";
import { zonedClock } from "../time/zoned";
import { asked, chooseRoutes } from "./choose";
import { gapBefore } from "./decides";
import { differences } from "./differences";
import { addEdit, applyEdits } from "./edits";
import { FIELDS } from "./fields";
import { fold } from "./fold";
import { better } from "./lay";
import { breaksWindow, brokenWindows, inWindow, slot, type Placed, type PlaceResult } from "./placed";
import { placement } from "./placement";
import { makePlan } from "./plan";
import { ways } from "./rescue";
import { trips } from "./trips";
import { visitsOf } from "./visits";

const edit = (e: Partial<PlanEdit>): PlanEdit => ({
  id: "e",
  op: "set",
  step: "",
  after: null,
  field: "",
  value: null,
  ...e,
});
const c = context(e1());

describe("fields: both sides of each boundary", () => {
  const coat = newStep("k", "coat", "Coat", { productId: "beet", dryUm: 18, role: "colour", coat: 1, zones: ["leaf"] });
  const cut = newStep("k", "engrave", "Engrave", { wishMm: 1, zones: ["leaf"] });
  const sand = newStep("k", "sand-back", "Sand", { sandUm: 50 });
  test.each<[string, Step, number, number]>([
    ["dryUm", coat, 0.1, 5000],
    ["depthMm", cut, 0.01, 50],
    ["sandUm", sand, 0, 20_000],
    ["minutes", coat, 0, 100_000],
    ["waitMin", coat, 0, 1_000_000],
    ["roomC", coat, -20, 40],
    ["roomRh", coat, 0, 1],
    ["power", cut, 0.001, 1],
    ["speed", cut, 0.1, 50_000],
    ["interval", cut, 0.005, 1],
    ["passes", cut, 1, 40],
  ])("%s", (field, step, least, most) => {
    const set = (v: PlanEdit["value"]) => FIELDS[field].set(step, v, c);
    const hair = Math.max(1e-4, most * 1e-4);
    expect(typeof set(least)).toBe("object");
    expect(typeof set(most)).toBe("object");
    expect(set(least - Math.max(1e-4, least * 0.05))).toMatch(/^needs a number from /);
    expect(set(most + hair)).toMatch(/^needs a number from /);
    expect(set("7")).toMatch(/^needs a number/);
    expect(set(Number.NaN)).toMatch(/^needs a number/);
    expect(set(null)).toEqual({});
  });
  test("a field that a step lacks can't be set; one that it has can", () => {
    const dust = newStep("k", "dust");
    for (const [f, v] of [
      ["dryUm", 5],
      ["depthMm", 1],
      ["sandUm", 5],
      ["roomC", 20],
      ["canWarmed", true],
      ["productId", "beet"],
      ["method", "gun"],
      ["role", "colour"],
    ] as const)
      expect(FIELDS[f].set(dust, v, c)).toMatch(/^can’t be set|^has no/);
    expect(FIELDS.power.set(dust, 0.5, c)).toBe("has no laser setting");
    expect(FIELDS.canWarmed.set(coat, true, c)).toEqual({ canWarmed: true });
    expect(FIELDS.canWarmed.set(coat, 1, c)).toBe("needs true or false");
    expect(FIELDS.productId.set(coat, "marigold", c)).toEqual({
      productId: "marigold",
      dryUm: 18,
      title: "Marigold, first coat",
    });
    expect(FIELDS.productId.set(coat, "nothing", c)).toMatch(/not on the Shelf/);
    expect(FIELDS.zones.set(coat, " leaf , ground ", c)).toEqual({ zones: ["leaf", "ground"] });
    expect(FIELDS.zones.set(coat, "leaf,gone", c)).toMatch(/“gone”/);
    expect(FIELDS.title.set(coat, "  ", c)).toBe("needs a name");
  });
  test("nonsense is refused with what was probably meant", () => {
    const says = (f: string, v: number): string => FIELDS[f].set(cut, v, c) as string;
    expect(says("power", 42.5)).toBe("needs a number from 0.1 % to 100 %; did you mean 42.5 %?");
    expect(says("power", -0.2)).toMatch(/did you mean 20 %\?/);
    expect(says("power", 4250)).not.toMatch(/mean/);
    expect(says("speed", 90_000)).toMatch(/did you mean 1500 mm\/s \(90000 mm\/min\)\?/);
    expect(says("speed", -30)).toMatch(/did you mean 30 mm\/s\?/);
    expect(says("interval", 5)).toMatch(/did you mean 0.05 mm\?/);
    expect(says("interval", 254)).toMatch(/did you mean 254 dpi, 0.1 mm\?/);
    expect(says("passes", 0)).toBe("needs a number from 1 to 40");
    expect(says("passes", 2.5)).toBe("needs a whole number from 1 to 40");
  });
  test("typed figures of a setting are kept side by side", () => {
    const once = { ...cut, ...(FIELDS.power.set(cut, 0.4, c) as object) } as Step;
    expect(FIELDS.passes.set(once, 2, c)).toEqual({ typed: { power: 0.4, passes: 2 } });
  });
});

describe("steps put in by hand have what their kind has", () => {
  const add = (kind: string, value: string | null = null): Step =>
    applyEdits([], [edit({ op: "add", step: "x", field: kind, value })], c).steps[0];
  test("a coat has product, film and role; dusting off has none, whatever is named", () => {
    expect(add("coat", "beet")).toMatchObject({
      productId: "beet",
      dryUm: 18,
      role: "colour",
      title: "Beet, first coat",
      origin: "edit",
    });
    const dust = add("dust", "beet");
    expect(["productId", "dryUm", "role"].map((f) => f in dust)).toEqual([false, false, false]);
    expect(dust.title).toBe("Blow and wipe off dust");
    expect(own(add("powder-fill", "beet"), "productId")).toBe("beet");
  });
  test("sanding begins with 40 µm off the face, 20 µm of residue", () => {
    expect([own(add("sand-back"), "sandUm"), own(add("sand-residue"), "sandUm")]).toEqual([40, 20]);
  });
  test("on the face: all zones and the rest; on zones: those that are filled", () => {
    expect(add("sand-back").zones).toEqual(["lettering", "leaf", "ground"]);
    expect(add("coat", "beet").zones).toEqual(["lettering", "leaf"]);
  });
  test("a list of edits keeps one setting of a field, and none once it is emptied", () => {
    const one = addEdit([], edit({ id: "1", step: "a", field: "dryUm", value: 5 }));
    const two = addEdit(one, edit({ id: "2", step: "a", field: "dryUm", value: 6 }));
    expect(two.map((e) => e.value)).toEqual([6]);
    expect(addEdit(two, edit({ id: "3", step: "b", field: "dryUm", value: 7 })).map((e) => e.value)).toEqual([6, 7]);
    expect(addEdit(two, edit({ id: "4", step: "a", field: "dryUm", value: null }))).toEqual([]);
    expect(addEdit(two, edit({ id: "5", op: "remove", step: "a" }))).toHaveLength(2);
  });
  test("moving behind a step, to the front, and behind one that is gone", () => {
    const steps = ["a", "b", "d"].map((id) => newStep(id, "dust"));
    const ids = (e: PlanEdit) => applyEdits(steps, [e], c);
    expect(ids(edit({ op: "move", step: "d", after: "a" })).steps.map((s) => s.id)).toEqual(["a", "d", "b"]);
    expect(ids(edit({ op: "move", step: "d", after: null })).steps.map((s) => s.id)).toEqual(["d", "a", "b"]);
    expect(ids(edit({ op: "move", step: "b", after: "gone" })).unfit[0].why).toMatch(/is gone/);
    expect(ids(edit({ op: "duplicate", step: "a", field: "z" })).steps.map((s) => s.id)).toEqual(["a", "z", "b", "d"]);
    expect(ids(edit({ op: "duplicate", step: "a", field: "b" })).unfit).toHaveLength(1);
    expect(ids(edit({ op: "remove", step: "b" })).steps.map((s) => s.id)).toEqual(["a", "d"]);
  });
});

describe("slots in working hours", () => {
  const utc = zonedClock("UTC");
  const at = (s: string): number => utc.fromLocal(s);
  const cal = workCalendar(utc, shop().hours, []);
  const mon = (h: string): number => at(`2027-01-11T${h}`);
  test("fits to the minute, moves on by one more, stops over night where it may", () => {
    const day = cal.openAt(mon("03:00"))!;
    const shuts = day.to;
    expect(slot(cal, shuts - 60, 60, null)).toEqual({ start: shuts - 60, end: shuts, pauses: [] });
    expect(slot(cal, shuts - 60, 61, null)!.start).toBe(cal.openAt(shuts)!.from);
    const next = cal.openAt(shuts)!.from;
    expect(slot(cal, shuts - 60, 61, 0)).toEqual({ start: shuts - 60, end: next + 1, pauses: [[shuts, next]] });
    expect(slot(cal, shuts - 60, 60.2, 0)!.end).toBe(next + 1);
  });
  test("a piece that the rest of the day does not hold waits for the morning, a day that holds none is passed over", () => {
    const { from: opens, to: shuts } = cal.openAt(mon("03:00"))!;
    const day = shuts - opens;
    const next = cal.openAt(shuts)!;
    // three pieces of 50 min: one fits into the last 60, two follow
    expect(slot(cal, shuts - 60, 150, 50)).toEqual({
      start: shuts - 60,
      end: next.from + 100,
      pauses: [[shuts - 10, next.from]],
    });
    expect(slot(cal, shuts - 50, 100, 50)!.pauses).toEqual([[shuts, next.from]]);
    expect(slot(cal, shuts - 49, 100, 50)).toEqual({ start: next.from, end: next.from + 100, pauses: [] });
    // what is longer than the longest day is cut where the day ends
    expect(slot(cal, opens, 2 * (cal.longest + 1), cal.longest + 1)!.pauses[0]).toEqual([opens + day, next.from]);
    const short = workCalendar(utc, { ...shop().hours, tue: ["09:00", "09:30"] }, []);
    expect(slot(short, shuts - 60, 150, 50)!.pauses).toEqual([
      [shuts - 10, short.openAt(at("2027-01-13T03:00"))!.from],
    ]);
  });
  test("work of no time is done on the spot, shut or not; longer than any day it goes on", () => {
    expect(slot(cal, mon("03:00"), 0, null)).toEqual({ start: mon("03:00"), end: mon("03:00"), pauses: [] });
    expect(slot(cal, mon("03:00"), -5, null)!.start).toBe(mon("03:00"));
    expect(slot(cal, mon("03:00"), cal.longest, null)!.pauses).toEqual([]);
    const long = slot(cal, mon("03:00"), cal.longest * 2 + 1, null)!;
    expect(long.pauses).toHaveLength(2);
    expect(long.pauses[0][0] - long.start + (long.end - long.pauses[1][1])).toBe(cal.longest + 1);
  });
  test("a fraction of a minute begins with the next whole one", () =>
    expect(slot(cal, mon("10:00") + 0.2, 5, null)!.start).toBe(mon("10:01")));
});

describe("windows", () => {
  const r = (closes: number | null, reopens: number | null): Readiness => ({
    state: "recoat",
    why: "",
    film: null,
    productId: null,
    refMin: 10,
    from: 0,
    opens: 10,
    closes,
    reopens,
    stretches: [
      { from: 10, to: closes },
      ...(closes === null || reopens === null ? [] : [{ from: reopens, to: null }]),
    ],
    unknown: false,
  });
  test("the last piece is reached before it shuts, or the first after it reopens", () => {
    expect([50, 51, 99, 100].map((t) => inWindow(r(60, 100), t, 10))).toEqual([true, false, false, true]);
    expect([50, 51, 1e6].map((t) => inWindow(r(60, null), t, 9.2))).toEqual([true, false, false]);
    expect(inWindow(r(null, null), 1e9, 10)).toBe(true);
    expect(inWindow(r(60, null), 60, 0)).toBe(true);
    expect(inWindow(r(60, null), 60, -3)).toBe(true);
  });
  test("what was logged, or waited by hand, breaks none", () => {
    const p = {
      step: newStep("a", "dust"),
      start: 70,
      minutes: 5,
      needs: [r(60, null)],
      actual: null,
      cycle: [],
    } as unknown as Placed;
    expect(breaksWindow(p, null)).toBe(true);
    expect(breaksWindow(p, 5)).toBe(false);
    expect(breaksWindow({ ...p, actual: { start: 70, end: null, early: null } } as Placed, null)).toBe(false);
    expect(breaksWindow({ ...p, needs: [r(null, null), r(60, 65)] } as Placed, null)).toBe(false);
    expect(brokenWindows([p, p])).toBe(2);
    expect(brokenWindows([{ ...p, step: { ...p.step, waitMin: 3 } } as Placed, p])).toBe(1);
  });
});

test("trips: a quarter of an hour apart is one visit, a minute more is two; what is done is left out", () => {
  const p = (id: string, start: number, end: number, more: object = {}): Placed =>
    ({ step: newStep(id, "dust"), start, end, needs: [], actual: null, cycle: [], ...more }) as unknown as Placed;
  const ids = (list: Placed[]) => trips({ placed: list }).map((t) => [t.id, t.from, t.to, t.steps.length]);
  expect(ids([p("a", 0, 10), p("b", 25, 30), p("d", 46, 50)])).toEqual([
    ["a", 0, 30, 2],
    ["d", 46, 50, 1],
  ]);
  expect(ids([p("a", 0, 10, { actual: { start: 0, end: 10, early: null } }), p("b", 12, 30)])).toEqual([
    ["b", 12, 30, 1],
  ]);
  expect(ids([p("a", 0, 10, { actual: { start: 0, end: null, early: null } })])).toHaveLength(1);
  const shut = { closes: 90, state: "recoat" } as unknown as Readiness;
  expect(trips({ placed: [p("a", 0, 60), p("b", 61, 70, { needs: [shut] })] })[0].closing).toEqual([
    { at: 90, before: "Blow and wipe off dust" },
  ]);
});

describe("placed again", () => {
  const cut = (id: string) =>
    newStep(id, "engrave", "Engrave", {
      zones: ["leaf"],
      laser: { power: 0.5, speed: 1, interval: 1, passes: 1, from: "computed" },
    });
  test("one visit is not placed again, two are; melting with the beam counts once", () => {
    const melts = [1, 2].map((n) => newStep(`m${n}`, "melt", "Melt", { method: "laser" }));
    expect(
      [[], [cut("a")], [cut("a"), cut("b")], [cut("a"), ...melts]].map((s) => placement(c, s as Step[]).replaced),
    ).toEqual([false, false, true, true]);
    expect(placement(c, [cut("a")]).pairs).toEqual([]);
    expect(placement(c, [cut("a"), cut("b")]).pairs).toHaveLength(1);
    // shapes that are not known may lie at the far corner, where a turned piece is off the most
    const { w, h } = c.job.substrate;
    const far = 0.3 * (1 + Math.hypot(w, h) / Math.max(w, h));
    expect(placement(c, [cut("a"), cut("b")]).pairs[0].betweenMm).toBeCloseTo(far, 9);
    expect(placement(c, [cut("a"), cut("b"), cut("d")]).pairs[0].betweenMm).toBeCloseTo(far * Math.SQRT2, 9);
    expect(placement(c, [cut("a"), cut("b"), cut("d")]).trapMm).toBeCloseTo(far * Math.SQRT2 + 0.05, 9);
    expect(placement(c, [cut("a")]).trapMm).toBeCloseTo(0.35, 9);
  });
  test("a visit shows what it opens, covers and leaves masked", () => {
    for (let n = 0; n < 400; n++) {
      const p = makePlan(brief(n), null, true);
      if (p.context.route?.id !== "H") continue;
      const v = visitsOf(p);
      const lay = v.find((x) => x.kind === "mask-lay");
      if (lay) expect(lay.covers.length).toBeGreaterThan(0);
      for (const x of v) {
        expect(x.opens.filter((z) => x.stays.includes(z))).toEqual([]);
        expect(x.covers.every((z) => x.stays.includes(z))).toBe(true);
      }
      return;
    }
    throw new Error("no such brief");
  });
});

describe("what differs between two lists of steps", () => {
  const s = (id: string, more: object = {}): Step =>
    ({ ...newStep(id, "coat", `Coat ${id}`, { dryUm: 10 }), ...more }) as Step;
  test("come, gone, moved, changed", () => {
    const d = differences([s("a"), s("b"), s("k"), s("d")], [s("k"), s("a"), s("b", { dryUm: 12.34 }), s("e")]);
    expect(d).toEqual({
      added: ["Coat e"],
      removed: ["Coat d"],
      moved: ["Coat k"],
      changed: [{ title: "Coat b", what: "film", before: "10 µm", after: "12.3 µm" }],
    });
    expect(differences([s("a"), s("b")], [s("a"), s("b")])).toEqual({ added: [], removed: [], moved: [], changed: [] });
    const laser = { power: 0.5, speed: 100, interval: 0.07, passes: 1, from: "computed" as const };
    const cut = (m: object): Step =>
      ({ ...newStep("x", "engrave", "Engrave"), laser: { ...laser, ...m }, depthMm: 1.234 }) as Step;
    expect(
      differences([cut({})], [cut({ power: 0.616, passes: 2 })]).changed.map((x) => [x.what, x.before, x.after]),
    ).toEqual([
      ["passes", "1", "2"],
      ["power", "50 %", "61.6 %"],
    ]);
  });
});

describe("the bench's taps folded", () => {
  const tap = (id: string, kind: LogEntry["kind"], at: number, more: Partial<LogEntry> = {}): LogEntry => ({
    ...new LogEntry(),
    id,
    jobId: "job",
    kind,
    step: "dust",
    at,
    ...more,
  });
  test("begun by the first tap, whichever it is; pieces counted once; a take-back takes back", () => {
    expect(fold([tap("1", "start", 5), tap("2", "piece", 9, { piece: 1 })]).steps.get("dust")!.startedAt).toBe(5);
    expect(fold([tap("1", "piece", 7, { piece: 1 }), tap("2", "start", 9)]).steps.get("dust")!.startedAt).toBe(7);
    const twice = fold([
      tap("1", "piece", 7, { piece: 1 }),
      tap("2", "piece", 8, { piece: 1 }),
      tap("3", "piece", 9, { piece: 2 }),
    ]);
    expect(twice.steps.get("dust")!.pieces).toEqual([1, 2]);
    const back = fold([tap("1", "piece", 7, { piece: 1 }), tap("2", "back", 8, { of: "1" })]);
    expect(back.steps.get("dust")?.pieces ?? []).toEqual([]);
  });
});

test("every minute before a step has its cause, and they add up", () => {
  const w = e1({ shop: { climate: swing(8, 19) } });
  const p = makePlan(w);
  const cal = p.context.calendar;
  for (let i = 1; i < p.placed.length; i++) {
    const [a, b] = [p.placed[i - 1], p.placed[i]];
    if (a.end === null || b.start === null) continue;
    const g = gapBefore(b, a, p.placed[0].start!, p.now, cal);
    if (!g) continue;
    expect(g.dry - g.from + (g.open - g.dry) + g.closed + g.short + g.held).toBe(b.start - g.from);
    expect([g.closed, g.short, g.held].every((x) => x >= 0)).toBe(true);
  }
});

test("powder, nested: the largest colour is cut first, over the shapes of all", () => {
  for (let n = 0; n < 3000; n++) {
    const w = brief(n);
    if (w.job.route !== "G" || new Set(w.job.zones.map((z) => z.productId)).size < 2) continue;
    const p = makePlan(w, null, true);
    const cuts = p.placed.filter((x) => x.step.kind === "engrave");
    const area = (id: string): number =>
      w.job.zones
        .filter((z) => z.productId === w.job.zones.find((y) => y.id === id)!.productId)
        .reduce((s, z) => s + z.areaMm2, 0);
    const fills = p.placed.filter((x) => x.step.kind === "powder-fill");
    expect(cuts[0].step.zones.length).toBeGreaterThan(cuts[1].step.zones.length);
    const first = w.job.zones.find((z) => z.productId === own(fills[0].step, "productId"))!;
    expect(Math.max(...w.job.zones.map((z) => area(z.id)))).toBe(area(first.id));
    return;
  }
  throw new Error("no such brief");
});

test("route advice: the tray is turned before an oven is called too small", () => {
  const w = (bw: number, bh: number) =>
    context({
      ...e1(),
      shop: shop({ gear: GEAR().map((g) => (g.kind === "oven" ? { ...g, trayW: 130, trayH: 70 } : g)) }),
      job: { ...e1().job, substrate: { id: "hard-maple", w: bw, h: bh, t: 8 } },
    });
  expect([w(130, 70), w(70, 130), w(131, 70), w(70, 131), w(100, 71)].map((x) => asked(x).ovenFits)).toEqual([
    true,
    true,
    false,
    false,
    false,
  ]);
  const list = chooseRoutes(c);
  const can = list.map((x) => x.no.length === 0);
  expect(can.lastIndexOf(true)).toBeLessThan(can.indexOf(false));
  const good = list.filter((x) => x.no.length === 0).map((x) => x.points);
  expect([...good].sort((a, b) => b - a)).toEqual(good);
});

test("the paint of a can that nobody has bought yet is counted by what such cans hold", () => {
  const holds = { spray: 400, airbrush: 60, brush: 60, marker: 6, powder: 200, pour: 250, wipe: 60 } as const;
  const seen = new Set<string>();
  for (let n = 0; n < 240; n++) {
    const w = brief(n * 7 + 2);
    const p = makePlan({ ...w, products: w.products.map((x) => ({ ...x, cans: [] })) }, null, true);
    for (const a of p.amounts) {
      const by = p.context.paintOf(a.product).finish.by;
      if (by === "tape") continue;
      seen.add(by);
      expect([by, a.canMl]).toEqual([by, holds[by]]);
      if (a.toComeMl !== null && a.cans !== null)
        expect([by, a.cans]).toEqual([by, Math.max(0, Math.ceil(a.toComeMl / holds[by] - 1e-9))]);
    }
  }
  expect([...seen].sort()).toEqual(["brush", "marker", "pour", "powder", "spray", "wipe"]);
});

test("of two placings the one with fewer windows broken is better, though it ends later; then the sooner; a tie is neither", () => {
  const p = Array.from({ length: 200 }, (_, n) => makePlan(brief(n), null, true)).find((x) =>
    x.placed.some((s) => s.needs.some((r) => r.closes !== null)),
  )!;
  const as = (placed: Placed[]): PlaceResult => ({ placed, stuck: null, moved: false, runs: [] });
  const last = p.placed.length - 1;
  const ended = (list: Placed[], by: number): Placed[] =>
    list.map((x, i) => (i === last ? { ...x, end: (x.end as number) + by } : x)) as Placed[];
  const broken = p.placed.map((x) => ({
    ...x,
    needs: x.needs.map((r) =>
      r.closes === null ? r : { ...r, closes: -10, reopens: null, stretches: [{ from: -20, to: -10 }] },
    ),
  })) as Placed[];
  expect(brokenWindows(broken)).toBeGreaterThan(brokenWindows(p.placed));
  expect(better(as(p.placed), as(ended(broken, -60)))).toBe(true);
  expect(better(as(ended(broken, -60)), as(p.placed))).toBe(false);
  expect(better(as(ended(p.placed, -1)), as(p.placed))).toBe(true);
  expect(better(as(p.placed), as(p.placed))).toBe(false);
  const stuck = { ...as(p.placed), stuck: { index: 0, why: "" } };
  expect([better(as(broken), stuck), better(stuck, as(broken))]).toEqual([true, false]);
});

test("zones that can’t be told apart by the beam’s setting up say neither that they are nor that they are not", () => {
  const cut = (id: string, zone: string) =>
    newStep(id, "engrave", "Engrave", {
      zones: [zone],
      laser: { power: 0.5, speed: 1, interval: 1, passes: 1, from: "computed" },
    });
  const square = (x: number): string => `M${x} 0L${x + 4} 0L${x + 4} 4L${x} 4Z`;
  const at = (gap: number, trap: boolean): (boolean | null)[] => {
    const w = e1();
    const zones = w.job.zones.map((z, i) => ({ ...z, outline: square(i * (4 + gap)) }));
    const mine = context({ ...w, job: { ...w.job, zones, choices: { ...w.job.choices, trap } } });
    const [a, b] = mine.filled.map((z) => z.id);
    return placement(mine, [cut("a", a), cut("b", b)]).pairs.map((x) => x.apart);
  };
  expect(at(20, false)).toEqual([true]);
  expect(at(0.05, false)).toEqual([false]);
  // meant to overlap: not asked
  expect(at(20, true)).toEqual([null]);
});

describe("ways out of a date that is missed", () => {
  const late = (close: string): World => {
    const w = e1({ shop: { climate: { ...swing(12, 12) } } });
    const hours = Object.fromEntries(
      Object.entries(w.shop.hours).map(([d, h]) => [d, h ? [h[0], close] : null]),
    ) as unknown as World["shop"]["hours"];
    return { ...w, shop: { ...w.shop, hoursSet: true, hours }, job: { ...w.job, due: "2027-01-11T10:00" } };
  };
  test.each([
    ["17:30", "19:30"],
    ["21:59", "23:59"],
    ["22:30", "23:59"],
    ["09:05", "11:05"],
  ])("two hours longer than %s is %s", (close, then) => {
    const w = late(close);
    const longer = ways(w).find((o) => o.label === "Stay open two hours longer");
    expect(longer).toBeDefined();
    const mon = longer!.apply(w).shop.hours.mon!;
    expect(mon).toEqual([w.shop.hours.mon![0], then]);
  });
});
