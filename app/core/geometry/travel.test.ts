import { many, seeded } from "../testing/worlds";
import { insideOf } from "./blank";
import type { Point, Ring } from "./outline";
import { HAIR_MM, inRunningOrder, once, travelOf, withoutHairs, type Path } from "./travel";

const square = (x: number, y: number, a: number): Ring => [
  [x, y],
  [x + a, y],
  [x + a, y + a],
  [x, y + a],
];
const edges = (p: Path): string[] =>
  p.points.flatMap((a, i) => {
    if (!p.closed && i === p.points.length - 1) return [];
    const b = p.points[(i + 1) % p.points.length];
    return [[a, b].map(String).sort().join("|")];
  });

test("corners nearer than a hair go; what is less than a triangle then is nothing", () => {
  const r = withoutHairs([[0, 0], [0.004, 0], [10, 0], [10, 10], [10, 10.005], [0, 10], [0, 0.003]])!; // prettier-ignore
  expect(r).toHaveLength(4);
  r.forEach((p, i) => {
    const q = r[(i + 1) % r.length];
    expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeGreaterThanOrEqual(HAIR_MM);
  });
  expect(withoutHairs([[0, 0], [0.001, 0], [5, 5]])).toBeNull(); // prettier-ignore
});
test("a border that two share is run once, all others exactly once too", () => {
  const rings = [square(0, 0, 10), square(10, 0, 10), square(0, 10, 10), square(50, 50, 5)];
  const paths = once(rings);
  const all = paths.flatMap(edges);
  expect(new Set(all).size).toBe(all.length);
  const want = new Set(rings.flatMap((r) => edges({ points: r, closed: true })));
  expect(new Set(all)).toEqual(want);
  expect(paths.filter((p) => p.closed)).toHaveLength(2);
  expect(once([square(0, 0, 10), square(0, 0, 10)])).toHaveLength(1);
});
test("inner lines come before what holds them; none is lost; travel is no longer than as they came", () => {
  const rnd = seeded(3);
  for (let k = 0; k < many(60); k++) {
    const paths: Path[] = Array.from({ length: 3 + Math.floor(rnd() * 12) }, () => ({
      points: square(rnd() * 200, rnd() * 200, 4 + rnd() * 30),
      closed: rnd() < 0.8,
    }));
    const out = inRunningOrder(paths);
    expect(out.flatMap(edges).sort()).toEqual(paths.flatMap(edges).sort());
    const outer = (p: Path) => out.filter((o) => o !== p && o.closed && insideOf([o.points], p.points[0])).length;
    out.forEach((p, i) => {
      for (const q of out.slice(i + 1)) expect(outer(q)).toBeLessThanOrEqual(outer(p) + out.length);
    });
    const flat = Array.from({ length: 14 }, (): Path => ({
      points: square(rnd() * 900, rnd() * 900, 3),
      closed: true,
    }));
    const from: Point = [0, 0];
    expect(travelOf(inRunningOrder(flat), from)).toBeLessThanOrEqual(travelOf(flat, from) + 1e-9);
  }
  const [inner, outerRing] = [square(40, 40, 10), square(0, 0, 100)];
  const order = inRunningOrder([outerRing, inner].map((points) => ({ points, closed: true })));
  expect(order[0].points.flat().sort((a, b) => a - b)[0]).toBe(40);
});
