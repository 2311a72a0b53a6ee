/** What a plan decides, each beside a slow and plain reckoning: places in the calendar, gaps, whites, pieces, tasks, what is asked. */
import { coatsToHide, over, scatter } from "../models/film/hide";
import { linear } from "../models/film/colour";
import { context, type Context } from "../process/context";
import { newStep } from "../process/kinds";
import { worldAround, type ShopFacts, type World } from "../records/world";
import { LogEntry } from "../records/log";
import { compile } from "../schedule/model";
import { brief } from "../testing/briefs";
import { a1, constant, e1, many, seeded, SHELF, shop, stocked } from "../testing/worlds";
import { workCalendar, type WorkCalendar } from "../time/hours";
import { zonedClock } from "../time/zoned";
import { changesElsewhere, declined, keptWith, leftOut, takenOver } from "./begun";
import { gapBefore } from "./decides";
import { fold, nextPiece, openPieces } from "./fold";
import { coatsLaid, coatsNeeded, compareUndercoat, COAT_CAP, wantsWhite } from "./hiding";
import { layingOf } from "./lay";
import { inTurn, slot, workMinutes, type Placed, type Slot } from "./placed";
import { makePlan, planFor, turns, type Plan } from "./plan";
import { shopProblem, startsOf } from "./schedule";

const utc = zonedClock("UTC");
const MONDAY = utc.fromLocal("2027-01-11T00:00");
const tap = (id: string, kind: LogEntry["kind"], step: string, at: number, more: Partial<LogEntry> = {}): LogEntry => ({
  ...new LogEntry(),
  id,
  jobId: "job",
  kind,
  step,
  at,
  ...more,
});

/** Minute by minute: the earliest beginning from which the work is done, as the shop is open and pieces stay whole. */
function slowly(cal: WorkCalendar, from: number, minutes: number, unit: number | null): Slot | null {
  const whole = Math.ceil(minutes);
  const openAt = (m: number): boolean => {
    const o = cal.openAt(m);
    return o !== null && o.from <= m;
  };
  /** open minutes in a row from a moment on */
  const row = (m: number): number => {
    let n = 0;
    while (openAt(m + n)) n++;
    return n;
  };
  const stops = unit !== null || whole > cal.longest;
  const piece = unit !== null && unit <= cal.longest ? unit : 0;
  for (let start = Math.ceil(from); start < from + 20 * 1440; start++) {
    if (!openAt(start)) continue;
    const now = row(start);
    if (now >= whole) return { start, end: start + whole, pauses: [] };
    if (!stops || now < piece) continue;
    // piece after piece, each where the open time still holds it
    const pauses: [number, number][] = [];
    let at = start;
    let left = whole;
    while (left > 0) {
      const here = row(at);
      const next = piece ? Math.min(piece, left) : Math.min(here, left);
      if (here >= next && here > 0) {
        at += next;
        left -= next;
        continue;
      }
      let morning = at + here;
      while (!openAt(morning) || row(morning) < (piece ? Math.min(piece, left) : 1)) morning++;
      pauses.push([at, morning]);
      at = morning;
    }
    return { start, end: at, pauses };
  }
  return null;
}

test("a place in working hours is the one found minute by minute", () => {
  const r = seeded(11);
  const int = (n: number): number => Math.floor(r() * n);
  for (let n = 0; n < many(160); n++) {
    const opens = 6 + int(6);
    const hours = { ...shop().hours };
    const span = (h: number): [string, string] => [
      `${String(opens).padStart(2, "0")}:00`,
      `${String(opens + h).padStart(2, "0")}:${int(2) ? "30" : "00"}`,
    ];
    for (const d of ["mon", "tue", "wed", "thu", "fri"] as const) hours[d] = int(5) ? span(1 + int(4)) : null;
    hours.mon = span(3);
    const cal = workCalendar(utc, hours, int(3) ? [] : ["2027-01-12"]);
    const from = MONDAY + int(3 * 1440) + (int(4) ? 0 : 0.5);
    // lengths about the longest day on purpose
    const minutes = int(3) ? 1 + int(400) : cal.longest + int(3) - 1;
    const units = [null, null, 0, 1 + int(60), cal.longest, cal.longest + 1];
    const unit = units[int(units.length)];
    const given = [hours, from - MONDAY, minutes, unit];
    expect([given, slot(cal, from, minutes, unit)]).toEqual([given, slowly(cal, from, minutes, unit)]);
  }
});

