/** A test plate as a sheet for the laser: labels first, then each cell on a layer of its own, a square or the job’s own drawing. */
import { KEY_COLUMNS, LABEL_MM, sizeOf, type Cell } from "../../core/explain/plate";
import type { Ring } from "../../core/geometry/outline";
import type { TestPlate, Zone } from "../../core/records/job";
import { pathLines } from "../../core/vector/outline";
import { writeTable } from "../csv";
import type { Sheet } from "./vectors";

type Shape = Sheet["layers"][number]["paths"][number];
const r1 = (v: number): number => Math.round(v * 10) / 10;
/** furthest that a curve of the drawing may stray, mm */
const FLAT_MM = 0.02;
/** highest that labels are, mm, and what of a cell they take at most */
const LABEL_MOST = 3.2;
const LABEL_SHARE = 0.45;
/** height of the capitals of a plate’s labels, mm */
export const labelMm = (t: Pick<TestPlate, "cellMm">): number => Math.min(LABEL_MOST, t.cellMm * LABEL_SHARE);
/** What is written beside a plate: powers, speeds, its name. */
export const labelTexts = (t: TestPlate): string[] => [
  ...t.powers.map((v) => `${r1(100 * v)}%`),
  ...t.speeds.map((v) => `${r1(v)}`),
  t.id,
];

/** The drawing’s zones as large as a cell holds them, in its middle; empty: nothing is drawn. */
export function drawingIn(zones: readonly Pick<Zone, "outline" | "bare">[], cellMm: number): Shape[] {
  const drawn = zones.filter((z) => !z.bare && z.outline);
  const lines = drawn.flatMap((z) => pathLines(z.outline, FLAT_MM).filter((l) => l.points.length >= 3));
  if (!lines.length) return [];
  const [xs, ys] = [0, 1].map((k) => lines.flatMap((l) => l.points.map((p) => p[k])));
  const range = (v: number[]): [number, number] =>
    v.reduce(([a, b], x) => [Math.min(a, x), Math.max(b, x)], [Infinity, -Infinity]);
  const [[x0, x1], [y0, y1]] = [range(xs), range(ys)];
  const k = cellMm / Math.max(x1 - x0, y1 - y0, 1e-6);
  const [dx, dy] = [(cellMm - k * (x1 - x0)) / 2 - k * x0, (cellMm - k * (y1 - y0)) / 2 - k * y0];
  return lines.map((l) => ({
    closed: true,
    points: l.points.map(([x, y]): [number, number] => [k * x + dx, k * y + dy]),
  }));
}

/**
 * @param labels outlines of {@link labelTexts}, capitals {@link labelMm} high
 * @param zones of the job, where its drawing stands in the cells
 */
export function plateSheet(
  t: TestPlate,
  cells: readonly Cell[],
  labels: readonly Ring[][],
  zones: readonly Zone[] = [],
): Sheet {
  const label = labelMm(t);
  const at = (i: number): number => LABEL_MM + i * (t.cellMm + t.gapMm);
  const shape: Shape[] = t.shows === "drawing" ? drawingIn(zones, t.cellMm) : [];
  const square: Shape = {
    closed: true,
    points: [
      [0, 0],
      [t.cellMm, 0],
      [t.cellMm, t.cellMm],
      [0, t.cellMm],
    ],
  };
  const moved = (list: readonly Shape[], x: number, y: number): Shape[] =>
    list.map((s) => ({ ...s, points: s.points.map(([a, b]): [number, number] => [a + x, b + y]) }));
  const lettered = (k: number, x: number, y: number): Shape[] =>
    moved(
      labels[k].map((points) => ({ points: [...points], closed: true })),
      x,
      y,
    );
  const n = t.powers.length;
  return {
    ...sizeOf(t),
    title: `Test plate ${t.id}`,
    layers: [
      {
        layer: { id: "00-labels", purpose: "mark", name: "Labels: power in rows, speed in columns", how: "fill" },
        paths: [
          ...t.powers.flatMap((_v, i) => lettered(i, 0.5, at(i) + (t.cellMm - label) / 2)),
          ...t.speeds.flatMap((_v, i) => lettered(n + i, at(i), LABEL_MM - label - 1)),
          ...lettered(labels.length - 1, 0.5, 0.5),
        ],
      },
      ...cells.map((c) => ({
        layer: {
          id: `cell-${c.row + 1}-${c.col + 1}`,
          purpose: "mark" as const,
          name: `${r1(100 * c.power)} % at ${r1(c.speed)} mm/s`,
          how: "fill" as const,
        },
        paths: moved(shape.length ? shape : [square], at(c.col), at(c.row)),
      })),
    ],
  };
}

/** What each cell of a plate gets, as a table. */
export const plateKey = (t: TestPlate, cells: readonly Cell[]): string =>
  writeTable(
    [...KEY_COLUMNS],
    cells.map((c) => [
      `${c.row + 1}/${c.col + 1}`,
      r1(100 * c.power),
      c.watts === null ? "" : Math.round(c.watts * 100) / 100,
      r1(c.speed),
      t.interval,
      t.passes,
      c.e === null ? "" : Math.round(c.e * 1000) / 1000,
    ]),
  );
