import { a1, e1 } from "../testing/worlds";
import { makePlan } from "../plan/plan";
import { open } from "../judge/judge";
import type { World } from "../records/world";
import { missedWindow, waysOutOf } from "./missed";
import { hex, type Rgb } from "../models/film/colour";
import { shown, zoneOf } from "../piece/state";
import { own } from "../process/kinds";
import { brief } from "../testing/briefs";
import { doneUpTo } from "../testing/done";
import { gatesOf } from "./gates";
import { standing } from "./next";

/** Steps up to and with `last` done as planned. */
function doneThrough(w: World, last: string): { world: World; end: number } {
  const p = makePlan(w);
  const k = p.placed.findIndex((x) => x.step.id === last);
  return { world: doneUpTo(w, p, k + 1), end: p.placed[k].end as number };
}
const FIRST = "coat.colour.poppy.1";

describe("a recoat window that was missed", () => {
  const { world, end } = doneThrough(a1(), FIRST);

  test("inside the window there is nothing to offer; past it, it is called missed; after it reopens, all is well", () => {
    expect(standing(makePlan(world, end + 20), end + 20).is).toBe("ready");
    const late = end + 90;
    const p = makePlan(world, late);
    const s = standing(p, late);
    expect(s.is).toBe("missed");
    if (s.is !== "missed") return;
    expect(s.closes).toBeLessThan(late);
    expect(missedWindow(s.step, late)).not.toBeNull();
    const again = s.reopens as number;
    expect(standing(makePlan(world, again), again).is).toBe("ready");
  });

  test("wait, scuff and strip are each a plan to the end, with no window broken and nothing that ruins the piece", () => {
    const late = end + 90;
    const p = makePlan(world, late);
    const s = standing(p, late);
    if (s.is !== "missed") throw new Error("not missed");
    const ways = waysOutOf(world, p, s.step, late);
    expect(ways.map((w) => w.id)).toEqual(["wait", "scuff", "strip"]);
    for (const way of ways) {
      const after = makePlan(way.apply(world), late);
      expect([way.id, after.ready]).toEqual([way.id, way.ready]);
      expect([
        way.id,
        open(after)
          .filter((x) => x.rule === 21 || x.severity === "stop")
          .map((x) => x.why),
      ]).toEqual([way.id, []]);
      expect(after.unfit).toEqual([]);
    }
    const [wait, scuff, strip] = ways;
    // scuffing waits for sandable (24 h), not for the window (48 h)
    expect(scuff.ready!).toBeLessThan(wait.ready!);
    const scuffed = makePlan(scuff.apply(world), late);
    expect(standing(scuffed, late)).toMatchObject({ is: "waiting", need: { state: "sandable" } });
    const next = scuffed.placed.find((x) => x.step.id === "coat.colour.poppy.2")!;
    expect(next.needs.filter((n) => n.state === "recoat")).toEqual([]);
    // stripping lays the coat again and pays its paint twice
    const stripped = makePlan(strip.apply(world), late);
    const coats = (x: typeof p): number =>
      x.placed.filter((y) => y.step.kind === "coat" && y.step.productId === "poppy").length;
    expect(coats(stripped)).toBe(coats(p) + 1);
    expect(
      stripped.amounts.find((x) => x.product === "poppy")!.ml! / p.amounts.find((x) => x.product === "poppy")!.ml!,
    ).toBeCloseTo((coats(p) + 1) / coats(p), 6);
    const stripAt = stripped.placed.findIndex((x) => x.step.kind === "strip");
    expect(stripped.placed[stripAt].after.zones.every((z) => z.films.length === 0)).toBe(true);
    expect(stripped.placed[stripAt + 1].step.kind).toBe("degrease");
    expect(stripped.placed[stripAt + 2].after.zones.every((z) => z.films.length === 1)).toBe(true);
  });

  test("doing it twice makes further steps, not the same ones", () => {
    const late = end + 90;
    const once = waysOutOf(
      world,
      makePlan(world, late),
      makePlan(world, late).placed.find((x) => x.step.id === "coat.colour.poppy.2")!,
      late,
    )[1].apply(world);
    const ids = makePlan(once, late).placed.map((x) => x.step.id);
    expect(new Set(ids).size).toBe(ids.length);
  });

  test("paint that never shuts is never missed", () => {
    const { world: w, end: t } = doneThrough(e1(), "coat.seal.1");
    expect(standing(makePlan(w, t + 50000), t + 50000).is).toBe("ready");
  });
});

/** Colours of the finished face, zone by zone. */
const faceOf = (p: ReturnType<typeof makePlan>): string[] => {
  const { allZones, substrate, paintOf } = p.context;
  const last = p.placed[p.placed.length - 1].after;
  return allZones.map((z) => hex(shown(last, zoneOf(last, z), substrate.colour, paintOf) as Rgb));
};

