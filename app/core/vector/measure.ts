/** M13 Measures of a zone: area, perimeter, pieces, holes, narrowest width, and row extents for the run time. */
import { area, bounds, perimeter, type Clip, type Region } from "./clip";
import { narrowest } from "./narrow";

export interface Measures {
  areaMm2: number;
  perimeterMm: number;
  narrowestMm: number;
  pieces: number;
  holes: number;
  smallestMm2: number;
  /** y0, y1, then from, to of {@link SLICES} equal slices; from > to where a slice is empty */
  rows: number[];
}

export const SLICES = 64;
/** Row extents of a region in equal slices: the length the head burns, rows trimmed to what is there. */
export function rowExtents(r: Region): number[] {
  const box = bounds(r);
  if (!box) return [];
  const height = (box.y1 - box.y0) / SLICES;
  const middle = (slice: number): number => box.y0 + (slice + 0.5) * height;
  const from = new Float64Array(SLICES).fill(Infinity);
  const to = new Float64Array(SLICES).fill(-Infinity);
  // each edge goes only to the slices that it may cross, one more at either end against rounding
  for (const ring of r)
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [xi, yi] = ring[i];
      const [xj, yj] = ring[j];
      if (yi === yj) continue;
      const first = Math.max(0, Math.floor((Math.min(yi, yj) - box.y0) / height - 0.5) - 1);
      const last = Math.min(SLICES - 1, Math.ceil((Math.max(yi, yj) - box.y0) / height - 0.5) + 1);
      for (let s = first; s <= last; s++) {
        const y = middle(s);
        if (yi > y === yj > y) continue;
        const x = xi + ((xj - xi) * (y - yi)) / (yj - yi);
        if (x < from[s]) from[s] = x;
        if (x > to[s]) to[s] = x;
      }
    }
  const out = [box.y0, box.y1];
  for (let s = 0; s < SLICES; s++) out.push(...(to[s] >= from[s] ? [from[s], to[s]] : [1, 0]));
  return out.map((v) => Math.round(v * 1000) / 1000);
}

/** All measures of one zone. @param parts its separate pieces, each with its holes @param progress share done */
export function measure(clip: Clip, parts: Region[], progress?: (share: number) => void): Measures {
  const region = parts.flat();
  return {
    areaMm2: area(region),
    perimeterMm: perimeter(region),
    narrowestMm: narrowest(clip, parts, progress),
    pieces: parts.length,
    holes: parts.reduce((n, p) => n + p.length - 1, 0),
    smallestMm2: parts.reduce((least, p) => Math.min(least, area(p)), Infinity),
    rows: rowExtents(region),
  };
}
