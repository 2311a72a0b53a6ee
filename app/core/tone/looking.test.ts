/** What is looked for in a picture: too fine, lost in two tones, densities that beat, other light, ways side by side. */
import { beat, perInch } from "./density";
import { finer, tooFine } from "./fine";
import { lostAt } from "./lost";
import { samplesOf } from "./samples";
import { AS_IT_IS, seenIn } from "./seen";
import { randomOf } from "../units/random";
import type { Recipe } from "./render";

const bitmap = (rows: string[]): { at: Uint8Array; w: number; h: number } => ({
  at: Uint8Array.from(rows.join(""), (c) => Number(c === "#")),
  w: rows[0].length,
  h: rows.length,
});

test("finer is what discs leave, as laying every disc that fits would show", () => {
  const dice = randomOf(7);
  for (const [share, width] of [
    [0.15, 3],
    [0.2, 2.5],
    [0.3, 1.5],
  ]) {
    const [w, h] = [31, 23];
    const shape = Uint8Array.from({ length: w * h }, () => Number(dice.next() > share));
    const on = (x: number, y: number): boolean => shape[(y >> 1) * w + (x >> 1)] === 1;
    const covered = new Uint8Array(w * h);
    for (let y = 0; y < 2 * h; y++)
      for (let x = 0; x < 2 * w; x++) {
        // a disc fits where nothing outside lies nearer than half its width; beyond the border all is as it may be
        let fits = true;
        for (let v = 0; v < 2 * h; v++)
          for (let u = 0; u < 2 * w; u++) if (!on(u, v) && Math.hypot(u - x, v - y) < width - 1e-9) fits = false;
        if (!fits) continue;
        for (let v = 0; v < 2 * h; v++)
          for (let u = 0; u < 2 * w; u++)
            if (Math.hypot(u - x, v - y) <= width + 2 + 1e-9) covered[(v >> 1) * w + (u >> 1)] = 1;
      }
    const slow = Array.from(shape, (b, i) => (b && !covered[i] ? 1 : 0));
    expect([...finer(shape, w, h, width)]).toEqual(slow);
    expect(slow).toContain(1);
  }
});
test("a stroke is too fine below the width of the spot, whole above it; its corners are no strokes", () => {
  const stroke = (n: number): { shape: Uint8Array; w: number; h: number } => {
    const [w, h] = [60, 40];
    return {
      w,
      h,
      shape: Uint8Array.from({ length: w * h }, (_v, i) =>
        Number(i % w >= 20 && i % w < 20 + n && i / w >= 5 && i / w < 35),
      ),
    };
  };
  for (const n of [1, 2, 3, 4, 5, 8, 9])
    for (const width of [1.5, 3, 4.5, 6]) {
      const { shape, w, h } = stroke(n);
      const lost = finer(shape, w, h, width).reduce((a, b) => a + b, 0);
      const all = n * 30;
      expect([n, width, lost]).toEqual([n, width, n < width ? all : 0]);
    }
});
test.each([0, 1])(
  "too fine is told apart for strokes and gaps, over tiles as in one, and how much larger would hold (%i)",
  (side) => {
    // bars of 3 pixels with 12 between them, over more than a tile
    const [w, h] = [705, 30];
    const bar = (x: number): number => Number(x % 15 >= 6 && x % 15 < 9);
    const at = (x: number): number => (side ? bar(x) : 1 - bar(x));
    const marked = new Set<number>();
    const found = tooFine(at, w, h, 6, (x, y) => marked.add(y * w + x));
    expect([side ? found.burnt : found.left, side ? found.left : found.burnt]).toEqual([1, 0]);
    expect(found.enlarge).toBe(2);
    expect([...marked].every((i) => bar(i % w) === 1)).toBe(true);
    expect(marked.size).toBe([...Array(w).keys()].filter(bar).length * h);
    expect(tooFine(at, w, h, 3).enlarge).toBe(1);
  },
);
test("what does not count is neither stroke nor gap", () => {
  const { at, w, h } = bitmap(["......", ".####.", "......"]);
  expect(tooFine((x, y) => (at[y * w + x] ? 1 : 2), w, h, 3)).toEqual({ burnt: 0, left: 0, enlarge: 1 });
});

