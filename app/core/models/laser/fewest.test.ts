/** What a plate is expected to tell, against plates that are read for real. */
import { many, seeded } from "../../testing/worlds";
import { expectedWidth, fewestCells, WANTED } from "./fewest";
import { fitWindow, spaced, type CellRead } from "./plate";

const grid = (rows: number, cols: number): number[] =>
  spaced(0.2, 0.8, rows, "geometric").flatMap((p) => spaced(100, 400, cols, "geometric").map((v) => (300 * p) / v));

test("more cells never leave the edges less sure; told beforehand it is as wide as fits of plates come out that are read", () => {
  const widths = [3, 6, 12, 24, 48].map((n) =>
    expectedWidth(
      spaced(0.2, 2.4, 30, "geometric").filter((_e, i) => i % Math.ceil(30 / n) === 0 || n >= 30),
      0.6,
      true,
    ),
  );
  widths.slice(1).forEach((w, i) => expect(w).toBeLessThan(widths[i] * 1.05));
  // plates whose truth is drawn from the same priors, read and fitted
  const random = seeded(9);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const energies = grid(4, 5);
  const made: number[] = [];
  for (let k = 0; k < many(40); k++) {
    const c1 = Math.log(0.6) + 0.7 * normal();
    const c2 = c1 + Math.exp(Math.log(0.85) + normal());
    const s = Math.exp(Math.log(0.12) + 0.7 * normal());
    const noise = Math.exp(Math.log(0.06) + 0.5 * normal());
    const read = (e: number, c: number): "whole" | "partly" | "gone" => {
      const at = Math.log(e) + noise * normal();
      return at < c - 1.96 * s ? "whole" : at > c + 1.96 * s ? "gone" : "partly";
    };
    const cells: CellRead[] = energies.map((e) => ({ e, top: read(e, c1), under: read(e, c2) }));
    const fit = fitWindow(cells, 0.6)!;
    made.push(Math.max(Math.log(fit.lo.high / fit.lo.low), Math.log(fit.hi!.high / fit.hi!.low)) / 2);
  }
  const middle = made.sort((a, b) => a - b)[made.length >> 1];
  const told = expectedWidth(energies, 0.6, true);
  expect(told / middle).toBeGreaterThan(0.6);
  expect(told / middle).toBeLessThan(1.6);
});

test("many cells are told in fewer that know the edges to a fifth; where all are wanted, or too few, nothing is said", () => {
  const fewer = fewestCells(5, 6, grid, 0.6, true)!;
  expect(fewer.width).toBeLessThanOrEqual(WANTED);
  expect(fewer.whole).toBeLessThan(fewer.width);
  expect(fewer.rows * fewer.cols).toBeLessThan(20);
  expect([fewer.rows <= 5, fewer.cols <= 6]).toEqual([true, true]);
  // one cell less of that shape does not
  const less = expectedWidth(grid(fewer.rows, fewer.cols - 1), 0.6, true);
  expect(less).toBeGreaterThan(fewer.width);
  expect(fewestCells(1, 3, grid, 0.6, true)).toBeNull();
  // a stretch that the window does not lie in tells nothing of it
  expect(fewestCells(5, 6, (r, c) => grid(r, c).map((e) => 40 * e), 0.6, true)).toBeNull();
});
