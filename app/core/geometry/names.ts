/**
 * A zone that is another one on each piece, such as a name: what a plan counts of it is the mean of all pieces, so that the sums are right;
 * what a check asks of it is the worst of them. mm.
 */
import type { OnPiece, Zone } from "../records/job";
import { rowExtents, SLICES, type Measures } from "../vector/measure";
import { pathOf, ringsOf, type Ring } from "./outline";

/** What a file of names says of one piece: its lines, and which colour it is to have; empty: the first. */
export interface NameRow {
  lines: string[];
  colour: string;
}

/** Slices of rows as spans, laid onto other slices: length of each and where its middle lies; no span: length 0. */
function spansOn(rows: readonly number[], y0: number, y1: number): { length: number; middle: number }[] {
  const [a, b] = [rows[0], rows[1]];
  const own = (b - a) / SLICES;
  const step = (y1 - y0) / SLICES;
  return Array.from({ length: SLICES }, (_v, s) => {
    // the share of each of its own slices that lies in this one
    const [from, to] = [y0 + s * step, y0 + (s + 1) * step];
    let [length, moment] = [0, 0];
    for (let k = Math.max(0, Math.floor((from - a) / own)); k < SLICES && a + k * own < to; k++) {
      const share = (Math.min(to, a + (k + 1) * own) - Math.max(from, a + k * own)) / step;
      const [l, r] = [rows[2 + 2 * k], rows[3 + 2 * k]];
      if (share <= 0 || l > r) continue;
      length += share * (r - l);
      moment += share * (r - l) * ((l + r) / 2);
    }
    return { length, middle: length > 0 ? moment / length : 0 };
  });
}
/**
 * Row extents whose run is the mean of many: over all their height, each slice as long as they are there on average.
 * @param all row extents of each piece that has any @param n pieces in all
 */
export function meanRows(all: readonly (readonly number[])[], n: number): number[] {
  const some = all.filter((r) => r.length > 2 && r[1] > r[0]);
  if (!some.length) return [];
  const y0 = Math.min(...some.map((r) => r[0]));
  const y1 = Math.max(...some.map((r) => r[1]));
  const spans = some.map((r) => spansOn(r, y0, y1));
  const out = [y0, y1];
  for (let s = 0; s < SLICES; s++) {
    const here = spans.map((x) => x[s]).filter((x) => x.length > 0);
    const sum = here.reduce((a, x) => a + x.length, 0);
    const length = sum / n;
    const middle = sum > 0 ? here.reduce((a, x) => a + x.length * x.middle, 0) / sum : 0;
    out.push(...(length > 0 ? [middle - length / 2, middle + length / 2] : [1, 0]));
  }
  return out.map((v) => Math.round(v * 1000) / 1000);
}

/** Measures that a plan counts with. @param all of each piece that has any @param n pieces in all */
export function meanMeasures(all: readonly Measures[], n: number): Measures {
  const mean = (of: (m: Measures) => number): number => all.reduce((s, m) => s + of(m), 0) / n;
  const least = (of: (m: Measures) => number): number => Math.min(...all.map(of));
  return {
    areaMm2: mean((m) => m.areaMm2),
    perimeterMm: mean((m) => m.perimeterMm),
    narrowestMm: least((m) => m.narrowestMm),
    pieces: Math.ceil(mean((m) => m.pieces)),
    holes: Math.ceil(mean((m) => m.holes)),
    smallestMm2: least((m) => m.smallestMm2),
    rows: meanRows(
      all.map((m) => m.rows),
      n,
    ),
  };
}

/** How many pieces of a job carry a name. */
export const named = (zones: readonly Zone[]): number =>
  Math.max(0, ...zones.flatMap((z) => (z.onPieces ?? []).map((p) => p.n)));
/** What a piece carries, in words; null: nothing of its own. @param n piece from 1 */
export function nameOn(zones: readonly Zone[], n: number): string | null {
  const found = zones.flatMap((z) => (z.onPieces ?? []).filter((p) => p.n === n));
  return found.length ? found.map((p) => p.text).join(" · ") : null;
}

/** A zone with all its outlines changed alike, and its rows with them. @param of rings to rings @param n pieces that carry a name */
export function reshaped(z: Zone, of: (rings: Ring[]) => Ring[], n: number): Zone {
  if (!z.outline) return z;
  const rings = of(ringsOf(z.outline));
  const outline = pathOf(rings);
  if (!z.onPieces) return { ...z, outline, rows: rowExtents(rings) };
  const each = z.onPieces.map((p) => ({ p, rings: of(ringsOf(p.outline)) }));
  const onPieces = each.map(({ p, rings: r }): OnPiece => ({ ...p, outline: pathOf(r) }));
  const rows = meanRows(
    each.map((x) => rowExtents(x.rings)),
    n,
  );
  return { ...z, outline, onPieces, rows };
}

/** Zones as one piece has them: those of names with its own outline, or none. @param n piece from 1 */
export const asOn = (zones: readonly Zone[], n: number): Zone[] =>
  zones.map((z) => (z.onPieces ? { ...z, outline: z.onPieces.find((p) => p.n === n)?.outline ?? "" } : z));
