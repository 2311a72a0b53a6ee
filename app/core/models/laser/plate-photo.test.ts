/** Photos of test plates read: what the camera saw is known, so each cell is held against it. */
import { cellColour, HAND_HELD, openAt, photograph, type PlateTruth } from "../../../simulators/plate-camera";
import { many } from "../../testing/worlds";
import { randomOf } from "../../units/random";
import { lightTable } from "../../tone/light";
import { linear, type Rgb } from "../film/colour";
import {
  cornersOf,
  homography,
  marksOf,
  patchesOf,
  readPatches,
  type PlateGrid,
  type StackColours,
} from "./plate-photo";
import type { PlateRead } from "../../records/ids";

const STACKS: StackColours[] = [
  { top: linear("#17161b"), under: linear("#d8432f"), below: linear("#f4f2ea") },
  { top: linear("#1d1c20"), under: linear("#f3b61f"), below: linear("#8a6a45") },
  { top: linear("#20242c"), under: linear("#f0efe9"), below: null },
  { top: linear("#2b1f1a"), under: linear("#2f7fb5"), below: linear("#f6f6f2") },
];
const grid = (rows: number, cols: number): PlateGrid => ({ rows, cols, x0: 14, y0: 14, cellMm: 8, gapMm: 2 });
const LIGHT = lightTable(255);
const EDGE = 0.025;
const named = (share: number): PlateRead => (share < EDGE ? "whole" : share > 1 - EDGE ? "gone" : "partly");

function plate(seed: number) {
  const r = randomOf(seed * 977 + 5);
  const stack = STACKS[seed % STACKS.length];
  const g = grid(4 + r.below(3), 4 + r.below(4));
  const c1 = 0.3 + 0.5 * r.next();
  const t: PlateTruth = {
    c1,
    s1: 0.08 + 0.1 * r.next(),
    c2: stack.below ? c1 * (1.8 + r.next()) : null,
    s2: 0.08 + 0.08 * r.next(),
  };
  const n = g.rows * g.cols;
  const energies = Array.from({ length: n }, (_v, k) => c1 * 0.35 * 9 ** (k / (n - 1)));
  const e = (row: number, col: number): number => energies[row * g.cols + col];
  const { photo, marks } = photograph(g, stack.top, (row, col) => cellColour(stack, t, e(row, col)), {
    ...HAND_HELD,
    seed,
  });
  // the maker thinks to know it to a fifth or so
  const off = Math.exp(0.3 * (2 * r.next() - 1));
  const guess = (x: number) => openAt({ ...t, c1: t.c1 * off, c2: t.c2 === null ? null : t.c2 * off }, x);
  return { stack, g, t, e, photo, marks, guess };
}

test("200 photos, blurred, askew, grainy, unevenly lit: 98 of 100 cells are read right at least, and what is wrong is unsure", () => {
  let [cells, right, silent, unsure] = [0, 0, 0, 0];
  for (let seed = 1; seed <= many(200); seed++) {
    const { stack, g, t, e, photo, marks, guess } = plate(seed);
    const read = readPatches(patchesOf(photo, g, marks, LIGHT), stack, guess, e)!;
    for (const c of read.cells) {
      const is = openAt(t, e(c.row, c.col));
      const ok = c.top === named(is.open) && (stack.below === null || c.under === named(is.eaten));
      cells++;
      right += Number(ok);
      unsure += Number(c.unsure);
      silent += Number(!ok && !c.unsure);
    }
  }
  expect(right / cells).toBeGreaterThan(0.98);
  expect(silent / cells).toBeLessThan(0.002);
  expect(unsure / cells).toBeLessThan(0.15);
});
test("four marks tie a plate to its picture; three, or four on a line, do not", () => {
  const g = grid(3, 5);
  const from = cornersOf(g);
  const to = from.map(([x, y]): [number, number] => [3 * x + 0.2 * y + 40, 2.5 * y - 0.1 * x + 20]);
  const h = homography(from, to)!;
  expect(h([30, 20])[0]).toBeCloseTo(3 * 30 + 0.2 * 20 + 40, 6);
  expect(h([30, 20])[1]).toBeCloseTo(2.5 * 20 - 0.1 * 30 + 20, 6);
  expect(homography(from.slice(1), to.slice(1))).toBeNull();
  expect(
    homography(
      from,
      from.map(([x]): [number, number] => [x, x]),
    ),
  ).toBeNull();
});
test("a mark that lies beyond the picture is said; a plate of marks is measured against the bare body beside them", () => {
  const { g, photo, marks } = plate(4);
  expect(() =>
    patchesOf(
      photo,
      g,
      marks.map(([x, y]): [number, number] => [x + 600, y]),
      LIGHT,
    ),
  ).toThrow(/beyond the picture/);
  const wood: Rgb = linear("#c89a62");
  const dark = (k: number): Rgb => [wood[0] * (1 - k), wood[1] * (1 - k), wood[2] * (1 - k)];
  const depth = (row: number, col: number): number => 0.1 + 0.08 * (row * 4 + col) * (row < 2 ? 1 : 0.6);
  const two = photograph(grid(3, 4), wood, (r, c) => dark(depth(r, c)), { ...HAND_HELD, seed: 9 });
  const found = marksOf(patchesOf(two.photo, grid(3, 4), two.marks, LIGHT));
  const most = Math.max(...found.map((f) => depth(f.row, f.col)));
  for (const f of found) expect(f.mark).toBeCloseTo((10 * depth(f.row, f.col)) / most, 0);
});
