/** What two tones lose: parts that stand out from their surroundings and vanish at a threshold, each with the one that brings it back. */

export interface LostPart {
  /** what it is: dark on a lighter ground, or light on a darker one */
  dark: boolean;
  /** box in pixels, the far edge left out */
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  pixels: number;
  /** threshold at which half of it is there again */
  back: number;
}
export interface Lost {
  parts: LostPart[];
  /** thresholds that bring back all dark parts, all light ones; null: none of that kind is lost */
  dark: number | null;
  light: number | null;
}

/** a part stands out by so much at least, screen value */
const STANDS_OUT = 0.08;
/** share of tones that are taken for the ground, and for the ink */
const END = 0.1;

/** Tone that a share of all pixels lies below. */
function quantile(v: Float32Array, share: number): number {
  const bins = new Uint32Array(256);
  for (const x of v) bins[Math.min(255, Math.max(0, Math.floor(x * 256)))]++;
  let sum = 0;
  for (let i = 0; i < 256; i++) {
    sum += bins[i];
    if (sum >= share * v.length) return i / 255;
  }
  return 1;
}

/**
 * Parts of one side that vanish: pieces that hang together on the near side of a laxer threshold, and of which nothing is on the near
 * side of this one.
 * @param v dark parts of it are looked for
 */
function lostDark(v: Float32Array, w: number, h: number, at: number, least: number): Omit<LostPart, "dark">[] {
  const ground = quantile(v, 1 - END);
  const lax = ground - STANDS_OUT;
  if (lax <= at) return [];
  const seen = new Uint8Array(w * h);
  const stack: number[] = [];
  const out: Omit<LostPart, "dark">[] = [];
  for (let s = 0; s < seen.length; s++) {
    if (seen[s] || v[s] >= lax) continue;
    const part: number[] = [];
    let kept = false;
    let [x0, y0, x1, y1] = [w, h, 0, 0];
    seen[s] = 1;
    stack.push(s);
    while (stack.length) {
      const i = stack.pop()!;
      const [x, y] = [i % w, Math.floor(i / w)];
      if (v[i] < at) kept = true;
      part.push(i);
      [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x + 1), Math.max(y1, y + 1)];
      for (const j of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
        if (j >= 0 && j < v.length && !seen[j] && v[j] < lax) {
          seen[j] = 1;
          stack.push(j);
        }
    }
    if (kept || part.length < least) continue;
    const tones = part.map((i) => v[i]).sort((a, b) => a - b);
    // a hair beyond the tone that half of it has
    out.push({ x0, y0, x1, y1, pixels: part.length, back: tones[Math.floor(tones.length / 2)] + 1 / 256 });
  }
  return out;
}

/**
 * @param v screen values before they are made two tones @param at the threshold: as light as this becomes white
 * @param least pixels of a part that is told of
 */
export function lostAt(v: Float32Array, w: number, h: number, at: number, least: number): Lost {
  const dark = lostDark(v, w, h, at, least).map((p) => ({ ...p, dark: true }));
  const turned = v.map((x) => 1 - x);
  // light parts are the dark ones of the picture turned over; the threshold itself is on the light side
  const light = lostDark(turned, w, h, 1 - at + 1e-6, least).map((p) => ({ ...p, back: 1 - p.back, dark: false }));
  const ends = (list: LostPart[], f: (...n: number[]) => number): number | null =>
    list.length ? Math.round(f(...list.map((p) => p.back)) * 1000) / 1000 : null;
  const parts = [...dark, ...light].sort((a, b) => b.pixels - a.pixels);
  return { parts, dark: ends(dark, Math.max), light: ends(light, Math.min) };
}
