/** M8 Reference minutes of each state for a film: which time of the product, stretched by what. */
import type { Paint } from "../catalogue/properties";
import type { SubstrateKind } from "../catalogue/substrates";
import type { WaitState } from "../records/ids";
import type { DryingOf } from "../models/drying/clock";

/** the build, µm, to which the through-dry reference times belong */
export const THROUGH_UM = 40;
/** how far a build shortens or lengthens the full cure */
const CURE: [number, number] = [0.7, 1.5];
const clamp = (x: number, lo: number, hi: number): number => Math.min(hi, Math.max(lo, x));
const KEY: Partial<Record<WaitState, keyof Paint["times"]>> = {
  flash: "flash",
  touch: "touch",
  recoat: "recoat",
  maskable: "maskable",
  sandable: "sandable",
  "laser-safe": "laserSafe",
  cured: "cured",
};
/** states that ask whether the whole build is dry, not only the last film */
export const isThrough = (s: WaitState): boolean => s === "sandable" || s === "laser-safe" || s === "cured";

/**
 * Reference minutes to reach a state; null when it does not apply or is unknown.
 * @param coatUm the film's own dry build @param buildUm dry build of every film not yet there (through states)
 */
export function referenceMinutes(
  p: Paint,
  state: WaitState,
  coatUm: number,
  buildUm: number,
  ground: SubstrateKind,
): number | null {
  const key = KEY[state];
  const t = state === "lift" ? (p.finish.lift?.from ?? p.times.touch.value) : key ? p.times[key].value : null;
  if (t === null) return null;
  if (p.finish.family === "epoxy") return t;
  if (state === "cured") return t * clamp(buildUm / THROUGH_UM, ...CURE);
  if (isThrough(state))
    return t * clamp(buildUm / THROUGH_UM, 0.5, 3) * (state === "laser-safe" ? ground.laserSafeFactor : 1);
  return t * clamp(coatUm / (p.finish.coatUm || 1), 0.5, 3);
}

/** Reference minutes until the recoat window shuts (r = min(1, d/d_ref)) and reopens; null: it never shuts. */
export function closingMinutes(p: Paint, coatUm: number): { closes: number | null; reopens: number | null } {
  const { closes, reopens } = p.times;
  const d = coatUm / (p.finish.coatUm || 1);
  return {
    closes: closes.value === null ? null : closes.value * Math.min(1, d),
    reopens: reopens.value === null ? null : reopens.value * clamp(d, 0.5, 3),
  };
}

/**
 * Minutes after which a mask beside it no longer lifts clean, and after which it does again; null closing: it stays as good as it is;
 * null reopening: it never lifts as clean again, and its edge is cut first.
 */
export function liftMinutes(p: Paint, coatUm: number): { closes: number | null; reopens: number | null } {
  const l = p.finish.lift;
  if (!l) return { closes: null, reopens: null };
  const d = coatUm / (p.finish.coatUm || 1);
  return { closes: l.to * Math.min(1, d), reopens: l.again === null ? null : l.again * clamp(d, 0.5, 3) };
}

/** How the clock runs for a state of this paint. */
export const dryingOf = (p: Paint, state: WaitState, limit: DryingOf["limit"] = "plain"): DryingOf => ({
  waterBorne: p.base === "water",
  minC: p.minC.value,
  fan: state === "flash" || state === "touch" || state === "recoat" || state === "lift",
  limit,
});
