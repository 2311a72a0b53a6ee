/**
 * Colour as numbers: linear sRGB triples for mixing light, CIE L*a*b* (D65) for judging difference, and the
 * published CIEDE2000 difference, all through culori; its D65 Lab mode agrees with the published pairs.
 */
import {
  convertLrgbToRgb,
  convertRgbToXyz65,
  convertRgbToLrgb,
  convertXyz65ToLab65,
  differenceCiede2000,
  formatHex,
  modeLab65,
  modeRgb,
  parseHex,
  useMode as register,
} from "culori/fn";

register(modeRgb);
register(modeLab65);

export type Rgb = readonly [number, number, number];
export type Lab = readonly [number, number, number];

/** A paint’s colour is asked for many times in a plan: what is known of it is kept, and the triple stays the same one. */
const kept = new Map<string, Rgb>();
const KEPT = 4096;
/** `#rrggbb` to linear light 0-1. @throws Error for anything else */
export function linear(hex: string): Rgb {
  const got = kept.get(hex);
  if (got) return got;
  const c = /^#[0-9a-f]{6}$/i.test(hex) ? parseHex(hex) : undefined;
  if (!c) throw new Error(`“${hex}” is not a colour such as #a1b2c3`);
  const { r, g, b } = convertRgbToLrgb(c);
  if (kept.size >= KEPT) kept.clear();
  const made: Rgb = [r, g, b];
  kept.set(hex, made);
  labs.set(made, labOf(made));
  apart.set(made, new WeakMap());
  return made;
}

/** Linear light to `#rrggbb`, clamped to what a screen shows. */
export const hex = ([r, g, b]: Rgb): string => formatHex(convertLrgbToRgb({ r, g, b }));

/** Relative luminance Y of linear sRGB. */
export const luminance = (c: Rgb): number => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];

/** L*a*b* of triples that are kept, and how far they are apart: mixed ones come and go and are reckoned each time */
const labs = new WeakMap<Rgb, Lab>();
const apart = new WeakMap<Rgb, WeakMap<Rgb, number>>();
/** CIE L*a*b* under D65. */
export const lab = (rgb: Rgb): Lab => labs.get(rgb) ?? labOf(rgb);
function labOf([r, g, b]: Rgb): Lab {
  const c = convertXyz65ToLab65(convertRgbToXyz65(convertLrgbToRgb({ r, g, b })));
  return [c.l, c.a, c.b];
}

const ciede = differenceCiede2000();
/** CIEDE2000 between two L*a*b* triples. */
export const labDifference = (p: Lab, q: Lab): number =>
  ciede({ mode: "lab65", l: p[0], a: p[1], b: p[2] }, { mode: "lab65", l: q[0], a: q[1], b: q[2] });
/** CIEDE2000 between two linear sRGB colours. */
export function difference(p: Rgb, q: Rgb): number {
  const from = labs.has(q) ? apart.get(p) : undefined;
  const got = from?.get(q);
  if (got !== undefined) return got;
  const off = labDifference(lab(p), lab(q));
  from?.set(q, off);
  return off;
}

/** Share-weighted mix in linear light. */
export const mix = (a: Rgb, b: Rgb, share: number): Rgb => [
  a[0] + (b[0] - a[0]) * share,
  a[1] + (b[1] - a[1]) * share,
  a[2] + (b[2] - a[2]) * share,
];

const [EARTH_CHROMA, EARTH_L] = [66, 66];
/** The hiding family of a paint colour, for the default hiding thickness. */
export function colourFamily(c: string): "black" | "white" | "pale" | "yellow" | "red" | "earth" | "mid" {
  const [l, a, b] = lab(linear(c));
  const chroma = Math.hypot(a, b);
  const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
  if (l < 22 && chroma < 25) return "black";
  if (l > 92 && chroma < 12) return "white";
  // rust, ochre, brown: neither as strong as an organic red or yellow, nor as light
  if (chroma > 14 && chroma < EARTH_CHROMA && hue > 35 && hue < 95 && l < EARTH_L) return "earth";
  if (chroma > 38 && hue >= 75 && hue < 115 && l > 60) return "yellow";
  if (chroma > 38 && (hue < 75 || hue > 345)) return l > 82 ? "pale" : "red";
  return l > 72 ? "pale" : "mid";
}
