/**
 * A stand-in for a maker's camera: the photo of a test plate as it would be taken by hand. Each cell shows as much of the stack as its
 * energy opens (M4); light falls unevenly, the plate is held askew, the picture is soft and grainy. Seeded; nothing outside is asked.
 */
import type { Rgb } from "../core/models/film/colour";
import { phi } from "../core/models/film/reveal";
import {
  cellAt,
  cornersOf,
  homography,
  showing,
  type PhotoPixels,
  type PlateGrid,
  type Point,
  type StackColours,
} from "../core/models/laser/plate-photo";
import { toScreen } from "../core/tone/light";
import { randomOf } from "../core/units/random";

/** What the plate really is: energies at which each layer goes on the average, and how that spreads (ln). */
export interface PlateTruth {
  c1: number;
  s1: number;
  /** null: nothing lies beneath that could go */
  c2: number | null;
  s2: number;
}
export interface Camera {
  w: number;
  h: number;
  /** share by which the light falls off from one edge to the other */
  gradient: number;
  /** share of the plate's side by which its corners are askew */
  tilt: number;
  /** px, of a soft lens */
  blur: number;
  /** share of white, one standard deviation */
  noise: number;
  seed: number;
}
export const HAND_HELD: Omit<Camera, "seed"> = { w: 560, h: 420, gradient: 0.35, tilt: 0.06, blur: 1.5, noise: 0.02 };

/** Shares that are open and eaten at an energy. */
export function openAt(t: PlateTruth, e: number): { open: number; eaten: number } {
  const open = phi((Math.log(e) - Math.log(t.c1)) / t.s1);
  const eaten = t.c2 === null ? 0 : Math.min(open, phi((Math.log(e) - Math.log(t.c2)) / t.s2));
  return { open, eaten };
}

/** Running means over a side, three times: as good as a bell. */
function soften(c: Float32Array, w: number, h: number, radius: number): void {
  const r = Math.max(0, Math.round(radius));
  if (!r) return;
  const line = new Float32Array(Math.max(w, h));
  const pass = (n: number, at: (i: number) => number): void => {
    for (let i = 0; i < n; i++) {
      let [sum, k] = [0, 0];
      for (let j = Math.max(0, i - r); j <= Math.min(n - 1, i + r); j++) {
        sum += c[at(j)];
        k++;
      }
      line[i] = sum / k;
    }
    for (let i = 0; i < n; i++) c[at(i)] = line[i];
  };
  for (let y = 0; y < h; y++) pass(w, (i) => y * w + i);
  for (let x = 0; x < w; x++) pass(h, (i) => i * w + x);
}

/**
 * @param shows the colour of a cell, linear light
 * @returns the picture, and where the corners of the cells lie in it
 */
export function photograph(
  g: PlateGrid,
  ground: Rgb,
  shows: (row: number, col: number) => Rgb,
  camera: Camera,
): { photo: PhotoPixels; marks: Point[] } {
  const { w, h } = camera;
  const random = randomOf(camera.seed);
  const gauss = (): number => Math.sqrt(-2 * Math.log(1 - random.next())) * Math.cos(2 * Math.PI * random.next());
  const corners = cornersOf(g);
  const [wide, high] = [corners[2][0] - corners[0][0], corners[2][1] - corners[0][1]];
  const scale = 0.72 * Math.min(w / wide, h / high);
  const marks = corners.map(([x, y]): Point => {
    const off = (): number => camera.tilt * Math.min(wide, high) * scale * (2 * random.next() - 1);
    return [
      w / 2 + (x - corners[0][0] - wide / 2) * scale + off(),
      h / 2 + (y - corners[0][1] - high / 2) * scale + off(),
    ];
  });
  const back = homography(marks, corners)!;
  const turn = 2 * Math.PI * random.next();
  const white: Rgb = [0.75 + 0.25 * random.next(), 0.85 + 0.15 * random.next(), 0.7 + 0.3 * random.next()];
  const out = [0, 1, 2].map(() => new Float32Array(w * h));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [u, v] = back([x + 0.5, y + 0.5]);
      const [col, row] = [(u - g.x0) / (g.cellMm + g.gapMm), (v - g.y0) / (g.cellMm + g.gapMm)];
      const [c, r] = [Math.floor(col), Math.floor(row)];
      const [cx, cy] = cellAt(g, r, c);
      const inside = c >= 0 && r >= 0 && c < g.cols && r < g.rows && u < cx + g.cellMm && v < cy + g.cellMm;
      const is = inside ? shows(r, c) : ground;
      const falls =
        0.8 * (1 + camera.gradient * (((x / w - 0.5) * Math.cos(turn) + (y / h - 0.5) * Math.sin(turn)) / 1));
      for (let k = 0; k < 3; k++) out[k][y * w + x] = is[k] * white[k] * falls;
    }
  const data = new Uint8ClampedArray(4 * w * h);
  for (let k = 0; k < 3; k++) {
    for (let n = 0; n < 2; n++) soften(out[k], w, h, camera.blur);
    for (let i = 0; i < w * h; i++)
      data[4 * i + k] = Math.round(255 * toScreen(Math.min(1, Math.max(0, out[k][i] + camera.noise * 0.3 * gauss()))));
  }
  for (let i = 0; i < w * h; i++) data[4 * i + 3] = 255;
  return { photo: { w, h, data }, marks };
}

/** The colour of a cell that got so much. */
export const cellColour = (stack: StackColours, t: PlateTruth, e: number): Rgb => showing(stack, openAt(t, e));
