import { gaugeToMm, readGauge } from "./gauge";

test("gauges: the geometric series for aluminium and brass, the standard's table for steel, nothing for what there is not", () => {
  expect(gaugeToMm(16, "other")).toBeCloseTo(1.291, 3);
  expect(gaugeToMm(36, "other")).toBeCloseTo(0.127, 9);
  expect(gaugeToMm(16, "steel")).toBe(1.519);
  expect([gaugeToMm(99, "steel"), gaugeToMm(41, "other"), gaugeToMm(1.5, "other"), gaugeToMm(NaN, "steel")]).toEqual([
    null,
    null,
    null,
    null,
  ]);
  expect(["16 ga", "16GA.", "20 gauge", "16", "ga", "1.6 mm"].map(readGauge)).toEqual([16, 16, 20, null, null, null]);
});
