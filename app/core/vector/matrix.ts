/** SVG affine transforms [a b c d e f]. */
export type Matrix = readonly [number, number, number, number, number, number];
export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

export const multiply = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];
export const apply = (m: Matrix, x: number, y: number): [number, number] => [
  m[0] * x + m[2] * y + m[4],
  m[1] * x + m[3] * y + m[5],
];
export const determinant = (m: Matrix): number => m[0] * m[3] - m[1] * m[2];
/** the most that a unit length is stretched */
export const maxScale = (m: Matrix): number => Math.max(Math.hypot(m[0], m[1]), Math.hypot(m[2], m[3]), 1e-9);

/** A `transform` attribute. @throws Error naming what it cannot read */
export function parseTransform(text: string | undefined): Matrix {
  let m = IDENTITY;
  if (!text || text.trim() === "none") return m;
  const re = /\s*,?\s*([a-zA-Z]+)\s*\(([^)]*)\)/y;
  while (re.lastIndex < text.trimEnd().length) {
    const found = re.exec(text);
    if (!found) throw new Error(`transform “${text.slice(0, 60)}” cannot be read`);
    const v = found[2]
      .trim()
      .split(/[\s,]+/)
      .filter(Boolean)
      .map((s) => parseFloat(s));
    if (v.some((n) => !Number.isFinite(n)) || v.length === 0)
      throw new Error(`transform “${found[0].trim().slice(0, 60)}” cannot be read`);
    const rad = (v[0] * Math.PI) / 180;
    const turn: Matrix = [Math.cos(rad), Math.sin(rad), -Math.sin(rad), Math.cos(rad), 0, 0];
    const made: Record<string, () => Matrix> = {
      matrix: () => (v.length === 6 ? (v as unknown as Matrix) : fail(found[0])),
      translate: () => [1, 0, 0, 1, v[0], v[1] ?? 0],
      scale: () => [v[0], 0, 0, v[1] ?? v[0], 0, 0],
      rotate: () =>
        v.length === 3 ? multiply(multiply([1, 0, 0, 1, v[1], v[2]], turn), [1, 0, 0, 1, -v[1], -v[2]]) : turn,
      skewx: () => [1, 0, Math.tan(rad), 1, 0, 0],
      skewy: () => [1, Math.tan(rad), 0, 1, 0, 0],
    };
    const make = made[found[1].toLowerCase()] ?? ((): Matrix => fail(found[0]));
    m = multiply(m, make());
  }
  return m;
}

function fail(what: string): never {
  throw new Error(`transform “${what.trim().slice(0, 60)}” cannot be read`);
}
