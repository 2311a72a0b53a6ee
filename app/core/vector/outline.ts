/** Shapes and path data turned into polylines in user units, curves flattened to a tolerance. */
import svgpath from "svgpath";
import type { Point } from "./clip";

export interface Line {
  points: Point[];
  closed: boolean;
}

/** Cubic flattening by uniform steps: the count from the second differences (Wang's bound), so that no chord strays further than tol. */
function cubic(out: Point[], p0: Point, p1: Point, p2: Point, p3: Point, tol: number): void {
  const dd = Math.max(
    Math.hypot(p0[0] - 2 * p1[0] + p2[0], p0[1] - 2 * p1[1] + p2[1]),
    Math.hypot(p1[0] - 2 * p2[0] + p3[0], p1[1] - 2 * p2[1] + p3[1]),
  );
  const n = Math.min(2000, Math.max(1, Math.ceil(Math.sqrt((0.75 * dd) / tol))));
  for (let i = 1; i <= n; i++) {
    const t = i / n;
    const u = 1 - t;
    const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    out.push([a * p0[0] + b * p1[0] + c * p2[0] + d * p3[0], a * p0[1] + b * p1[1] + c * p2[1] + d * p3[1]]);
  }
}

/** Path data to polylines. Data after an error are dropped, as SVG asks, unless nothing was read. @throws Error when nothing can be read */
export function pathLines(d: string, tol: number): Line[] {
  const parsed = svgpath(d).abs().unarc().unshort();
  const err = (parsed as unknown as { err: string }).err;
  if (err) throw new Error(`path data “${d.slice(0, 40)}” cannot be read`);
  const lines: Line[] = [];
  let now: Line | null = null;
  let start: Point = [0, 0];
  const begin = (p: Point): Line => {
    const l: Line = { points: [p], closed: false };
    lines.push(l);
    return l;
  };
  parsed.iterate((seg, _i, x, y) => {
    const at: Point = [x, y];
    const [cmd, ...v] = seg as [string, ...number[]];
    if (cmd === "M") {
      start = [v[0], v[1]];
      now = begin(start);
      return;
    }
    if (cmd === "Z") {
      if (now) now.closed = true;
      now = null;
      return;
    }
    const line: Line = now ?? begin(now === null && lines.length ? start : at);
    now = line;
    if (cmd === "L") line.points.push([v[0], v[1]]);
    else if (cmd === "H") line.points.push([v[0], y]);
    else if (cmd === "V") line.points.push([x, v[0]]);
    else if (cmd === "C") cubic(line.points, at, [v[0], v[1]], [v[2], v[3]], [v[4], v[5]], tol);
    else if (cmd === "Q") {
      const [cx, cy, ex, ey] = v;
      cubic(
        line.points,
        at,
        [x + (2 / 3) * (cx - x), y + (2 / 3) * (cy - y)],
        [ex + (2 / 3) * (cx - ex), ey + (2 / 3) * (cy - ey)],
        [ex, ey],
        tol,
      );
    }
  });
  for (const l of lines)
    l.points = l.points.filter((p, i) => i === 0 || p[0] !== l.points[i - 1][0] || p[1] !== l.points[i - 1][1]);
  return lines.filter((l) => l.points.every((p) => Number.isFinite(p[0]) && Number.isFinite(p[1])));
}

/** An ellipse drawn finely enough for the tolerance. */
export function ellipse(cx: number, cy: number, rx: number, ry: number, tol: number): Point[] {
  const r = Math.max(rx, ry);
  const n = Math.max(24, Math.min(4000, Math.ceil(Math.PI / Math.acos(Math.max(0.2, 1 - Math.min(tol / r, 0.5))))));
  return Array.from({ length: n }, (_, i) => [
    cx + rx * Math.cos((2 * Math.PI * i) / n),
    cy + ry * Math.sin((2 * Math.PI * i) / n),
  ]);
}

/** A rectangle, its corners rounded when rx, ry are above 0. */
export function rectangle(x: number, y: number, w: number, h: number, rx: number, ry: number, tol: number): Point[] {
  if (!(rx > 0) || !(ry > 0))
    return [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ];
  const [ax, ay] = [Math.min(rx, w / 2), Math.min(ry, h / 2)];
  const full = ellipse(0, 0, ax, ay, tol);
  const quarter = Math.ceil(full.length / 4);
  const corner = (cx: number, cy: number, from: number): Point[] =>
    Array.from({ length: quarter + 1 }, (_, i) => {
      const t = from + (Math.PI / 2) * (i / quarter);
      return [cx + ax * Math.cos(t), cy + ay * Math.sin(t)] as Point;
    });
  // From the end of the top left corner, as drawing programs do: dashes are counted from there.
  const left = corner(x + ax, y + ay, Math.PI);
  return [
    left[quarter],
    ...corner(x + w - ax, y + ay, 1.5 * Math.PI),
    ...corner(x + w - ax, y + h - ay, 0),
    ...corner(x + ax, y + h - ay, Math.PI / 2),
    ...left.slice(0, quarter),
  ];
}
