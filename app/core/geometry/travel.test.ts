import { many, seeded } from "../testing/worlds";
import { insideOf } from "./blank";
import type { Point, Ring } from "./outline";
import { HAIR_MM, inRunningOrder, once, travelOf, withLeads, withoutHairs, type Path } from "./travel";

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
test("a cut begins in what falls away: outside of the piece, within its holes; the outline itself stays as it was", () => {
  const rnd = seeded(12);
  for (let k = 0; k < many(100); k++) {
    const a = 20 + rnd() * 60;
    const hole = square(4 + rnd() * 4, 4 + rnd() * 4, 0.5 + rnd() * 8);
    const paths = inRunningOrder([square(0, 0, a), hole].map((points) => ({ points, closed: true })));
    const made = withLeads(paths);
    expect(made.map((p) => p.closed)).toEqual([false, true, false, true]);
    const inPiece = (p: Point): boolean => insideOf([square(0, 0, a), hole], p);
    for (const i of [0, 2]) {
      const [from, to] = made[i].points;
      expect(to).toEqual(made[i + 1].points[0]);
      for (const s of [0, 0.3, 0.9])
        expect(inPiece([from[0] + s * (to[0] - from[0]), from[1] + s * (to[1] - from[1])])).toBe(false);
    }
    for (const [made2, was] of [
      [made[1], paths[0]],
      [made[3], paths[1]],
    ])
      // prettier-ignore
      expect(made2.points.slice(1)).toEqual(expect.arrayContaining(was.points));
  }
  // a comb so narrow between its teeth that the lead has to be short
  const comb: Ring = [[0, 0], [10, 0], [10, 50], [9.9, 50], [9.9, 1], [0.1, 1], [0.1, 50], [0, 50]]; // prettier-ignore
  const [lead] = withLeads([{ points: comb, closed: true }]);
  expect(lead.closed).toBe(false);
  expect(withLeads([{ points: square(0, 0, 3).slice(0, 2), closed: false }])).toHaveLength(1);
});