test("of every route: each way out of a window that was missed ends with the face that was meant", () => {
  const met = { wait: 0, scuff: 0, strip: 0 };
  let lifts = 0;
  for (let n = 0; n < 60; n += 2) {
    const w = brief(n);
    const plain = makePlan(w, null, true);
    const k = plain.placed.findIndex(
      (p, i) => i > 0 && p.needs.some((r) => r.closes !== null && r.closes > plain.placed[i - 1].end!),
    );
    if (k < 0 || plain.ready === null) continue;
    const { world } = doneThrough(w, plain.placed[k - 1].step.id);
    const r = plain.placed[k].needs.find((x) => x.closes !== null)!;
    const late = Math.ceil(r.closes!) + 7;
    const p = makePlan(world, late, true);
    const s = standing(p, late);
    if (s.is !== "missed") continue;
    for (const way of waysOutOf(world, p, s.step, late)) {
      met[way.id]++;
      if (r.state === "lift") lifts++;
      expect([w.job.id, way.id, r.state === "lift" ? way.id : "wait"]).toEqual([w.job.id, way.id, "wait"]);
      const after = makePlan(way.apply(world), late, true);
      expect([w.job.id, way.id, faceOf(after)]).toEqual([w.job.id, way.id, faceOf(p)]);
      expect([w.job.id, way.id, after.ready]).toEqual([w.job.id, way.id, way.ready]);
    }
  }
  expect([met.wait > 3, met.scuff > 3, met.strip > 0, lifts > 0]).toEqual([true, true, true, true]);
});

test("stripped after the uncovering: it is placed, uncovered and dusted anew, not only painted", () => {
  const w = a1({
    products: a1().products.map((x) =>
      x.id === "clear" ? { ...x, times: { ...x.times, closes: 60, reopens: 2880 } } : x,
    ),
  });
  const plain = makePlan(w, null, true);
  const clear = plain.placed.findIndex((p) => own(p.step, "role") === "clear" && own(p.step, "coat") === 2);
  const { world, end } = doneThrough(w, plain.placed[clear - 1].step.id);
  const p = makePlan(world, end + 90, true);
  const s = standing(p, end + 90);
  expect(s.is).toBe("missed");
  if (s.is !== "missed") return;
  const strip = waysOutOf(world, p, s.step, end + 90).find((x) => x.id === "strip")!;
  const kinds = makePlan(strip.apply(world), end + 90, true).placed.map((x) => x.step.kind);
  expect(kinds.slice(kinds.indexOf("strip"))).toContain("reveal");
  expect(kinds.slice(kinds.indexOf("strip"))).toContain("pre-flight");
});

test("a reopening that the plan itself meant is waited for, not missed", () => {
  // open for half an hour a day: the second coat can't come within the hour
  const day: [string, string] = ["09:00", "09:20"];
  const w = a1();
  const hours = { mon: day, tue: day, wed: day, thu: day, fri: day, sat: day, sun: day };
  const short = { ...w, job: { ...w.job, quantity: 1 }, shop: { ...w.shop, hours } };
  const { world, end } = doneThrough(short, FIRST);
  const late = end + 90;
  const p = makePlan(world, late, true);
  const s = standing(p, late);
  expect(s.is).toBe("waiting");
  if (s.is !== "waiting") return;
  expect(s.opens).toBeGreaterThan(late);
  expect(s.opens).toBe(s.need.reopens);
});

test("a mask past lifting clean is cut along its edge first, and lifted: it is ready, behind a tick", () => {
  let met = 0;
  for (const n of [122, 123]) {
    const plain = makePlan(brief(n), null, true);
    const k = plain.placed.findIndex((p) =>
      p.needs.some((r) => r.state === "lift" && r.closes !== null && r.reopens === null),
    );
    if (k < 1) continue;
    const { world } = doneThrough(brief(n), plain.placed[k - 1].step.id);
    const late = plain.placed[k].needs.find((r) => r.state === "lift")!.closes! + 3000;
    const p = makePlan(world, late, true);
    const s = standing(p, late);
    if (s.is !== "ready") continue;
    met++;
    const edge = gatesOf(p, s.step).map((g) => g.id);
    expect([n, edge.includes("edge")]).toEqual([n, true]);
    const early = makePlan(doneThrough(brief(n), plain.placed[k - 1].step.id).world, plain.placed[k].start, true);
    // so cold that it is brittle before it is firm enough to lift at all: then it is cut at any time
    const never = plain.placed[k].start! > plain.placed[k].needs.find((r) => r.state === "lift")!.closes!;
    expect(
      gatesOf(early, early.placed[k])
        .map((g) => g.id)
        .includes("edge"),
    ).toBe(never);
  }
  expect(met).toBeGreaterThan(0);
});
