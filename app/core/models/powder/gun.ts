/**
 * A heat gun held over a face: air that cools with the distance, a skin that takes the heat in (half-space of the body, one side), powder
 * that flows from its temperature on, is blown out while it is loose, and scorches beyond what it bears.
 */
import type { Body } from "./heat";

export interface GunUse {
  /** mm over the face */
  height: number;
  /** air at the nozzle, °C */
  airC: number;
  fan: "low" | "high";
  /** s held over a place in all, and whether the gun moves over it */
  seconds: number;
  moving: boolean;
}
export interface GunEffect {
  /** °C that the skin of the face comes to */
  skinC: number;
  /** share of the powder blown out while it was loose */
  blown: number;
  /** share that flowed, 0-1 */
  flowed: number;
}
/** W/m²K under the nozzle, and mm over which the stream cools to 1/e of what it is above the room */
const H_UNDER = { low: 55, high: 110 };
const COOLS_MM = { low: 110, high: 190 };
const ROOM_C = 20;
/** share that a moving gun heats of a place against one that is held still */
const MOVING = 0.72;
/** mm within which a stream blows loose powder */
const BLOWS_MM = { low: 35, high: 110 };

/** @param thickMm of the body: thin metal warms through, and then all of it together */
export function gunHeat(s: Body, g: GunUse, flowC: number, thickMm: number): GunEffect {
  const air = ROOM_C + (g.airC - ROOM_C) * Math.exp(-g.height / COOLS_MM[g.fan]);
  const h = H_UNDER[g.fan] * (g.moving ? MOVING : 1);
  const { rho, c, k } = s.thermal;
  // skin of a half-space under convection: 1 − exp(x²)·erfc(x), x = h√(αt)/k
  const x = (h * Math.sqrt((k / (rho * c)) * g.seconds)) / k;
  const through = 1 - Math.exp((-h * g.seconds) / (rho * c * (thickMm / 1000)));
  const skinC = ROOM_C + (air - ROOM_C) * Math.max(1 - ex2erfc(x), through);
  const near = Math.max(0, 1 - g.height / BLOWS_MM[g.fan]);
  const blown = near * (g.moving ? 0.9 : 0.6);
  const flowed = Math.min(1, Math.max(0, (skinC - flowC + 12) / 24));
  return { skinC, blown, flowed };
}
/** exp(x²)·erfc(x) for x ≥ 0 (Abramowitz & Stegun 7.1.26). */
function ex2erfc(x: number): number {
  const t = 1 / (1 + 0.3275911 * x);
  return ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
}
