import { said, saidAll } from "./said";

test.each([
  ["Engrave 1.5 mm deep", "Engrave 0.059 in deep"],
  ["a piece of 120 × 60 mm, 8 mm thick", "a piece of 4.72 × 2.36 in, 0.31 in thick"],
  ["raised 2 to 3 mm", "raised 0.08 to 0.12 in"],
  ["sharp over 17.8 or 25.0 mm", "sharp over 0.701 or 0.984 in"],
  ["within 0.1 mm", "within 0.004 in"],
  ["0.085 mm", "0.0033 in"],
  ["-0.3 mm proud", "-0.012 in proud"],
  ["under 3 mm² hard to lift", "under 0.00465 sq in hard to lift"],
  ["at 399.8 mm/s", "at 944.4 in/min"],
  ["100 mm/s · 6000 mm/min · 236.2 in/min", "100 mm/s · 6000 mm/min · 236.2 in/min"],
  ["0.1 mm · 254 dpi · 100 lines/cm", "0.1 mm · 254 dpi · 100 lines/cm"],
  ["3000 mm/s²", "3000 mm/s²"],
  ["0.3 mm per J/mm²; 0.47 J/mm²", "0.3 mm per J/mm²; 0.47 J/mm²"],
  ["set to 180 °C", "set to 356 °F"],
  ["above 40 °C the skin closes", "above 104 °F the skin closes"],
  ["3 °C above dew point", "5 °F above dew point"],
  ["between 16 and 44 °C", "between 61 and 111 °F"],
  ["from 5-20 mm", "from 0.2-0.79 in"],
  ["12 µm, 24 ml, 20 min, 4 mm", "12 µm, 24 ml, 20 min, 0.16 in"],
  ["nothing to convert", "nothing to convert"],
])("%s", (text, told) => {
  expect(said(text, "inch")).toBe(told);
  expect(said(text, "metric")).toBe(text);
});

test("all that a screen is told, but no ids, records and names that somebody typed", () => {
  const rows = (): string[] => ["4 mm"];
  const of = {
    id: "4 mm",
    title: "Cut 4 mm",
    why: ["4 mm", { say: "at 20 °C", n: 4 }],
    job: { title: "4 mm", note: "4 mm" },
    fields: [{ name: "Depth", value: "4 mm" }],
    none: null,
    rows,
  };
  const told = saidAll(of, "inch");
  expect(told).toEqual({
    id: "4 mm",
    title: "Cut 0.16 in",
    why: ["0.16 in", { say: "at 68 °F", n: 4 }],
    job: { title: "4 mm", note: "4 mm" },
    fields: [{ name: "Depth", value: "0.16 in" }],
    none: null,
    rows,
  });
  expect(saidAll(of, "inch", false).title).toBe("Cut 4 mm");
  expect(saidAll(of, "metric")).toBe(of);
});
