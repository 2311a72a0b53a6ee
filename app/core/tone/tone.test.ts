/** From pixels to dots and back to what is seen: sizes, turns, mean light, gain, and a wedge that reads its own lightness. */
import { flatField, grey, recipe, scene, wedge } from "../testing/pictures";
import { phi } from "../models/film/reveal";
import { density, exposure, FINER, gainOf, inverse, shareOf, uncovered } from "./gain";
import { lightness, ofLightness, screened, toLight, toScreen } from "./light";
import { aimed, burntAt, render, type Rendered } from "./render";
import { laid, resample, turned } from "./resample";
import { tooBig, type Pixels } from "./source";
import { curveOf } from "./curve";
import { filledIn, tones, TONE_KINDS } from "./steps";
import { DOT_KINDS, TONE_IDS } from "../records/picture";

const bitsOf = (m: Rendered): Uint8Array =>
  Uint8Array.from({ length: m.w * m.h }, (_v, i) => burntAt(m, i % m.w, Math.floor(i / m.w)));
const mean = (a: ArrayLike<number>): number => Array.from(a).reduce((s, v) => s + v, 0) / a.length;

describe("light", () => {
  test("screen and light are one another's reverse, by formula and by table", () => {
    for (const v of [0, 0.01, 0.04, 0.2, 0.5, 0.9, 1]) expect(toScreen(toLight(v))).toBeCloseTo(v, 12);
    const all = Float32Array.from({ length: 1000 }, (_v, i) => i / 999);
    screened(all).forEach((v, i) => expect(Math.abs(v - toScreen(i / 999))).toBeLessThan(1e-4));
  });
  test("lightness is CIE's", () => {
    expect(lightness(0.18418651851244416)).toBeCloseTo(50, 9);
    expect(lightness(1)).toBeCloseTo(100, 12);
    for (const l of [0, 3, 8, 9, 40, 100]) expect(lightness(ofLightness(l))).toBeCloseTo(l, 10);
  });
});

