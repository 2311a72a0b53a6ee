/** A photo of a job's test plate: the colours of its stack, where the cells of the plate lie, and what is read of them. */
import { linear } from "../models/film/colour";
import { phi } from "../models/film/reveal";
import {
  marksOf,
  patchesOf,
  readPatches,
  type Gone,
  type PhotoPixels,
  type PlateGrid,
  type Point,
  type StackColours,
} from "../models/laser/plate-photo";
import { lightTable } from "../tone/light";
import { topDown, zoneOf } from "../piece/state";
import { isSet, kindOf } from "../process/kinds";
import type { Plan } from "../plan/plan";
import type { PlateCell, TestPlate } from "../records/job";
import type { Machine } from "../records/machine";
import { cellsOf, LABEL_MM } from "./plate";

/** Colours of a stack, `#rrggbb`: the dark top, what it is to show, what lies beneath that. */
export interface StackHex {
  top: string;
  under: string;
  below: string | null;
}
/** null: nothing lies on the body there, so that a photo can tell no layers apart */
export function stackHex(plan: Plan): StackHex | null {
  const c = plan.context;
  const at = plan.placed.find((p) => isSet(p.step) && kindOf(p.step.kind).tries === undefined);
  if (!at) return null;
  for (const z of at.step.zones.length ? at.step.zones : c.allZones) {
    const films = topDown(zoneOf(at.before, z)).map((f) => c.paintOf(f.productId).product.colour);
    const [top, under = c.substrate.colour, below = c.substrate.colour] = films;
    if (top !== undefined) return { top, under, below: films.length > 1 ? below : null };
  }
  return null;
}

/** Where the cells of a plate lie on it, mm. */
export const gridOf = (t: Pick<TestPlate, "powers" | "speeds" | "cellMm" | "gapMm">): PlateGrid => ({
  rows: t.powers.length,
  cols: t.speeds.length,
  x0: LABEL_MM,
  y0: LABEL_MM,
  cellMm: t.cellMm,
  gapMm: t.gapMm,
});

const LIGHT = lightTable(255);
/** how much further what lies beneath is thought to bear, and how both spread (M5) */
const FURTHER = Math.exp(0.85);
const SPREAD = 0.15;
/** Shares that are gone by energy where only the first edge is guessed at. @param first J/mm² */
export const goneAbout =
  (first: number) =>
  (e: number): Gone => ({
    open: phi(Math.log(e / first) / SPREAD),
    eaten: phi(Math.log(e / (first * FURTHER)) / SPREAD),
  });

/** What was read of a cell, and whether it is to be looked at by eye. */
export type ReadCell = PlateCell & { unsure: boolean };

/**
 * A photo read cell by cell.
 * @param first J/mm² at which the top is thought to go; null: nobody knows
 * @param marks where the corners of the cells lie, px: left above, right above, right below, left below
 * @throws RangeError in a sentence
 */
export function readPhoto(
  t: TestPlate,
  m: Machine,
  stack: StackHex | null,
  first: number | null,
  photo: PhotoPixels,
  marks: readonly Point[],
): ReadCell[] {
  const patches = patchesOf(photo, gridOf(t), marks, LIGHT);
  if (t.question === "darken") return marksOf(patches).map((c) => ({ ...c, unsure: false }));
  if (t.question === "depth") throw new RangeError("How deep a cell is can’t be seen from above: measure it.");
  if (!stack) throw new RangeError("No film lies on the body here, so a photo can tell no layers apart.");
  const cells = cellsOf(t, m);
  const at = new Map(cells.map((c) => [`${c.row} ${c.col}`, c.e]));
  const known = cells.flatMap((c) => (c.e === null ? [] : [Math.log(c.e)]));
  if (known.length < cells.length)
    throw new RangeError("Of some rows the watts are not known: what their cells got is needed to read the light.");
  const middle = Math.exp(known.reduce((a, x) => a + x, 0) / known.length);
  const colours: StackColours = {
    top: linear(stack.top),
    under: linear(stack.under),
    below: stack.below === null ? null : linear(stack.below),
  };
  const read = readPatches(
    patches,
    colours,
    goneAbout(first ?? middle),
    (row, col) => at.get(`${row} ${col}`) as number,
  );
  if (!read) throw new RangeError("The picture does not go with the colours of this stack: look at the corners.");
  return read.cells.map((c) => ({
    row: c.row,
    col: c.col,
    top: c.top,
    // what lies beneath is to be seen only where the top is gone
    ...(c.under !== null && c.open > 0.5 ? { under: c.under } : {}),
    unsure: c.unsure,
  }));
}
