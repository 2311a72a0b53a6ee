/**
 * Colour as numbers: linear sRGB triples for mixing light, CIE L*a*b* (D65) for judging difference, and the
 * published CIEDE2000 difference (through culori, in its D65 Lab mode, which agrees with the published pairs).
 */
import { differenceCiede2000, modeLab65, modeRgb, useMode as register } from "culori/fn";

register(modeRgb);
register(modeLab65);

export type Rgb = readonly [number, number, number];
export type Lab = readonly [number, number, number];

const toLinear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
const toGamma = (v: number): number => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055);

/** `#rrggbb` to linear light 0-1. @throws Error for anything else */
export function linear(hex: string): Rgb {
  const m = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (!m) throw new Error(`“${hex}” is not a colour such as #a1b2c3`);
  return [toLinear(parseInt(m[1], 16) / 255), toLinear(parseInt(m[2], 16) / 255), toLinear(parseInt(m[3], 16) / 255)];
}

/** Linear light to `#rrggbb`, clamped to what a screen shows. */
export function hex(rgb: Rgb): string {
  return `#${rgb
    .map((v) =>
      Math.round(toGamma(Math.min(1, Math.max(0, v))) * 255)
        .toString(16)
        .padStart(2, "0"),
    )
    .join("")}`;
}

/** Relative luminance Y of linear sRGB. */
export const luminance = (c: Rgb): number => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];

const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116);

/** CIE L*a*b* under D65 (IEC 61966-2-1 matrix). */
export function lab(c: Rgb): Lab {
  const x = f((0.4123908 * c[0] + 0.3575843 * c[1] + 0.1804808 * c[2]) / 0.9504559);
  const y = f(0.212639 * c[0] + 0.7151687 * c[1] + 0.0721923 * c[2]);
  const z = f((0.0193308 * c[0] + 0.1191948 * c[1] + 0.9505322 * c[2]) / 1.0890578);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

const ciede = differenceCiede2000();
/** CIEDE2000 between two L*a*b* triples. */
export const labDifference = (p: Lab, q: Lab): number =>
  ciede({ mode: "lab65", l: p[0], a: p[1], b: p[2] }, { mode: "lab65", l: q[0], a: q[1], b: q[2] });
/** CIEDE2000 between two linear sRGB colours. */
export const difference = (p: Rgb, q: Rgb): number => labDifference(lab(p), lab(q));

/** Share-weighted mix in linear light. */
export const mix = (a: Rgb, b: Rgb, share: number): Rgb => [
  a[0] + (b[0] - a[0]) * share,
  a[1] + (b[1] - a[1]) * share,
  a[2] + (b[2] - a[2]) * share,
];

/** The hiding family of a paint colour, for the default hiding thickness. */
export function colourFamily(c: string): "black" | "white" | "pale" | "yellow" | "red" | "mid" {
  const [l, a, b] = lab(linear(c));
  const chroma = Math.hypot(a, b);
  const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
  if (l < 22 && chroma < 25) return "black";
  if (l > 92 && chroma < 12) return "white";
  if (chroma > 38 && hue >= 75 && hue < 115 && l > 60) return "yellow";
  if (chroma > 38 && (hue < 75 || hue > 345)) return l > 82 ? "pale" : "red";
  return l > 72 ? "pale" : "mid";
}

/** The plain absorption family used by M4's table. */
export function absorbFamily(c: string): "black" | "white" | "warm" | "green" | "cool" {
  const [l, a, b] = lab(linear(c));
  const chroma = Math.hypot(a, b);
  const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
  if (chroma < 12) return l < 55 ? "black" : "white";
  if (l < 20) return "black";
  if (hue < 105) return hue < 12 && l > 65 ? "cool" : "warm";
  return hue < 190 ? "green" : hue > 345 ? "warm" : "cool";
}
