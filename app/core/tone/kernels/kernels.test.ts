/** Each kernel against an independent slow one, pixel by pixel; and against its own published weights, written out here anew. */
import { DOT_KINDS, type DotKind } from "../../records/picture";
import { randomOf } from "../../units/random";
import { blueNoise, voidAndCluster } from "./blue-noise";
import { square } from "./ordered";
import { DOT_MAKERS, rowsOf } from "./index";

const [W, H] = [41, 37];
const O = { serpentine: false, perCm: 9, angle: 30, intervalMm: 0.1 };

/** as printed: how much goes to which neighbour, [dx, dy, parts] */
const PRINTED: Record<string, { of: number; to: [number, number, number][] }> = {
  "floyd-steinberg": {
    of: 16,
    to: [
      [1, 0, 7],
      [-1, 1, 3],
      [0, 1, 5],
      [1, 1, 1],
    ],
  },
  "jarvis-judice-ninke": {
    of: 48,
    to: [
      [1, 0, 7],
      [2, 0, 5],
      [-2, 1, 3],
      [-1, 1, 5],
      [0, 1, 7],
      [1, 1, 5],
      [2, 1, 3],
      [-2, 2, 1],
      [-1, 2, 3],
      [0, 2, 5],
      [1, 2, 3],
      [2, 2, 1],
    ],
  },
  stucki: {
    of: 42,
    to: [
      [1, 0, 8],
      [2, 0, 4],
      [-2, 1, 2],
      [-1, 1, 4],
      [0, 1, 8],
      [1, 1, 4],
      [2, 1, 2],
      [-2, 2, 1],
      [-1, 2, 2],
      [0, 2, 4],
      [1, 2, 2],
      [2, 2, 1],
    ],
  },
  atkinson: {
    of: 8,
    to: [
      [1, 0, 1],
      [2, 0, 1],
      [-1, 1, 1],
      [0, 1, 1],
      [1, 1, 1],
      [0, 2, 1],
    ],
  },
  sierra: {
    of: 32,
    to: [
      [1, 0, 5],
      [2, 0, 3],
      [-2, 1, 2],
      [-1, 1, 4],
      [0, 1, 5],
      [1, 1, 4],
      [2, 1, 2],
      [-1, 2, 2],
      [0, 2, 3],
      [1, 2, 2],
    ],
  },
  "sierra-lite": {
    of: 4,
    to: [
      [1, 0, 2],
      [-1, 1, 1],
      [0, 1, 1],
    ],
  },
  burkes: {
    of: 32,
    to: [
      [1, 0, 8],
      [2, 0, 4],
      [-2, 1, 2],
      [-1, 1, 4],
      [0, 1, 8],
      [1, 1, 4],
      [2, 1, 2],
    ],
  },
};

/** The whole field at once, in the plainest way there is. */
function slow(id: string, field: number[][], serpentine: boolean, may: (x: number, y: number) => boolean): number[][] {
  const { of, to } = PRINTED[id];
  const v = field.map((r) => [...r]);
  const out = field.map((r) => r.map(() => 0));
  for (let y = 0; y < H; y++) {
    const back = serpentine && y % 2 === 1;
    for (let n = 0; n < W; n++) {
      const x = back ? W - 1 - n : n;
      if (!may(x, y)) continue;
      out[y][x] = v[y][x] >= 0.5 ? 1 : 0;
      const e = v[y][x] - out[y][x];
      for (const [dx, dy, k] of to) {
        const [a, b] = [x + (back ? -dx : dx), y + dy];
        if (a >= 0 && a < W && b < H && may(a, b)) v[b][a] += (e * k) / of;
      }
    }
  }
  return out;
}
const run = (
  id: DotKind,
  field: number[][],
  serpentine: boolean,
  may: ((x: number, y: number) => boolean) | null,
): number[][] => {
  const make = rowsOf(
    id,
    W,
    { ...O, serpentine },
    may && ((y) => Uint8Array.from({ length: W }, (_v, x) => (may(x, y) ? 1 : 0))),
  );
  return field.map((r) => {
    const out = new Uint8Array(W);
    make(Float64Array.from(r), out);
    return [...out];
  });
};
const noisy = (seed: number): number[][] => {
  const r = randomOf(seed);
  return Array.from({ length: H }, (_v, y) =>
    Array.from({ length: W }, (_u, x) => Math.min(1, Math.max(0, (x / W + y / H) / 2 + r.next() * 0.3 - 0.15))),
  );
};
const round = (x: number, y: number): boolean =>
  Math.hypot(x - 20, y - 18) < 16 && !(x > 14 && x < 20 && y > 8 && y < 14);

