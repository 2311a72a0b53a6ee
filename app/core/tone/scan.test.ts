/** Rows of outlines against a point-by-point count, margins against true distances. */
import { insideOf } from "../geometry/blank";
import { toSegment } from "../geometry/gap";
import { ellipse } from "../vector/outline";
import { scan, scanWithin } from "./scan";
import { statsOf } from "./stats";

type Ring = [number, number][];
const star: Ring = Array.from({ length: 10 }, (_v, i) => {
  const r = i % 2 ? 9 : 24;
  return [30.3 + r * Math.cos((i * Math.PI) / 5), 28.7 + r * Math.sin((i * Math.PI) / 5)];
});
const hole = ellipse(30, 29, 4, 4, 0.01) as Ring;
const rings = [star, hole];
const [W, H] = [64, 60];

test("a pixel lies inside where its middle does", () => {
  const rows = scan(rings, W);
  for (let y = 0; y < H; y++) {
    const row = [...rows(y)];
    for (let x = 0; x < W; x++) expect([x, y, row[x]]).toEqual([x, y, insideOf(rings, [x + 0.5, y + 0.5]) ? 1 : 0]);
  }
  // asked for again from above
  expect([...rows(20)].some((v) => v === 1)).toBe(true);
});

const edge = (x: number, y: number): number =>
  Math.min(...rings.flatMap((r) => r.map((p, i) => toSegment([x, y], [p, r[(i + 1) % r.length]]))));
test.each([2.5, 0.7, -1.5, -3])("with %f pixels along every edge taken away, or given", (keep) => {
  const rows = scanWithin(rings, W, keep);
  for (let y = 0; y < H; y++) {
    const row = rows(y);
    for (let x = 0; x < W; x++) {
      const [px, py] = [x + 0.5, y + 0.5];
      const d = edge(px, py);
      if (Math.abs(d - Math.abs(keep)) < 1e-6) continue;
      const inside = insideOf(rings, [px, py]);
      const want = keep > 0 ? inside && d > keep : inside || d < -keep;
      expect([x, y, row[x]]).toEqual([x, y, want ? 1 : 0]);
    }
  }
});

test("what is cut off, and how dark a marked part is", () => {
  const [w, h] = [40, 40];
  const y = Float32Array.from({ length: w * h }, (_v, i) => (i % w < 10 ? 0 : i % w < 14 ? 1 : i % w < 27 ? 0.3 : 0.7));
  const s = statsOf({ w, h, y }, [0.5, 0, 1, 0, 1, 1, 0.5, 1]);
  expect([s.black, s.white]).toEqual([0.25, 0.1]);
  expect(s.watchedDark).toBeCloseTo(7 / 20, 2);
  expect(s.histogram.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
  expect(statsOf({ w, h, y }, null).watchedDark).toBeNull();
});
