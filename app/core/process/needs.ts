/** Needs that several step kinds have in common. */
import { heatAt, zoneOf, type Piece } from "../piece/state";
import { coolDown } from "../models/powder/heat";
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

/** Cold enough after melting: minutes by Newton's law from what the last heat left in it. */
export function coldNeed(p: Piece, belowC: number, why: string): Need[] {
  if (!p.warm || p.warm.at === null) return [];
  const min = coolDown(p.warm.tauMin, p.warm.c, belowC);
  return min === null || min <= 0
    ? []
    : [{ state: "cold", stacks: [], why, fixed: { at: p.warm.at, refMin: min, waterBorne: false, plain: true } }];
}

/** Is anything of the piece warmer than this at a moment? Unknown heat counts as cold: the plan has waited for it. */
export const warmerThan = (p: Piece, at: number | null, c: number): boolean => (heatAt(p, at) ?? -Infinity) > c;
