import { randomOf } from "../../units/random";
import { many } from "../../testing/worlds";
import { carry } from "./carry";
import { fitDepth, fitPeak, fitWindow, spaced, type CellRead } from "./plate";
import type { PlateRead } from "../../records/ids";
import type { Random } from "../../units/random";

/** A reader that makes the mistakes people make. @param truth boundaries and spread */
function readCell(
  e: number,
  truth: { c1: number; c2: number | null; s: number; noise: number },
  rnd: Random,
): CellRead {
  const read = (c: number): PlateRead => {
    const off = Math.log(e) - Math.log(c) + truth.noise * gauss(rnd);
    return off < -1.96 * truth.s ? "whole" : off > 1.96 * truth.s ? "gone" : "partly";
  };
  return { e, top: read(truth.c1), under: truth.c2 === null ? null : read(truth.c2) };
}

const gauss = (r: ReturnType<typeof randomOf>): number =>
  Math.sqrt(-2 * Math.log(1 - r.next())) * Math.cos(2 * Math.PI * r.next());

test("seeded plates of known truth: nine in ten intervals hold it, and what is advised lies within a window wide enough to hit", () => {
  const n = many(120);
  let [lo, hi, wide, hit] = [0, 0, 0, 0];
  for (let k = 0; k < n; k++) {
    const r = randomOf(1000 + k);
    const c1 = Math.exp(Math.log(0.5) + 0.4 * gauss(r));
    const gap = Math.exp(Math.log(0.85) + 0.6 * gauss(r));
    const truth = {
      c1,
      c2: c1 * Math.exp(gap),
      s: Math.exp(Math.log(0.12) + 0.4 * gauss(r)),
      noise: Math.exp(Math.log(0.06) + 0.3 * gauss(r)),
    };
    const cells = spaced(0.5 * c1, 2 * truth.c2, 30, "geometric").map((e) => readCell(e, truth, r));
    const fit = fitWindow(cells, 0.5)!;
    const [tl, th] = [truth.c1 * Math.exp(1.96 * truth.s), truth.c2 * Math.exp(-1.96 * truth.s)];
    if (fit.lo.low <= tl && tl <= fit.lo.high) lo++;
    if (fit.hi!.low <= th && th <= fit.hi!.high) hi++;
    if (th / tl >= 1.25) {
      wide++;
      if (fit.best >= tl && fit.best <= th) hit++;
    }
  }
  // three standard deviations of a binomial below nine in ten, and below 95 %
  const least = (p: number, of: number): number => of * p - 3 * Math.sqrt(of * p * (1 - p));
  expect(lo).toBeGreaterThanOrEqual(least(0.87, n));
  expect(hi).toBeGreaterThanOrEqual(least(0.87, n));
  expect(wide).toBeGreaterThan(n / 3);
  expect(hit).toBeGreaterThanOrEqual(least(0.95, wide));
});
test("three more cells where they tell most narrow the edge more than three anywhere, in the median", () => {
  const gains: number[] = [];
  for (let k = 0; k < many(40); k++) {
    const r = randomOf(50 + k);
    const truth = { c1: 0.5, c2: 1.1, s: 0.1, noise: 0.06 };
    const cells = spaced(0.2, 2.5, 6, "geometric").map((e) => readCell(e, truth, r));
    const before = fitWindow(cells, 0.5)!;
    const width = (x: ReturnType<typeof fitWindow>): number =>
      Math.log(x!.lo.high / x!.lo.low) + Math.log(x!.hi!.high / x!.hi!.low);
    const told = fitWindow([...cells, ...before.next.map((e) => readCell(e, truth, r))], 0.5);
    const anywhere = spaced(0.2, 2.5, 3, "linear").map((e) => readCell(e * (0.8 + 0.4 * r.next()), truth, r));
    gains.push(width(fitWindow([...cells, ...anywhere], 0.5)) - width(told));
  }
  gains.sort((a, b) => a - b);
  expect(gains[Math.floor(gains.length / 2)]).toBeGreaterThan(0);
});
test("more cells narrow; no cell says nothing; a shut window says that it is shut", () => {
  const truth = { c1: 0.5, c2: 1.4, s: 0.08, noise: 0.04 };
  const at = (n: number) => {
    const r = randomOf(7);
    return fitWindow(
      spaced(0.2, 3, n, "geometric").map((e) => readCell(e, truth, r)),
      0.5,
    )!;
  };
  expect(Math.log(at(30).lo.high / at(30).lo.low)).toBeLessThan(Math.log(at(5).lo.high / at(5).lo.low));
  expect(fitWindow([], 0.5)).toBeNull();
  expect(fitWindow([{ e: 1, top: null, under: null }], 0.5)).toBeNull();
  const shut = { c1: 0.5, c2: 0.6, s: 0.25, noise: 0.04 };
  const r = randomOf(3);
  const fit = fitWindow(
    spaced(0.2, 3, 30, "geometric").map((e) => readCell(e, shut, r)),
    0.5,
  )!;
  expect(fit.open).toBeLessThan(0.5);
  expect(at(30).open).toBeGreaterThan(0.95);
  const bare = fitWindow(
    spaced(0.2, 3, 20, "geometric").map((e) => ({ ...readCell(e, truth, randomOf(9)), under: null })),
    0.5,
  )!;
  expect(bare.hi).toBeNull();
  expect(bare.best).toBeGreaterThan(0.5);
});
test("the peak of a darkening plate is found where it was put, and what is advised lies just before it", () => {
  for (const peak of [0.3, 1, 4]) {
    const cells = spaced(peak / 4, peak * 4, 11, "geometric").map((e) => ({
      e,
      mark: 10 - 3 * Math.log(e / peak) ** 2,
    }));
    const fit = fitPeak(cells);
    if (typeof fit === "string") throw new Error(fit);
    expect(fit.peak).toBeCloseTo(peak, 6);
    expect(fit.best).toBeCloseTo(peak * Math.exp(-Math.sqrt((0.02 * 10) / 3)), 6);
  }
  const rising = spaced(1, 4, 7, "geometric").map((e) => ({ e, mark: e }));
  expect(fitPeak(rising)).toMatch(/strong end/);
  expect(fitPeak(rising.map((c) => ({ ...c, mark: -c.mark })))).toMatch(/weak end/);
  expect(fitPeak(rising.slice(0, 3))).toMatch(/5 cells/);
});
test("depth a pass is the slope of the line through the threshold", () => {
  const cells = [1, 2, 3].map((e) => ({ e: 2 * e, passes: 2, mm: 2 * 0.4 * (e - 0.1) }));
  const fit = fitDepth(cells, 0.1)!;
  expect(fit.perJ).toBeCloseTo(0.4, 9);
  expect(fit.offMm).toBeCloseTo(0, 9);
  expect(fitDepth(cells.slice(0, 1), 0.1)).toBeNull();
});
test("spaced by ratio or by difference, both ends met", () => {
  expect(spaced(1, 8, 4, "geometric").map((v) => Math.round(v * 1e9) / 1e9)).toEqual([1, 2, 4, 8]);
  expect(spaced(1, 7, 4, "linear")).toEqual([1, 3, 5, 7]);
  expect(spaced(1, 9, 1, "geometric")).toEqual([3]);
  const bad: [number, number, number][] = [
    [0, 1, 3],
    [1, 2, 0],
    [1, 2, 99],
  ];
  for (const [a, b, n] of bad) expect(() => spaced(a, b, n, "linear")).toThrow(RangeError);
});
test("carried over, the energy is the same and lines stand as wide against the spot; what it can’t do is said", () => {
  const to = {
    wattsAt: (p: number) => 10 * p,
    shareOf: (w: number) => w / 10,
    topSpeed: 400,
    topKnown: true,
    spotMm: 0.08,
  };
  const c = carry({ e: 0.6, interval: 0.12, spotMm: 0.12, passes: 2 }, to)!;
  expect(c.interval).toBeCloseTo(0.08, 9);
  expect((10 * c.power) / (c.speed * c.interval)).toBeCloseTo(0.6, 6);
  expect(c.passes).toBe(2);
  const strong = carry(
    { e: 0.05, interval: 0.1, spotMm: 0.1, passes: 1 },
    { ...to, wattsAt: (p) => 100 * p, shareOf: (w) => w / 100, spotMm: 0.1 },
  )!;
  expect(strong.speed).toBeLessThanOrEqual(320 + 1e-9);
  expect((100 * strong.power) / (strong.speed * strong.interval)).toBeCloseTo(0.05, 3);
  expect(strong.notes.join()).toMatch(/turned down/);
  expect(carry({ e: 1, interval: 0.1, spotMm: null, passes: 1 }, { ...to, wattsAt: () => null })).toBeNull();
  expect(carry({ e: 1, interval: 0.1, spotMm: null, passes: 1 }, to)!.notes.join()).toMatch(/spot of one/);
});