describe("on the grid", () => {
  test("the size is that of mm over interval, to the pixel", () => {
    const m = render(
      flatField(30, 20, 0.5),
      recipe(1, 1, { widthMm: 100, heightMm: 33.33, intervalMm: 0.07, fit: "stretch" }),
    );
    expect([m.w, m.h]).toEqual([Math.round(100 / 0.07), Math.round(33.33 / 0.07)]);
  });
  test.each([
    [37, 23],
    [64, 64],
    [200, 11],
    [500, 300],
  ])("mean light stays within 0.2 %% at %i × %i", (w, h) => {
    const p = scene(143, 97, 5);
    const light = mean(Array.from({ length: p.h }, (_r, y) => Array.from(p.row(y), (v) => toLight(v / 255))).flat());
    const out = resample(p, { x: 0, y: 0, w: p.w, h: p.h }, w, h, { exact: true });
    expect(Math.abs(mean(out.y) / light - 1)).toBeLessThan(w > p.w ? 0.01 : 0.002);
    if (w <= p.w && h <= p.h) expect(Math.abs(mean(out.y) / light - 1)).toBeLessThan(1e-9);
  });
  test("one to one is left as it is", () => {
    const p = scene(40, 30, 2);
    const out = resample(p, { x: 0, y: 0, w: 40, h: 30 }, 40, 30, { exact: true });
    for (const [x, y] of [
      [0, 0],
      [39, 29],
      [17, 8],
    ] as const)
      expect(out.y[y * 40 + x]).toBeCloseTo(toLight(p.row(y)[x] / 255), 14);
  });
  test("what is clear shows the ground", () => {
    const p: Pixels = { w: 2, h: 1, channels: 2, max: 255, row: () => [255, 0, 255, 255] };
    expect([...resample(p, { x: 0, y: 0, w: 2, h: 1 }, 2, 1, { ground: 0.25, exact: true }).y]).toEqual([0.25, 1]);
  });

  /** a picture of six pixels, upright: a b c over d e f */
  const UPRIGHT = [1, 2, 3, 4, 5, 6];
  const AS_FILED: Record<number, { w: number; v: number[] }> = {
    1: { w: 3, v: [1, 2, 3, 4, 5, 6] },
    2: { w: 3, v: [3, 2, 1, 6, 5, 4] },
    3: { w: 3, v: [6, 5, 4, 3, 2, 1] },
    4: { w: 3, v: [4, 5, 6, 1, 2, 3] },
    5: { w: 2, v: [1, 4, 2, 5, 3, 6] },
    6: { w: 2, v: [3, 6, 2, 5, 1, 4] },
    7: { w: 2, v: [6, 3, 5, 2, 4, 1] },
    8: { w: 2, v: [4, 1, 5, 2, 6, 3] },
  };
  test.each([1, 2, 3, 4, 5, 6, 7, 8])("EXIF turn %i stands upright", (exif) => {
    const { w, v } = AS_FILED[exif];
    const p = grey(w, 6 / w, (x, y) => v[y * w + x] * 40);
    const out = laid(p, { w: 3, h: 2 }, { fit: "stretch", exif, exact: true });
    expect(Array.from(out.y, (y) => Math.round((toScreen(y) * 255) / 40))).toEqual(UPRIGHT);
    // and a crop is of the upright picture: its right two columns
    const right = laid(
      p,
      { w: 2, h: 2 },
      { fit: "stretch", exif, crop: { x: 1 / 3, y: 0, w: 2 / 3, h: 1 }, exact: true },
    );
    expect(Array.from(right.y, (y) => Math.round((toScreen(y) * 255) / 40))).toEqual([2, 3, 5, 6]);
    // turned by the maker a quarter clockwise on top of it
    const q = laid(p, { w: 2, h: 3 }, { fit: "stretch", exif, quarters: 1, exact: true });
    expect(Array.from(q.y, (y) => Math.round((toScreen(y) * 255) / 40))).toEqual([4, 1, 5, 2, 6, 3]);
  });
  test("covers, or is contained with nothing burnt beside it", () => {
    const p = grey(40, 20, (x) => (x < 10 || x >= 30 ? 0 : 255));
    expect(mean(laid(p, { w: 20, h: 20 }, { fit: "cover", exact: true }).y)).toBe(1);
    const m = render(p, recipe(20, 20, { fit: "contain", invert: false }));
    const bits = bitsOf(m);
    const rows = Array.from({ length: 20 }, (_v, y) => bits.subarray(y * 20, y * 20 + 20).reduce((s, b) => s + b, 0));
    expect(rows).toEqual([0, 0, 0, 0, 0, 10, 10, 10, 10, 10, 10, 10, 10, 10, 10, 0, 0, 0, 0, 0]);
  });
  test("mirroring turns the finished rows round, and nothing else", () => {
    const p = scene(50, 30, 3);
    const [a, b] = [render(p, recipe(50, 30)), render(p, recipe(50, 30, { mirror: true }))];
    for (let y = 0; y < 30; y++) for (let x = 0; x < 50; x++) expect(burntAt(b, x, y)).toBe(burntAt(a, 49 - x, y));
  });
  test("turned by quarters, four of them are none", () => {
    const f = { w: 3, h: 2, y: Float64Array.from(UPRIGHT) };
    expect([...turned(turned(f, 1), 3).y]).toEqual(UPRIGHT);
    expect([...turned(f, 0, true).y]).toEqual([3, 2, 1, 6, 5, 4]);
  });
  test("sizes beyond reason are a sentence", () => {
    expect(tooBig(100_000, 1)).toMatch(/100000 × 1 pixels/);
    expect(tooBig(9000, 9000)).toMatch(/81 megapixels/);
    expect(tooBig(0, 5)).toMatch(/no pixels/);
    expect(tooBig(8000, 6000)).toBeNull();
    expect(() =>
      render(flatField(2, 2, 0.5), recipe(1, 1, { widthMm: 5000, heightMm: 5000, intervalMm: 0.1 })),
    ).toThrow(/50000 × 50000/);
  });
});

