import { depthNeeded, depthPerPass, passesFor, sandPlan } from "../depth/depth";
import { factor } from "../learn/factor";
import { absorption, beamOn } from "../../catalogue/beams";
import { substrateNamed } from "../../catalogue/substrates";
import { energy, ripple, spotAt } from "./energy";
import { bedLoads, cornerSpeed, overscanTooShort, rasterTime, rowTime, travel, vectorTime, wattsAt } from "./runtime";

const raster = {
  rowMm: 100,
  rows: 1000,
  speed: 100,
  accel: 3000,
  overscanMm: null,
  intervalMm: 0.1,
  bothWays: true,
  rapid: null,
  galvo: false,
  jumpS: 0,
  passes: 1,
};

describe("M2 run time", () => {
  test("100 mm square, 0.1 mm, 100 mm/s, 3000 mm/s²: 1066.7 s", () =>
    expect(rasterTime(raster)).toBeCloseTo(1066.7, 1));
  test("one 100 mm line at 400 mm/s with 2.5 mm overrun: 0.396 s", () =>
    expect(rowTime(100, 400, 3000, 2.5)).toBeCloseTo(0.396, 3));
  test("a right-angled corner at 3000 mm/s²: 12.0 mm/s", () =>
    expect(cornerSpeed(400, 3000, Math.PI / 2)).toBeCloseTo(12.0, 1));
  test("passes multiply, one way takes longer, empty rows take nothing", () => {
    expect(rasterTime({ ...raster, passes: 3 })).toBeCloseTo(3 * rasterTime(raster), 6);
    expect(rasterTime({ ...raster, bothWays: false })).toBeGreaterThan(1.9 * rasterTime(raster));
    expect(rasterTime({ ...raster, rows: 0 })).toBe(0);
  });
  test("mirrors have a jump in place of ramps", () =>
    expect(rasterTime({ ...raster, galvo: true, jumpS: 0.001 })).toBeCloseTo(1001, 6));
  test.each(["speed", "accel", "intervalMm"] as const)("%s of nought is refused", (key) =>
    expect(() => rasterTime({ ...raster, [key]: 0 })).toThrow(/above 0/),
  );
  test("a stretch too short for full speed", () =>
    expect(travel(1, 400, 3000)).toBeCloseTo(2 * Math.sqrt(1 / 3000), 9));
  test("an overrun shorter than the ramp burns the edges", () => {
    expect(overscanTooShort(400, 3000, 2.5)).toBe(true);
    expect(overscanTooShort(100, 3000, 2.5)).toBe(false);
    expect(overscanTooShort(400, 3000, null)).toBe(false);
  });
  test("a straight line by vector is the trapezoid; a corner costs time", () => {
    expect(
      vectorTime(
        [
          [0, 0],
          [100, 0],
        ],
        100,
        3000,
      ),
    ).toBeCloseTo(100 / 100 + 100 / 3000, 6);
    expect(
      vectorTime(
        [
          [0, 0],
          [50, 0],
          [50, 50],
        ],
        100,
        3000,
      ),
    ).toBeGreaterThan(
      vectorTime(
        [
          [0, 0],
          [50, 0],
          [100, 0],
        ],
        100,
        3000,
      ),
    );
  });
  test("loads on a bed, either way round; what does not fit is nought", () => {
    expect(bedLoads(24, 120, 60, 600, 400)).toEqual({ perLoad: 27, loads: 1 });
    expect(bedLoads(28, 120, 60, 600, 400).loads).toBe(2);
    expect(bedLoads(1, 700, 500, 600, 400)).toEqual({ perLoad: 0, loads: 0 });
  });
  test("watts between the machine's own points, unknown outside them", () => {
    const p = [
      { set: 12, watts: 3 },
      { set: 50, watts: 22 },
      { set: 100, watts: 45 },
    ];
    expect(wattsAt(p, 75)).toBeCloseTo(33.5, 9);
    expect(wattsAt(p, 5)).toBeNull();
    expect(wattsAt([], 50)).toBeNull();
  });
});

