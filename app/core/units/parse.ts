/**
 * What people type into a field, turned into internal units (mm, mm/s, s, °C, µm, ml, g).
 * Each reader returns a number, or a sentence that says what was not understood; it never guesses.
 */
import { MM_PER_INCH } from "./show";
export type Parsed = { ok: true; value: number } | { ok: false; error: string };
export type LengthUnit = "mm" | "in";

const good = (value: number): Parsed =>
  Number.isFinite(value) ? { ok: true, value } : { ok: false, error: "That is not a finite number." };
const bad = (text: string, want: string): Parsed => ({ ok: false, error: `“${text.trim()}” is not ${want}.` });

/** A plain, mixed or bare fraction: `5`, `5.25`, `3/8`, `5 3/8`, `5-3/8`, `1,5`. Null when it is none of these. */
function amount(text: string): number | null {
  const s = text.trim().replace(/^([-+]?\d+),(\d+)$/, "$1.$2");
  const mixed = /^([-+]?)(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)$/.exec(s);
  if (mixed) {
    const below = Number(mixed[4]);
    if (below === 0) return null;
    return (mixed[1] === "-" ? -1 : 1) * (Number(mixed[2] ?? 0) + Number(mixed[3]) / below);
  }
  return /^[-+]?(\d+\.?\d*|\.\d+)$/.test(s) ? Number(s) : null;
}

/** Split `12 3/8 in` into its amount and unit word. */
function split(text: string): { n: number | null; unit: string } {
  const m = /^\s*([-+]?[\d.,/\s-]*\d[.]?)\s*([a-zµμ"'″%°/²]*[a-z0-9/²%"″'°µμ\s]*)$/i.exec(text);
  return m ? { n: amount(m[1]), unit: m[2].trim().toLowerCase() } : { n: null, unit: "" };
}

const LENGTH: Record<string, number> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  '"': MM_PER_INCH,
  "″": MM_PER_INCH,
  ft: 12 * MM_PER_INCH,
  thou: MM_PER_INCH / 1000,
  mil: MM_PER_INCH / 1000,
  um: 0.001,
  µm: 0.001,
  μm: 0.001,
};

/** Length in mm. A bare number is read in `unit`; `5 3/8 in`, `0.1mm`, `35 thou` carry their own. */
export function parseLength(text: string, unit: LengthUnit = "mm"): Parsed {
  const { n, unit: u } = split(text);
  const k = u === "" ? LENGTH[unit] : LENGTH[u];
  return n === null || k === undefined ? bad(text, "a length such as 120 mm or 5 3/8 in") : good(n * k);
}

const SPEED: Record<string, number> = {
  "mm/s": 1,
  "mm/sec": 1,
  "mm/min": 1 / 60,
  "in/min": MM_PER_INCH / 60,
  ipm: MM_PER_INCH / 60,
  "in/s": MM_PER_INCH,
  "m/min": 1000 / 60,
};

/**
 * Speed in mm/s (1 in/min = 25.4/60 mm/s). A percentage needs the machine's top speed and is refused without it.
 * @param maxMmPerS the machine's top speed, or null when it is not known
 */
export function parseSpeed(text: string, maxMmPerS: number | null = null, bare: keyof typeof SPEED = "mm/s"): Parsed {
  const { n, unit } = split(text);
  if (n === null) return bad(text, "a speed such as 300 mm/s or 40 in/min");
  if (unit === "%")
    return maxMmPerS === null
      ? { ok: false, error: "A percentage of speed needs the machine's top speed; enter it in the Workshop first." }
      : good((n / 100) * maxMmPerS);
  const k = SPEED[unit === "" ? bare : unit];
  return k === undefined ? bad(text, "a speed such as 300 mm/s or 40 in/min") : good(n * k);
}

/** Line interval in mm; `250dpi`, `100 lines/cm`, `254 lpi` and lengths are all taken. Refuses 0. */
export function parseInterval(text: string): Parsed {
  const { n, unit } = split(text);
  if (n === null || n <= 0) return bad(text, "a line interval such as 0.1 mm or 254 dpi");
  if (["dpi", "lpi", "lines/in"].includes(unit)) return good(MM_PER_INCH / n);
  if (["lines/cm", "l/cm", "lpcm"].includes(unit)) return good(10 / n);
  return parseLength(text);
}

/** One unit of a stretch, which may be left out. */
const part = (unit: string): string => String.raw`(?:(\d+(?:\.\d+)?)\s*(?:${unit}))?`;
/** days, hours, minutes, seconds, in that order; what stands last without a unit is minutes */
const STRETCH = new RegExp(
  `^${["d|days?", "h|hours?|hrs?", "m|mins?|minutes|$", "s(?:ec)?"].map(part).join(String.raw`\s*`)}$`,
);

/** A stretch of time in minutes: `90`, `1h20`, `1 h 20 min`, `2 d`, `45 s`. A bare number is minutes. */
export function parseMinutes(text: string): Parsed {
  const s = text.trim().toLowerCase();
  const clock = /^(\d+):([0-5]\d)$/.exec(s);
  if (clock) return good(Number(clock[1]) * 60 + Number(clock[2]));
  if (amount(s) !== null) return good(amount(s) as number);
  const m = STRETCH.exec(s);
  if (!m || !m.slice(1).some(Boolean)) return bad(text, "a time such as 40 min or 1h20");
  return good(Number(m[1] ?? 0) * 1440 + Number(m[2] ?? 0) * 60 + Number(m[3] ?? 0) + Number(m[4] ?? 0) / 60);
}

/** Temperature in °C; `59 F` is converted. */
export function parseTemperature(text: string): Parsed {
  const { n, unit } = split(text);
  if (n === null) return bad(text, "a temperature such as 18 °C or 64 °F");
  return unit.replace("°", "").trim() === "f" ? good(((n - 32) * 5) / 9) : good(n);
}

const VOLUME: Record<string, number> = { "": 1, ml: 1, l: 1000, cl: 10, "fl oz": 29.5735, floz: 29.5735, oz: 29.5735 };
const WEIGHT: Record<string, number> = { "": 1, g: 1, kg: 1000, oz: 28.3495, lb: 453.592 };

/** Volume in ml; `12 fl oz` is converted. */
export function parseVolume(text: string): Parsed {
  const { n, unit } = split(text);
  const k = VOLUME[unit];
  return n === null || k === undefined ? bad(text, "a volume such as 400 ml or 12 fl oz") : good(n * k);
}

/** Weight in g; `8 oz` is converted. */
export function parseWeight(text: string): Parsed {
  const { n, unit } = split(text);
  const k = WEIGHT[unit];
  return n === null || k === undefined ? bad(text, "a weight such as 320 g or 11 oz") : good(n * k);
}

/** A plain number, with a percent sign turned into a share of 1. */
export function parseNumber(text: string): Parsed {
  const { n, unit } = split(text);
  if (n === null) return bad(text, "a number");
  if (unit === "%") return good(n / 100);
  return unit === "" ? good(n) : bad(text, "a plain number");
}