describe("dots", () => {
  test("black is burnt: invert burns the light, else the dark; grey is the share turned over", () => {
    const p = flatField(64, 64, 0.3);
    expect(mean(bitsOf(render(p, recipe(64, 64, { invert: true }))))).toBeCloseTo(0.3, 2);
    expect(mean(bitsOf(render(p, recipe(64, 64, { invert: false }))))).toBeCloseTo(0.7, 2);
    const m = render(p, recipe(4, 4, { render: "grey", invert: true }));
    expect([m.depth, m.data[0]]).toEqual([8, 179]);
    const paints = render(p, recipe(64, 64, { colourY: 0.5, topY: 0.1 }));
    expect(mean(bitsOf(paints))).toBeCloseTo(0.5, 2);
  });
  test("the same recipe gives the same bytes; another kernel others", () => {
    const p = scene(80, 60, 9);
    const r = recipe(80, 60, { tone: [filledIn({ do: "sharpen" })], spot: { mm: 0.14, threshold: 0.5 }, layOn: true });
    expect(Buffer.from(render(p, r).data).equals(Buffer.from(render(p, r).data))).toBe(true);
    expect(Buffer.from(render(p, { ...r, render: "stucki" }).data).equals(Buffer.from(render(p, r).data))).toBe(false);
  });
  test("a kept-free border is never burnt", () => {
    const m = render(flatField(40, 40, 0.9), recipe(40, 40), {
      allowed: (y) => Uint8Array.from({ length: 40 }, (_v, x) => (x >= 5 && x < 35 && y >= 5 && y < 35 ? 1 : 0)),
    });
    for (let i = 0; i < 40; i++)
      expect([burntAt(m, i, 4), burntAt(m, 4, i), burntAt(m, i, 35), burntAt(m, 35, i)]).toEqual([0, 0, 0, 0]);
    expect(burntAt(m, 20, 20) + burntAt(m, 21, 20) + burntAt(m, 22, 20)).toBeGreaterThan(1);
  });
});

describe("gain", () => {
  const spot = { mm: 0.14, intervalMm: 0.08, threshold: 0.5 };
  test("the energy of a pattern is the sum of its strokes, reckoned one by one", () => {
    const [w, h] = [9, 7];
    const bits = new Uint8Array(w * h);
    const burnt: [number, number][] = [
      [4, 3],
      [5, 3],
      [2, 4],
    ];
    for (const [x, y] of burnt) bits[y * w + x] = 1;
    const got = exposure(bits, w, h, spot);
    const sigma = spot.mm / 4 / spot.intervalMm;
    for (const [i, j] of [
      [18, 14],
      [20, 12],
      [9, 17],
      [30, 5],
    ] as const) {
      const [px, py] = [(i + 0.5) / FINER, (j + 0.5) / FINER];
      const e = burnt.reduce(
        (s, [x, y]) =>
          s +
          ((phi((px - x) / sigma) - phi((px - x - 1) / sigma)) *
            Math.exp(-((py - y - 0.5) ** 2) / (2 * sigma * sigma))) /
            (sigma * Math.sqrt(2 * Math.PI)),
        0,
      );
      expect(Math.abs(got.e[j * got.w + i] - e)).toBeLessThan(3e-3);
    }
  });
  test("a whole field is whole, none is none, and an edge lies where it was drawn", () => {
    const n = 32;
    expect(uncovered(new Uint8Array(n * n).fill(1), n, n, spot, 6)).toBe(1);
    expect(uncovered(new Uint8Array(n * n), n, n, spot, 6)).toBe(0);
    const half = Uint8Array.from({ length: n * n }, (_v, i) => (i % n < n / 2 ? 1 : 0));
    expect(uncovered(half, n, n, spot, 6)).toBeCloseTo(0.5, 2);
  });
  test.each(DOT_KINDS)("%s: more burnt never uncovers less, and the curve read back is the share", (id) => {
    const g = gainOf(id, { serpentine: false, perCm: 12, angle: 45, intervalMm: 0.08 }, spot);
    expect(g.g).toHaveLength(id === "ordered-4" ? 17 : 21);
    expect([g.c[0], g.c[g.c.length - 1]]).toEqual([0, 1]);
    g.c.forEach((c, i) => expect(c).toBeGreaterThanOrEqual(g.c[i - 1] ?? 0));
    const back = inverse(g);
    for (const c of [0.15, 0.3, 0.5, 0.7, 0.85]) expect(shareOf(g, density(back, c))).toBeCloseTo(c, 2);
  });
  test("a spot wider than the line uncovers more than is drawn; a hot one more still", () => {
    const o = { serpentine: false, perCm: 12, angle: 45, intervalMm: 0.1 };
    const at = (threshold: number): number =>
      shareOf(gainOf("floyd-steinberg", o, { mm: 0.12, intervalMm: 0.1, threshold }), 0.5);
    expect(at(0.35)).toBeGreaterThan(at(0.5) + 0.05);
    expect(at(0.35)).toBeGreaterThan(0.55);
  });
});