describe("M3 energy on the surface", () => {
  test("40 W at half power, 200 mm/s, 0.1 mm: 1 J/mm²", () => expect(energy(40, 0.5, 200, 0.1)).toBeCloseTo(1, 12));
  test("no speed is refused", () => expect(() => energy(40, 0.5, 0, 0.1)).toThrow());
  test("the spot grows out of focus, evenly on both sides", () => {
    expect(spotAt(0.12, 0, 0.0106, 1.3)).toBe(0.12);
    expect(spotAt(0.12, 2, 0.0106, 1.3)).toBeGreaterThan(0.12);
    expect(spotAt(0.12, -2, 0.0106, 1.3)).toBe(spotAt(0.12, 2, 0.0106, 1.3));
  });
  test("ripple rises with the interval", () => {
    const r = [0.03, 0.06, 0.09, 0.12, 0.18].map((d) => ripple(0.12, d));
    expect([...r].sort((a, b) => a - b)).toEqual(r);
    expect(ripple(0.12, 0.06)).toBeLessThan(0.02);
  });
});

describe("M10 depth and sanding", () => {
  test("2 J/mm² a pass in wood with CO2: 0.74 mm", () => expect(depthPerPass(0.4, 2)).toBeCloseTo(0.74, 12));
  test("1.5 mm takes three passes of it, and nothing cuts below the threshold", () => {
    expect(passesFor(1.5, 0.4, 2)).toBe(3);
    expect(passesFor(1.48, 0.4, 2)).toBe(2);
    expect(passesFor(1.5, 0.4, 0.15)).toBeNull();
    expect(depthPerPass(0.4, 0.1)).toBe(0);
  });
  test("what is needed is the sum of what is taken and what must stay", () =>
    expect(depthNeeded(84, 24, 90)).toBeCloseTo(0.398, 9));
  test("strokes by grit take at least what is planned", () => {
    for (const um of [20, 64, 300]) expect(sandPlan(um).reduce((a, g) => a + g.um, 0)).toBeCloseTo(um, 9);
    expect(sandPlan(100).map((g) => g.strokes)).toEqual([6, 7, 8]);
  });
});

describe("beams on surfaces", () => {
  test.each([
    ["blue", "hard-maple", "marks"],
    ["blue", "acrylic-clear", "passes"],
    ["blue", "tile-glazed", "refuses"],
    ["co2", "aluminium-bare", "refuses"],
    ["um1", "hard-maple", "poor"],
    ["um1", "aluminium-bare", "marks"],
    ["uv", "slate", "unknown"],
    ["blue", "canvas", "unknown"],
  ] as const)("%s on %s %s", (beam, s, want) => expect(beamOn(beam, substrateNamed(s))).toBe(want));
  test("black takes up every beam; clear lets blue through", () => {
    for (const b of ["co2", "blue", "um1"] as const)
      expect(absorption(b, "#151515", false)).toBeGreaterThanOrEqual(0.9);
    expect(absorption("blue", "#f5f5f5", true)).toBe(0.05);
  });
});

describe("M19 learning", () => {
  test("three runs twice as long: × 2 to the half, for three of doubt", () =>
    expect(factor([1, 2, 3].map(() => ({ predicted: 10, actual: 20 })))).toEqual({
      factor: expect.closeTo(Math.SQRT2, 9),
      n: 3,
    }));
  test("a wild one is held to three times", () =>
    expect(factor([{ predicted: 1, actual: 1000 }]).factor).toBeCloseTo(3 ** 0.25, 9));
  test("nothing to learn from changes nothing", () =>
    expect(
      factor([
        { predicted: 0, actual: 5 },
        { predicted: null, actual: 3 },
        { predicted: 4, actual: -1 },
      ]),
    ).toEqual({ factor: 1, n: 0 }));
});