test("minutes of work: setup and pieces, each by what the log has taught, the model's own kept beside", () => {
  const learned = [{ kind: "dust", factor: 1.5, n: 9 }] as World["shop"]["learned"];
  const c = context(e1({ shop: { learned } }));
  const plain = context(e1());
  const s = newStep("d", "dust");
  const [mine, model] = [workMinutes(s, c), workMinutes(s, plain)];
  const k = c.learned("dust");
  expect(k).toBeGreaterThan(1);
  expect([mine.setup, mine.perPiece, mine.total]).toEqual([model.setup! * k, model.perPiece! * k, model.total! * k]);
  expect(mine.uncorrected).toBe(model.total);
  expect(model.total).toBeCloseTo(model.setup! + model.perPiece! * c.pieces, 9);
  // a figure typed is the whole of it, whatever was learned
  expect(workMinutes({ ...s, minutes: 17 }, c)).toEqual({ setup: 17, perPiece: 0, total: 17, uncorrected: 17 });
  expect(
    workMinutes(newStep("x", "engrave", "Engrave", { zones: ["leaf"] }), context({ ...e1(), machines: [] })),
  ).toEqual({ setup: null, perPiece: null, total: null, uncorrected: null });
});

/** Minutes of a stretch in which the shop is shut. */
const shut = (cal: WorkCalendar, from: number, to: number): number => {
  let n = 0;
  for (let m = from; m < to; m++) {
    const o = cal.openAt(m);
    if (!o || o.from > m) n++;
  }
  return n;
};

describe("what lies between two steps", () => {
  const cal = workCalendar(utc, shop().hours, []);
  const at = (h: number, m = 0): number => MONDAY + h * 60 + m;
  const p = (start: number | null, more: Partial<Placed> = {}): Placed =>
    ({ step: newStep("b", "dust"), start, minutes: 10, unit: null, needs: [], waited: null, ...more }) as Placed;
  const prev = (end: number | null, waitMin: number | null = null): Placed =>
    ({ step: { ...newStep("a", "dust"), waitMin }, end }) as Placed;
  const opens = (m: number, closes: number | null = null, reopens: number | null = null) =>
    ({ state: "recoat", opens: m, closes, reopens }) as Placed["needs"][number];
  test("no gap where either has no time", () => {
    expect(gapBefore(p(null), prev(at(10)), 0, null, cal)).toBeNull();
    expect(gapBefore(p(at(11)), prev(null), 0, null, cal)).toBeNull();
    expect(gapBefore(p(at(11)), undefined, at(10), null, cal)).toMatchObject({ from: at(10), dry: at(10) });
  });
  test("a wait to dry, one set by hand in its place, a window that had shut, and the moment it is planned at", () => {
    const dries = opens(at(10, 30));
    const gap = (a: Placed, b: Placed, now: number | null = null) => gapBefore(b, a, 0, now, cal);
    expect(gap(prev(at(10)), p(at(11), { waited: dries, needs: [dries] }))).toEqual({
      from: at(10),
      dry: at(10, 30),
      open: at(10, 30),
      closed: 0,
      short: 0,
      held: 30,
    });
    const typed = gap(
      prev(at(10), 45),
      p(at(11), { waited: dries, needs: [opens(at(10, 30), at(10, 40), at(10, 50))] }),
    );
    expect(typed).toMatchObject({ dry: at(10, 45), open: at(10, 45), held: 15 });
    const again = opens(at(10, 30), at(10, 40), at(10, 50));
    expect(gap(prev(at(10)), p(at(11), { waited: again, needs: [again] }))).toMatchObject({
      dry: at(10, 30),
      open: at(10, 50),
      held: 10,
    });
    // not reopened by then, or not yet shut: no window was in the way
    for (const r of [opens(at(10, 30), at(10, 40), at(11, 1)), opens(at(10, 30), at(11), at(11))])
      expect(gap(prev(at(10)), p(at(11), { waited: r, needs: [r] }))!.open).toBe(at(10, 30));
    expect(gap(prev(at(10)), p(at(11)), at(10, 20))).toMatchObject({ from: at(10, 20), held: 40 });
  });
  test("over briefs: the parts are what passes, and closed is what the calendar has shut", () => {
    let closed = 0;
    for (const n of [4, 61, 118, 175, 232, 289].slice(0, Math.max(3, many(6)))) {
      const plan = makePlan(brief(n), null, true);
      plan.placed.forEach((b, i) => {
        const g = i > 0 ? gapBefore(b, plan.placed[i - 1], 0, null, plan.context.calendar) : null;
        if (!g) return;
        expect(g.dry - g.from + (g.open - g.dry) + g.closed + g.short + g.held).toBe(b.start! - g.from);
        if (g.held === 0) expect(g.closed).toBe(shut(plan.context.calendar, g.open, b.start!));
        closed += g.closed;
      });
    }
    expect(closed).toBeGreaterThan(0);
  });
  test("work is what is still to be done; a wait that is left out says what it gains", () => {
    const w = e1();
    const first = makePlan(w).placed[0];
    const log = [tap("1", "start", first.step.id, first.start!), tap("2", "done", first.step.id, first.end!)];
    const plan = makePlan({ ...w, log });
    const work = plan.decides.find((d) => d.kind === "work")!;
    expect(plan.placed[0].minutes).toBeGreaterThan(0);
    const left = inTurn(plan.placed).filter((x) => x.step.id !== first.step.id);
    expect(work.minutes).toBe(Math.round(left.reduce((a, x) => a + x.minutes!, 0)));
    const wait = plan.decides.find((d) => d.kind === "wait" && d.gain !== null)!;
    expect(wait.gain).toBeGreaterThanOrEqual(0);
    expect(wait.gain).toBeLessThanOrEqual(plan.ready! - plan.start!);
  });
});

