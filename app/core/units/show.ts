/** Figures as a person reads them: a unit on each, and no more digits than can be used. Null reads as “unknown”, never as 0. */
export type UnitSystem = "metric" | "inch";

export const UNKNOWN = "unknown";
export const MM_PER_INCH = 25.4;

const trim = (n: number, digits: number): string => {
  const s = n.toFixed(digits);
  return digits > 0 ? s.replace(/\.?0+$/, "") : s;
};

/** `38 min`, `1 h 05`, `2 d 4 h`: minutes rounded to what matters at that length. */
export function showMinutes(min: number | null): string {
  if (min === null || !Number.isFinite(min)) return UNKNOWN;
  if (min > 0 && min < 1) return `${Math.max(1, Math.round(min * 60))} s`;
  const m = Math.round(min);
  if (m < 60) return `${m} min`;
  if (m < 48 * 60)
    return m % 60 === 0 ? `${Math.floor(m / 60)} h` : `${Math.floor(m / 60)} h ${String(m % 60).padStart(2, "0")}`;
  const hours = Math.round(m / 60);
  return hours % 24 === 0 ? `${hours / 24} d` : `${Math.floor(hours / 24)} d ${hours % 24} h`;
}

/** Millilitres to two significant places under 10, whole above 100: `0.21 ml`, `5.0 ml`, `24 ml`. */
export function showMl(ml: number | null): string {
  if (ml === null || !Number.isFinite(ml)) return UNKNOWN;
  if (ml === 0) return "0 ml";
  return `${ml < 1 ? ml.toFixed(2) : ml < 10 ? ml.toFixed(1) : Math.round(ml)} ml`;
}

/** Film thickness in µm. */
export function showUm(um: number | null): string {
  return um === null || !Number.isFinite(um) ? UNKNOWN : `${um < 10 ? trim(um, 1) : Math.round(um)} µm`;
}

/** A length given in mm, in the units the shop reads. */
export function showLength(mm: number | null, units: UnitSystem = "metric"): string {
  if (mm === null || !Number.isFinite(mm)) return UNKNOWN;
  return units === "inch" ? `${trim(mm / MM_PER_INCH, 3)} in` : `${trim(mm, mm < 10 ? 2 : 1)} mm`;
}

/** One speed in every unit it is typed in, so that nobody has to convert at the bench. */
export function showSpeed(mmPerS: number | null): string {
  if (mmPerS === null || !Number.isFinite(mmPerS)) return UNKNOWN;
  return `${trim(mmPerS, mmPerS < 100 ? 2 : 1)} mm/s · ${trim(mmPerS * 60, 0)} mm/min · ${trim((mmPerS * 60) / MM_PER_INCH, 1)} in/min`;
}

/** A line interval as mm, lines per inch and lines per cm. */
export function showInterval(mm: number | null): string {
  if (mm === null || !(mm > 0)) return UNKNOWN;
  return `${trim(mm, 3)} mm · ${trim(MM_PER_INCH / mm, 0)} dpi · ${trim(10 / mm, 0)} lines/cm`;
}

export function showShare(share: number | null): string {
  return share === null || !Number.isFinite(share) ? UNKNOWN : `${trim(share * 100, share < 0.1 ? 1 : 0)} %`;
}

export function showTemp(c: number | null, units: UnitSystem = "metric"): string {
  if (c === null || !Number.isFinite(c)) return UNKNOWN;
  return units === "inch" ? `${trim((c * 9) / 5 + 32, 0)} °F` : `${trim(c, 1)} °C`;
}

export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** “a, b and c”. */
export function listWords(words: string[]): string {
  return words.length < 2 ? (words[0] ?? "") : `${words.slice(0, -1).join(", ")} and ${words[words.length - 1]}`;
}

/** What is used of a product: powder by weight, all else by volume. */
export const showAmount = (ml: number | null, g: number | null): string =>
  g !== null ? `${Math.round(g * 10) / 10} g` : showMl(ml);
