/** Opening hours in words. */
import { showTime } from "../core/time/zoned";
import type { Shop } from "../core/records/shop";
import { WEEKDAYS } from "../core/time/hours";

export const DAY_WORDS = {
  mon: "Monday",
  tue: "Tuesday",
  wed: "Wednesday",
  thu: "Thursday",
  fri: "Friday",
  sat: "Saturday",
  sun: "Sunday",
};

/** `9:00 to 18:00`, `9:00 am to 6:00 pm`. */
export const spanInWords = (span: readonly [string, string], shop: Shop): string =>
  span.map((t) => showTime(t, shop.clockFace ?? "24")).join(" to ");

/** Opening hours in a line: runs of like days together. */
export function hoursInWords(shop: Shop): string {
  const runs: { from: string; to: string; hours: string }[] = [];
  for (const d of WEEKDAYS) {
    const h = shop.hours[d];
    const hours = h ? spanInWords(h, shop) : "";
    const last = runs[runs.length - 1];
    if (last && last.hours === hours) last.to = d;
    else runs.push({ from: d, to: d, hours });
  }
  const short = (d: string): string => DAY_WORDS[d as "mon"].slice(0, 3);
  return (
    runs
      .filter((r) => r.hours)
      .map((r) => `${r.from === r.to ? short(r.from) : `${short(r.from)}-${short(r.to)}`} ${r.hours}`)
      .join(", ") || "never open"
  );
}
