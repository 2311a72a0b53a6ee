/** Every unit that can be typed, against its definition from the inch, the pound and the ounce. */
import {
  parseInterval,
  parseLength,
  parseMinutes,
  parseNumber,
  parseSpeed,
  parseTemperature,
  parseVolume,
  parseWeight,
  type Parsed,
} from "./parse";
import {
  listWords,
  showAmount,
  showInterval,
  showLength,
  showMinutes,
  showMl,
  showShare,
  showSpeed,
  showTemp,
  showUm,
} from "./show";
import { gaugeToMm } from "./gauge";

const INCH = 25.4;
const POUND = 453.59237;
/** a US gallon is 231 cubic inches and 128 fluid ounces */
const FL_OZ = (231 * INCH ** 3) / 1000 / 128;
const value = (p: Parsed): number => (p.ok ? p.value : Number.NaN);
/** equal to the digits that a reader's constant has */
const near = (got: number, want: number): void => expect(Math.abs(got / want - 1)).toBeLessThan(2e-6);

test.each([
  ["3 ft", 36 * INCH],
  ["2 m", 2000],
  ["1 inch", INCH],
  ["2 inches", 2 * INCH],
  ["2″", 2 * INCH],
  ["10 mil", 0.254],
  ["10 thou", 0.254],
  ["7 cm", 70],
  ["250 um", 0.25],
  ["250 μm", 0.25],
  ["+3 mm", 3],
  [".5 mm", 0.5],
  ["5. mm", 5],
])("length %s", (text, mm) => near(value(parseLength(text)), mm));

test.each([
  ["1 1/2 in", 1.5],
  ["-1 1/2 in", -1.5],
  ["-1-1/2 in", -1.5],
  ["+1 1/2 in", 1.5],
  ["-1/2 in", -0.5],
  ["7/8 in", 0.875],
  ["11/16 in", 0.6875],
  ["-2.5 in", -2.5],
  ["-1,5 in", -1.5],
])("the sign stands before all of %s", (text, inches) => {
  near(value(parseLength(text)), inches * INCH);
  near(value(parseLength(text.replace(" in", ""), "in")), inches * INCH);
});

test.each([
  ["300", "mm/s", 300],
  ["6000 mm/min", "mm/s", 100],
  ["6000", "mm/min", 100],
  ["60 ipm", "mm/s", INCH],
  ["60 in/min", "mm/s", INCH],
  ["2 in/s", "mm/s", 2 * INCH],
  ["3 m/min", "mm/s", 50],
  ["5 mm/sec", "mm/s", 5],
] as const)("speed %s, bare in %s", (text, bare, v) => near(value(parseSpeed(text, null, bare)), v));

test.each([
  ["127 dpi", 0.2],
  ["254 lpi", 0.1],
  ["508 lines/in", 0.05],
  ["50 lines/cm", 0.2],
  ["50 l/cm", 0.2],
  ["50 lpcm", 0.2],
  ["3 thou", 0.0762],
  ["80 um", 0.08],
])("interval %s", (text, mm) => near(value(parseInterval(text)), mm));
test("an interval is above nothing", () => {
  for (const text of ["-3 dpi", "-0.1 mm", "0", "0 lines/cm", "lines"]) expect(parseInterval(text).ok).toBe(false);
});

test.each([
  ["1 d 2 h 3 min 30 s", 1440 + 120 + 3.5],
  ["2 days", 2880],
  ["1 day", 1440],
  ["3 hours", 180],
  ["3 hrs", 180],
  ["1 hour 5", 65],
  ["1h5", 65],
  ["2 mins", 2],
  ["2 minutes", 2],
  ["90 sec", 1.5],
  ["0:59", 59],
  ["12:07", 727],
  ["1.25 h", 75],
  ["3/4", 0.75],
])("time %s", (text, min) => near(value(parseMinutes(text)), min));
test("times that are none", () => {
  for (const text of ["", "1:60", "h", "5 min 2 h", "1h 2h", "-1h"]) expect(parseMinutes(text).ok).toBe(false);
});

