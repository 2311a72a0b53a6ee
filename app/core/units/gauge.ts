/**
 * Sheet gauge to thickness, mm, by metal family. Non-ferrous sheet follows the geometric wire series, 0.127 mm × 92^((36 − n)/39); steel
 * sheet the manufacturers' standard of 41.82 lb a square foot an inch, which is a table.
 */
const STEEL_MM: Record<number, number> = {
  7: 4.554,
  8: 4.176,
  9: 3.797,
  10: 3.416,
  11: 3.038,
  12: 2.657,
  13: 2.278,
  14: 1.897,
  15: 1.709,
  16: 1.519,
  17: 1.367,
  18: 1.214,
  19: 1.062,
  20: 0.912,
  21: 0.836,
  22: 0.759,
  23: 0.683,
  24: 0.607,
  25: 0.531,
  26: 0.455,
  27: 0.417,
  28: 0.378,
  29: 0.343,
  30: 0.305,
};

/** @returns mm; null for a gauge that family does not have */
export function gaugeToMm(gauge: number, family: "steel" | "other"): number | null {
  if (!Number.isInteger(gauge)) return null;
  if (family === "steel") return STEEL_MM[gauge] ?? null;
  return gauge >= 0 && gauge <= 40 ? 0.127 * 92 ** ((36 - gauge) / 39) : null;
}

/** “16 ga”, “16 gauge”: the number; null where a text speaks of no gauge. */
export function readGauge(text: string): number | null {
  const m = /^\s*(\d{1,2})\s*(?:ga|gauge)\.?\s*$/i.exec(text);
  return m ? Number(m[1]) : null;
}
