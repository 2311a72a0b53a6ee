/** Shared by actions: form values as text, and faults turned into a sentence for the field they belong to. */
import { Conflict, Refused, settled } from "../store/acts";
import { troubleOf } from "../store/trouble";
import type { Outcome } from "../core/records/outcome";
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
} from "../core/units/parse";

import { parseMoney } from "../core/units/money";

export async function formOf(request: Request): Promise<Record<string, string>> {
  const data = await request.formData();
  return Object.fromEntries([...data].map(([k, v]) => [k, String(v)]));
}

/** Run an action's body, again when another tab came in between; a refusal comes back as words. */
export async function answer(field: string | undefined, body: () => Promise<string | void>): Promise<Outcome> {
  try {
    return { done: (await settled(body)) ?? "stored", field };
  } catch (e) {
    if (e instanceof Conflict) return { error: e.message, field, conflict: true };
    if (e instanceof Refused) return { error: e.message, field };
    const trouble = troubleOf(e);
    if (trouble) return { error: trouble.say, field };
    throw e;
  }
}

const take = (p: Parsed): number => {
  if (!p.ok) throw new Refused(p.error);
  return p.value;
};
/** Empty text means: not known, or back to the default. */
const orNull = (text: string, read: (t: string) => Parsed): number | null =>
  text.trim() === "" ? null : take(read(text));

const perCurrency =
  (currency: string) =>
  (t: string): Parsed =>
    parseMoney(t, currency);
export const typed = {
  /** minor units; absent: nothing was typed */
  money: (t: string, currency: string) => orNull(t, perCurrency(currency)) ?? undefined,
  length: (t: string, units: "metric" | "inch" = "metric") => take(parseLength(t, units === "inch" ? "in" : "mm")),
  lengthOrNull: (t: string, units: "metric" | "inch" = "metric") =>
    orNull(t, (x) => parseLength(x, units === "inch" ? "in" : "mm")),
  speed: (t: string, max: number | null) => take(parseSpeed(t, max)),
  speedOrNull: (t: string, max: number | null = null) => orNull(t, (x) => parseSpeed(x, max)),
  interval: (t: string) => take(parseInterval(t)),
  intervalOrNull: (t: string) => orNull(t, parseInterval),
  minutesOrNull: (t: string) => orNull(t, parseMinutes),
  number: (t: string) => take(parseNumber(t)),
  numberOrNull: (t: string) => orNull(t, parseNumber),
  temperature: (t: string, units: "metric" | "inch" = "metric") =>
    take(parseTemperature(units === "inch" && /^\s*[-+]?[\d.,]+\s*$/.test(t) ? `${t} F` : t)),
  temperatureOrNull: (t: string, units: "metric" | "inch" = "metric") =>
    t.trim() === "" ? null : typed.temperature(t, units),
  volumeOrNull: (t: string) => orNull(t, parseVolume),
  volume: (t: string) => take(parseVolume(t)),
  weightOrNull: (t: string) => orNull(t, parseWeight),
  whole: (t: string) => {
    const n = take(parseNumber(t));
    if (!Number.isInteger(n)) throw new Refused(`“${t.trim()}” is not a whole number.`);
    return n;
  },
  /** a share typed as 0.5 or 50 % (a bare number above 1 is percent) */
  share: (t: string) => {
    const n = take(parseNumber(t));
    return n > 1 ? n / 100 : n;
  },
  shareOrNull: (t: string) => (t.trim() === "" ? null : typed.share(t)),
  /** a field labelled with a percent sign: 80 and 80 % both mean 0.8 */
  percent: (t: string) => {
    const n = take(parseNumber(t));
    return t.includes("%") ? n : n / 100;
  },
};
