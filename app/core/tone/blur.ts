/** Means over a square window by running sums: as fast for a wide one as for a narrow one. Edges are repeated. */

/** Window mean of radius r pixels. @returns a new field */
export function boxMean(src: Float32Array, w: number, h: number, r: number): Float32Array {
  const n = 2 * r + 1;
  const mid = new Float32Array(src.length);
  for (let y = 0; y < h; y++) {
    const o = y * w;
    let s = src[o] * r;
    for (let x = 0; x < r; x++) s += src[o + Math.min(w - 1, x)];
    for (let x = 0; x < w; x++) {
      s += src[o + Math.min(w - 1, x + r)];
      mid[o + x] = s / n;
      s -= src[o + Math.max(0, x - r)];
    }
  }
  const out = new Float32Array(src.length);
  const sum = new Float64Array(w);
  for (let x = 0; x < w; x++) sum[x] = mid[x] * r;
  for (let y = 0; y < r; y++) {
    const o = Math.min(h - 1, y) * w;
    for (let x = 0; x < w; x++) sum[x] += mid[o + x];
  }
  for (let y = 0; y < h; y++) {
    const [add, off, at] = [Math.min(h - 1, y + r) * w, Math.max(0, y - r) * w, y * w];
    for (let x = 0; x < w; x++) {
      sum[x] += mid[add + x];
      out[at + x] = sum[x] / n;
      sum[x] -= mid[off + x];
    }
  }
  return out;
}

/** Three window means in a row: near a Gaussian of that standard deviation, pixels. */
export function soft(src: Float32Array, w: number, h: number, sigma: number): Float32Array {
  // variance of a window of radius r is r(r+1)/3
  const r = Math.round((Math.sqrt(1 + 4 * sigma * sigma) - 1) / 2);
  if (r < 1) return src.slice();
  return boxMean(boxMean(boxMean(src, w, h, r), w, h, r), w, h, r);
}

/**
 * A mean that stops at edges: within each window the best straight fit of the picture to itself, damped by eps (variance of what counts
 * as flat).
 */
export function edgeKeeping(src: Float32Array, w: number, h: number, r: number, eps = 0.01): Float32Array {
  if (r < 1) return src.slice();
  const mean = boxMean(src, w, h, r);
  const square = new Float32Array(src.length);
  for (let i = 0; i < src.length; i++) square[i] = src[i] * src[i];
  const power = boxMean(square, w, h, r);
  // the slope goes into the squares, the rest into their means
  for (let i = 0; i < src.length; i++) {
    const v = Math.max(0, power[i] - mean[i] * mean[i]);
    const a = v / (v + eps);
    square[i] = a;
    power[i] = mean[i] * (1 - a);
  }
  const a = boxMean(square, w, h, r);
  const b = boxMean(power, w, h, r);
  for (let i = 0; i < src.length; i++) a[i] = a[i] * src[i] + b[i];
  return a;
}
