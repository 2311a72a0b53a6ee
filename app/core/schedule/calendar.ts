/**
 * Open and closed time of a task's resources, and clocks that run faster or slower than minutes: both are piecewise linear, so both
 * are kept as running sums and asked by halving. Minutes are whole; a minimum is met at the first whole minute at or after it, a
 * maximum at the last one at or before.
 */
const EPS = 1e-9;

/** Index of the last entry ≤ x of a rising list, or −1. */
export function lastAtOrBefore(xs: number[], x: number): number {
  let lo = -1;
  let hi = xs.length;
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (xs[mid] <= x) lo = mid;
    else hi = mid;
  }
  return lo;
}

export interface Slot {
  start: number;
  end: number;
}

export interface OpenTime {
  /** merged closed spans [from, to) */
  closed: [number, number][];
  /** first open minute at or after t */
  next(t: number): number;
  /** open minutes before t */
  before(t: number): number;
  /** first moment by which so many open minutes have gone by */
  at(open: number): number;
  /** first beginning at or after t for so many minutes of work */
  first(t: number, minutes: number, pausable: boolean): number;
  /** the same with its end */
  slot(t: number, minutes: number, pausable: boolean): Slot;
  /** the end of work begun at an open minute; for work that may pause */
  end(start: number, minutes: number): number;
}

/** @param spans closed time, in any order, overlapping or not */
export function openTime(spans: [number, number][]): OpenTime {
  const closed: [number, number][] = [];
  for (const [a, b] of [...spans].sort((x, y) => x[0] - y[0])) {
    const last = closed[closed.length - 1];
    if (last && a <= last[1]) last[1] = Math.max(last[1], b);
    else closed.push([a, b]);
  }
  const from = closed.map((c) => c[0]);
  const to = closed.map((c) => c[1]);
  /** open minutes before each closing */
  const sums: number[] = [];
  let open = 0;
  let at = 0;
  for (const [a, b] of closed) {
    open += a - at;
    sums.push(open);
    at = b;
  }
  const next = (t: number): number => {
    const i = lastAtOrBefore(from, t);
    return i >= 0 && t < to[i] ? to[i] : t;
  };
  const before = (t: number): number => {
    const i = lastAtOrBefore(from, t);
    return i < 0 ? t : sums[i] + Math.max(0, t - to[i]);
  };
  const moment = (o: number): number => {
    // the closing whose sum is the first ≥ o: the o-th open minute ends before it
    let lo = -1;
    let hi = sums.length;
    while (hi - lo > 1) {
      const mid = (lo + hi) >> 1;
      if (sums[mid] < o) lo = mid;
      else hi = mid;
    }
    return lo < 0 ? o : to[lo] + (o - sums[lo]);
  };
  const end = (start: number, minutes: number): number =>
    minutes <= 0 || !closed.length ? start + minutes : moment(before(start) + minutes);
  const first = (t: number, minutes: number, pausable: boolean): number => {
    if (minutes <= 0 || !closed.length) return t;
    let i = lastAtOrBefore(from, t);
    let s = i >= 0 && t < to[i] ? to[i] : t;
    if (!pausable) for (i++; i < closed.length && s + minutes > from[i]; i++) s = to[i];
    return s;
  };
  return {
    closed,
    next,
    before,
    first,
    at: moment,
    end,
    slot: (t, minutes, pausable) => {
      const start = first(t, minutes, pausable);
      return { start, end: pausable ? end(start, minutes) : start + minutes };
    },
  };
}

export interface Clock {
  /** clock minutes gone by at t */
  read(t: number): number;
  /** first whole minute at which it reads so much; Infinity: never */
  first(reading: number): number;
  /** last whole minute at which it reads no more than that; Infinity: it never reads more */
  last(reading: number): number;
  /** fastest and slowest it ever runs */
  most: number;
  least: number;
  /** moment from which it runs at one speed */
  settles: number;
}

const PLAIN: Clock = {
  read: (t) => t,
  first: (r) => Math.ceil(r - EPS),
  last: (r) => Math.floor(r + EPS),
  most: 1,
  least: 1,
  settles: 0,
};

/** @param rates [from minute, speed] in order of time; null: plain minutes */
export function clockOf(rates: [number, number][] | null): Clock {
  if (!rates) return PLAIN;
  const steps = rates[0][0] > 0 ? ([[0, rates[0][1]], ...rates.slice(1)] as [number, number][]) : rates;
  const from = steps.map((r) => r[0]);
  const speed = steps.map((r) => r[1]);
  const sums: number[] = [0];
  for (let i = 1; i < steps.length; i++) sums.push(sums[i - 1] + (from[i] - from[i - 1]) * speed[i - 1]);
  const n = steps.length - 1;
  const read = (t: number): number => {
    const i = Math.max(0, lastAtOrBefore(from, t));
    return sums[i] + (t - from[i]) * speed[i];
  };
  return {
    read,
    first: (reading) => {
      // first stretch by whose end it reads so much
      let lo = -1;
      let hi = n;
      while (hi - lo > 1) {
        const mid = (lo + hi) >> 1;
        if (sums[mid + 1] < reading - EPS) lo = mid;
        else hi = mid;
      }
      const i = lo + 1;
      if (reading <= sums[i] + EPS) return from[i];
      return speed[i] > 0 ? Math.ceil(from[i] + (reading - sums[i]) / speed[i] - 1e-7) : Infinity;
    },
    last: (reading) => {
      // last stretch at whose beginning it does not read more
      let lo = 0;
      let hi = n + 1;
      while (hi - lo > 1) {
        const mid = (lo + hi) >> 1;
        if (sums[mid] <= reading + EPS) lo = mid;
        else hi = mid;
      }
      if (speed[lo] <= 0) return lo === n ? Infinity : from[lo + 1];
      const t = Math.floor(from[lo] + (reading - sums[lo]) / speed[lo] + 1e-7);
      return lo === n ? t : Math.min(t, from[lo + 1]);
    },
    most: Math.max(...speed),
    least: Math.min(...speed),
    settles: from[n],
  };
}
