import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { loadClip } from "../../door/kernel";
import { letter } from "../../io/lettering";
import { zonesApi } from "../../workers/zones-api";
import { many, seeded } from "../testing/worlds";
import { combine, fitLines, groupMiddle } from "./shapes";
import { pathOf, ringsOf, type Ring } from "./outline";

const box = (x: number, y: number, w: number, h: number): string =>
  pathOf([
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ],
  ]);

test("joined, cut and shared areas add up: A ∪ B = A + B − A ∩ B, A − B = A − A ∩ B", async () => {
  const clip = await loadClip();
  const rnd = seeded(2);
  for (let k = 0; k < many(60); k++) {
    const [x, y, w, h] = [rnd() * 20, rnd() * 20, 5 + rnd() * 20, 5 + rnd() * 20];
    const [a, b] = [box(0, 0, 20, 15), box(x, y, w, h)];
    const over = Math.max(0, Math.min(20, x + w) - x) * Math.max(0, Math.min(15, y + h) - y);
    const join = combine("join", a, b, 0, clip);
    expect(join.shared).toBeCloseTo(over, 2);
    expect(join.shape!.areaMm2).toBeCloseTo(300 + w * h - over, 2);
    expect(combine("cut", a, b, 0, clip).shape!.areaMm2).toBeCloseTo(300 - over, 2);
    const share = combine("share", a, b, 0, clip).shape;
    if (over < 1e-3) expect(share).toBeNull();
    else expect(share!.areaMm2).toBeCloseTo(over, 2);
  }
  expect(combine("cut", box(1, 1, 2, 2), box(0, 0, 9, 9), 0, clip).shape).toBeNull();
});
test("a border of b round a w × h box has 2b(w + h) + πb²; inwards w·h less what is left", async () => {
  const clip = await loadClip();
  const out = combine("border", box(10, 10, 30, 20), "", 2, clip).shape!;
  expect(out.areaMm2).toBeCloseTo(2 * 2 * 50 + Math.PI * 4, 1);
  expect(out.holes).toBe(1);
  expect(out.narrowestMm).toBeCloseTo(2, 1);
  expect(combine("border", box(10, 10, 30, 20), "", -2, clip).shape!.areaMm2).toBeCloseTo(600 - 26 * 16, 1);
  expect(combine("grow", box(10, 10, 30, 20), "", -2, clip).shape!.areaMm2).toBeCloseTo(26 * 16, 2);
  expect(combine("grow", box(0, 0, 3, 3), "", -2, clip).shape).toBeNull();
});
test("a group goes to the middle by the box round all of it", () => {
  const g = groupMiddle([{ outline: box(0, 0, 10, 10) }, { outline: box(30, 20, 10, 4) }, { outline: "" }], [50, 30])!;
  expect([g.x1, g.y1]).toEqual([40, 24]);
  expect(g.move).toEqual([30, 18]);
  expect(groupMiddle([{ outline: "" }], [0, 0])).toBeNull();
});
test("lines fill their block by width or by height, whichever bounds first", () => {
  const wide = fitLines([5, 10], 0.7, 1.25, 100, 100);
  expect(wide).toMatchObject({ size: 10, widest: 1 });
  expect(wide.capMm).toBeCloseTo(7, 12);
  const high = fitLines([1, 1], 0.7, 1.25, 100, 39);
  expect(high.widest).toBeNull();
  expect(high.size).toBeCloseTo(39 / 1.95, 9);
  expect(() => fitLines([1], 0.7, 1.25, 0, 10)).toThrow(RangeError);
});

const FONT = readFileSync(
  createRequire(import.meta.url).resolve(
    "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff",
  ),
);
const extent = (rings: Ring[], k: 0 | 1): [number, number] => {
  const all = rings.flat().map((p) => p[k]);
  return [Math.min(...all), Math.max(...all)];
};
test("letters lie within their block, capitals as high as told; twice the block, twice the size; unknown signs are named", () => {
  for (const lines of [["BEET"], ["Kale", "and marigold"], ["A", "B", "C"]]) {
    const made = letter(FONT, lines, 80, 30);
    const [x0, x1] = extent(made.rings, 0);
    expect(x0).toBeGreaterThan(-1.5);
    expect(x1).toBeLessThan(81.5);
    expect(letter(FONT, lines, 160, 60).size).toBeCloseTo(2 * made.size, 6);
  }
  const cap = letter(FONT, ["HEH"], 60, 20);
  const [y0, y1] = extent(cap.rings, 1);
  expect(y1 - y0).toBeCloseTo(cap.capMm, 1);
  expect(letter(FONT, ["A☃"], 60, 20).lacks).toEqual(["☃"]);
  expect(() => letter(FONT, ["", " "], 60, 20)).toThrow("nothing to letter");
});
test("the worker gives letters as one measured shape", async () => {
  const api = zonesApi(loadClip, undefined, () => Promise.resolve(new Uint8Array(FONT)));
  const made = await api.letter(["O I"], 60, 20, true);
  expect(made.shape!.pieces).toBe(2);
  expect(made.shape!.holes).toBe(1);
  expect(ringsOf(made.shape!.outline)).toHaveLength(3);
  expect((await api.combine("join", box(0, 0, 2, 2), box(1, 1, 2, 2), 0)).shape!.areaMm2).toBeCloseTo(7, 3);
});