describe("whites beneath a colour", () => {
  const c = context(a1({ products: [...SHELF(), stocked("titan", "Titan", "titanium-white", "#f6f6f2")] }));
  const DARK = linear("#2b1d14");
  /** One to four whites, each tried whole: the fewest coats in all, the fewest whites among equals. */
  const best = (x: Context, id: string, ground: readonly [number, number, number], white: string) => {
    const [w, p] = [x.paintOf(white), x.paintOf(id)];
    const s = scatter(linear(w.product.colour), w.hideUm.value)!;
    const tried = [1, 2, 3, 4].flatMap((n) => {
      const under = over(linear(w.product.colour), ground, s * w.coatUm.value! * n);
      const k = coatsToHide(linear(p.product.colour), under, p.hideUm.value, p.coatUm.value, x.tolerance);
      return k.coats !== null && k.hides ? [{ whites: n, overWhite: Math.max(1, k.coats), sum: n + k.coats }] : [];
    });
    return tried.reduce<(typeof tried)[number] | null>((b, t) => (!b || t.sum < b.sum ? t : b), null);
  };
  test("the best of four, over grounds from dark to light", () => {
    for (const id of ["beet", "marigold", "poppy", "black", "clear"])
      for (const ground of [DARK, linear("#808080"), linear("#e8c27a"), linear("#ffffff")])
        for (const white of ["white", "titan"]) {
          const h = compareUndercoat(c, { id: "z", productId: id }, ground, white);
          const b = best(c, id, ground, white);
          expect([id, h.whites, h.overWhite]).toEqual([id, b?.whites ?? 0, b?.overWhite ?? null]);
          expect(h.straight).toBe(coatsNeeded(c, id, ground).coats);
        }
  });
  test("a fourth white counts, where three do not hide", () => {
    const thin = context(
      a1({
        products: SHELF().map((p) =>
          p.id === "white"
            ? { ...p, hideUm: 140, coatUm: 20 }
            : p.id === "marigold"
              ? { ...p, hideUm: 900, coatUm: 20 }
              : p,
        ),
      }),
    );
    const whites = new Set<number>();
    for (let g = 0; g <= 60; g += 6) {
      const ground = linear(`#${g.toString(16).padStart(2, "0").repeat(3)}`);
      const h = compareUndercoat(thin, { id: "z", productId: "marigold" }, ground, "white");
      const b = best(thin, "marigold", ground, "white");
      expect([g, h.whites, h.overWhite]).toEqual([g, b?.whites ?? 0, b?.overWhite ?? null]);
      whites.add(h.whites);
    }
    expect([...whites]).toEqual([4, 3]);
  });
  test("none without a white, with itself, or with one that nothing is known of", () => {
    const none = { whites: 0, overWhite: null };
    const of = (x: Context, white: string | null, id = "marigold") =>
      compareUndercoat(x, { id: "z", productId: id }, DARK, white);
    expect(of(c, null)).toMatchObject(none);
    expect(of(c, "gone")).toMatchObject(none);
    expect(of(c, "marigold")).toMatchObject(none);
    expect(of(c, "white").overWhite).not.toBeNull();
  });
  test("laid are one at least and twenty at most; white is wanted where it saves, where nothing hides, and where it is said", () => {
    expect([null, 0, 1, 5, 20, 21].map((n) => coatsLaid(n))).toEqual([1, 1, 1, 5, COAT_CAP, COAT_CAP]);
    expect([coatsLaid(0, 0), coatsLaid(null, 2), coatsLaid(1, 2)]).toEqual([0, 2, 2]);
    const h = (straight: number | null, hides: boolean | null, whites: number, overWhite: number | null) => ({
      zone: "z",
      productId: "p",
      straight,
      hides,
      whites,
      overWhite,
    });
    expect(wantsWhite(h(4, true, 1, 2), null)).toBe(true);
    expect(wantsWhite(h(3, true, 1, 2), null)).toBe(false);
    expect(wantsWhite(h(3, true, 1, 2), true)).toBe(true);
    expect(wantsWhite(h(4, true, 1, 2), false)).toBe(false);
    expect(wantsWhite(h(null, false, 4, 4), null)).toBe(true);
    expect(wantsWhite(h(null, null, 4, 4), null)).toBe(false);
    expect(wantsWhite(h(9, false, 0, null), true)).toBe(false);
  });
});

