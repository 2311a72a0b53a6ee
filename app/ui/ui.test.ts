/** What the bench tells and when, worked out apart from any screen. */
import type { RackRow } from "../views/shown";
import { alarmsOf, due, WARN_MIN } from "./bench/alarms";
import { SUN_MIN } from "./bench/rack";
import { barText, columns, niceBar } from "./core-sample/scale";
import { lensScale, magnified } from "./core-sample/core-sample";

const row = (more: Partial<RackRow>): RackRow => ({
  id: "tiles",
  title: "Tiles",
  is: "waiting",
  next: "Second coat",
  state: "recoat",
  words: "",
  from: 0,
  opens: 100,
  closes: 150,
  reopens: null,
  sunSince: null,
  why: { title: "The wait", rows: () => [], ask: null },
  ...more,
});

describe("alarms", () => {
  test("ready when it opens, closing before it shuts, brought in from the sun", () => {
    expect(alarmsOf([row({ sunSince: 40 })]).map((e) => [e.title, e.at])).toEqual([
      ["Tiles: bring it in", 40 + SUN_MIN],
      ["Tiles: ready", 100],
      ["Tiles: window closing", 150 - WARN_MIN],
    ]);
    expect(alarmsOf([row({ is: "missed" })]).map((e) => e.title)).toEqual(["Tiles: ready"]);
    expect(alarmsOf([row({ is: "done", closes: null })])).toEqual([]);
    expect(alarmsOf([row({ state: null, closes: null })])).toEqual([]);
  });
  test("told once, not when it was over before the page was there, not when it is no news", () => {
    const e = alarmsOf([row({ closes: null })]);
    expect(due(e, new Set(), 50, 99)).toEqual([]);
    expect(due(e, new Set(), 50, 100)).toEqual(e);
    expect(due(e, new Set([e[0].key]), 50, 101)).toEqual([]);
    expect(due(e, new Set(), 100, 101)).toEqual([]);
    expect(due(e, new Set(), 50, 500)).toEqual([]);
  });
});

describe("scales of the core sample", () => {
  test("bars are round lengths near what is asked", () => {
    for (const [umPerPx, px] of [
      [0.1, 70],
      [1, 60],
      [7.3, 46],
      [40, 70],
    ]) {
      const bar = niceBar(umPerPx, px);
      expect(bar / umPerPx).toBeLessThanOrEqual(px);
      expect(bar / umPerPx).toBeGreaterThan(px / 2.6);
      expect([1, 2, 5]).toContain(Number((bar / 10 ** Math.floor(Math.log10(bar) + 1e-9)).toFixed(6)));
    }
    expect([barText(500), barText(2000)]).toEqual(["500 µm", "2 mm"]);
  });
  test("columns lie side by side within the width, wider for larger zones", () => {
    const c = columns(
      [
        { zone: "a", areaMm2: 100 },
        { zone: "b", areaMm2: 900 },
        { zone: "c", areaMm2: 400 },
      ],
      50,
      600,
    );
    c.reduce((x, col) => (expect(col.x).toBeGreaterThan(x), col.x + col.w), 49);
    expect(c[2].x + c[2].w).toBeLessThanOrEqual(650);
    expect(c[1].w).toBeGreaterThan(c[2].w);
    expect(c[2].w).toBeGreaterThan(c[0].w);
  });
  test("the lens fits its films, wet ones with what they have to lose", () => {
    const layer = (topUm: number, bottomUm: number, wetUm: number | null, wetShare: number) => ({
      kind: "film",
      finish: null,
      product: null,
      role: "colour",
      step: null,
      coat: 1,
      topUm,
      bottomUm,
      state: "wet",
      left: 1,
      level: false,
      wetUm,
      wetShare,
    });
    const zone = (layers: ReturnType<typeof layer>[]) => ({
      zone: "z",
      depthUm: 0,
      surfaceUm: 0,
      layers,
      front: "#000000",
      back: "#000000",
    });
    expect(lensScale(zone([layer(-20, 0, 60, 0)]), 250) * 250 * 0.66).toBeCloseTo(20, 6);
    expect(lensScale(zone([layer(-20, 0, 60, 0.5)]), 250) * 250 * 0.66).toBeCloseTo(40, 6);
    expect(magnified(25400 / 96)).toBe("1×");
    expect(magnified(25.4 / 96)).toBe("1,000×");
  });
});
