/** Pixels as they come out of a file, row by row, and what of them is grey. */
import { lightTable } from "./light";

/** A decoded picture; rows are asked for from the top, some of them more than once. */
export interface Pixels {
  w: number;
  h: number;
  /** grey · grey, alpha · red, green, blue · red, green, blue, alpha */
  channels: 1 | 2 | 3 | 4;
  /** 255 or 65535 */
  max: number;
  /** `w·channels` values; may be written over by the next call */
  row(y: number): ArrayLike<number>;
}

/** Shares of red, green and blue in grey; they sum to 1. */
export type Mix = readonly [number, number, number];
/** relative luminance of linear sRGB */
export const LUMINANCE: Mix = [0.2126, 0.7152, 0.0722];

/** Most pixels, and longest side, of a picture that is taken. */
export const MOST_PIXELS = 60_000_000;
export const LONGEST_SIDE = 30_000;

/** Is a picture of a size that can be worked on? @returns what is wrong, as a sentence; null: nothing */
export function tooBig(w: number, h: number): string | null {
  if (!(w > 0 && h > 0)) return "The picture has no pixels.";
  if (w > LONGEST_SIDE || h > LONGEST_SIDE)
    return `The picture is ${w} × ${h} pixels; a side may have ${LONGEST_SIDE.toLocaleString("en")} at most.`;
  if (w * h > MOST_PIXELS)
    return `The picture has ${Math.round((w * h) / 1e6)} megapixels; ${MOST_PIXELS / 1e6} is the most that is worked on.`;
  return null;
}

/**
 * Linear grey of one row into a buffer. @param ground linear light that shows through what is clear
 */
export function greyRow(p: Pixels, y: number, mix: Mix, ground: number, out: Float64Array): void {
  const { w, channels } = p;
  const t = lightTable(p.max);
  const r = p.row(y);
  const [kr, kg, kb] = mix;
  if (channels === 1) for (let x = 0; x < w; x++) out[x] = t[r[x]];
  else if (channels === 3)
    for (let x = 0, i = 0; x < w; x++, i += 3) out[x] = kr * t[r[i]] + kg * t[r[i + 1]] + kb * t[r[i + 2]];
  else {
    const step = channels;
    for (let x = 0, i = 0; x < w; x++, i += step) {
      const a = r[i + step - 1] / p.max;
      const v = step === 2 ? t[r[i]] : kr * t[r[i]] + kg * t[r[i + 1]] + kb * t[r[i + 2]];
      out[x] = a >= 1 ? v : a * v + (1 - a) * ground;
    }
  }
}

/** EXIF orientation 1-8: is it mirrored left for right first, and then turned by how many quarters clockwise. */
export const EXIF_TURNS: Record<number, { flip: boolean; quarters: 0 | 1 | 2 | 3 }> = {
  1: { flip: false, quarters: 0 },
  2: { flip: true, quarters: 0 },
  3: { flip: false, quarters: 2 },
  4: { flip: true, quarters: 2 },
  5: { flip: true, quarters: 3 },
  6: { flip: false, quarters: 1 },
  7: { flip: true, quarters: 1 },
  8: { flip: false, quarters: 3 },
};