describe.each(Object.keys(PRINTED))("%s", (id) => {
  test.each([false, true])("equals the slow one, there and back: %s", (serpentine) => {
    for (const seed of [1, 2, 3]) {
      const f = noisy(seed);
      expect(run(id as DotKind, f, serpentine, null)).toEqual(slow(id, f, serpentine, () => true));
    }
  });
  test("keeps to a round blank with a hole: nothing is burnt or handed on beyond it", () => {
    const f = noisy(4);
    expect(run(id as DotKind, f, true, round)).toEqual(slow(id, f, true, round));
  });
  test("hands on all of an error, or what is known of it", () => {
    const { of, to } = PRINTED[id];
    const sum = to.reduce((s, t) => s + t[2], 0);
    expect(sum / of).toBe(id === "atkinson" ? 0.75 : 1);
  });
});

test.each(DOT_KINDS)("%s keeps the share of a flat field, and none and all are none and all", (id) => {
  const [w, h] = [256, 256];
  const share = (c: number): number => {
    const make = rowsOf(id, w, { ...O, perCm: 12.5 });
    const out = new Uint8Array(w);
    const wanted = new Float64Array(w).fill(c);
    let n = 0;
    for (let y = 0; y < h; y++) {
      make(wanted, out);
      n += out.reduce((s, b) => s + b, 0);
    }
    return n / (w * h);
  };
  expect(share(0)).toBe(0);
  expect(share(1)).toBe(1);
  // a quarter of the error of one kernel is dropped on purpose; a square of 16 tones has steps of a sixteenth
  const near = id === "atkinson" ? 0.1 : id === "ordered-4" ? 0.032 : id === "ordered-8" ? 0.008 : 0.005;
  for (const c of [0.1, 0.25, 0.4, 0.5, 0.7, 0.9])
    expect([c, Math.abs(share(c) - c) <= near + 1e-9]).toEqual([c, true]);
});

test("squares are the recursive ones", () => {
  expect(square(4)).toEqual([
    [0, 8, 2, 10],
    [12, 4, 14, 6],
    [3, 11, 1, 9],
    [15, 7, 13, 5],
  ]);
  expect(new Set(square(8).flat()).size).toBe(64);
});

test("blue noise has every rank once, the same each time, and no low tones of its own", () => {
  const n = 32;
  const a = voidAndCluster(n, 7);
  expect([...a].sort((x, y) => x - y)).toEqual(Array.from({ length: n * n }, (_v, i) => i));
  expect([...voidAndCluster(n, 7)]).toEqual([...a]);
  expect([...voidAndCluster(n, 8)]).not.toEqual([...a]);
  // at a quarter, blocks of 8 hold nearly the same number of dots each; a random field scatters by 3.5
  const rows = blueNoise();
  const counts: number[] = [];
  for (let by = 0; by < 8; by++)
    for (let bx = 0; bx < 8; bx++) {
      let k = 0;
      for (let y = 0; y < 8; y++) for (let x = 0; x < 8; x++) if (rows[by * 8 + y][bx * 8 + x] < 1024) k++;
      counts.push(k);
    }
  const mean = counts.reduce((s, k) => s + k, 0) / counts.length;
  const off = Math.sqrt(counts.reduce((s, k) => s + (k - mean) ** 2, 0) / counts.length);
  expect(mean).toBe(16);
  expect(off).toBeLessThan(1.2);
});

test("a screen has as many lines a cm as it is told, at its angle", () => {
  const w = 400;
  const make = rowsOf("line-screen", w, { ...O, perCm: 10, angle: 90, intervalMm: 0.1 });
  const out = new Uint8Array(w);
  make(new Float64Array(w).fill(0.5), out);
  let begins = 0;
  for (let x = 1; x < w; x++) if (out[x] && !out[x - 1]) begins++;
  // 40 mm at 10 a cm
  expect(begins).toBe(40);
});

test("every kind that a record may hold has its row", () => {
  expect(DOT_MAKERS.map((m) => m.id).sort()).toEqual([...DOT_KINDS].sort());
});
