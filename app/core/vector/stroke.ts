/**
 * A stroked line as a heap of convex polygons whose union is the stroke: one quad a segment, one polygon a join, one a cap.
 * Exact for SVG's joins (mitre with its limit falling back to bevel, round, bevel) and caps; dashes are cut first.
 */
import { ellipse, type Line } from "./outline";
import { ringArea, type Point, type Ring } from "./clip";

export interface StrokeStyle {
  width: number;
  join: "miter" | "round" | "bevel";
  cap: "butt" | "round" | "square";
  miterLimit: number;
  dash: number[];
  dashOffset: number;
}

const positive = (ring: Ring): Ring => (ringArea(ring) < 0 ? ring.reverse() : ring);

function dashed(line: Line, dash: number[], offset: number): Line[] {
  const total = dash.reduce((a, b) => a + b, 0);
  if (!(total > 0)) return [line];
  const pattern = dash.length % 2 ? [...dash, ...dash] : dash;
  const period = pattern.reduce((a, b) => a + b, 0);
  let k = 0;
  let left = ((offset % period) + period) % period;
  while (left >= pattern[k]) {
    left -= pattern[k];
    k = (k + 1) % pattern.length;
  }
  let remain = pattern[k] - left;
  const out: Line[] = [];
  const pts = line.closed ? [...line.points, line.points[0]] : line.points;
  let now: Point[] = k % 2 === 0 ? [pts[0]] : [];
  for (let i = 1; i < pts.length; i++) {
    const [a, b] = [pts[i - 1], pts[i]];
    const len = Math.hypot(b[0] - a[0], b[1] - a[1]);
    let at = 0;
    while (len - at > remain) {
      at += remain;
      const p: Point = [a[0] + ((b[0] - a[0]) * at) / len, a[1] + ((b[1] - a[1]) * at) / len];
      if (k % 2 === 0) out.push({ points: [...now, p], closed: false });
      k = (k + 1) % pattern.length;
      now = k % 2 === 0 ? [p] : [];
      remain = pattern[k];
      if (out.length > 20000) throw new Error("a dash pattern makes more than 20 000 dashes");
    }
    remain -= len - at;
    if (k % 2 === 0) now.push(b);
  }
  if (k % 2 === 0 && now.length > 1) out.push({ points: now, closed: false });
  return out;
}

/** Polygons (all of positive area) whose nonzero union is the stroke of these lines. */
export function strokeRings(lines: Line[], s: StrokeStyle, tol: number): Ring[] {
  const r = s.width / 2;
  const out: Ring[] = [];
  const disc = (p: Point): void => void out.push(positive(ellipse(p[0], p[1], r, r, tol)));
  const all = s.dash.length ? lines.flatMap((l) => dashed(l, s.dash, s.dashOffset)) : lines;
  for (const line of all) {
    const pts = line.points;
    if (pts.length === 1) {
      if (s.cap === "round") disc(pts[0]);
      else if (s.cap === "square")
        out.push(
          positive([
            [pts[0][0] - r, pts[0][1] - r],
            [pts[0][0] + r, pts[0][1] - r],
            [pts[0][0] + r, pts[0][1] + r],
            [pts[0][0] - r, pts[0][1] + r],
          ]),
        );
      continue;
    }
    const closed = line.closed && pts.length > 2;
    const ring =
      closed && (pts[0][0] !== pts[pts.length - 1][0] || pts[0][1] !== pts[pts.length - 1][1]) ? [...pts, pts[0]] : pts;
    const n = ring.length;
    const dir = (i: number): Point => {
      const [dx, dy] = [ring[i + 1][0] - ring[i][0], ring[i + 1][1] - ring[i][1]];
      const l = Math.hypot(dx, dy) || 1;
      return [dx / l, dy / l];
    };
    for (let i = 0; i < n - 1; i++) {
      const [ux, uy] = dir(i);
      let [a, b] = [ring[i], ring[i + 1]];
      if (!closed && s.cap === "square") {
        if (i === 0) a = [a[0] - ux * r, a[1] - uy * r];
        if (i === n - 2) b = [b[0] + ux * r, b[1] + uy * r];
      }
      out.push(
        positive([
          [a[0] - uy * r, a[1] + ux * r],
          [b[0] - uy * r, b[1] + ux * r],
          [b[0] + uy * r, b[1] - ux * r],
          [a[0] + uy * r, a[1] - ux * r],
        ]),
      );
    }
    const joins = closed ? n - 1 : n - 2;
    for (let k = 0; k < joins; k++) {
      const i = closed && k === joins - 1 ? 0 : k + 1;
      const u = dir(i === 0 ? n - 2 : i - 1);
      const v = dir(i);
      const p = ring[i];
      const crossed = u[0] * v[1] - u[1] * v[0];
      const dot = u[0] * v[0] + u[1] * v[1];
      if (Math.abs(crossed) < 1e-12 && dot > 0) continue;
      if (s.join === "round") {
        disc(p);
        continue;
      }
      const side = crossed > 0 ? -1 : 1; // the outer side of the turn
      const a: Point = [p[0] - side * u[1] * r, p[1] + side * u[0] * r];
      const b: Point = [p[0] - side * v[1] * r, p[1] + side * v[0] * r];
      // The wedge reaches a little into both its neighbours: with a shared edge alone, rounding would leave hairlines between them.
      const lap = (from: Point, to: Point): number =>
        Math.min(0.05 * r, 0.3 * Math.hypot(to[0] - from[0], to[1] - from[1]));
      const [lu, lv] = [lap(ring[i === 0 ? n - 2 : i - 1], p), lap(p, ring[i + 1])];
      const back: Point = [a[0] - u[0] * lu, a[1] - u[1] * lu];
      const on: Point = [b[0] + v[0] * lv, b[1] + v[1] * lv];
      const half = Math.sqrt(Math.max(0, (1 + dot) / 2)); // cos of half the turn
      if (s.join === "miter" && half > 1e-9 && 1 / half <= s.miterLimit) {
        const mx = a[0] + b[0] - 2 * p[0];
        const my = a[1] + b[1] - 2 * p[1];
        const ml = Math.hypot(mx, my) || 1;
        out.push(positive([p, back, a, [p[0] + (mx / ml) * (r / half), p[1] + (my / ml) * (r / half)], b, on]));
      } else out.push(positive([p, back, a, b, on]));
    }
    if (!closed && s.cap === "round") {
      disc(ring[0]);
      disc(ring[n - 1]);
    }
  }
  return out.filter((x) => Math.abs(ringArea(x)) > 1e-12);
}