describe("tone-true", () => {
  /** luminance of paints: poppy under black, three of a stack's, white burnt dark, dye in glaze */
  const STACKS = [
    { name: "poppy under black", colourY: 0.22, topY: 0.012, invert: true },
    { name: "pale blue under black", colourY: 0.62, topY: 0.012, invert: true },
    { name: "white under dark blue", colourY: 0.83, topY: 0.03, invert: true },
    { name: "burnt into white", colourY: 0.85, topY: 0.05, invert: false },
    { name: "dye in opened glaze", colourY: 0.85, topY: 0.12, invert: false },
  ];
  const N = 12;
  const SIDE = 56;
  const spot = { mm: 0.13, threshold: 0.6 };
  const read = (m: Rendered, step: number, intervalMm: number, s: (typeof STACKS)[number]): number => {
    const bits = new Uint8Array(SIDE * SIDE);
    for (let y = 0; y < SIDE; y++)
      for (let x = 0; x < SIDE; x++) bits[y * SIDE + x] = burntAt(m, step * SIDE + x, y + 8);
    const c = uncovered(bits, SIDE, SIDE, { ...spot, intervalMm }, 8);
    const [burntY, leftY] = s.invert ? [s.colourY, s.topY] : [s.topY, s.colourY];
    return lightness(c * burntY + (1 - c) * leftY);
  };
  const off = (s: (typeof STACKS)[number], id: (typeof DOT_KINDS)[number], gain: boolean): number => {
    const [dark, light] = [lightness(s.topY), lightness(s.colourY)];
    const aim = (k: number): number => dark + ((light - dark) * k) / (N - 1);
    const p = wedge(N * SIDE, SIDE + 16, N, (k) => ofLightness(aim(k)));
    const m = render(p, recipe(N * SIDE, SIDE + 16, { ...s, render: id, spot: gain ? spot : null }));
    return mean(Array.from({ length: N }, (_v, k) => Math.abs(read(m, k, 0.1, s) - aim(k))));
  };
  test.each(STACKS)("$name: a wedge read back through the spot is its own lightness within 2", (s) => {
    for (const id of ["floyd-steinberg", "stucki", "blue-noise", "dot-screen"] as const) {
      const [with_, without] = [off(s, id, true), off(s, id, false)];
      expect([id, with_ <= 2]).toEqual([id, true]);
      expect([id, with_ < without]).toEqual([id, true]);
    }
  });
  test("laid on the paints a whole picture goes from the darkest to the lightest of them", () => {
    const s = STACKS[0];
    const p = wedge(N * SIDE, SIDE + 16, N, (k) => ofLightness((100 * k) / (N - 1)));
    const m = render(p, recipe(N * SIDE, SIDE + 16, { ...s, spot, layOn: true }));
    const got = Array.from({ length: N }, (_v, k) => read(m, k, 0.1, s));
    expect(Math.abs(got[0] - lightness(s.topY))).toBeLessThan(1);
    expect(Math.abs(got[N - 1] - lightness(s.colourY))).toBeLessThan(1);
    got.forEach((l, k) => k > 0 && expect(l).toBeGreaterThan(got[k - 1]));
  });
  test.each(DOT_KINDS)("%s: mean share stays within 2 %% on a ramp after gain", (id) => {
    if (id === "atkinson") return;
    const [w, h] = [320, 120];
    const p: Pixels = {
      w,
      h,
      channels: 1,
      max: 65535,
      row: () => Uint16Array.from({ length: w }, (_v, x) => Math.round(toScreen(0.1 + (0.8 * x) / w) * 65535)),
    };
    const m = render(p, recipe(w, h, { render: id, spot }));
    const c = uncovered(bitsOf(m), w, h, { ...spot, intervalMm: 0.1 }, 8);
    expect(Math.abs(c - 0.5)).toBeLessThan(0.02);
  });
});

