import { depthNeeded, depthPerPass, passesFor, residualMm, sandPlan } from "../depth/depth";
import { fillsFor, fusedMass, mayStayOpen, openAfter } from "../powder/fill";
import { COLD_C, coolDown, coolDownIn, coolTau, LIFT_C, ovenLoads, tau, warmUp } from "../powder/heat";
import { factor } from "../learn/factor";
import { absorption, beamOn } from "../../catalogue/beams";
import { substrateNamed } from "../../catalogue/substrates";
import { defocusFor, energy, ripple, spotAt } from "./energy";
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
    for (const b of ["co2", "blue", "um1"] as const) expect(absorption(b, "#151515")).toBeGreaterThanOrEqual(0.9);
    expect(absorption("blue", "#f5f5f5", { clear: true, metallic: false })).toBe(0.05);
    expect(absorption("co2", "#151515", { clear: false, metallic: true })).toBe(0.5);
    expect(absorption("um1", "#e0e0e0", { clear: false, metallic: true })).toBe(0.4);
    expect(["#151515", "#552211", "#d8d8d8"].map((x) => absorption("um1", x))).toEqual([0.95, 0.4, 0.25]);
  });
});

test("blue light: from grey to grey without a step, by what the colour does not send back", () => {
  const grey = (n: number): string => `#${n.toString(16).padStart(2, "0").repeat(3)}`;
  for (let n = 1; n < 256; n++) {
    const [a, b] = [absorption("blue", grey(n - 1)), absorption("blue", grey(n))];
    expect(b).toBeLessThanOrEqual(a);
    expect(a - b).toBeLessThan(0.01);
  }
  expect(absorption("blue", "#ff0000")).toBe(0.95);
  expect(absorption("blue", "#0000ff")).toBe(0.05);
  expect(absorption("blue", "#404080")).toBeCloseTo(1 - ((0x80 / 255 + 0.055) / 1.055) ** 2.4, 6);
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

describe("reckoned a second way", () => {
  /** energy at one place of parallel Gaussian lines, each of unit power, as the beam's own profile says */
  const rough = (d: number, gap: number): number => {
    const e = Array.from({ length: 400 }, (_, i) => {
      let sum = 0;
      for (let k = -30; k <= 30; k++) sum += Math.exp(-2 * ((2 * ((i / 400) * gap - k * gap)) / d) ** 2);
      return sum;
    });
    const mean = e.reduce((a, b) => a + b) / e.length;
    return Math.sqrt(e.reduce((a, b) => a + (b - mean) ** 2, 0) / e.length) / mean;
  };
  test.each([0.4, 0.6, 0.8, 0.999, 1.001, 1.2, 1.7, 2.5])("ripple with lines %d of a spot apart", (share) => {
    for (const d of [0.04, 0.12])
      expect(Math.abs(ripple(d, share * d) - rough(d, share * d))).toBeLessThan(0.005 + 0.03 * rough(d, share * d));
  });
  test("ripple of nothing is nothing", () =>
    expect([ripple(0, 0.1), ripple(0.1, 0), ripple(-1, 0.1)]).toEqual([0, 0, 0]));
  test("energy is power by area", () => {
    // a square of 50 by 50 mm at 250 mm/s and 0.08 mm, 30 % of 60 W, twice: joules of the whole by its area
    const seconds = (50 / 250) * (50 / 0.08);
    expect(energy(60, 0.3, 250, 0.08, 2)).toBeCloseTo((2 * 60 * 0.3 * seconds) / 2500, 12);
    expect(() => energy(60, 0.3, 250, 0)).toThrow(RangeError);
    expect(() => energy(60, 0.3, -1, 0.1)).toThrow(RangeError);
  });
  test("at one Rayleigh length a beam is √2 as wide, and the way back is exact", () => {
    const [d, lambda, m2] = [0.12, 0.0106, 1.3];
    const zr = (Math.PI * (d / 2) ** 2) / (lambda * m2);
    expect(spotAt(d, zr, lambda, m2)).toBeCloseTo(d * Math.SQRT2, 12);
    for (const want of [0.13, 0.2, 1])
      expect(spotAt(d, defocusFor(d, want, lambda, m2), lambda, m2)).toBeCloseTo(want, 12);
    expect(defocusFor(d, d, lambda, m2)).toBe(0);
    expect(defocusFor(d, 0.05, lambda, m2)).toBe(0);
  });
  test("a row: full speed over its length, the ramps outside it; never below what was asked", () => {
    // 200 mm/s at 2000 mm/s²: 10 mm and 0.1 s of ramp at each end
    expect(rowTime(50, 200, 2000, null)).toBeCloseTo(50 / 200 + 0.2, 12);
    expect(rowTime(50, 200, 2000, 10)).toBeCloseTo(rowTime(50, 200, 2000, null), 12);
    expect(rowTime(50, 200, 2000, 20)).toBeCloseTo(70 / 200 + 0.2, 12);
    // exactly long enough to reach full speed: both branches agree
    expect(travel(20, 200, 2000)).toBeCloseTo(0.2, 12);
    expect(travel(19.9999, 200, 2000)).toBeCloseTo(0.2, 4);
    expect([travel(0, 200, 2000), travel(-1, 200, 2000)]).toEqual([0, 0]);
    for (const bad of [0, -1, Number.NaN, Infinity]) {
      expect(() => rowTime(50, bad, 2000, null)).toThrow(/speed/);
      expect(() => rowTime(50, 200, bad, null)).toThrow(/acceleration/);
    }
  });
  test("one way: each row comes back at the rapid and steps down; both ways the step hides in the turn", () => {
    const one = {
      ...raster,
      rowMm: 50,
      rows: 7,
      speed: 200,
      accel: 2000,
      bothWays: false,
      rapid: 400,
      intervalMm: 0.2,
      passes: 2,
    };
    const there = 50 / 200 + 0.2;
    // 70 mm back from rest to rest: 0.2 s and 40 mm each to reach 400 mm/s is too far, so it never gets there
    const back = 2 * Math.sqrt(70 / 2000);
    const step = 2 * Math.sqrt(0.2 / 2000);
    expect(rasterTime(one)).toBeCloseTo(2 * 7 * (there + back + step), 9);
    expect(rasterTime({ ...one, rapid: null })).toBeCloseTo(2 * 7 * (there + 70 / 200 + 0.1 + step), 9);
    expect(rasterTime({ ...one, bothWays: true })).toBeCloseTo(2 * 7 * there, 9);
    expect(rasterTime({ ...one, galvo: true, jumpS: 0.002 })).toBeCloseTo(2 * 7 * (50 / 200 + 0.002), 9);
    expect(rasterTime({ ...one, rowMm: 0 })).toBe(0);
  });
  test("an overrun of just the ramp is long enough", () => {
    expect(overscanTooShort(200, 2000, 10)).toBe(false);
    expect(overscanTooShort(200, 2000, 9.999)).toBe(true);
  });
  test("corners: straight on costs nothing, a turn about costs all, a right angle what 0.02 mm leave", () => {
    expect(cornerSpeed(400, 3000, Math.PI)).toBe(400);
    expect(cornerSpeed(400, 3000, 0)).toBe(0);
    const s = Math.SQRT1_2;
    expect(cornerSpeed(400, 3000, Math.PI / 2)).toBeCloseTo(Math.sqrt((3000 * 0.02 * s) / (1 - s)), 12);
    expect(cornerSpeed(5, 3000, Math.PI / 2)).toBe(5);
  });
  /** the same run stepped through in small pieces of way: highest speed that every limit ahead and behind allows */
  const stepped = (pts: [number, number][], v: number, a: number): number => {
    const len = pts.slice(1).map((p, i) => Math.hypot(p[0] - pts[i][0], p[1] - pts[i][1]));
    const total = len.reduce((x, y) => x + y, 0);
    const marks: [number, number][] = [
      [0, 0],
      [total, 0],
    ];
    let at = 0;
    for (let i = 1; i < pts.length - 1; i++) {
      at += len[i - 1];
      const u = [pts[i - 1][0] - pts[i][0], pts[i - 1][1] - pts[i][1]];
      const w = [pts[i + 1][0] - pts[i][0], pts[i + 1][1] - pts[i][1]];
      marks.push([at, cornerSpeed(v, a, Math.acos((u[0] * w[0] + u[1] * w[1]) / (len[i - 1] * len[i])))]);
    }
    const N = 20_000;
    let seconds = 0;
    for (let i = 0; i < N; i++) {
      const x = ((i + 0.5) / N) * total;
      seconds += total / N / Math.min(v, ...marks.map(([m, c]) => Math.sqrt(c * c + 2 * a * Math.abs(x - m))));
    }
    return seconds;
  };
  test.each<[string, [number, number][]]>([
    [
      "one straight",
      [
        [0, 0],
        [30, 0],
      ],
    ],
    [
      "a short one that never gets up to speed",
      [
        [0, 0],
        [1, 0],
      ],
    ],
    [
      "a right angle",
      [
        [0, 0],
        [20, 0],
        [20, 20],
      ],
    ],
    [
      "a hairpin",
      [
        [0, 0],
        [20, 0],
        [0, 1],
      ],
    ],
    [
      "short pieces between long ones",
      [
        [0, 0],
        [20, 0],
        [20.3, 0.1],
        [20.5, 0.4],
        [20.5, 20],
        [0, 20],
      ],
    ],
  ])("lines: %s, against small steps", (_name, pts) => {
    for (const [v, a] of [
      [100, 3000],
      [40, 800],
    ]) {
      const want = stepped(pts, v, a);
      expect(Math.abs(vectorTime(pts, v, a) / want - 1)).toBeLessThan(0.02);
      expect(vectorTime(pts, v, a, 3)).toBeCloseTo(3 * vectorTime(pts, v, a), 9);
    }
    expect(vectorTime([[0, 0]], 100, 3000)).toBe(0);
    expect(() => vectorTime(pts, 0, 3000)).toThrow(/speed/);
  });
  test("loads: by trying every place, pieces turned too", () => {
    for (const [w, h, W, H, gap] of [
      [120, 60, 600, 400, 5],
      [60, 120, 300, 125, 5],
      [100, 30, 100, 300, 5],
      [100, 100, 205, 205, 5],
      [100, 100, 204, 205, 5],
      [50, 20, 110, 110, 10],
    ]) {
      const fit = (a: number, b: number): number => {
        let n = 0;
        for (let x = 0; x + a <= W; x += a + gap) for (let y = 0; y + b <= H; y += b + gap) n++;
        return n;
      };
      const per = Math.max(fit(w, h), fit(h, w));
      expect(bedLoads(7, w, h, W, H, gap)).toEqual({ perLoad: per, loads: Math.ceil(7 / per) });
    }
    expect(bedLoads(1, 100, 100, 205, 205)).toEqual(bedLoads(1, 100, 100, 205, 205, 5));
    expect(bedLoads(7, 601, 10, 600, 400)).toEqual({ perLoad: 0, loads: 0 });
  });
  test("watts: the points themselves, between them, in whatever order", () => {
    const p = [
      { set: 100, watts: 45 },
      { set: 12, watts: 3 },
      { set: 50, watts: 22 },
    ];
    expect([12, 31, 50, 60, 100].map((s) => wattsAt(p, s))).toEqual([3, 12.5, 22, expect.closeTo(26.6, 9), 45]);
    expect([wattsAt(p, 101), wattsAt(p, 11), wattsAt(p.slice(0, 1), 100)]).toEqual([null, null, null]);
    expect(
      wattsAt(
        [
          { set: 5, watts: 1 },
          { set: 5, watts: 9 },
        ],
        5,
      ),
    ).not.toBeNull();
  });
  test("depth: passes are the least number that reach it, residual by material and mask", () => {
    for (const depth of [0.1, 0.74, 0.75, 1.47, 1.5, 3])
      for (const e of [0.2, 1, 2]) {
        const n = passesFor(depth, 0.4, e) as number;
        expect(n * 0.4 * (e - 0.15)).toBeGreaterThanOrEqual(depth - 1e-6);
        expect(n === 1 || (n - 1) * 0.4 * (e - 0.15) < depth - 1e-9).toBe(true);
      }
    expect([
      residualMm("wood", false),
      residualMm("wood", true),
      residualMm("metal", false),
      residualMm("coated-metal", false),
    ]).toEqual([0.2, 0.1, 0.1, 0.1]);
    expect(depthNeeded(40, 20, 140)).toBeCloseTo(0.4, 12);
    expect(depthNeeded(40, 20, 140, 0.1)).toBeCloseTo(0.3, 12);
    for (const um of [1, 64, 300]) {
      const plan = sandPlan(um);
      expect(plan.map((g) => g.um / um)).toEqual([0.6, 0.25, 0.15].map((x) => expect.closeTo(x, 12)));
      plan.forEach((g, i) => {
        const per = [10, 4, 2][i];
        expect(g.strokes * per).toBeGreaterThanOrEqual(g.um);
        expect(g.strokes === 1 || (g.strokes - 1) * per < g.um).toBe(true);
      });
    }
  });
});

describe("M9 powder and heat, reckoned a second way", () => {
  test("fills: each melts to its share of what was open, until it may stay", () => {
    for (const depth of [0.3, 0.8, 1.5, 3])
      for (const phi of [0.42, 0.5, 0.63])
        for (const pale of [false, true]) {
          const may = pale ? 0.15 * depth : Math.min(0.5, 0.3 * depth);
          expect(mayStayOpen(depth, pale)).toBeCloseTo(may, 12);
          let open = depth;
          let n = 0;
          while (n === 0 || open > may + 1e-9) {
            open -= phi * open;
            n++;
            expect(openAfter(depth, phi, n)).toBeCloseTo(open, 12);
          }
          expect(fillsFor(depth, phi, pale)).toBe(n);
          expect(fusedMass(200, depth, phi, n, 1.6)).toBeCloseTo((200 * (depth - open) * 1.6) / 1000, 12);
        }
    expect([fillsFor(0, 0.5, false), fillsFor(-1, 0.5, false)]).toEqual([0, 0]);
    expect([fillsFor(1, 0, false), fillsFor(1, 1, false), fillsFor(1, Number.NaN, false)]).toEqual([null, null, null]);
  });
  const tile = { thermal: { rho: 2300, c: 840, k: 1.3 }, family: "tile" };
  const wood = { thermal: { rho: 700, c: 2000, k: 0.17 }, family: "wood" };
  test("warming: stepped second by second", () => {
    const t = tau(tile, 6);
    expect(tau(tile, 12) / t).toBeGreaterThan(2);
    // from one side only it is as a body of twice the thickness
    expect(tau(tile, 6, false)).toBeCloseTo(tau(tile, 12), 9);
    let c = 20;
    let s = 0;
    while (c < 160) {
      c += (200 - c) / t / 10;
      s += 0.1;
    }
    expect(warmUp(tile, 6, 200, 160)).toBeCloseTo(s / 60, 1);
    expect((warmUp(wood, 6, 200, 160) as number) / ((tau(wood, 6) / 60) * Math.log(180 / 40))).toBeCloseTo(1.5, 9);
    expect(warmUp(tile, 6, 200, 197)).not.toBeNull();
    expect(warmUp(tile, 6, 200, 197.1)).toBeNull();
    expect(warmUp(tile, 6, 200, 20)).toBe(0);
    expect(warmUp(tile, 0, 200, 160)).toBeNull();
    expect(warmUp(tile, 6, 200, 160, 100) as number).toBeLessThan(warmUp(tile, 6, 200, 160) as number);
  });
  test("cooling: half the difference takes ln 2 of its time, and a warm room never lets it", () => {
    expect(coolDown(30, 200, 110, 20)).toBeCloseTo(30 * Math.LN2, 9);
    expect(coolDown(30, 35, 35)).toBe(0);
    expect(coolDown(30, 200, 20, 20)).toBeNull();
    expect(coolDown(30, 200, 20.1, 20)).not.toBeNull();
    // still air of a room takes heat off slower than an oven puts it in: h 12, bright metal 7; board as wood
    const byHand = (b: typeof tile, h: number, thick: number): number =>
      (b.thermal.rho * b.thermal.c * (thick / 1000) * (1 / h + thick / 1000 / (3 * b.thermal.k))) / 60;
    expect(coolTau(tile, 6)).toBeCloseTo(byHand(tile, 12, 3), 12);
    expect(coolTau(wood, 6)).toBeCloseTo(1.5 * byHand(wood, 12, 3), 12);
    const [board, metal] = [substrateNamed("mdf"), substrateNamed("aluminium-bare")];
    expect(coolTau(board, 6)).toBeCloseTo(1.5 * byHand(board, 12, 3), 12);
    expect(coolTau(metal, 3)).toBeCloseTo(byHand(metal, 7, 1.5), 12);
    expect(coolTau(tile, 6, false)).toBeCloseTo(byHand(tile, 12, 6), 12);
    expect([COLD_C, LIFT_C]).toEqual([40, 35]);
    expect(coolTau(tile, 0)).toBeGreaterThanOrEqual(0.2);
  });
  test("a room whose air changes: minute by minute as by Newton's law where it does not, and never where it stays warm", () => {
    for (const [tauMin, from, to, room] of [
      [12, 180, 35, 20],
      [30, 150, 40, 8],
      [5, 125, 40, 38],
    ])
      expect(coolDownIn(tauMin, from, to, () => room)).toBe(Math.ceil(coolDown(tauMin, from, to, room)! - 1e-6));
    expect(coolDownIn(12, 30, 35, () => 20)).toBe(0);
    expect(coolDownIn(12, 180, 35, () => 36)).toBeNull();
    // at noon as warm as the limit, in the evening not: it waits for the evening
    const evening = coolDownIn(12, 180, 35, (m) => (m < 300 ? 36 : 20))!;
    expect(evening).toBeGreaterThan(300);
    expect(evening).toBeLessThan(303);
  });
  test("trays: ten millimetres between pieces, either way round", () => {
    expect(ovenLoads(9, 100, 50, 210, 110)).toEqual({ perTray: 4, loads: 3 });
    expect(ovenLoads(9, 50, 100, 210, 110)).toEqual({ perTray: 4, loads: 3 });
    expect(ovenLoads(8, 100, 50, 210, 110)?.loads).toBe(2);
    expect(ovenLoads(9, 100, 50, 209, 110)?.perTray).toBe(3);
    expect(ovenLoads(1, 300, 50, 209, 110)).toBeNull();
    expect(ovenLoads(3, 200, 100, 209, 110)).toEqual({ perTray: 1, loads: 3 });
  });
});