test("pieces that are open, and the next of them, counted one by one", () => {
  const r = seeded(5);
  for (let n = 0; n < 200; n++) {
    const [from, count] = [1 + Math.floor(r() * 3), Math.floor(r() * 5)];
    const to = from + count - 1;
    const all = Array.from({ length: 9 }, (_, i) => i);
    const pieces = all.filter(() => r() < 0.5);
    const out = new Set(all.filter(() => r() < 0.3));
    const run =
      r() < 0.2 ? undefined : fold(pieces.map((x, i) => tap(`${i}`, "piece", "s", i, { piece: x }))).steps.get("s");
    const open: number[] = [];
    for (let x = from; x <= to; x++) if (!(run?.pieces ?? []).includes(x) && !out.has(x)) open.push(x);
    expect(openPieces(run, { from, to, out })).toEqual(open);
    expect(nextPiece(run, { from, to, out })).toBe(open[0] ?? null);
  }
  expect(nextPiece(undefined, { from: 3, to: 3, out: new Set() })).toBe(3);
});

describe("the shop elsewhere", () => {
  const begun = (w: World): World => {
    const plan = makePlan(w);
    const first = plan.placed[0];
    const job = { ...w.job, begun: keptWith(plan, first.step.id, first.start!) };
    return worldAround({ shop: w.shop, machines: w.machines, products: w.products }, job, [
      tap("1", "start", first.step.id, first.start!),
    ]);
  };
  const changed = (w: World, more: (f: ShopFacts) => Partial<ShopFacts>): World => {
    const f = w.elsewhere!;
    return worldAround({ ...f, ...more(f) }, w.job, w.log);
  };
  const asked = (w: World) => changesElsewhere(makePlan(w), 0, (x) => makePlan(x, null, true));
  const w = begun(e1());
  test("the same shop asks nothing and is not taken over; a job not begun neither", () => {
    for (const x of [e1(), w, changed(w, () => ({}))]) {
      expect([takenOver(x, 5), declined(x), asked(x)]).toEqual([null, null, null]);
      expect(leftOut(x)).toBe(false);
    }
  });
  test("what changes no step and no moment asks nothing, though it may be taken over", () => {
    const bought = changed(w, (f) => ({
      products: [...f.products, stocked("idle", "Idle", "paint-marker", "#123456")],
    }));
    expect(asked(bought)).toBeNull();
    expect(takenOver(bought, 7.9)!.job.begun!.at).toBe(7);
    expect(takenOver(bought, 7.9)!.products.some((p) => p.id === "idle")).toBe(true);
    // a can weighed, a reading, another name: nothing at all
    const weighed = changed(w, (f) => ({ products: f.products.map((p) => ({ ...p, cans: [] })) }));
    const renamed = changed(w, (f) => ({ shop: { ...f.shop, name: "Elsewhere", units: "inch" } }));
    for (const x of [weighed, renamed]) expect([takenOver(x, 5), declined(x)]).toEqual([null, null]);
  });
  test("slower hours change no step and are asked for their moment; looked at and left, they are not asked again until they change", () => {
    const later = changed(w, (f) => ({ shop: { ...f.shop, climate: constant(11, 0.7) } }));
    const d = asked(later)!;
    expect([d.added, d.removed, d.moved]).toEqual([[], [], []]);
    expect(d.ready[1]!).toBeGreaterThan(d.ready[0]!);
    const left = worldAround(later.elsewhere!, { ...later.job, begun: declined(later)! }, later.log);
    expect([leftOut(left), asked(left)]).toEqual([true, null]);
    const colder = changed(left, (f) => ({ shop: { ...f.shop, climate: constant(11, 0.8) } }));
    expect(leftOut(colder)).toBe(false);
    expect(asked(colder)!.ready[1]!).toBeGreaterThan(d.ready[0]!);
    const closed = worldAround(
      later.elsewhere!,
      { ...later.job, wrapUp: { ...later.job.wrapUp, closedAt: "2027-02-01T10:00" } },
      later.log,
    );
    expect(asked(closed)).toBeNull();
  });
});

