/** Needs that several step kinds have in common. */
import { heatAt, zoneOf, type Piece } from "../piece/state";
import { coolDown, coolDownIn } from "../models/powder/heat";
import { airAtMoment } from "../models/drying/climate";
import type { Context } from "./context";
import type { WaitState } from "../records/ids";
import type { Need } from "./step";

const laid = (p: Piece, zone: string) => zoneOf(p, zone).films.filter((f) => f.left > 0 && f.phase === undefined);

/** All films of these zones in a state. Powder waits for its own cold, not for a drying clock. */
export function needOf(zones: string[], p: Piece, state: WaitState, why: string): Need[] {
  const stacks = zones.map((zone) => ({ zone, films: laid(p, zone) })).filter((s) => s.films.length);
  return stacks.length ? [{ state, stacks, why }] : [];
}
/** The topmost film of each zone in a state. */
export function topNeed(zones: string[], p: Piece, state: WaitState, why: string): Need[] {
  const stacks = zones.map((zone) => ({ zone, films: laid(p, zone).slice(-1) })).filter((s) => s.films.length);
  return stacks.length ? [{ state, stacks, why }] : [];
}

/** °C of the shop at a moment; 20 where no moment is known. */
export const roomAt = (c: Context, at: number | null): number =>
  at === null ? 20 : airAtMoment(c.air, at, c.clock.minuteOfDay(at)).c;

/** Cold enough after melting: minutes by Newton's law from what the last heat left in it. */
export function coldNeed(p: Piece, belowC: number, why: string, c: Context): Need[] {
  if (!p.warm || p.warm.at === null) return [];
  const { at, tauMin, roomC } = p.warm;
  // a room that is as warm itself has to cool down first
  const min =
    roomC < belowC - 1
      ? coolDown(tauMin, p.warm.c, belowC, roomC)
      : (coolDownIn(tauMin, p.warm.c, belowC, (m) => roomAt(c, at + m)) ?? Infinity);
  return min === null || min <= 0
    ? []
    : [{ state: "cold", stacks: [], why, fixed: { at, refMin: min, waterBorne: false, plain: true } }];
}

/** Is anything of the piece warmer than this at a moment? Unknown heat counts as cold: the plan has waited for it. */
export const warmerThan = (p: Piece, at: number | null, c: number): boolean => (heatAt(p, at) ?? -Infinity) > c;
