/** Money in minor units of a currency (cents): read as makers type it, shown as the currency is written. */
import type { Parsed } from "./parse";

/** digits behind the point of a currency; two where nobody knows it */
export function minorDigits(currency: string): number {
  try {
    return new Intl.NumberFormat("en", { style: "currency", currency }).resolvedOptions().maximumFractionDigits ?? 2;
  } catch {
    return 2;
  }
}

/**
 * An amount such as `9.50`, `9,50`, `1 250`, `€ 1,250.00`. The last point or comma parts the smaller coins off, unless three digits
 * follow it and it stands alone, as in 1,250.
 * @returns minor units of the currency
 */
export function parseMoney(text: string, currency: string): Parsed {
  const bad: Parsed = { ok: false, error: `“${text.trim()}” is not an amount such as 9.50.` };
  const found = /^\s*(?:[A-Za-z]{2,3}|\p{Sc})?\s*([\d.,\s'’]+?)\s*(?:[A-Za-z]{2,3}|\p{Sc})?\s*$/u.exec(text);
  const bare = (found?.[1] ?? "").replace(/[\s'’]/g, "");
  // whole groups of three, one kind of mark between them, then the smaller coins
  if (!/^(?:\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d{1,3}(?:\.\d{3})+(?:,\d+)?|\d+(?:[.,]\d*)?|[.,]\d+)$/.test(bare)) return bad;
  const digits = minorDigits(currency);
  const at = Math.max(bare.lastIndexOf("."), bare.lastIndexOf(","));
  const behind = at < 0 ? "" : bare.slice(at + 1);
  const marks = [...bare].filter((c) => c === "." || c === ",");
  const grouped = behind.length === 3 && digits !== 3 && new Set(marks).size === 1 && !bare.startsWith("0");
  const whole = (grouped || at < 0 ? bare : bare.slice(0, at)).replace(/[.,]/g, "") || "0";
  if (!grouped && behind.length > Math.max(digits, 2)) return bad;
  const value = Number(whole) * 10 ** digits + (grouped || !behind ? 0 : Number(`0.${behind}`) * 10 ** digits);
  return Number.isFinite(value) && value <= 1e9 ? { ok: true, value: Math.round(value) } : bad;
}

/** As a field shows it: no sign, no groups. */
export const typedMoney = (minor: number, currency: string): string => {
  const digits = minorDigits(currency);
  return (minor / 10 ** digits).toFixed(digits);
};

/** With its currency; a currency that nobody knows stands behind as it is typed. */
export function showMoney(minor: number | null, currency: string, language = "en"): string {
  if (minor === null) return "unknown";
  const digits = minorDigits(currency);
  const amount = minor / 10 ** digits;
  try {
    return new Intl.NumberFormat(language, { style: "currency", currency }).format(amount);
  } catch {
    return `${amount.toFixed(digits)} ${currency}`.trim();
  }
}