describe("likeness", () => {
  /** Structural similarity (Wang et al. 2004) of two pictures in CIE lightness, by windows of 8 pixels. */
  function ssim(a: Float64Array, b: Float64Array, w: number, h: number): number {
    const [c1, c2] = [(0.01 * 100) ** 2, (0.03 * 100) ** 2];
    const all: number[] = [];
    for (let y = 0; y + 8 <= h; y += 4)
      for (let x = 0; x + 8 <= w; x += 4) {
        let [sa, sb, aa, bb, ab] = [0, 0, 0, 0, 0];
        for (let j = 0; j < 8; j++)
          for (let i = 0; i < 8; i++) {
            const [p, q] = [a[(y + j) * w + x + i], b[(y + j) * w + x + i]];
            sa += p;
            sb += q;
            aa += p * p;
            bb += q * q;
            ab += p * q;
          }
        const [ma, mb] = [sa / 64, sb / 64];
        const [va, vb, cov] = [aa / 64 - ma * ma, bb / 64 - mb * mb, ab / 64 - ma * mb];
        all.push(((2 * ma * mb + c1) * (2 * cov + c2)) / ((ma * ma + mb * mb + c1) * (va + vb + c2)));
      }
    return mean(all);
  }
  test.each([
    // spot, against the interval, and threshold
    ["poppy under black", 0.18, 0.012, 1.6, 0.35],
    ["slate", 0.34, 0.03, 1.4, 0.5],
    ["white burnt in", 0.03, 0.75, 1.5, 0.4],
  ])(
    "%s: what is seen is nearer to the picture than dots that know nothing of paints and spot",
    (_paints, colourY, topY, d, threshold) => {
      const [w, h, k] = [512, 384, 8];
      const p = scene(w, h, 11);
      const spot = { mm: d * 0.1, threshold };
      const ours = recipe(w, h, { colourY, topY, spot, layOn: true, invert: true });
      // plain error diffusion: grey into dots as it is, black burnt away or left by the way round alone
      const plain = recipe(w, h, { invert: colourY > topY });
      /** lightness at arm’s length: areas of so many pixels, as the spot leaves them */
      const seen = (m: Rendered): Float64Array => {
        const { e, w: fw } = exposure(bitsOf(m), w, h, { ...spot, intervalMm: 0.1 });
        const out = new Float64Array((w / k) * (h / k));
        const n = (k * FINER) ** 2;
        for (let y = 0; y < h * FINER; y++)
          for (let x = 0; x < w * FINER; x++)
            out[Math.floor(y / FINER / k) * (w / k) + Math.floor(x / FINER / k)] +=
              (e[y * fw + x] > threshold ? colourY : topY) / n;
        return out.map(lightness);
      };
      const wanted = new Float64Array((w / k) * (h / k));
      for (let y = 0; y < h; y++)
        for (let x = 0; x < w; x++)
          wanted[Math.floor(y / k) * (w / k) + Math.floor(x / k)] += aimed(toLight(p.row(y)[x] / 255), ours) / (k * k);
      const target = wanted.map(lightness);
      const [good, bare] = [ours, plain].map((r) => ssim(seen(render(p, r)), target, w / k, h / k));
      expect([good > 0.93, good - bare > 0.03]).toEqual([true, true]);
    },
  );
});

