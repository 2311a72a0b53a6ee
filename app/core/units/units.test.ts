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
  plural,
  showInterval,
  showLength,
  showMinutes,
  showMl,
  showShare,
  showSpeed,
  showTemp,
  showUm,
} from "./show";

const value = (p: Parsed): number => {
  if (!p.ok) throw new Error(p.error);
  return p.value;
};

describe("lengths", () => {
  test.each([
    ["120", 120],
    ["120mm", 120],
    ["12 cm", 120],
    ["0.1mm", 0.1],
    ["5 3/8 in", 5.375 * 25.4],
    ["5-3/8in", 5.375 * 25.4],
    ['3/4"', 19.05],
    ["35 thou", 0.889],
    ["1,5", 1.5],
    ["40 µm", 0.04],
    ["-2 mm", -2],
  ])("%s is %d mm", (text, mm) => expect(value(parseLength(text))).toBeCloseTo(mm, 9));
  test("a bare number follows the shop's unit", () => expect(value(parseLength("2", "in"))).toBeCloseTo(50.8, 9));
  test.each(["", "wide", "3/0 in", "12 parsec", "1.2.3"])("refuses “%s” by name", (text) => {
    const p = parseLength(text);
    expect(p.ok).toBe(false);
    if (!p.ok) expect(p.error).toContain("length");
  });
});

describe("speeds", () => {
  test.each([
    ["300", 300],
    ["300 mm/s", 300],
    ["6000 mm/min", 100],
    ["40 in/min", (40 * 25.4) / 60],
  ])("%s is %d mm/s", (text, v) => expect(value(parseSpeed(text))).toBeCloseTo(v, 9));
  test("percent needs the machine's top speed", () => {
    const refused = parseSpeed("50 %");
    expect(refused.ok).toBe(false);
    if (!refused.ok) expect(refused.error).toMatch(/top speed/);
    expect(value(parseSpeed("50 %", 400))).toBe(200);
  });
  test("in/min and back, to the last digit shown", () => {
    for (let n = 1; n < 400; n += 7) expect(showSpeed(value(parseSpeed(`${n} in/min`)))).toContain(`${n} in/min`);
  });
});

describe("intervals, times, temperatures, amounts", () => {
  test.each([
    ["254 dpi", 0.1],
    ["0.1 mm", 0.1],
    ["100 lines/cm", 0.1],
  ])("%s is %d mm", (text, mm) => expect(value(parseInterval(text))).toBeCloseTo(mm, 12));
  test("an interval of nothing is refused", () => expect(parseInterval("0 dpi").ok).toBe(false));
  test.each([
    ["90", 90],
    ["1h20", 80],
    ["1 h 20 min", 80],
    ["2 d", 2880],
    ["1:05", 65],
    ["45 s", 0.75],
    ["1.5 h", 90],
  ])("%s is %d min", (text, min) => expect(value(parseMinutes(text))).toBeCloseTo(min, 9));
  test("a time that is none is refused", () => expect(parseMinutes("soon").ok).toBe(false));
  test("59 F is 15 °C", () => expect(value(parseTemperature("59 °F"))).toBeCloseTo(15, 9));
  test("12 fl oz and 8 oz", () => {
    expect(value(parseVolume("12 fl oz"))).toBeCloseTo(354.882, 2);
    expect(value(parseWeight("8 oz"))).toBeCloseTo(226.796, 2);
  });
  test("percent is a share", () => expect(value(parseNumber("71 %"))).toBeCloseTo(0.71, 12));
});

describe("what is shown", () => {
  test.each([
    [37.6, "38 min"],
    [60, "1 h"],
    [65, "1 h 05"],
    [1232, "20 h 32"],
    [2 * 1440, "2 d"],
    [3 * 1440 + 300, "3 d 5 h"],
    [0.5, "30 s"],
    [0, "0 min"],
  ])("%d min reads %s", (m, text) => expect(showMinutes(m)).toBe(text));
  test("unknown is never nought", () => {
    for (const f of [showMinutes, showMl, showUm, showLength, showSpeed, showInterval, showShare, showTemp]) {
      expect(f(null)).toBe("unknown");
      expect(f(Number.NaN)).toBe("unknown");
    }
  });
  test("amounts have the digits a person can use", () => {
    expect(showMl(0.214)).toBe("0.21 ml");
    expect(showMl(5.04)).toBe("5.0 ml");
    expect(showMl(24.1)).toBe("24 ml");
    expect(showUm(8.25)).toBe("8.3 µm");
    expect(showUm(65.2)).toBe("65 µm");
    expect(showLength(25.4, "inch")).toBe("1 in");
    expect(showInterval(0.1)).toBe("0.1 mm · 254 dpi · 100 lines/cm");
    expect(showTemp(20, "inch")).toBe("68 °F");
  });
  test("words", () => {
    expect(plural(1, "coat")).toBe("1 coat");
    expect(plural(2, "coat")).toBe("2 coats");
    expect(listWords(["a", "b", "c"])).toBe("a, b and c");
  });
});
