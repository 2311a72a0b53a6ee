/**
 * A stand-in for a shop sensor: the climate curve's own air at a moment with a little seeded noise, as a cheap thermometer and
 * hygrometer would say it. Nothing outside the app is asked.
 */
import { air } from "../core/models/drying/climate";
import type { Climate } from "../core/records/shop";

/** ± °C and ± share of humidity that such a sensor is off by */
const OFF_C = 0.8;
const OFF_RH = 0.03;

/** A number in [-1, 1) that depends on the quarter hour alone, so that asking twice says the same. */
function noise(quarter: number, salt: number): number {
  let x = (Math.imul(quarter, 2654435761) ^ Math.imul(salt, 40503)) >>> 0;
  x = Math.imul(x ^ (x >>> 15), 2246822519) >>> 0;
  return (x >>> 0) / 2 ** 31 - 1;
}

/** @param at minute since 1970 @param minuteOfDay local @returns °C and humidity 0-1, rounded as a display shows them */
export function sense(climate: Climate, at: number, minuteOfDay: number): { c: number; rh: number } {
  const a = air(climate);
  const q = Math.floor(at / 15);
  return {
    c: Math.round((a.c(minuteOfDay) + OFF_C * noise(q, 1)) * 10) / 10,
    rh: Math.min(1, Math.max(0, Math.round((a.rh(minuteOfDay) + OFF_RH * noise(q, 2)) * 100) / 100)),
  };
}
