/**
 * Flaws drawn from figures: a painted face of two colours under raking light, with what one sees of each kind; the same seed draws the same
 * face. For the exercise, the flaw diary and the field guide.
 */
import type { FlawId } from "../catalogue/flaws";
import { randomOf, type Random } from "../units/random";
import { rect, r1, type Drawing, type Shape } from "./exercise";

const [W, H] = [160, 110];
const FACE = "#e0c296";
const PAINT = "#a8235a";
const DARK = "#17161b";
const PALE = "#f0efe9";

const ring = (x: number, y: number, rx: number, ry = rx, n = 18): string =>
  `M${Array.from({ length: n }, (_v, i) => {
    const a = (2 * Math.PI * i) / n;
    return `${r1(x + rx * Math.cos(a))} ${r1(y + ry * Math.sin(a))}`;
  }).join("L")}Z`;
/** A line that wanders, as a band of some width. */
function wander(r: Random, x0: number, y0: number, x1: number, y1: number, off: number, n = 12): string {
  const p = Array.from({ length: n + 1 }, (_v, i) => {
    const t = i / n;
    return [x0 + (x1 - x0) * t + off * (r.next() - 0.5), y0 + (y1 - y0) * t + off * (r.next() - 0.5)];
  });
  return `M${p.map(([x, y]) => `${r1(x)} ${r1(y)}`).join("L")}`;
}
const spots = (r: Random, n: number, of: (x: number, y: number, k: number) => Shape | Shape[]): Shape[] =>
  Array.from({ length: n }, (_v, k) => of(24 + r.next() * 112, 20 + r.next() * 70, k)).flat();

/** where the painted area lies */
const [X, Y, PW, PH] = [24, 20, 112, 70];
const area = rect(X, Y, PW, PH);

