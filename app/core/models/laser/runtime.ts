/**
 * M2 Run time. Raster: every row at speed v with ramps at both ends; vector: trapezoid profile with corner speeds.
 * Lengths mm, speeds mm/s, accelerations mm/s², results s.
 */
export interface RasterRun {
  /** length of each row that is burnt, mm (a mean serves where rows are many) */
  rowMm: number;
  rows: number;
  speed: number;
  accel: number;
  /** run past each end, mm; null: v²/2a */
  overscanMm: number | null;
  intervalMm: number;
  bothWays: boolean;
  rapid: number | null;
  galvo: boolean;
  jumpS: number;
  passes: number;
}

const positive = (name: string, v: number): void => {
  if (!(v > 0) || !Number.isFinite(v)) throw new RangeError(`${name} must be above 0, got ${v}`);
};

/** Time to run D mm at most at v: ramps included. */
export const travel = (d: number, v: number, a: number): number =>
  d <= 0 ? 0 : d >= (v * v) / a ? d / v + v / a : 2 * Math.sqrt(d / a);

/** One row: burnt length plus overscan at both ends, s. */
export function rowTime(rowMm: number, speed: number, accel: number, overscanMm: number | null): number {
  positive("speed", speed);
  positive("acceleration", accel);
  return travel(rowMm + 2 * (overscanMm ?? (speed * speed) / (2 * accel)), speed, accel);
}

/** @returns seconds for all rows and passes @throws RangeError when speed, acceleration or interval are not above 0 */
export function rasterTime(r: RasterRun): number {
  positive("speed", r.speed);
  positive("acceleration", r.accel);
  positive("interval", r.intervalMm);
  if (r.rows <= 0 || r.rowMm <= 0) return 0;
  const step = 2 * Math.sqrt(r.intervalMm / r.accel);
  const over = r.overscanMm ?? (r.speed * r.speed) / (2 * r.accel);
  const row = r.galvo ? r.rowMm / r.speed + r.jumpS : rowTime(r.rowMm, r.speed, r.accel, over);
  // On a both-ways run the step hides in the turn; one way it comes with the trip back.
  const back = r.galvo || r.bothWays ? 0 : travel(r.rowMm + 2 * over, r.rapid ?? r.speed, r.accel) + step;
  return r.passes * r.rows * (row + back);
}

/** Edges burn while the head is still speeding up when the overscan is shorter than the ramp. */
export const overscanTooShort = (speed: number, accel: number, overscanMm: number | null): boolean =>
  overscanMm !== null && overscanMm < (speed * speed) / (2 * accel) - 1e-9;

/** Corner tolerance δ, mm. */
const CORNER_MM = 0.02;

/** Speed kept through a corner of inner angle θ: min(v, √(a·δ·sin(θ/2)/(1−sin(θ/2)))). */
export function cornerSpeed(v: number, accel: number, thetaRad: number): number {
  const s = Math.sin(thetaRad / 2);
  return s >= 1 - 1e-12 ? v : Math.min(v, Math.sqrt((accel * CORNER_MM * s) / (1 - s)));
}

/** Trapezoid profile of one straight from speed u to w, at most v. */
function segmentTime(d: number, u: number, w: number, v: number, a: number): number {
  if (d <= 0) return 0;
  const peak = Math.min(v, Math.sqrt(Math.max(0, (2 * a * d + u * u + w * w) / 2)));
  const ramp = (peak * peak - u * u + (peak * peak - w * w)) / (2 * a);
  return Math.max(0, peak - u) / a + Math.max(0, peak - w) / a + Math.max(0, d - ramp) / Math.max(peak, 1e-9);
}

/** Vector run along one polyline (mm pairs), from rest to rest; seconds. */
export function vectorTime(points: [number, number][], speed: number, accel: number, passes = 1): number {
  positive("speed", speed);
  positive("acceleration", accel);
  const n = points.length;
  if (n < 2) return 0;
  const len = points.slice(1).map((p, i) => Math.hypot(p[0] - points[i][0], p[1] - points[i][1]));
  const at = new Array<number>(n).fill(0);
  for (let i = 1; i < n - 1; i++) {
    const [ax, ay] = [points[i - 1][0] - points[i][0], points[i - 1][1] - points[i][1]];
    const [bx, by] = [points[i + 1][0] - points[i][0], points[i + 1][1] - points[i][1]];
    at[i] = cornerSpeed(
      speed,
      accel,
      Math.acos(Math.min(1, Math.max(-1, (ax * bx + ay * by) / (len[i - 1] * len[i] || 1)))),
    );
  }
  for (let i = 1; i < n; i++) at[i] = Math.min(at[i], Math.sqrt(at[i - 1] ** 2 + 2 * accel * len[i - 1]));
  for (let i = n - 2; i >= 0; i--) at[i] = Math.min(at[i], Math.sqrt(at[i + 1] ** 2 + 2 * accel * len[i]));
  return passes * len.reduce((sum, d, i) => sum + segmentTime(d, at[i], at[i + 1], speed, accel), 0);
}

/** How many pieces lie on the bed at once, and how many loads N pieces make. Zero a load: the piece does not fit. */
export function bedLoads(
  n: number,
  w: number,
  h: number,
  bedW: number,
  bedH: number,
  gap = 5,
): { perLoad: number; loads: number } {
  const fit = (pw: number, ph: number): number =>
    Math.max(0, Math.floor((bedW + gap) / (pw + gap))) * Math.max(0, Math.floor((bedH + gap) / (ph + gap)));
  const perLoad = Math.max(fit(w, h), fit(h, w));
  return { perLoad, loads: perLoad > 0 ? Math.ceil(n / perLoad) : 0 };
}

/** Watts for a panel setting by the machine's own points, straight between them; null outside or with fewer than two. */
export function wattsAt(points: { set: number; watts: number }[], set: number): number | null {
  const p = [...points].sort((x, y) => x.set - y.set);
  if (p.length < 2 || set < p[0].set || set > p[p.length - 1].set) return null;
  const i = Math.max(
    1,
    p.findIndex((q) => q.set >= set),
  );
  const [a, b] = [p[i - 1], p[i]];
  return b.set === a.set ? b.watts : a.watts + ((b.watts - a.watts) * (set - a.set)) / (b.set - a.set);
}
