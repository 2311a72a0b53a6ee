/**
 * M8 The drying clock. Progress += dt·g_T·g_RH·g_f/(t_ref·r), integrated over the climate curve, whatever the hour.
 *   g_T  = 2^((min(T,35)−20)/10); below the product's minimum 0 for water-borne paints, which form no film there, and for the rest
 *          falling in a line to 0 five degrees lower
 *   g_RH = min(1.6, (1−min(RH,.97))/.5) for water-borne paints, 0 from .97 up; 1 for the rest
 *   g_f  = 1/f, only for flash, touch, recoat, lift
 * Each hour of the day is integrated once by 5-point Gauss-Legendre between the places where the curve bends or a limit
 * is crossed; a wait then walks from hour to hour. Minimum waits round up, maxima down.
 */
import type { ZonedClock } from "../../time/zoned";
import { airAtMoment, spanAt, type Air } from "./climate";

/**
 * Days after which a wait is given up as “never in this climate”: so many that it is one only where nothing dries. A long wait has its
 * true length.
 */
export const HORIZON_DAYS = 3650;
/** most days taken in one stride, so that a change of the clock stops few of them */
const STRIDE_DAYS = 28;
const NODES = [-0.906179845938664, -0.538469310105683, 0, 0.538469310105683, 0.906179845938664];
const WEIGHTS = [0.236926885056189, 0.478628670499366, 0.568888888888889, 0.478628670499366, 0.236926885056189];
const T_CAP = 35;
const RH_STOP = 0.97;
/** K below the minimum at which a solvent-borne film stands still */
const FALLS_K = 5;

export interface DryingOf {
  waterBorne: boolean;
  /** °C; null: no minimum known, none applied */
  minC: number | null;
  /** does moving air help? */
  fan: boolean;
  /** opening and reopening limits run at most at double speed; closing limits never below 1 */
  limit: "plain" | "opens" | "closes";
}

/** Rate against the reference climate at one moment. NaN in, 0 out. */
export const rateAt = (air: Air, of: DryingOf, minuteOfDay: number): number =>
  rateIn(air.c(minuteOfDay), air.rh(minuteOfDay), air.airFactor, of);

/** Rate in air of this temperature and humidity. NaN in, 0 out. */
export function rateIn(t: number, rh: number, airFactor: number, of: DryingOf): number {
  if (!Number.isFinite(t) || !Number.isFinite(rh)) return of.limit === "closes" ? 1 : 0;
  const warm = of.minC === null || t >= of.minC;
  let g = 2 ** ((Math.min(warm ? t : of.minC!, T_CAP) - 20) / 10);
  if (!warm) g *= of.waterBorne ? 0 : Math.max(0, 1 - (of.minC! - t) / FALLS_K);
  if (of.waterBorne) g *= rh >= RH_STOP ? 0 : Math.min(1.6, (1 - rh) / 0.5);
  if (of.fan) g /= airFactor;
  return of.limit === "opens" ? Math.min(g, 2) : of.limit === "closes" ? Math.max(1, g) : g;
}

const tables = new WeakMap<Air, Map<string, (from: number, to: number) => number>>();

/** Where within (a, b) the rate jumps or bends: floor, cap and humidity limits, found by bisection on straight pieces. */
function bends(air: Air, of: DryingOf, a: number, b: number): number[] {
  const out: number[] = [];
  const cross = (f: (m: number) => number, level: number): void => {
    const lo0 = f(a) - level;
    const hi0 = f(b - 1e-9) - level;
    if (lo0 * hi0 >= 0) return;
    let lo = a;
    let hi = b;
    for (let i = 0; i < 50; i++) {
      const mid = (lo + hi) / 2;
      if ((f(mid) - level) * lo0 > 0) lo = mid;
      else hi = mid;
    }
    out.push((lo + hi) / 2);
  };
  if (of.minC !== null) cross(air.c, of.minC);
  if (of.minC !== null && !of.waterBorne) cross(air.c, of.minC - FALLS_K);
  cross(air.c, T_CAP);
  if (of.waterBorne) for (const level of [RH_STOP, 0.2]) cross(air.rh, level);
  if (of.limit !== "plain") {
    const raw = (m: number): number => rateAt(air, { ...of, limit: "plain" }, m);
    cross(raw, of.limit === "opens" ? 2 : 1);
  }
  return out.sort((x, y) => x - y);
}

