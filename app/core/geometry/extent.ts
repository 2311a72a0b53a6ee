/** The box round a zone, from the rows that the head burns of it. mm. */
import type { Zone } from "../records/job";

export interface Extent {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** null: the zone’s shape is not known, only its area. Rows that hold nothing do not count. */
export function extentOf(z: Pick<Zone, "rows">): Extent | null {
  const { rows } = z;
  if (rows.length < 4) return null;
  const pairs = Array.from({ length: (rows.length - 2) / 2 }, (_, i) => [rows[2 + 2 * i], rows[3 + 2 * i]]);
  const burnt = pairs.filter(([from, to]) => to > from);
  if (!burnt.length) return null;
  return {
    x0: Math.min(...burnt.map(([from]) => from)),
    x1: Math.max(...burnt.map(([, to]) => to)),
    y0: rows[0],
    y1: rows[1],
  };
}

/** The box round several; null: none of them is known. */
export function extentOfAll(zones: readonly Pick<Zone, "rows">[]): Extent | null {
  const all = zones.flatMap((z) => extentOf(z) ?? []);
  return !all.length
    ? null
    : {
        x0: Math.min(...all.map((e) => e.x0)),
        x1: Math.max(...all.map((e) => e.x1)),
        y0: Math.min(...all.map((e) => e.y0)),
        y1: Math.max(...all.map((e) => e.y1)),
      };
}