describe("tone steps", () => {
  const at = (v: number[], list: Parameters<typeof filledIn>[0][], w = v.length): number[] =>
    Array.from(tones({ w, h: v.length / w, v: Float32Array.from(v) }, list.map(filledIn), 10).v);
  const near = (got: number[], want: number[]): void => got.forEach((v, i) => expect(v).toBeCloseTo(want[i], 3));
  test("levels, curve, turned over, two tones", () => {
    near(at([0, 0.2, 0.5, 0.8, 1], [{ do: "levels", black: 0.2, white: 0.8, gamma: 1 }]), [0, 0, 0.5, 1, 1]);
    near(at([0.25], [{ do: "levels", black: 0, white: 1, gamma: 2 }]), [0.5]);
    near(at([0, 0.5, 1], [{ do: "curve", points: [0, 0.1, 0.5, 0.7, 1, 0.9] }]), [0.1, 0.7, 0.9]);
    near(at([0, 0.3, 1], [{ do: "invert" }]), [1, 0.7, 0]);
    near(at([0.49, 0.5], [{ do: "threshold", at: 0.5 }]), [0, 1]);
  });
  test("a curve through points never turns back between them", () => {
    const f = curveOf([
      [0, 0],
      [0.1, 0.6],
      [0.9, 0.65],
      [1, 1],
    ]);
    for (let x = 0.01; x <= 1; x += 0.01) expect(f(x)).toBeGreaterThanOrEqual(f(x - 0.01) - 1e-12);
    expect([f(0.1), f(0.9), f(-1), f(2)]).toEqual([0.6, 0.65, 0, 1]);
  });
  test("what is off is passed over; order counts; each kind has its row", () => {
    near(at([0.3], [{ do: "invert", off: true }]), [0.3]);
    const a = at([0.3], [{ do: "invert" }, { do: "levels", gamma: 2 }])[0];
    const b = at([0.3], [{ do: "levels", gamma: 2 }, { do: "invert" }])[0];
    expect(Math.abs(a - b)).toBeGreaterThan(0.1);
    expect(Object.keys(TONE_KINDS).sort()).toEqual([...TONE_IDS].sort());
  });
  test("as they begin they leave a flat field flat", () => {
    for (const id of ["levels", "curve", "local-contrast", "sharpen"] as const)
      near(at(Array(900).fill(0.4), [{ do: id }], 30), Array(900).fill(0.4));
  });
  test("shadows lift the dark, lights sink the light, and the detail stays", () => {
    const step = Array.from({ length: 1600 }, (_v, i) => (i % 40 < 20 ? 0.2 : 0.8) + (i % 2 ? 0.01 : -0.01));
    const got = at(step, [{ do: "light", shadows: 80, highlights: -80, radiusMm: 0.5 }], 40);
    expect(got[810] + got[811]).toBeGreaterThan(0.5);
    expect(got[830] + got[831]).toBeLessThan(1.5);
    expect(got[811] - got[810]).toBeCloseTo(0.02, 2);
  });
  test("sharpening steepens an edge, local contrast leaves no halo behind it", () => {
    const edge = Array.from({ length: 1600 }, (_v, i) => (i % 40 < 20 ? 0.3 : 0.7));
    const sharp = at(edge, [{ do: "sharpen", amount: 100, radiusMm: 0.2 }], 40);
    expect(sharp[820] - sharp[819]).toBeGreaterThan(0.6);
    const local = at(edge, [{ do: "local-contrast", amount: 100, radiusMm: 0.5 }], 40);
    expect(Math.max(...local) - 0.7).toBeLessThan(0.08);
  });
  test("a region is made lighter, softly towards its border, and nothing outside", () => {
    const got = at(
      Array(6400).fill(0.4),
      [{ do: "brighten", amount: 100, region: [0.25, 0.25, 0.75, 0.25, 0.75, 0.75, 0.25, 0.75], featherMm: 0.3 }],
      80,
    );
    expect(got[40 * 80 + 40]).toBeGreaterThan(0.6);
    expect(got[2 * 80 + 2]).toBeCloseTo(0.4, 5);
    expect(got[40 * 80 + 20]).toBeGreaterThan(0.45);
    expect(got[40 * 80 + 20]).toBeLessThan(got[40 * 80 + 40]);
  });
  test("clean takes the nearly white that hangs together with the border, and leaves what is shut in", () => {
    const v = Array(100).fill(0.95) as number[];
    for (const i of [33, 34, 35, 43, 45, 53, 54, 55]) v[i] = 0.2;
    const got = at(v, [{ do: "clean", within: 0.1 }], 10);
    expect(got[0]).toBe(1);
    expect(got[44]).toBeCloseTo(0.95, 6);
    expect(got[33]).toBeCloseTo(0.2, 6);
  });
});