/** Integral of the rate over minutes of one local day, from ≤ to ≤ 1440. */
function dayIntegral(air: Air, of: DryingOf): (from: number, to: number) => number {
  const key = `${of.waterBorne}|${of.minC}|${of.fan}|${of.limit}`;
  const mine = tables.get(air) ?? tables.set(air, new Map()).get(air)!;
  const found = mine.get(key);
  if (found) return found;
  const cuts: number[] = [];
  air.knots.forEach((k, i) => {
    const next = air.knots[i + 1] ?? 1440;
    cuts.push(k, ...bends(air, of, k, next));
  });
  cuts.push(1440);
  const gauss = (a: number, b: number): number => {
    const half = (b - a) / 2;
    const mid = (a + b) / 2;
    let sum = 0;
    for (let i = 0; i < 5; i++) sum += WEIGHTS[i] * rateAt(air, of, mid + half * NODES[i]);
    return sum * half;
  };
  const upTo: number[] = [0];
  for (let i = 1; i < cuts.length; i++) upTo.push(upTo[i - 1] + gauss(cuts[i - 1], cuts[i]));
  const cumulative = (m: number): number => {
    let lo = 0;
    let hi = cuts.length - 1;
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (cuts[mid] <= m) lo = mid;
      else hi = mid;
    }
    if (m >= 1440) return upTo[cuts.length - 1];
    return m === cuts[lo] ? upTo[lo] : upTo[lo] + gauss(cuts[lo], m);
  };
  const integral = (from: number, to: number): number => cumulative(to) - cumulative(from);
  mine.set(key, integral);
  return integral;
}

/** Reference minutes of drying done between two moments. Additive over any split. */
export function dried(clock: ZonedClock, air: Air, of: DryingOf, from: number, to: number): number {
  const integral = dayIntegral(air, of);
  let sum = 0;
  for (let at = from; at < to;) {
    const { span, until } = spanAt(air, at);
    if (span) {
      const step = Math.min(to, until) - at;
      sum += step * rateIn(span.c, span.rh, air.airFactor, of);
      at += step;
      continue;
    }
    const m = clock.minuteOfDay(at);
    // whole hours, so that a change of the clock falls between two pieces
    const step = Math.min(to - at, 60 - (m % 60), until - at);
    sum += integral(m, m + step);
    at += step;
  }
  return sum;
}

/**
 * The moment at which `refMinutes` of drying are done.
 * @param from moment (minutes since 1970; fractions allowed)
 * @returns an exact (unrounded) moment, or null: never within the horizon
 */
export function dryAt(clock: ZonedClock, air: Air, of: DryingOf, from: number, refMinutes: number): number | null {
  if (!Number.isFinite(refMinutes) || !Number.isFinite(from)) return null;
  if (refMinutes <= 0) return from;
  const integral = dayIntegral(air, of);
  const day = integral(0, 1440);
  const end = from + HORIZON_DAYS * 1440;
  let left = refMinutes;
  for (let at = from; at < end;) {
    const { span, until } = spanAt(air, at);
    if (span) {
      const rate = rateIn(span.c, span.rh, air.airFactor, of);
      const got = rate * (until - at);
      if (got >= left - 1e-9 && rate > 0) return at + left / rate;
      left -= got;
      at = until;
      continue;
    }
    const m = clock.minuteOfDay(at);
    // Whole days in one stride, kept clear of a change of the clock by a day.
    if (until === Infinity && day <= 0) return null;
    const days = Math.min(STRIDE_DAYS, Math.floor(left / day) - 1);
    if (until === Infinity && days > 1 && clock.offsetAt(at) === clock.offsetAt(at + days * 1440)) {
      left -= days * day;
      at += days * 1440;
      continue;
    }
    const step = Math.min(60 - (m % 60), until - at);
    const got = integral(m, m + step);
    if (got >= left - 1e-9) {
      // Newton on the integral, its slope being the rate, kept inside a bracket for the places where the rate jumps.
      let lo = 0;
      let hi = step;
      let x = Math.min(step, (left / got) * step);
      for (let i = 0; i < 60 && hi - lo > 1e-10; i++) {
        const off = integral(m, m + x) - left;
        if (Math.abs(off) < 1e-9) break;
        if (off < 0) lo = x;
        else hi = x;
        const slope = rateAt(air, of, m + x);
        const next = slope > 1e-6 ? x - off / slope : Number.NaN;
        x = next > lo && next < hi ? next : (lo + hi) / 2;
      }
      return at + x;
    }
    left -= got;
    at += step;
  }
  return null;
}

/** Minutes between two moments during which the air is below `minC` (rule 22 and spoiled water-borne films). */
export function minutesBelow(clock: ZonedClock, air: Air, minC: number, from: number, to: number): number {
  // Between knots the curve is straight, so its coldest minute is a knot.
  if (air.knots.every((k) => air.c(k) >= minC) && air.spans.every((s) => s.c >= minC)) return 0;
  const STEP = 5;
  const between = (a: number, b: number): number => {
    let cold = 0;
    for (let at = a; at < b; at += STEP)
      if (airAtMoment(air, at, clock.minuteOfDay(at)).c < minC) cold += Math.min(STEP, b - at);
    return cold;
  };
  // One whole day behind all readings is like the next.
  const known = air.spans.reduce((m, s) => Math.max(m, s.to), from);
  const days = Math.floor((to - known) / 1440) - 1;
  if (days < 1) return between(from, to);
  return between(from, known) + (days + 1) * between(known, known + 1440) + between(known + (days + 1) * 1440, to);
}
