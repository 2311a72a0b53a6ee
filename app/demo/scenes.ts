/** Two pictures made by arithmetic for the sample shop: an old gardener who never was, an evening at no place. The same each time. */
import { randomOf } from "../core/units/random";
import { toBase64 } from "../io/base64";
import { png } from "../io/export/png";

export interface Scene {
  w: number;
  h: number;
  /** a byte a pixel, screen values */
  data: Uint8Array;
}
const clip = (v: number): number => Math.max(0, Math.min(255, Math.round(v)));
const smooth = (a: number, b: number, x: number): number => {
  const t = Math.max(0, Math.min(1, (x - a) / (b - a)));
  return t * t * (3 - 2 * t);
};
/** How far inside an oval a place lies: 1 in its middle, 0 at its edge and beyond. */
const oval = (x: number, y: number, cx: number, cy: number, rx: number, ry: number): number =>
  Math.max(0, 1 - ((x - cx) / rx) ** 2 - ((y - cy) / ry) ** 2);

/** Noise that changes slowly over so many pixels: what skin, wool and clouds are made of. */
function slow(w: number, h: number, cell: number, seed: number): (x: number, y: number) => number {
  const r = randomOf(seed);
  const [n, m] = [Math.ceil(w / cell) + 2, Math.ceil(h / cell) + 2];
  const v = Float32Array.from({ length: n * m }, () => r.next() * 2 - 1);
  return (x, y) => {
    const [a, b] = [x / cell, y / cell];
    const [i, j] = [Math.floor(a), Math.floor(b)];
    const [s, t] = [smooth(0, 1, a - i), smooth(0, 1, b - j)];
    const at = (p: number, q: number): number => v[(((q % m) + m) % m) * n + (((p % n) + n) % n)];
    return (at(i, j) * (1 - s) + at(i + 1, j) * s) * (1 - t) + (at(i, j + 1) * (1 - s) + at(i + 1, j + 1) * s) * t;
  };
}

/** A head in a felt hat, lit from the upper left. */
export function gardener(w = 720, h = 960): Scene {
  const fine = slow(w, h, 5, 11);
  const broad = slow(w, h, 60, 12);
  const data = new Uint8Array(w * h);
  for (let py = 0; py < h; py++)
    for (let px = 0; px < w; px++) {
      // the head fills the middle: x from −1 to 1, y likewise and a third more
      const [x, y] = [(px / w) * 2 - 1, ((py / h) * 2 - 1) * (h / w)];
      let v = 62 + 26 * broad(px, py) + 40 * smooth(1.4, -1.2, x + y);
      // shoulders in wool
      const coat = smooth(0.02, 0.12, oval(x, y, 0, 1.42, 0.98, 0.62));
      v += coat * (46 + 14 * fine(px, py) + 26 * -x - v);
      // neck, then the face as an egg of light
      const neck = smooth(0, 0.3, oval(x, y, 0, 0.75, 0.3, 0.42));
      v += neck * (92 - 40 * x - v);
      const face = oval(x, y, 0, 0.18, 0.52, 0.72);
      const skin = 178 - 78 * x - 30 * (y - 0.1) + 8 * fine(px, py) - 46 * (1 - Math.sqrt(face));
      v += smooth(0, 0.08, face) * (skin - v);
      // sockets, eyes with a light in them, brows
      for (const side of [-1, 1]) {
        const cx = 0.2 * side;
        v -= 62 * smooth(0, 0.9, oval(x, y, cx, 0.06, 0.16, 0.1));
        v += smooth(0.1, 0.4, oval(x, y, cx, 0.07, 0.088, 0.04)) * (186 - v);
        v += smooth(0.1, 0.5, oval(x, y, cx, 0.068, 0.042, 0.042)) * (28 - v);
        v += smooth(0.1, 0.6, oval(x, y, cx - 0.014, 0.055, 0.013, 0.013)) * (250 - v);
        v -= 70 * smooth(0, 0.6, oval(x, y, cx, -0.075 - 0.02 * Math.cos((x - cx) * 9), 0.17, 0.036));
        // lines beside the eyes
        v -= 20 * Math.max(0, Math.sin((y - 0.08) * 120)) * smooth(0, 0.7, oval(x, y, 0.39 * side, 0.08, 0.07, 0.07));
        v += 22 * smooth(0, 1, oval(x, y, 0.25 * side, 0.3, 0.16, 0.13)) * (side < 0 ? 1.3 : 0.6);
      }
      // nose: a ridge of light with its shadow
      v += 44 * smooth(0, 1, oval(x, y, -0.03, 0.17, 0.05, 0.24));
      v -= 50 * smooth(0, 1, oval(x, y, 0.075, 0.24, 0.055, 0.16));
      v -= 40 * smooth(0, 0.8, oval(x, y, 0.02, 0.39, 0.13, 0.03));
      // beard and mouth
      const beard = smooth(0, 0.5, oval(x, y, 0, 0.68, 0.47, 0.4)) * smooth(0.36, 0.5, y + 0.2 * Math.abs(x));
      v += beard * (168 - 60 * x + 44 * fine(px * 0.5, py * 2) - v) * 0.8;
      v -= 78 * smooth(0, 0.7, oval(x, y, 0, 0.54, 0.17, 0.026));
      // hat: crown and brim, and the shade it throws
      v -= 58 * smooth(0, 0.7, oval(x, y, 0, -0.22, 0.58, 0.2)) * smooth(-0.3, -0.05, y);
      const crown = smooth(0, 0.06, oval(x, y, 0, -0.62, 0.56, 0.52)) * (y < -0.28 ? 1 : 0);
      v += crown * (70 - 44 * x + 10 * fine(px, py) + 8 * broad(px, py) - v);
      const brim = smooth(0, 0.1, oval(x, y, 0, -0.3, 0.92, 0.13));
      v += brim * (88 - 52 * x + 8 * fine(px, py) - 90 * smooth(-0.34, -0.2, y) - v);
      data[py * w + px] = clip(v);
    }
  return { w, h, data };
}

