/** A curve through points that never turns back between them: monotone cubic (Fritsch & Carlson 1980), flat outside. */
export type CurvePoint = readonly [number, number];

/** @param points 0-1, in any order; of two at one place the later stands */
export function curveOf(points: readonly CurvePoint[]): (x: number) => number {
  const p = [...new Map([...points].sort((a, b) => a[0] - b[0]).map((q) => [q[0], q[1]])).entries()];
  if (!p.length) return (x) => x;
  if (p.length === 1) return () => p[0][1];
  const n = p.length;
  const d = p.slice(1).map((q, i) => (q[1] - p[i][1]) / (q[0] - p[i][0]));
  const m = p.map((_q, i) =>
    i === 0 ? d[0] : i === n - 1 ? d[n - 2] : d[i - 1] * d[i] <= 0 ? 0 : (d[i - 1] + d[i]) / 2,
  );
  d.forEach((s, i) => {
    if (s === 0) m[i] = m[i + 1] = 0;
    else {
      const r = Math.hypot(m[i] / s, m[i + 1] / s);
      if (r > 3) {
        m[i] *= 3 / r;
        m[i + 1] *= 3 / r;
      }
    }
  });
  return (x) => {
    if (x <= p[0][0]) return p[0][1];
    if (x >= p[n - 1][0]) return p[n - 1][1];
    let i = 0;
    while (x > p[i + 1][0]) i++;
    const h = p[i + 1][0] - p[i][0];
    const t = (x - p[i][0]) / h;
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * p[i][1] +
      (t3 - 2 * t2 + t) * h * m[i] +
      (3 * t2 - 2 * t3) * p[i + 1][1] +
      (t3 - t2) * h * m[i + 1]
    );
  };
}
