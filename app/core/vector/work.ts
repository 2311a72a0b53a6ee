/**
 * What a drawing costs to measure, counted as it is done: by the corners that go through the kernel and the crossings to be found, not
 * by the size of the file. A drawing that costs too much is told so before it holds anybody up, with what is too much of it.
 */
import type { Clip, Region, Ring } from "./clip";
import { SvgError } from "./svg";

/** seconds that a drawing may take without being asked about */
export const LIMIT_S = 12;
/** seconds a corner, by what is done to it; measured on a desk computer of some years, so that they say “about” */
const CORNER_S = { fill: 1e-6, union: 6e-7, subtract: 6e-7, intersect: 1e-6, grow: 5e-6, simplify: 3e-7 } as const;
const CROSSING_S = 8e-7;

/** It can be measured, and would take long. */
export class TooMuch extends SvgError {
  override name = "TooMuch";
}

const about = (s: number): string =>
  s < 90 ? `${Math.max(1, Math.round(s / 5) * 5)} s` : `${Math.max(2, Math.round(s / 60))} min`;
const many = (n: number): string =>
  n >= 1e6 ? `${(n / 1e6).toFixed(n >= 1e7 ? 0 : 1)} million` : Math.round(n).toLocaleString("en-GB");

/** pairs of edges that are looked at to tell how often an outline crosses itself */
const PAIRS = 4000;
/** outlines of fewer corners are never dear */
const SMALL = 500;

/** How often the edges of some rings cross one another, from a sample of pairs. @returns a guess; 0 for outlines that don't */
export function crossings(rings: Ring[]): number {
  const edges: [number, number, number, number][] = [];
  for (const r of rings)
    r.forEach(([x, y], i) => {
      const [u, v] = r[(i + 1) % r.length];
      edges.push([x, y, u, v]);
    });
  const n = edges.length;
  if (n < SMALL) return 0;
  let s = 12345;
  const one = (): number => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) % n;
  let hits = 0;
  for (let k = 0; k < PAIRS; k++) {
    const [a, b, c, d] = edges[one()];
    const [e, f, g, h] = edges[one()];
    const side = (x: number, y: number): number => (c - a) * (y - b) - (d - b) * (x - a);
    const back = (x: number, y: number): number => (g - e) * (y - f) - (h - f) * (x - e);
    if (side(e, f) * side(g, h) < 0 && back(a, b) * back(c, d) < 0) hits++;
  }
  return ((hits / PAIRS) * n * (n - 1)) / 2;
}

/** share done from which the whole can be told */
const KNOWN = 0.02;

/** Counts what is spent. @throws TooMuch as soon as more is sure to be needed than may be spent */
export class Meter {
  private spent = 0;
  private share = 0;
  /** shapes that are laid over one another, once they are known */
  shapes = 0;
  /** @param most seconds; Infinity: whatever it takes */
  constructor(private readonly most: number = LIMIT_S) {}

  /** A share of the whole that is done by now. */
  at(share: number): void {
    this.share = share;
  }
  private spend(seconds: number): void {
    this.spent += seconds;
    if (this.spent <= this.most) return;
    // how much of it is done is known once its shapes are laid out
    const long = this.share > KNOWN ? `about ${about(this.spent / this.share)}` : `more than ${about(this.most)}`;
    const what =
      this.shapes > 0 ? `${many(this.shapes)} shapes that lie over one another` : "more than can be measured at once";
    throw new TooMuch(`It holds ${what}: that takes ${long}. Unite them in your drawing program.`);
  }

  /** The kernel, with what it does counted. */
  over(clip: Clip): Clip {
    const corners = (r: Region): number => r.reduce((n, ring) => n + ring.length, 0);
    const count =
      <A extends unknown[]>(each: number, op: (...a: A) => Region, of: (...a: A) => number) =>
      (...a: A): Region => {
        const out = op(...a);
        this.spend(each * (of(...a) + corners(out)));
        return out;
      };
    const two = (a: Region, b: Region): number => corners(a) + corners(b);
    const fill = count(CORNER_S.fill, clip.fill, (rings) => corners(rings));
    return {
      fill: (rings, rule) => {
        const met = crossings(rings);
        if (met * CROSSING_S > this.most)
          throw new TooMuch(
            `An outline of ${many(corners(rings))} corners crosses itself about ${many(met)} times: that takes about ` +
              `${about(met * CROSSING_S)}. Unite it with itself in your drawing program.`,
          );
        return fill(rings, rule);
      },
      union: count(CORNER_S.union, clip.union, two),
      subtract: count(CORNER_S.subtract, clip.subtract, two),
      intersect: count(CORNER_S.intersect, clip.intersect, two),
      grow: count(CORNER_S.grow, clip.grow, (a) => corners(a)),
      simplify: count(CORNER_S.simplify, clip.simplify, (a) => corners(a)),
    };
  }
}