/** What of each flaw is drawn over the plain face. @param k severity, 1 to 3 */
const DRAWN: Record<FlawId, (r: Random, k: number) => Shape[]> = {
  "smear-melt": (r, k) =>
    Array.from({ length: 3 + 3 * k }, () => {
      const [x, y] = [X + r.next() * PW, Y + r.next() * PH * 0.7];
      const l = 10 + r.next() * 10 * k;
      return [
        {
          d: wander(r, x, y, x + 3 * r.next(), y + l, 3),
          fill: "none",
          stroke: DARK,
          line: 3 + 2 * r.next(),
          opacity: 0.75,
          blur: 0.6,
        },
        { d: ring(x + 1, y + l, 3 + r.next() * 2), fill: DARK },
      ];
    }).flat(),
  "dull-grey-film": (r, k) => [
    { d: area, fill: "#8e8a8c", opacity: 0.28 + 0.16 * k },
    ...spots(r, 10, (x, y) => ({
      d: ring(x, y, 8 + 8 * r.next(), 5 + 5 * r.next()),
      fill: "#777476",
      opacity: 0.16,
      blur: 3,
    })),
  ],
  "colour-eaten-through": (r, k) =>
    spots(r, 5 + 5 * k, (x, y) => ({
      d: ring(x, y, 3 + 5 * r.next(), 2 + 4 * r.next(), 9),
      fill: PALE,
      stroke: "#d98aa6",
      line: 1,
    })),
  "dark-specks-left": (r, k) =>
    spots(r, 40 + 50 * k, (x, y) => ({ d: ring(x, y, 0.5 + 1.1 * r.next(), undefined, 7), fill: DARK })),
  "uneven-bands": (r, k) =>
    Array.from({ length: 11 }, (_v, i) => ({
      d: rect(X, Y + i * (PH / 11), PW, PH / 22),
      fill: i % 2 ? DARK : PALE,
      opacity: 0.1 + 0.09 * k + 0.03 * r.next(),
    })),
  "wrinkle-craze": (r, k) =>
    Array.from({ length: 18 + 16 * k }, () => {
      const [x, y] = [X + 4 + r.next() * (PW - 20), Y + 4 + r.next() * (PH - 12)];
      const d = wander(r, x, y, x + 14 + 8 * r.next(), y + 8 * (r.next() - 0.5), 9, 7);
      return [
        { d, fill: "none", stroke: "#5b0f2c", line: 1.2 },
        {
          d: d.replace(/M([\d.]+) ([\d.]+)/, (_m, a: string, b: string) => `M${a} ${r1(Number(b) - 1.2)}`),
          fill: "none",
          stroke: "#e58aac",
          line: 0.6,
          opacity: 0.8,
        },
      ];
    }).flat(),
  peel: (r, k) =>
    spots(r, 2 + k, (x, y) => {
      const [w, h] = [10 + 8 * k * r.next(), 8 + 5 * k * r.next()];
      const flap = `M${r1(x)} ${r1(y)}L${r1(x + w)} ${r1(y - 2)}L${r1(x + w * 0.9)} ${r1(y + h)}L${r1(x + 2)} ${r1(y + h * 0.8)}Z`;
      return [
        { d: flap, fill: FACE, stroke: "#8a7440", line: 0.6 },
        {
          d: `M${r1(x)} ${r1(y)}L${r1(x + w)} ${r1(y - 2)}L${r1(x + w * 0.8)} ${r1(y - 7)}L${r1(x + 2)} ${r1(y - 6)}Z`,
          fill: "#d4739a",
          stroke: "#5b0f2c",
          line: 0.8,
        },
      ];
    }),
  fisheyes: (r, k) =>
    spots(r, 6 + 7 * k, (x, y) => {
      const s = 2.4 + 2.6 * r.next();
      return [
        { d: ring(x, y, s + 1.4), fill: "#7d1340" },
        { d: ring(x, y, s), fill: FACE },
        { d: ring(x, y, s * 0.35), fill: "#b8945e" },
      ];
    }),
  overspray: (r, k) =>
    Array.from({ length: 260 * k }, () => {
      const a = 2 * Math.PI * r.next();
      const far = 4 + 22 * r.next() ** 2;
      const [x, y] = [80 + Math.cos(a) * (PW / 2 + far), 55 + Math.sin(a) * (PH / 2 + far * 0.8)];
      return { d: ring(x, y, 0.45 + 0.4 * r.next(), undefined, 6), fill: PAINT, opacity: 0.75 };
    }),
  "feathered-edge": (r, k) =>
    Array.from({ length: 60 }, (_v, i) => {
      const top = i % 2 === 0;
      const x = X + (i / 60) * PW + 2 * r.next();
      const l = (2 + 7 * r.next()) * (0.5 + 0.4 * k);
      const y = top ? Y : Y + PH;
      return {
        d: `M${r1(x)} ${r1(y)}L${r1(x + 1.6)} ${r1(y)}L${r1(x + 0.4 + 2 * (r.next() - 0.5))} ${r1(top ? y - l : y + l)}Z`,
        fill: PAINT,
      };
    }),
  "scorch-halo": (r, k) => [
    { d: rect(X - 4 * k, Y - 4 * k, PW + 8 * k, PH + 8 * k), fill: "#7a4a1c", opacity: 0.75, blur: 3 + k },
    { d: area, fill: PAINT },
    ...Array.from({ length: 8 }, () => ({
      d: ring(X + r.next() * PW, r.next() < 0.5 ? Y - 2 : Y + PH + 2, 5, 3),
      fill: "#4a2a0e",
      opacity: 0.35,
      blur: 2,
    })),
  ],
  "bare-walls": (r, k) => [
    { d: rect(X, Y, PW, 3 + 2 * k), fill: "#2b1d14" },
    { d: rect(X, Y, 3 + 2 * k, PH), fill: "#2b1d14" },
    { d: rect(X + PW - 3 - 2 * k, Y, 3 + 2 * k, PH), fill: "#3a2a1c" },
    { d: rect(X, Y + PH - 3 - 2 * k, PW, 3 + 2 * k), fill: "#4a3826" },
    ...spots(r, 3, (x, y) => ({ d: ring(x, y, 1), fill: "#7d1340" })),
  ],
  "bubbles-at-edges": (r, k) =>
    Array.from({ length: 10 + 8 * k }, () => {
      const side = r.below(4);
      const t = r.next();
      const [x, y] =
        side === 0
          ? [X + t * PW, Y + 3]
          : side === 1
            ? [X + t * PW, Y + PH - 3]
            : side === 2
              ? [X + 3, Y + t * PH]
              : [X + PW - 3, Y + t * PH];
      const s = 1.2 + 1.8 * r.next();
      return [
        { d: ring(x, y, s), fill: "#5b0f2c" },
        { d: ring(x - s * 0.3, y - s * 0.3, s * 0.35), fill: PALE, opacity: 0.9 },
      ];
    }).flat(),
  "dust-in-paint": (r, k) =>
    spots(r, 14 + 16 * k, (x, y) => {
      const long = r.next() < 0.35;
      const body = long
        ? {
            d: wander(r, x, y, x + 7 * (r.next() - 0.3), y + 5 * (r.next() - 0.5), 2, 4),
            fill: "none",
            stroke: "#d9c6cf",
            line: 0.7,
          }
        : { d: ring(x, y, 1 + r.next(), undefined, 7), fill: "#c85f8a" };
      return [{ d: ring(x + 1, y + 1, 1.6), fill: "#6d1038", opacity: 0.6, blur: 0.5 }, body as Shape];
    }),
  "sanded-out": (r, k) => [
    ...spots(r, 2 + k, (x, y) => ({
      d: ring(x, y, 9 + 7 * k * r.next(), 6 + 4 * k * r.next(), 14),
      fill: FACE,
      opacity: 0.92,
      blur: 1.5,
    })),
    ...Array.from({ length: 26 }, () => {
      const y = Y + r.next() * PH;
      return { d: `M${X} ${r1(y)}L${X + PW} ${r1(y + 2)}`, fill: "none", stroke: FACE, line: 0.35, opacity: 0.6 };
    }),
  ],
  "drips-sags": (r, k) =>
    Array.from({ length: 3 + 2 * k }, () => {
      const x = X + 8 + r.next() * (PW - 16);
      const l = 8 + 10 * k * r.next();
      const y = Y + PH;
      return [
        {
          d: `M${r1(x - 3)} ${r1(y - 22)}L${r1(x + 3)} ${r1(y - 22)}L${r1(x + 2.4)} ${r1(y + l)}L${r1(x - 2.4)} ${r1(y + l)}Z`,
          fill: "#8f1a4b",
        },
        { d: ring(x, y + l, 3.6), fill: "#8f1a4b" },
        { d: ring(x - 1.2, y + l - 1, 1), fill: PALE, opacity: 0.9 },
      ];
    }).flat(),
  "chipped-paint": (r, k) =>
    Array.from({ length: 4 + 3 * k }, () => {
      const side = r.below(2);
      const x = X + r.next() * PW;
      const y = side ? Y : Y + PH;
      const s = 3 + 3 * r.next();
      const up = side ? 1 : -1;
      return {
        d: `M${r1(x - s)} ${y}L${r1(x - s * 0.4)} ${r1(y + up * s)}L${r1(x + s * 0.3)} ${r1(y + up * s * 0.7)}L${r1(x + s)} ${y}Z`,
        fill: FACE,
        stroke: "#5b0f2c",
        line: 0.9,
      };
    }),
  "cloudy-clear": (r, k) => [
    { d: rect(8, 8, W - 16, H - 16), fill: "#ffffff", opacity: 0.18 + 0.12 * k, blur: 4 },
    ...Array.from({ length: 6 }, () => ({
      d: ring(20 + 120 * r.next(), 20 + 70 * r.next(), 16 + 14 * r.next(), 9 + 8 * r.next()),
      fill: "#ffffff",
      opacity: 0.22,
      blur: 5,
    })),
  ],
};

/** @param severity 1 slight, 2 plain, 3 spoilt @param id null: a face as it should be */
export function flawDrawing(id: FlawId | null, severity: number, seed: number): Drawing {
  const r = randomOf(seed * 977 + severity);
  const grain = Array.from({ length: 7 }, (_v, i) => ({
    d: wander(r, 0, 8 + i * 15, W, 8 + i * 15, 2.5),
    fill: "none",
    stroke: "#b8945e",
    line: 0.5,
    opacity: 0.5,
  }));
  const base: Shape[] = [
    { d: rect(0, 0, W, H), fill: FACE },
    ...grain,
    { d: area, fill: PAINT },
    {
      d: `M${X + 6} ${Y + 8}L${X + 40} ${Y + 8}L${X + 24} ${Y + 20}L${X + 6} ${Y + 20}Z`,
      fill: "#ffffff",
      opacity: 0.16,
      blur: 2,
    },
  ];
  return {
    w: W,
    h: H,
    label: "A painted area, seen in slanting light",
    shapes: [...base, ...(id ? DRAWN[id](r, severity) : [])],
  };
}
