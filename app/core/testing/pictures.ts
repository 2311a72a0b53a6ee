/** Pictures made by arithmetic, for tests: fields, wedges, and a scene with soft and hard edges. */
import { randomOf } from "../units/random";
import { toScreen } from "../tone/light";
import type { Pixels } from "../tone/source";
import type { Recipe } from "../tone/render";

/** Grey pixels of any tone. @param tone screen value 0-255 at a pixel */
export function grey(w: number, h: number, tone: (x: number, y: number) => number): Pixels {
  const rows = Array.from({ length: h }, (_r, y) => Uint8Array.from({ length: w }, (_v, x) => tone(x, y)));
  return { w, h, channels: 1, max: 255, row: (y) => rows[y] };
}
/** One tone all over, of 16 bits. @param y linear light 0-1 */
export const flatField = (w: number, h: number, y: number): Pixels => {
  const row = new Uint16Array(w).fill(Math.round(toScreen(y) * 65535));
  return { w, h, channels: 1, max: 65535, row: () => row };
};
/** Steps of equal lightness from black to white, side by side. */
export const wedge = (w: number, h: number, steps: number, light: (step: number) => number): Pixels => {
  const row = Uint16Array.from({ length: w }, (_v, x) =>
    Math.round(toScreen(light(Math.floor((x * steps) / w))) * 65535),
  );
  return { w, h, channels: 1, max: 65535, row: () => row };
};
/** Hills, a disc with a hard edge, and grain: what a photo has in it. */
export function scene(w: number, h: number, seed: number): Pixels {
  const r = randomOf(seed);
  const waves = Array.from({ length: 6 }, () => [r.next() * 9, r.next() * 9, r.next() * 6, 8 + r.next() * 22]);
  const grain = Float32Array.from({ length: w * h }, () => r.next() * 8 - 4);
  return grey(w, h, (x, y) => {
    const [u, v] = [x / w, y / h];
    const hills = waves.reduce((s, [a, b, c, d]) => s + d * Math.sin(a * u + b * v + c), 128);
    const disc = Math.hypot(u - 0.6, v - 0.35) < 0.18 ? 70 : 0;
    return Math.max(0, Math.min(255, hills + disc + grain[y * w + x]));
  });
}

/** A plain recipe, one pixel of the picture one of the laser’s. */
export const recipe = (w: number, h: number, more: Partial<Recipe> = {}): Recipe => ({
  widthMm: w / 10,
  heightMm: h / 10,
  intervalMm: 0.1,
  fit: "stretch",
  quarters: 0,
  exif: 1,
  flip: false,
  crop: null,
  mix: null,
  ground: 1,
  tone: [],
  render: "floyd-steinberg",
  dots: { serpentine: false, perCm: 12, angle: 45 },
  invert: true,
  mirror: false,
  spot: null,
  colourY: 1,
  topY: 0,
  layOn: false,
  ...more,
});
