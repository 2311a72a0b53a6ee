/**
 * Sentences of the core speak of mm and °C. In a shop that reads inches they are told over: each figure with its unit, alone or in a
 * row (“120 × 60 mm”, “2 to 3 mm”), differences of temperature as differences. What stands beside other units already is left.
 */
import { MM_PER_INCH, showTemp, type UnitSystem } from "./show";

const N = "-?\\d+(?:\\.\\d+)?";
const ROW = `(?:${N}(?:\\s*[×,]\\s*|\\s*-\\s*| to | or | and | of ))*${N}`;
/** not where the figure is one of several units side by side, or a rate of another kind */
const END = "(?![\\w²/]| per | · )";
const LENGTH = new RegExp(`(?<![\\w.])(${ROW}) mm${END}`, "g");
const AREA = new RegExp(`(?<![\\w.])(${ROW}) mm²(?!/)`, "g");
const SPEED = new RegExp(`(?<![\\w.])(${N}) mm/s(?![²\\w]| · )`, "g");
/** with what makes it a difference: “3 °C above dew point”, but “above 40 °C” */
const TEMP = new RegExp(`(?<![\\w.])(${ROW}) °C( (?:above|below|under|over|warmer|colder|more|less|steps)\\b)?`, "g");
const digitsOf = (n: string): number => (n.includes(".") ? n.length - n.indexOf(".") - 1 : 0);
/** In inches to about the same step: two digits more, and two at the least. */
const inches = (n: string): string => String(Number((Number(n) / MM_PER_INCH).toFixed(Math.min(4, digitsOf(n) + 2))));
const each = (row: string, of: (n: string) => string): string =>
  row.replace(new RegExp(N, "g"), (n, at: number) =>
    // the hyphen of a range is no sign
    n.startsWith("-") && /\d\s*$/.test(row.slice(0, at)) ? `-${of(n.slice(1))}` : of(n),
  );

/** A sentence in the units of a shop. */
export function said(text: string, units: UnitSystem): string {
  if (units === "metric" || !/mm|°C/.test(text)) return text;
  return text
    .replace(
      AREA,
      (_all, row: string) => `${each(row, (n) => String(Number((Number(n) / MM_PER_INCH ** 2).toPrecision(3))))} sq in`,
    )
    .replace(SPEED, (_all, n: string) => `${Number(((Number(n) * 60) / MM_PER_INCH).toPrecision(4))} in/min`)
    .replace(LENGTH, (_all, row: string) => `${each(row, inches)} in`)
    .replace(TEMP, (_all, row: string, by: string | undefined) =>
      by !== undefined
        ? `${each(row, (n) => String(Math.round(Number(n) * 1.8)))} °F${by}`
        : `${each(row, (n) => showTemp(Number(n), "inch").replace(" °F", ""))} °F`,
    );
}

/** records, and lists of other jobs */
const RECORDS = new Set(["job", "world", "shop", "ask", "rack"]);
/** ids and names, which are no sentences */
const NAMES = new Set(["id", "step", "kind", "productId", "client", "credit"]);
type Value = string | number | boolean | null | undefined | object;

/**
 * Everything that a screen is told, in the units of a shop; functions, records and names are left as they are.
 * @param titles titles too, where they are those of steps
 */
export function saidAll<T>(of: T, units: UnitSystem, titles = true): T {
  if (units === "metric") return of;
  const tell = (v: Value, key: string): Value => {
    if (RECORDS.has(key)) return v;
    if (typeof v === "string") return NAMES.has(key) || (key === "title" && !titles) ? v : said(v, units);
    if (Array.isArray(v)) return v.map((x: Value) => tell(x, key));
    if (v === null || typeof v !== "object" || Object.getPrototypeOf(v) !== Object.prototype) return v;
    return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, tell(x as Value, k)]));
  };
  return tell(of as Value, "") as T;
}