describe("a plan written down for the scheduler", () => {
  const plans = [3, 20, 71, 122, 190].slice(0, Math.max(3, many(5))).map((n) => makePlan(brief(n), null, true));
  const able = (p: Plan): boolean => p.stuck === null && p.placed.length > 0;
  test("every step a task with its minutes, its hours and the one before it; the plan's own times keep every lag", () => {
    for (const p of plans.filter(able)) {
      const s = shopProblem([p]);
      const c = p.context;
      const line = inTurn(p.placed);
      expect(s.left).toEqual([]);
      expect([...s.tasks.values()].map((t) => t.step)).toEqual(line.map((x) => x.step.id));
      expect(s.origin % 1440).toBe(0);
      expect(s.origin).toBeLessThanOrEqual(line[0].start!);
      expect(line[0].start! - s.origin).toBeLessThan(1440);
      s.problem.tasks.forEach((t, i) => {
        const x = line[i];
        expect(t.minutes).toBe(Math.max(0, Math.ceil(x.minutes!)));
        expect(t.pausable).toBe(x.unit !== null || t.minutes > c.calendar.longest);
        expect(t.due).toBe(
          i === line.length - 1 && c.job.due ? Math.max(0, c.clock.fromLocal(c.job.due) - s.origin) : null,
        );
        expect(t.fixedStart).toBeNull();
        expect(t.earliest).toBe(Math.max(0, c.clock.fromLocal(c.job.start) - s.origin));
      });
      // one behind the other, and no wait is longer than the plan's
      for (let i = 1; i < line.length; i++) {
        const mine = s.problem.lags.filter((l) => s.tasks.get(l.to)!.step === line[i].step.id);
        expect(mine.some((l) => s.tasks.get(l.from)!.step === line[i - 1].step.id && l.clock === null)).toBe(true);
        for (const l of mine.filter((x) => x.clock === null && x.max === null)) {
          const from = line.find((x) => x.step.id === s.tasks.get(l.from)!.step)!;
          expect(from.end! + l.min).toBeLessThanOrEqual(line[i].start! + 1);
        }
      }
      expect(compile(s.problem).n).toBe(line.length);
      const back = startsOf(s, { tasks: s.problem.tasks.map((t, i) => ({ id: t.id, start: i, end: i, pauses: [] })) });
      expect([...back.get(c.job.id)!]).toEqual(line.map((x, i) => [x.step.id, s.origin + i]));
    }
  });
  test("work as long as the longest day is not cut by closing time, a minute more is", () => {
    const cal = context(e1()).calendar;
    const index = makePlan(e1()).placed.findIndex((p) => p.unit === null && p.minutes !== null);
    const { id } = makePlan(e1()).placed[index].step;
    const pausable = (minutes: number): boolean => {
      const w = e1();
      const edits = [{ id: "e", op: "set" as const, step: id, after: null, field: "minutes", value: minutes }];
      const p = makePlan({ ...w, job: { ...w.job, edits } }, null, true);
      expect([p.placed[index].minutes, p.placed[index].unit]).toEqual([minutes, null]);
      const { problem, tasks } = shopProblem([p]);
      return problem.tasks.find((t) => tasks.get(t.id)!.step === id)!.pausable;
    };
    expect([pausable(cal.longest - 1), pausable(cal.longest), pausable(cal.longest + 1)]).toEqual([false, false, true]);
  });
  test("what is done takes nothing up; what is under way does once, and not out of hours", () => {
    const w = e1();
    const plan = makePlan(w);
    const [a, b] = plan.placed;
    const uses = (log: LogEntry[], now: number): number[] => {
      const p = makePlan({ ...w, log }, now, true);
      return shopProblem([p], { now }).problem.tasks.map((t) => t.uses.length);
    };
    const free = uses([], a.start!);
    expect(free.slice(0, 2).every((n) => n > 0)).toBe(true);
    expect(uses([tap("1", "start", a.step.id, a.start!)], a.start!)[0]).toBe(free[0]);
    const done = [tap("1", "start", a.step.id, a.start!), tap("2", "done", a.step.id, a.end!)];
    expect(uses(done, a.end!)[0]).toBe(0);
    expect(uses([...done, tap("3", "start", b.step.id, b.start!)], b.start!)[1]).toBe(free[1]);
    // begun at night: a fact, for which no schedule is refused
    const night = MONDAY + 23 * 60;
    expect(uses([tap("1", "start", a.step.id, night)], night)[0]).toBe(0);
  });
  test("jobs that can't be laid are left out with what is in the way; without steps, that", () => {
    const good = plans.find(able)!;
    const other = plans.filter(able)[1];
    const stuck = makePlan({ ...e1(), machines: [] }, null, true);
    const empty = { ...other, placed: [], stuck: null, missing: [] };
    const lacking = { ...empty, missing: [{ say: "There is no white." }] };
    const left = (p: Parameters<typeof shopProblem>[0][number]) => shopProblem([good, p]).left.map((l) => l.why);
    expect(left(other)).toEqual([]);
    expect(left(stuck)).toEqual([stuck.stuck]);
    expect(left(empty)).toEqual(["it has no steps"]);
    expect(left(lacking)).toEqual(["There is no white."]);
  });
  test("laid from a step on: what lies before it stays; what is no sound problem is laid by nobody", () => {
    for (const p of plans.filter(able)) {
      const laid = layingOf(p);
      const at = Math.floor(p.placed.length / 2);
      const { step, start } = p.placed[at];
      for (const l of laid(step.id, start! + 600)) {
        for (const x of p.placed.slice(0, at)) expect(l.starts.get(x.step.id)!).toBeGreaterThanOrEqual(x.start!);
        expect(l.starts.get(step.id)!).toBeGreaterThanOrEqual(start! + 600);
        expect(l.end).toBeGreaterThan(start! + 600);
      }
      // with none named, nothing holds the first back
      for (const l of laid(null, null))
        expect(l.starts.get(p.placed[0].step.id)!).toBeLessThanOrEqual(p.placed[0].start!);
    }
    const p = plans.find(able)!;
    // one id twice, as only a broken file could bring it: no problem for the scheduler, and no fault of the page
    expect(layingOf({ ...p, placed: [...p.placed, p.placed[0]] })(null, null)).toEqual([]);
    expect(layingOf({ ...p, stuck: "it hangs" })(null, null)).toEqual([]);
    expect(layingOf({ ...p, placed: [] })(null, null)).toEqual([]);
  });
});

test("of a first piece: its own steps stand in its own plan, each with what it uses; the rest in the whole", () => {
  const w = e1();
  const plan = makePlan({ ...w, job: { ...w.job, choices: { ...w.job.choices, proof: true } } });
  const first = plan.first!;
  expect(first.whole).toBe(plan);
  const alone = plan.placed.find((p) => p.cycle.length)!;
  expect(first.uses).toHaveLength(first.placed.length);
  expect(first.placed[first.placed.length - 1].step.id).toBe(alone.step.id);
  first.placed.forEach((p, i) => {
    // a coat on one piece takes paint, what lays nothing takes none
    expect((first.uses[i]?.ml ?? 0) > 0 || (first.uses[i]?.g ?? 0) > 0).toBe(
      ["coat", "powder-fill", "fill"].includes(p.step.kind) && first.uses[i] !== null,
    );
  });
  const all = turns(plan);
  expect(all.map((x) => x.p.step.id)).toEqual(inTurn(plan.placed).map((p) => p.step.id));
  for (const { plan: its, p } of all) expect(its).toBe(planFor(plan, p.step.id));
  expect(all.filter((x) => x.plan === first)).toHaveLength(alone.cycle.length);
});
