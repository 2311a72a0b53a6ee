import { coatUse, nest, openAfterFills, recessArea, transfer, wetUm } from "./build";
import { colourFamily, difference, hex, lab, labDifference, linear, mix, type Lab } from "./colour";
import { coatsToHide, errorAt, neededUm, over, scatter } from "./hide";
import { cuts, openShares, phi, window } from "./reveal";
import { HIDE_UM } from "../../catalogue/finishes";
import { CHAR, substrate } from "../../catalogue/substrates";
import { absorption } from "../../catalogue/beams";

/** Published test pairs of the CIEDE2000 paper, a choice of the awkward ones: L a b, L a b, difference. */
const PAIRS: [Lab, Lab, number][] = [
  [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
  [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
  [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
  [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1.0],
  [[50, 0, 0], [50, -1, 2], 2.3669],
  [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
  [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
  [[50, -0.001, 2.49], [50, 0.0009, -2.49], 4.8045],
  [[50, 2.5, 0], [73, 25, -18], 27.1492],
  [[50, 2.5, 0], [58, 24, 15], 19.4535],
  [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
  [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
  [[90.8027, -2.0831, 1.441], [91.1528, -1.6435, 0.0447], 1.4441],
  [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
];

describe("colour", () => {
  test.each(PAIRS)("CIEDE2000 of a published pair %#", (p, q, d) => expect(labDifference(p, q)).toBeCloseTo(d, 4));
  test("hex to linear light and back", () => {
    for (const c of ["#000000", "#ffffff", "#a8235a", "#17161b", "#f3b61f"]) expect(hex(linear(c))).toBe(c);
  });
  test("white is L* 100 without a tint", () => {
    const [l, a, b] = lab([1, 1, 1]);
    expect(l).toBeCloseTo(100, 3);
    expect(Math.hypot(a, b)).toBeLessThan(0.02);
  });
  test("mixing is in linear light", () => expect(hex(mix([0, 0, 0], [1, 1, 1], 0.5))).toBe("#bcbcbc"));
  test("a bad colour is refused by name", () => expect(() => linear("beet")).toThrow(/beet/));
  test("families for hiding and for absorbing", () => {
    expect(["#141414", "#f6f6f4", "#f9cb10", "#c0281c", "#a9cfe8", "#2f6b3a"].map(colourFamily)).toEqual([
      "black",
      "white",
      "yellow",
      "red",
      "pale",
      "mid",
    ]);
    expect(["#a8481f", "#cc7722", "#5a3a22", "#8a5a2b", "#d8432f", "#f3b61f", "#808080"].map(colourFamily)).toEqual([
      "earth",
      "earth",
      "earth",
      "earth",
      "red",
      "yellow",
      "mid",
    ]);
  });
});

/** Ordinary paint colours for the worked figures. */
const WHITE = linear("#f8f8f8");
const YELLOW = linear("#fbd70a");
const RED = linear("#c0281c");
const ORANGE = linear("#f07818");
const PALE = linear("#96bee1");
const char = linear(CHAR.colour);
const glaze = linear(substrate("tile-glazed").colour);

describe("M6 how many coats hide", () => {
  test.each<[string, readonly [number, number, number], readonly [number, number, number], number, number]>([
    ["white over char", WHITE, char, HIDE_UM.white, 19],
    ["yellow over char", YELLOW, char, HIDE_UM.yellow, 78],
    ["yellow over white", YELLOW, WHITE, HIDE_UM.yellow, 30],
    ["red over orange", RED, ORANGE, HIDE_UM.red, 27],
    ["orange over glaze", ORANGE, glaze, HIDE_UM.red, 8],
    ["pale blue over char", PALE, char, HIDE_UM.pale, 32],
    ["pale blue over white", PALE, WHITE, HIDE_UM.pale, 18],
  ])("%s takes about %#", (_name, paint, ground, h, want) => {
    const got = neededUm(paint, ground, h, 4) as number;
    expect(Math.abs(got - want)).toBeLessThan(Math.max(2, want * 0.06));
  });
  test("yellow over char at 20 µm: four coats, or one white and two", () => {
    expect(coatsToHide(YELLOW, char, HIDE_UM.yellow, 20, 4)).toEqual({ coats: 4, hides: true });
    const s = scatter(WHITE, HIDE_UM.white) as number;
    expect(coatsToHide(YELLOW, over(WHITE, char, s * 20), HIDE_UM.yellow, 20, 4).coats).toBe(2);
  });
  test("limits: infinitely thick is the swatch, nothing is what lies beneath", () => {
    const inside = linear("#c06a50"); // no channel at the clamp
    expect(difference(over(inside, char, 1e9), inside)).toBeLessThan(1e-6);
    expect(over(RED, char, 0)).toEqual(char);
  });
  test("more per coat and more tolerance need fewer, a weaker paint needs more", () => {
    const n = (d: number, tol: number, h: number): number => coatsToHide(YELLOW, char, h, d, tol).coats as number;
    expect(n(40, 4, 100)).toBeLessThanOrEqual(n(20, 4, 100));
    expect(n(20, 8, 100)).toBeLessThanOrEqual(n(20, 4, 100));
    expect(n(20, 4, 140)).toBeGreaterThanOrEqual(n(20, 4, 100));
  });
  test("from n on, every larger number is within tolerance, and n − 1 is not", () => {
    const s = scatter(YELLOW, 100) as number;
    const n = coatsToHide(YELLOW, char, 100, 20, 4).coats as number;
    for (let k = n; k <= 20; k++) expect(errorAt(YELLOW, char, s, k * 20)).toBeLessThanOrEqual(4);
    expect(errorAt(YELLOW, char, s, (n - 1) * 20)).toBeGreaterThan(4);
  });
  test("a paint that cannot hide says so at the cap; unknown stays unknown", () => {
    expect(coatsToHide(YELLOW, char, 4000, 2, 2)).toEqual({ coats: 20, hides: false });
    expect(coatsToHide(YELLOW, char, null, 20, 4)).toEqual({ coats: null, hides: null });
    expect(coatsToHide(YELLOW, char, 100, null, 4)).toEqual({ coats: null, hides: null });
    expect(neededUm(YELLOW, char, null, 4)).toBeNull();
  });
});

describe("M7 film build and paint used", () => {
  test("one 100 mm tile, 10 µm, solids .13: 3.83 ml", () => {
    const use = coatUse(10000, wetUm(10, 0.13), transfer("spray", 10000, 100, 100));
    expect(use.boughtMl).toBeCloseTo(3.83, 2);
  });
  test("twelve tiles three by four with 10 mm gaps: 24.1 ml", () => {
    const use = coatUse(120000, wetUm(10, 0.13), transfer("spray", 120000, 320, 430));
    expect(use.boughtMl).toBeCloseTo(24.1, 1);
  });
  test("bought is laid and lost", () => {
    const use = coatUse(5000, wetUm(12, 0.13), transfer("spray", 5000, 200, 90));
    expect(use.boughtMl).toBeCloseTo((use.laidMl as number) + (use.lostMl as number), 9);
  });
  test("a brush loses a tenth whatever the shape", () => expect(transfer("brush", 100, 1000, 1000)).toBe(0.9));
  test("an airbrush wastes less than a can on the same piece", () =>
    expect(transfer("airbrush", 10000, 100, 100)).toBeGreaterThan(transfer("spray", 10000, 100, 100)));
  test("the nest is near square and holds all", () => {
    const n = nest(12, 100, 100);
    expect(n.columns * n.rows).toBeGreaterThanOrEqual(12);
    expect(Math.max(n.w, n.h)).toBeLessThanOrEqual(430);
  });
  test("a recess is floor and walls; fills shrink by their solids", () => {
    expect(recessArea(600, 200, 1.5)).toBe(900);
    expect(recessArea(600, null, 1.5)).toBe(600);
    expect(openAfterFills(1.5, 0.3, 2)).toBeCloseTo(1.5 * 0.49, 9);
  });
  test("unknown solids make the amount unknown, not nought", () => {
    expect(wetUm(10, null)).toBeNull();
    expect(coatUse(100, null, 0.5).boughtMl).toBeNull();
  });
});

describe("M4 what the laser uncovers", () => {
  const black = absorption("co2", "#141414");
  const orange = absorption("co2", "#f07818");
  /** the printed figures are for films that take up all of the beam */
  const win = (top: number, under: number, s: number) =>
    window(
      cuts(
        [
          { um: top, patchiness: s, absorbs: 1 },
          { um: under, patchiness: s, absorbs: 1 },
        ],
        0.05,
        1,
        0,
      ),
    )!;
  test("black 20 over orange 30, s .08: .517 to .943, middle .698", () => {
    const w = win(20, 30, 0.08);
    expect(w.lo).toBeCloseTo(0.517, 3);
    expect(w.hi).toBeCloseTo(0.943, 3);
    expect(w.best).toBeCloseTo(0.698, 3);
  });
  test("10 over 60, s .3: .400 to .885", () => {
    const w = win(10, 60, 0.3);
    expect(w.lo).toBeCloseTo(0.4, 3);
    expect(w.hi).toBeCloseTo(0.885, 3);
  });
  test("uneven s .3 closes it; 10 over 60 opens it again", () => {
    expect(win(20, 30, 0.3).best).toBeNull();
    expect(win(10, 60, 0.3).best).not.toBeNull();
  });
  test("one 20 µm film costs the same as one, two or four coats laid on each other", () => {
    const [one] = cuts([{ um: 20, patchiness: 0.1, absorbs: black }], 0.05, 1, 0);
    expect(one.c).toBeCloseTo(0.05 + (0.02 * 20) / black, 12);
  });
  test("shares run from 0 to 1, never below, and lower films never open first", () => {
    const k = cuts(
      [
        { um: 20, patchiness: 0.12, absorbs: black },
        { um: 30, patchiness: 0.2, absorbs: orange },
      ],
      0.05,
      1,
      0.1,
    );
    for (let e = 0; e < 4; e += 0.05) {
      const [a, b] = openShares(k, e);
      expect(a).toBeGreaterThanOrEqual(0);
      expect(a).toBeLessThanOrEqual(1);
      expect(b).toBeLessThanOrEqual(a + 1e-12);
    }
    expect(openShares(k, 0)).toEqual([0, 0]);
  });
  test("the normal distribution", () => {
    expect(phi(0)).toBeCloseTo(0.5, 7);
    expect(phi(1.96)).toBeCloseTo(0.975, 3);
    expect(phi(Infinity)).toBe(1);
    expect(phi(-Infinity)).toBe(0);
  });
});

describe("reckoned a second way", () => {
  const films = [
    { um: 18, patchiness: 0.15, absorbs: 0.9 },
    { um: 25, patchiness: 0.1, absorbs: 0.6 },
    { um: 40, patchiness: 0.2, absorbs: 0.7, q: 0.03 },
  ];
  test("what each film costs is added from the top, and every pass costs its own beginning", () => {
    for (const passes of [1, 2, 4]) {
      const got = cuts(films, 0.05, passes, 0.12);
      const cost = [(0.02 * 18) / 0.9, (0.02 * 25) / 0.6, (0.03 * 40) / 0.7];
      for (const k of [0, 1, 2]) {
        const c = passes * 0.05 + cost.slice(0, k + 1).reduce((a, b) => a + b, 0);
        const spread = Math.hypot(...cost.slice(0, k + 1).map((x, i) => (x * films[i].patchiness) / c), 0.12);
        expect(got[k].c).toBeCloseTo(c, 12);
        expect(got[k].sigma).toBeCloseTo(spread, 12);
      }
    }
    // ripple alone spreads an even film; with neither, a floor
    expect(cuts([{ um: 20, patchiness: 0, absorbs: 1 }], 0.05, 1, 0.12)[0].sigma).toBeCloseTo(0.12, 12);
    expect(cuts([{ um: 20, patchiness: 0, absorbs: 1 }], 0.05, 1, 0)[0].sigma).toBe(0.01);
  });
  test("at its own energy half of a film is gone; a window holds 97.5 % of the one and of the other", () => {
    const all = cuts(films, 0.05, 1, 0.02);
    all.forEach((k, i) => {
      expect(openShares([k], k.c)[0]).toBeCloseTo(0.5, 6);
      expect(openShares(all, k.c)[i]).toBeCloseTo(0.5, 6);
    });
    const w = window(all)!;
    expect(openShares(all, w.lo)[0]).toBeCloseTo(0.975, 3);
    expect(openShares(all, w.hi)[1]).toBeCloseTo(0.025, 3);
    expect(w.ratio).toBeCloseTo(w.hi / w.lo, 12);
    expect(w.best).toBeCloseTo(Math.sqrt(w.lo * w.hi), 12);
    const second = window(all, 2)!;
    expect(openShares(all, second.lo)[1]).toBeCloseTo(0.975, 3);
    expect(openShares(all, second.hi)[2]).toBeCloseTo(0.025, 3);
    expect([window(all, 0), window(all, 3), window(all.slice(0, 1)), window([])]).toEqual([null, null, null, null]);
  });
  test("a film laid over a patchy one is never gone before it", () => {
    const [a, b] = openShares(
      [
        { c: 1, sigma: 0.05 },
        { c: 0.5, sigma: 0.05 },
      ],
      0.8,
    );
    expect(a).toBeLessThan(0.01);
    expect(b).toBe(a);
  });
  test("the normal distribution, as a sum of its density", () => {
    for (const x of [-3, -1.2, -0.1, 0.4, 1, 2.5]) {
      let sum = 0.5;
      const step = x / 4000;
      for (let i = 0; i < 4000; i++) sum += (Math.exp(-(((i + 0.5) * step) ** 2) / 2) / Math.sqrt(2 * Math.PI)) * step;
      expect(phi(x)).toBeCloseTo(sum, 6);
    }
    expect(phi(Number.NaN)).toBe(0);
  });
  test("amounts: litres by hand, the fan round all pieces, never more than the tool can", () => {
    // 2 dm² at 50 µm wet are 1 ml; half of it lands
    expect(coatUse(20_000, 50, 0.5)).toEqual({ boughtMl: 2, laidMl: 1, lostMl: 1 });
    expect(coatUse(20_000, 50, 0)).toEqual({ boughtMl: null, laidMl: null, lostMl: null });
    expect([wetUm(12, 0.3), wetUm(null, 0.3), wetUm(12, 0)]).toEqual([expect.closeTo(40, 12), null, null]);
    const air = transfer("airbrush", 5000, 100, 50);
    expect(air).toBeCloseTo((transfer("airbrush", 1e9, 100, 50) * 5000) / (120 * 70), 12);
    const can = transfer("spray", 5000, 100, 50);
    expect(can).toBeCloseTo((transfer("spray", 1e9, 100, 50) * 5000) / (180 * 130), 12);
    expect(transfer("spray", 1e9, 100, 50)).toBeLessThan(transfer("airbrush", 1e9, 100, 50));
    expect(["brush", "marker", "wipe", "pour"].map((by) => transfer(by, 1, 900, 900))).toEqual([0.9, 0.9, 0.9, 0.9]);
  });
  test("the nest: of all numbers of columns none has a shorter longest side, nor the same with less area", () => {
    for (const [n, w, h] of [
      [1, 50, 20],
      [7, 120, 60],
      [24, 30, 90],
      [11, 100, 100],
    ]) {
      const got = nest(n, w, h);
      expect(got.w).toBe(got.columns * w + (got.columns - 1) * 10);
      expect(got.h).toBe(got.rows * h + (got.rows - 1) * 10);
      for (let c = 1; c <= n; c++) {
        const r = Math.ceil(n / c);
        const [bw, bh] = [c * w + (c - 1) * 10, r * h + (r - 1) * 10];
        expect(Math.max(got.w, got.h)).toBeLessThanOrEqual(Math.max(bw, bh));
        if (Math.max(got.w, got.h) === Math.max(bw, bh)) expect(got.w * got.h).toBeLessThanOrEqual(bw * bh);
      }
    }
    expect(nest(2, 10, 20, 3)).toEqual({ w: 23, h: 20, columns: 2, rows: 1 });
  });
  test("a hiding thickness is where 98 of 100 parts show over black against over white", () => {
    for (const [paint, um] of [
      [WHITE, HIDE_UM.white],
      [RED, HIDE_UM.red],
      [PALE, 33],
    ] as const) {
      const s = scatter(paint, um) as number;
      const y = (c: readonly number[]): number => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
      const ratio = (x: number): number => y(over(paint, [0, 0, 0], s * x)) / y(over(paint, [0.8, 0.8, 0.8], s * x));
      expect(ratio(um)).toBeCloseTo(0.98, 4);
      expect(ratio(um * 0.9)).toBeLessThan(0.98);
      expect(scatter(paint, um * 2)).toBeCloseTo(s / 2, 6);
    }
    expect([scatter(RED, null), scatter(RED, 0), scatter(RED, -1)]).toEqual([null, null, null]);
  });
  test("a film laid in two is the film laid in one (Kubelka-Munk over itself)", () => {
    const s = scatter(RED, 30) as number;
    const one = over(RED, char, s * 24);
    over(RED, over(RED, char, s * 14), s * 10).forEach((v, i) => expect(v).toBeCloseTo(one[i], 9));
    expect(over(RED, char, -1)).toEqual(char);
  });
  test("what is needed: within tolerance there and thicker, not a step thinner", () => {
    for (const [paint, ground, um, tol] of [
      [YELLOW, char, 100, 4],
      [PALE, WHITE, 60, 2],
      [RED, ORANGE, 40, 6],
    ] as const) {
      const s = scatter(paint, um) as number;
      const need = neededUm(paint, ground, um, tol) as number;
      for (const x of [1, 1.05, 1.3, 2, 4])
        expect(errorAt(paint, ground, s, need * x + 0.01)).toBeLessThanOrEqual(tol + 1e-6);
      expect(errorAt(paint, ground, s, need * 0.97)).toBeGreaterThan(tol);
      const { coats } = coatsToHide(paint, ground, um, 7, tol);
      expect(Math.abs((coats as number) - need / 7)).toBeLessThanOrEqual(1.1);
    }
    // nothing is asked where the ground is the colour already
    expect(coatsToHide(RED, over(RED, RED, 1e9), 40, 10, 4)).toEqual({ coats: 0, hides: true });
    expect(neededUm(YELLOW, char, 4000, 0.01)).toBeNull();
    expect(coatsToHide(RED, char, 40, 0, 4)).toEqual({ coats: null, hides: null });
  });
});
