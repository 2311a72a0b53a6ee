import { loadClip } from "../../door/kernel";
import { bedLoads } from "../models/laser/runtime";
import { Substrate } from "../records/job";
import { many, seeded } from "../testing/worlds";
import { area } from "../vector/clip";
import { bedLayout, BED_GAP_MM, clearOfBed, laidAt, marks, NEST_CLEAR_MM, nestOf, squareness } from "./bed";
import { blankOf } from "./blank";
import { toSegment } from "./gap";
import { rotationHidden } from "./registration";
import type { Point } from "./outline";

test("pieces lie in rows with room between, none off the bed, as many as the plan counts", () => {
  const rnd = seeded(5);
  for (let k = 0; k < many(400); k++) {
    const [w, h] = [5 + rnd() * 200, 5 + rnd() * 200];
    const bed = { w: 50 + rnd() * 700, h: 50 + rnd() * 500 };
    const n = 1 + Math.floor(rnd() * 60);
    const told = bedLoads(n, w, h, bed.w, bed.h);
    const found = bedLayout(n, { w, h }, bed);
    expect(found?.perLoad ?? 0).toBe(told.perLoad);
    if (!found) continue;
    expect(found.loads.length).toBe(told.loads);
    expect(found.loads.flat().map((p) => p.piece)).toEqual(Array.from({ length: n }, (_v, i) => i + 1));
    const [pw, ph] = found.turned ? [h, w] : [w, h];
    for (const load of found.loads)
      load.forEach((p, i) => {
        expect(Math.min(p.x, p.y, bed.w - p.x - pw, bed.h - p.y - ph)).toBeGreaterThanOrEqual(-1e-9);
        for (const q of load.slice(i + 1)) {
          const gap = Math.max(Math.abs(p.x - q.x) - pw, Math.abs(p.y - q.y) - ph);
          expect(gap).toBeGreaterThanOrEqual(BED_GAP_MM - 1e-9);
        }
      });
  }
});
test("a turned piece lies within its place, the same size", () => {
  const r = laidAt([[0, 0], [30, 0], [30, 10], [0, 10]], [100, 50], true, 10); // prettier-ignore
  expect(Math.min(...r.map((p) => p[0]))).toBe(100);
  expect(Math.max(...r.map((p) => p[0]))).toBe(110);
  expect(Math.max(...r.map((p) => p[1]))).toBe(80);
});
test("a start leaves the bed exactly where a corner of what is burnt, with its run, lies beyond it; moved as told it does not", () => {
  const rnd = seeded(9);
  for (let k = 0; k < many(400); k++) {
    const art = { w: 10 + rnd() * 300, h: 10 + rnd() * 300 };
    const bed = { w: 200 + rnd() * 300, h: 200 + rnd() * 300 };
    const run = rnd() * 20;
    const start: Point = [rnd() * bed.w, rnd() * bed.h];
    const anchor = rnd() < 0.5 ? "corner" : "middle";
    const c = clearOfBed(art, start, anchor, run, bed);
    const x0 = anchor === "corner" ? start[0] : start[0] - art.w / 2;
    const y0 = anchor === "corner" ? start[1] : start[1] - art.h / 2;
    const inside = x0 - run >= 0 && y0 >= 0 && x0 + art.w + run <= bed.w && y0 + art.h <= bed.h;
    expect(c.clear).toBe(inside);
    const fits = art.w + 2 * run <= bed.w && art.h <= bed.h;
    expect(c.move !== null).toBe(c.clear || fits);
    if (!c.move) continue;
    const there = clearOfBed(art, [start[0] + c.move[0], start[1] + c.move[1]], anchor, run, bed);
    expect(Math.max(...Object.values(there.over))).toBeLessThan(1e-9);
  }
});
test("two readings give the angle back that a piece was turned by, whichever end is read first", () => {
  for (const deg of [-3, -0.2, 0, 0.4, 2]) {
    const t = (deg * Math.PI) / 180;
    const a: Point = [20, 30];
    const b: Point = [20 + 90 * Math.cos(t), 30 + 90 * Math.sin(t)];
    const piece = { w: 120, h: 60 };
    for (const s of [squareness(a, b, piece, 1)!, squareness(b, a, piece, 1)!]) {
      expect(s.degrees).toBeCloseTo(deg, 9);
      expect(s.pushMm).toBeCloseTo(120 * Math.sin(t), 9);
      expect(s.hidden).toBe(Math.abs(deg) <= rotationHidden(120, 60, 1));
    }
  }
  expect(squareness([5, 0], [5, 40], { w: 100, h: 60 }, 1)).toBeNull();
});
test("a nest clears its blank all round, seats square corners and has a notch; a blank of its own outline too", async () => {
  const clip = await loadClip();
  for (const s of [
    { ...new Substrate(), w: 80, h: 50, t: 5 },
    { ...new Substrate(), w: 80, h: 50, t: 5, blank: { form: "oval" as const } },
    { ...new Substrate(), w: 60, h: 60, t: 5, blank: { form: "path" as const, path: "M0 20L30 0L60 20L50 60L10 60Z" } },
  ]) {
    const open = nestOf(s, clip);
    const own = blankOf(s);
    expect(area(open)).toBeGreaterThan(own.areaMm2);
    const edges = open.flatMap((r) => r.map((p, i): [Point, Point] => [p, r[(i + 1) % r.length]]));
    for (const p of own.rings[0]) {
      const gap = Math.min(...edges.map((e) => toSegment(p, e)));
      expect(gap).toBeGreaterThanOrEqual(NEST_CLEAR_MM - 0.005);
    }
    expect(Math.max(...open.flat().map((p) => p[0]))).toBeGreaterThan(s.w + 4);
  }
});
test("two marks lie on the bed, at corners across from each other", () => {
  const all = marks({ w: 400, h: 300 }).flat();
  expect(Math.min(...all.flat())).toBeGreaterThan(0);
  expect(Math.max(...all.map((p) => p[0]))).toBeLessThan(400);
  expect(Math.max(...all.map((p) => p[1]))).toBeLessThan(300);
});
