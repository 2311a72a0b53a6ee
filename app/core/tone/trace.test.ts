/** Flat pictures into areas: colours found, specks lost and told, borders shared without gap or overlap, areas kept, corners kept. */
import { insideOf } from "../geometry/blank";
import { ringArea } from "../vector/clip";
import { linear } from "../models/film/colour";
import { randomOf } from "../units/random";
import type { Pixels } from "./source";
import { CLEAR, coloursIn, despeckled, type Flat, quantised } from "./quantise";
import { traced } from "./trace";

const rgb = (hex: string): number[] => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
/** A picture of colours by name. @param soft edges as a drawing program smooths them */
function picture(w: number, h: number, of: (x: number, y: number) => string | null, soft = false): Pixels {
  const at = (x: number, y: number): number[] => {
    const c = of(x, y);
    return c ? [...rgb(c), 255] : [0, 0, 0, 0];
  };
  const pixel = (x: number, y: number): number[] => {
    if (!soft) return at(x + 0.5, y + 0.5);
    const s = [0.25, 0.75].flatMap((a) => [0.25, 0.75].map((b) => at(x + a, y + b)));
    return [0, 1, 2, 3].map((k) => Math.round(s.reduce((n, v) => n + v[k], 0) / 4));
  };
  const rows = Array.from({ length: h }, (_r, y) =>
    Uint8Array.from(Array.from({ length: w }, (_c, x) => pixel(x, y)).flat()),
  );
  return { w, h, channels: 4, max: 255, row: (y) => rows[y] };
}
const disc = (x: number, y: number, cx: number, cy: number, r: number): boolean => Math.hypot(x - cx, y - cy) < r;
const badge = (x: number, y: number): string =>
  disc(x, y, 60, 50, 12)
    ? "#f3b61f"
    : disc(x, y, 60, 50, 34)
      ? "#d8432f"
      : x > 20 && x < 100 && y > 10 && y < 90
        ? "#2b6fa6"
        : "#f4f2ee";
/** area by even and odd */
const area = (rings: [number, number][][]): number => Math.abs(rings.reduce((s, r) => s + ringArea(r), 0));

test("as many colours as were drawn are proposed and found, soft edges or not", () => {
  for (const soft of [false, true]) {
    const p = picture(120, 100, badge, soft);
    expect(coloursIn(p)).toBe(4);
    const f = quantised(p, 4);
    expect([...f.colours].sort()).toEqual(["#2b6fa6", "#d8432f", "#f3b61f", "#f4f2ee"]);
    expect(f.pixels.reduce((a, b) => a + b, 0)).toBe(12_000);
  }
  expect(coloursIn(picture(8, 8, () => "#123456"))).toBe(1);
  expect(coloursIn(picture(8, 8, () => null))).toBe(0);
});
test("a locked colour stays as it is; clear pixels have none; too many are refused", () => {
  const p = picture(40, 40, (x) => (x < 10 ? null : x < 25 ? "#cc3322" : "#f0f0f0"));
  const f = quantised(p, 2, [[...linear("#d8432f")]]);
  expect(f.colours).toContain("#d8432f");
  expect(f.label.filter((v) => v === CLEAR)).toHaveLength(400);
  expect(() => quantised(p, 0)).toThrow(/Between 1 and 24/);
});
test("the same picture gives the same areas", () => {
  const p = picture(120, 100, badge, true);
  expect(traced(quantised(p, 4))).toEqual(traced(quantised(p, 4)));
});
test("specks go to the neighbour that they touch most, and are counted", () => {
  const p = picture(60, 60, (x, y) =>
    disc(x, y, 20, 20, 1.6) || (x > 50 && x < 52 && y > 50 && y < 52)
      ? "#111111"
      : disc(x, y, 20, 20, 12)
        ? "#d8432f"
        : "#f4f2ee",
  );
  const f = quantised(p, 3);
  const black = f.colours.indexOf("#111111");
  expect(f.label.includes(black)).toBe(true);
  const lost = despeckled(f, 16);
  expect(lost.parts).toBe(2);
  expect(f.label.includes(black)).toBe(false);
  expect(f.colours[f.label[20 * 60 + 20]]).toBe("#d8432f");
  expect(f.colours[f.label[51 * 60 + 51]]).toBe("#f4f2ee");
});

/** how often each of many places lies in an area */
function covered(f: Flat, all: ReturnType<typeof traced>, n: number): Map<number, number> {
  const r = randomOf(5);
  const times = new Map<number, number>();
  for (let i = 0; i < n; i++) {
    const p: [number, number] = [r.next() * f.w, r.next() * f.h];
    const k = all.filter((t) => insideOf(t.rings, p)).length;
    times.set(k, (times.get(k) ?? 0) + 1);
  }
  return times;
}
test.each([false, true])(
  "neighbours share their borders: every place lies in one area, and areas are kept to a tenth of a per cent (soft: %s)",
  (soft) => {
    const f = quantised(picture(120, 100, badge, soft), 4);
    const all = traced(f);
    expect([...covered(f, all, 4000)]).toEqual([[1, 4000]]);
    expect(all.reduce((s, t) => s + area(t.rings), 0)).toBeCloseTo(120 * 100, 6);
    const of = (c: string): number => area(all.find((t) => t.colour === c)!.rings);
    for (const t of all) expect([t.colour, Math.abs(area(t.rings) / t.pixels - 1) < 0.006]).toEqual([t.colour, true]);
    // and near what was drawn, which pixels only come near
    expect(Math.abs(of("#f3b61f") / (Math.PI * 144) - 1)).toBeLessThan(0.02);
    expect(Math.abs(of("#d8432f") / (Math.PI * (34 ** 2 - 144)) - 1)).toBeLessThan(0.01);
  },
);
test("a larger one keeps its areas to a thousandth", () => {
  const f = quantised(
    picture(600, 500, (x, y) => badge(x / 5, y / 5)),
    4,
  );
  for (const t of traced(f))
    expect([t.colour, Math.abs(area(t.rings) / t.pixels - 1) < 0.001]).toEqual([t.colour, true]);
});
test("corners stay where they are, slopes are straight, no place is off by more than half a pixel", () => {
  const square = traced(
    quantised(
      picture(40, 30, (x, y) => (x > 10 && x < 30 && y > 5 && y < 25 ? "#111111" : "#ffffff")),
      2,
    ),
  ).find((t) => t.colour === "#111111")!;
  expect(square.rings).toHaveLength(1);
  expect(square.rings[0].map((p) => p.join()).sort()).toEqual(["10,25", "10,5", "30,25", "30,5"]);
  const slope = traced(
    quantised(
      picture(60, 60, (x, y) => (y > 0.5 * x + 10 ? "#111111" : "#ffffff")),
      2,
    ),
  ).find((t) => t.colour === "#111111")!;
  expect(slope.rings[0].length).toBeLessThan(14);
  for (const [x, y] of slope.rings[0])
    if (x > 1 && x < 59 && y < 58) expect(Math.abs(y - (0.5 * x + 10))).toBeLessThan(0.75);
});
test("nothing but noise is traced without a gap too", () => {
  const r = randomOf(3);
  const label = Uint8Array.from({ length: 24 * 20 }, () => Math.floor(r.next() * 3));
  const f: Flat = {
    w: 24,
    h: 20,
    label,
    colours: ["#000001", "#000002", "#000003"],
    pixels: [0, 1, 2].map((k) => label.filter((v) => v === k).length),
  };
  const all = traced(f);
  expect(all.reduce((s, t) => s + area(t.rings), 0)).toBeCloseTo(480, 6);
});
