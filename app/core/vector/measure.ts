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
  const out = [box.y0, box.y1];
  const height = (box.y1 - box.y0) / SLICES;
  for (let s = 0; s < SLICES; s++) {
    const y = box.y0 + (s + 0.5) * height;
    let from = Infinity;
    let to = -Infinity;
    for (const ring of r)
      for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
        const [[xi, yi], [xj, yj]] = [ring[i], ring[j]];
        if (yi > y === yj > y) continue;
        const x = xi + ((xj - xi) * (y - yi)) / (yj - yi);
        from = Math.min(from, x);
        to = Math.max(to, x);
      }
    out.push(...(to >= from ? [from, to] : [1, 0]));
  }
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