test.each([
  ["1 l", 1000],
  ["3 cl", 30],
  ["400", 400],
  ["12 fl oz", 12 * FL_OZ],
  ["12 floz", 12 * FL_OZ],
  ["12 oz", 12 * FL_OZ],
])("volume %s", (text, ml) => near(value(parseVolume(text)), ml));
test.each([
  ["2 kg", 2000],
  ["320", 320],
  ["1 lb", POUND],
  ["11 oz", (11 * POUND) / 16],
])("weight %s", (text, g) => near(value(parseWeight(text)), g));
test.each([
  ["32 F", 0],
  ["212 °F", 100],
  ["-40 f", -40],
  ["18", 18],
  ["-3 °C", -3],
])("temperature %s", (text, c) => expect(value(parseTemperature(text))).toBeCloseTo(c, 9));
test("plain numbers, and what none of them takes", () => {
  expect(value(parseNumber("50 %"))).toBe(0.5);
  expect(value(parseNumber("1/4"))).toBe(0.25);
  for (const bad of [
    parseNumber("5 mm"),
    parseVolume("5 mm"),
    parseWeight("5 ml"),
    parseTemperature("warm"),
    parseLength("5/0"),
  ])
    expect(bad.ok).toBe(false);
  expect(parseSpeed("5 %", null).ok).toBe(false);
  expect(parseSpeed("5 parsec").ok).toBe(false);
  expect(parseLength("1".repeat(400)).ok).toBe(false);
});

test.each([
  [0.2, "12 s"],
  [0.001, "1 s"],
  [0.999, "60 s"],
  [1, "1 min"],
  [59.4, "59 min"],
  [59.6, "1 h"],
  [61, "1 h 01"],
  [47 * 60 + 59, "47 h 59"],
  [48 * 60, "2 d"],
  [49 * 60, "2 d 1 h"],
  [71.6 * 60, "3 d"],
])("%d min reads %s", (m, text) => expect(showMinutes(m)).toBe(text));
test("digits turn at one, ten and a hundred", () => {
  expect([0, 0.994, 1, 9.94, 10, 99.6].map(showMl)).toEqual(["0 ml", "0.99 ml", "1.0 ml", "9.9 ml", "10 ml", "100 ml"]);
  expect([0, 9.94, 10.4, 100].map(showUm)).toEqual(["0 µm", "9.9 µm", "10 µm", "100 µm"]);
  expect([9.996, 1.256, 10.26, 100].map((x) => showLength(x))).toEqual(["10 mm", "1.26 mm", "10.3 mm", "100 mm"]);
  expect(showLength(3.175, "inch")).toBe("0.125 in");
  expect([0.05, 0.099, 0.1, 0.706, 1].map(showShare)).toEqual(["5 %", "9.9 %", "10 %", "71 %", "100 %"]);
  // as precise as it was typed or worked out, so that mm/s and mm/min say the same
  expect([5.25, 21.1666666, 399.8, 99.996, 100].map(showSpeed)).toEqual([
    "5.25 mm/s · 315 mm/min · 12.4 in/min",
    "21.17 mm/s · 1270 mm/min · 50 in/min",
    "399.8 mm/s · 23988 mm/min · 944.4 in/min",
    "100 mm/s · 6000 mm/min · 236.2 in/min",
    "100 mm/s · 6000 mm/min · 236.2 in/min",
  ]);
  expect(showInterval(0.05)).toBe("0.05 mm · 508 dpi · 200 lines/cm");
  expect(showInterval(0.12345)).toBe("0.123 mm · 206 dpi · 81 lines/cm");
  expect(showInterval(0)).toBe("unknown");
  expect([showTemp(21.55), showTemp(-40, "inch"), showTemp(100, "inch")]).toEqual(["21.6 °C", "-40 °F", "212 °F"]);
  expect([showAmount(12, null), showAmount(null, 3.14), showAmount(null, null)]).toEqual(["12 ml", "3.1 g", "unknown"]);
  expect([[], ["a"], ["a", "b"]].map(listWords)).toEqual(["", "a", "a and b"]);
});
test("gauges: a step of 39 is ninety-two times as thick, for those that there are", () => {
  expect((gaugeToMm(0, "other") as number) / (gaugeToMm(39, "other") as number)).toBeCloseTo(92, 9);
  expect(gaugeToMm(40, "other")).not.toBeNull();
  expect(gaugeToMm(-1, "other")).toBeNull();
  // 41.82 lb a square foot an inch thick: the table is a sheet's weight in whole and half ounces a square foot
  const oz = (g: number): number => ((gaugeToMm(g, "steel") as number) / INCH) * 41.82 * 16;
  for (const [g, ounces] of [
    [7, 120],
    [8, 110],
    [9, 100],
    [10, 90],
    [11, 80],
    [12, 70],
    [13, 60],
    [14, 50],
    [15, 45],
    [16, 40],
    [17, 36],
    [18, 32],
    [19, 28],
    [20, 24],
    [21, 22],
    [22, 20],
    [23, 18],
    [24, 16],
    [25, 14],
    [26, 12],
    [27, 11],
    [28, 10],
    [29, 9],
    [30, 8],
  ])
    expect(Math.abs(oz(g) - ounces)).toBeLessThan(0.1);
});