test("two tones lose the faint parts, dark and light, and the threshold told brings each back", () => {
  const [w, h] = [120, 60];
  const v = new Float32Array(w * h).fill(0.95);
  const box = (x0: number, y0: number, n: number, tone: number): void => {
    for (let y = y0; y < y0 + n; y++) v.fill(tone, y * w + x0, y * w + x0 + n);
  };
  box(5, 5, 40, 0.1); // ink
  box(15, 15, 6, 0.35); // a light part in it, lost at 0.3 no more: it is above it
  box(30, 30, 5, 0.22); // a light part in the ink that a threshold of 0.3 loses
  box(70, 10, 10, 0.6); // a faint dark part on the ground
  box(90, 30, 1, 0.5); // a speck
  const lost = lostAt(v, w, h, 0.3, 4);
  expect(lost.parts.map((p) => [p.dark, p.x0, p.y0, p.x1, p.y1, p.pixels])).toEqual([
    [true, 70, 10, 80, 20, 100],
    [false, 30, 30, 35, 35, 25],
  ]);
  expect(lost.dark!).toBeGreaterThan(0.6);
  expect(lost.dark!).toBeLessThan(0.61);
  expect(lost.light!).toBeLessThan(0.22);
  expect(lost.light!).toBeGreaterThan(0.21);
  for (const [at, dark] of [
    [lost.dark!, true],
    [lost.light!, false],
  ] as const)
    expect(lostAt(v, w, h, at, 4).parts.filter((p) => p.dark === dark)).toEqual([]);
  expect(lostAt(new Float32Array(100).fill(0.5), 10, 10, 0.6, 1).parts).toEqual([]);
});

test("densities that differ beat: 300 against 318 every 17.7 lines, and not at all where they are the same", () => {
  expect(beat(300, 318)!).toBeCloseTo(17.667, 3);
  expect(beat(318, 300)!).toBeCloseTo(16.667, 3);
  expect(beat(254, perInch(0.1))).toBeNull();
  expect(beat(254.1, 254)).toBeNull();
  expect(perInch(0.08)).toBeCloseTo(317.5, 6);
});

test("gloss deepens every colour and dark ones most; a lamp is warm and dim; as it is nothing changes", () => {
  const ys = [0, 0.01, 0.05, 0.2, 0.5, 1];
  for (const y of ys) expect(seenIn(y, 1, AS_IT_IS)).toBe(y);
  const deep = ys.map((y) => seenIn(y, 0, { sealed: true, lamp: false }));
  deep.forEach((d, i) => {
    expect(d).toBeLessThanOrEqual(ys[i]);
    if (i) expect(d).toBeGreaterThan(deep[i - 1]);
    if (i > 1) expect(d / ys[i]).toBeGreaterThan(deep[i - 1] / ys[i - 1]);
  });
  const [r, g, b] = [0, 1, 2].map((q) => seenIn(0.5, q, { sealed: false, lamp: true }));
  expect(r).toBeGreaterThan(g);
  expect(g).toBeGreaterThan(b);
  expect(r).toBeLessThan(0.5);
});

test("ways side by side: each kind of dots once, the one in force not offered; a wide interval says stripes", () => {
  const r = { render: "stucki", intervalMm: 0.1, dots: { serpentine: false, perCm: 20, angle: 45 } } as Recipe;
  const dots = samplesOf("dots", r, 0.15);
  expect(dots).toHaveLength(13);
  expect(dots.filter((s) => !s.other).map((s) => s.render)).toEqual(["stucki"]);
  expect(samplesOf("interval", r, 0.2).map((s) => [s.times, /stripes/.test(s.says), s.other])).toEqual([
    [0.5, false, false],
    [1, false, false],
    [1.5, true, false],
    [2, true, false],
  ]);
  expect(
    samplesOf("screen", { ...r, render: "dot-screen" }, 0.2)
      .filter((s) => !s.other)
      .map((s) => s.dots.angle),
  ).toEqual([45]);
  expect(samplesOf("lines", r, null).map((s) => [s.upright, s.dots.serpentine, s.other])).toEqual([
    [false, false, false],
    [true, false, false],
    [false, true, true],
  ]);
  expect(samplesOf("lines", { ...r, render: "grey" }, null)).toHaveLength(2);
});