/** Reeds and a jetty before water, hills behind it, the sun going down. */
export function evening(w = 960, h = 720): Scene {
  const broad = slow(w, h, 90, 21);
  const ripple = slow(w, h, 14, 22);
  const r = randomOf(23);
  const reeds = Array.from({ length: 46 }, () => ({
    x: r.next() * w,
    top: h * (0.55 + 0.3 * r.next()),
    lean: (r.next() - 0.5) * 70,
    thick: 1.5 + 2.5 * r.next(),
  }));
  const data = new Uint8Array(w * h);
  const sea = h * 0.58;
  for (let py = 0; py < h; py++)
    for (let px = 0; px < w; px++) {
      const [x, y] = [px / w, py / h];
      let v: number;
      const hill = sea - h * (0.1 * Math.sin(x * 5 + 1) ** 2 + 0.05 * Math.sin(x * 13) ** 2) - 6;
      if (py < sea) {
        v = 120 + 90 * smooth(0, 0.6, y) + 24 * broad(px, py * 3);
        const sun = Math.hypot(px - w * 0.66, py - h * 0.43) / w;
        v += 70 * Math.exp(-((sun / 0.16) ** 2));
        if (sun < 0.055) v = 252;
        if (py > hill) v = 58 + 24 * x + 10 * broad(px, py);
      } else {
        const glint = Math.exp(-(((px - w * 0.66) / (w * (0.05 + 0.16 * (y - 0.58)))) ** 2));
        v =
          104 -
          46 * smooth(0.58, 1, y) +
          34 * ripple(px * 0.5, py * 3) +
          130 * glint * (0.55 + 0.45 * ripple(px, py * 4));
        // the hills again, upside down and darker
        if (2 * sea - py > hill && py < 2 * sea - hill) v -= 34;
      }
      // the jetty
      const deck = Math.abs(py - h * (0.8 - 0.08 * x)) < h * 0.014 && x < 0.52;
      const post = px % 96 < 11 && x < 0.52 && py > h * (0.8 - 0.08 * x) && py < h * 0.94;
      if (deck || post) v = 22;
      data[py * w + px] = clip(v);
    }
  for (const { x, top, lean, thick } of reeds)
    for (let py = Math.round(top); py < h; py++) {
      const t = (h - py) / (h - top);
      const at = x + lean * t * t;
      for (let px = Math.ceil(at - thick * (1.2 - t)); px <= at + thick * (1.2 - t); px++)
        if (px >= 0 && px < w) data[py * w + px] = 16;
    }
  return { w, h, data };
}

/** A small one, upright, by means of what it covers. */
export function small({ w, h, data }: Scene, px: number): { w: number; data: Uint8Array } {
  const k = Math.max(w, h) / px;
  const [sw, sh] = [Math.round(w / k), Math.round(h / k)];
  const out = new Uint8Array(sw * sh);
  for (let y = 0; y < sh; y++)
    for (let x = 0; x < sw; x++) {
      let [sum, n] = [0, 0];
      for (let j = Math.floor(y * k); j < Math.min(h, (y + 1) * k); j++)
        for (let i = Math.floor(x * k); i < Math.min(w, (x + 1) * k); i++, n++) sum += data[j * w + i];
      out[y * sw + x] = Math.round(sum / n);
    }
  return { w: sw, data: out };
}

export const SCENES = { gardener, evening };
/** longest side of the small one, pixels */
const SMALL_PX = 96;
/** A scene as the sample shop holds it, made beforehand so that it opens at once: `npm run fixtures` writes them down. */
export function keptScene(name: keyof typeof SCENES): {
  w: number;
  h: number;
  png: string;
  small: string;
  smallW: number;
} {
  const s = SCENES[name]();
  const few = small(s, SMALL_PX);
  return {
    w: s.w,
    h: s.h,
    png: toBase64(png({ w: s.w, h: s.h, depth: 8, data: s.data, stride: s.w }, 1)),
    small: toBase64(few.data),
    smallW: few.w,
  };
}
