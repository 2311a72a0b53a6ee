/**
 * A problem made ready for searching: names turned to numbers, calendars merged, clocks summed, lags as functions of two starts.
 *
 * A lag from a to b with pieces: piece i leaves a when its work there is done and enters b when its work there begins. Each piece's
 * wait is ≥ min, and ≤ max or ≥ reopens. A task that is not done piece by piece gives or takes all of its pieces at once.
 */
import { clockOf, openTime, type Clock, type OpenTime } from "./calendar";
import type { Problem } from "./problem";

export interface Use {
  r: number;
  amount: number;
}
export interface Lag {
  index: number;
  from: number;
  to: number;
  min: number;
  /** Infinity: never closes */
  max: number;
  /** Infinity: never reopens */
  reopens: number;
  soft: boolean;
  clock: Clock;
  closeClock: Clock;
  /** the opening counts plain minutes */
  plain: boolean;
  holds: Use[];
  /** pieces are followed one by one; else end to start */
  byPiece: boolean;
  pieces: number;
  /** it opens on plain minutes, and nothing else is to be followed piece by piece: only first and last piece can decide */
  ends: boolean;
}
export interface Model {
  problem: Problem;
  n: number;
  ids: string[];
  /** whole work of a task, min */
  work: number[];
  /** work of one piece where it is done piece by piece, else 0 */
  piece: number[];
  pausable: boolean[];
  earliest: number[];
  /** Infinity: none */
  due: number[];
  weight: number[];
  /** −1: free */
  fixed: number[];
  /** −1: nowhere */
  prefer: number[];
  uses: Use[][];
  open: OpenTime[];
  capacity: number[];
  closedOf: OpenTime[];
  lags: Lag[];
  into: Lag[][];
  out: Lag[][];
  /** tasks, each behind all that its lags come from */
  order: number[];
  /** hands of a trip, −1: trips are not counted */
  trip: number;
  gap: number;
  bucket: number;
  /** every schedule that can be can also be had by then */
  horizon: number;
}

export function compile(p: Problem): Model {
  const number = new Map(p.tasks.map((t, i) => [t.id, i]));
  const resource = new Map(p.resources.map((r, i) => [r.id, i]));
  const clocks = new Map(p.clocks.map((c) => [c.id, clockOf(c.rates)]));
  const plain = clockOf(null);
  const uses = (list: { resource: string; amount: number }[]): Use[] =>
    list.map((u) => ({ r: resource.get(u.resource)!, amount: u.amount }));
  const kept = new Map<string, OpenTime>();
  const n = p.tasks.length;
  const lags = p.lags.map((l, index): Lag => {
    const [a, b] = [p.tasks[number.get(l.from)!], p.tasks[number.get(l.to)!]];
    const pieces = !l.perPiece ? 1 : a.perPiece ? a.pieces : b.perPiece ? b.pieces : 1;
    return {
      index,
      from: number.get(l.from)!,
      to: number.get(l.to)!,
      min: l.min,
      max: l.max ?? Infinity,
      reopens: l.reopens ?? Infinity,
      soft: l.soft,
      clock: l.clock ? clocks.get(l.clock)! : plain,
      closeClock: l.closeClock ? clocks.get(l.closeClock)! : plain,
      plain: !l.clock,
      holds: uses(l.holds),
      byPiece: l.perPiece,
      pieces,
      ends: l.clock === null && l.closeClock === null && !a.pausable && !b.pausable,
    };
  });
  const into: Lag[][] = p.tasks.map(() => []);
  const out: Lag[][] = p.tasks.map(() => []);
  for (const l of lags) {
    out[l.from].push(l);
    into[l.to].push(l);
  }
  const left = into.map((x) => x.length);
  const order: number[] = [];
  for (let i = 0; i < n; i++) if (!left[i]) order.push(i);
  for (let k = 0; k < order.length; k++) for (const l of out[order[k]]) if (!--left[l.to]) order.push(l.to);
  const work = p.tasks.map((t) => t.minutes * (t.perPiece ? t.pieces : 1));
  let horizon = 1;
  for (const r of p.resources) for (const [, b] of r.closed) horizon = Math.max(horizon, b);
  for (const c of clocks.values()) horizon = Math.max(horizon, c.settles);
  p.tasks.forEach((t) => (horizon = Math.max(horizon, t.earliest, (t.fixedStart ?? 0) + 1)));
  for (const w of work) horizon += w;
  for (const l of lags) {
    const speed = (c: Clock): number => Math.max(1e-3, c.read(horizon + 1) - c.read(horizon));
    const longest = Math.max(l.min, Number.isFinite(l.reopens) ? l.reopens : 0);
    horizon += Math.ceil(longest / speed(l.clock)) + 1;
  }
  return {
    problem: p,
    n,
    ids: p.tasks.map((t) => t.id),
    work,
    piece: p.tasks.map((t) => (t.perPiece ? t.minutes : 0)),
    pausable: p.tasks.map((t) => t.pausable),
    earliest: p.tasks.map((t) => t.earliest),
    due: p.tasks.map((t) => t.due ?? Infinity),
    weight: p.tasks.map((t) => t.weight),
    fixed: p.tasks.map((t) => t.fixedStart ?? -1),
    prefer: p.tasks.map((t) => t.preferStart ?? -1),
    uses: p.tasks.map((t) => uses(t.uses)),
    open: p.tasks.map((t) => {
      const key = t.uses
        .map((u) => u.resource)
        .sort()
        .join("\n");
      return (
        kept.get(key) ??
        kept.set(key, openTime(t.uses.flatMap((u) => p.resources[resource.get(u.resource)!].closed))).get(key)!
      );
    }),
    capacity: p.resources.map((r) => r.capacity),
    closedOf: p.resources.map((r) => openTime(r.closed)),
    lags,
    into,
    out,
    order,
    trip: p.trip ? resource.get(p.trip.resource)! : -1,
    gap: p.trip?.gap ?? 0,
    bucket: p.finishBucket,
    horizon,
  };
}

export const endOf = (m: Model, i: number, start: number): number =>
  m.pausable[i] ? m.open[i].end(start, m.work[i]) : start + m.work[i];

/** When piece k (from 0) leaves the first task of a lag, which begins at `start`. */
export function leaves(m: Model, l: Lag, start: number, k: number): number {
  const i = l.from;
  if (!l.byPiece || !m.piece[i]) return endOf(m, i, start);
  const w = m.piece[i] * (k + 1);
  return m.pausable[i] ? m.open[i].end(start, w) : start + w;
}
/** When piece k enters the second task of a lag, which begins at `start`. */
export function enters(m: Model, l: Lag, start: number, k: number): number {
  const i = l.to;
  if (!m.piece[i] || k === 0) return start;
  const w = m.piece[i] * k;
  return m.pausable[i] ? m.open[i].next(m.open[i].end(start, w)) : start + w;
}
/** First start of a task for which its piece k is begun no earlier than t; not yet laid into open time. */
function startFor(m: Model, i: number, t: number, k: number): number {
  if (!m.piece[i] || k === 0) return t;
  const w = m.piece[i] * k;
  if (!m.pausable[i]) return Math.max(0, t - w);
  const o = m.open[i].before(t) - w;
  return o <= 0 ? 0 : m.open[i].at(o);
}

/** Pieces that can decide: all of them, or first and last where waits change evenly from one to the next. */
function* deciding(l: Lag): Generator<number> {
  if (l.ends && l.pieces > 2) {
    yield 0;
    yield l.pieces - 1;
  } else for (let k = 0; k < l.pieces; k++) yield k;
}

/** First start of `to` that the opening of a lag allows, with `from` begun at a moment; Infinity: never. */
export function opens(m: Model, l: Lag, from: number): number {
  if (!l.byPiece) {
    const e = endOf(m, l.from, from);
    return l.plain ? Math.ceil(e + l.min - 1e-9) : Math.max(e, l.clock.first(l.clock.read(e) + l.min));
  }
  let s = 0;
  for (const k of deciding(l)) {
    const e = leaves(m, l, from, k);
    // a clock that stands still reads the same before the end as at it
    s = Math.max(s, startFor(m, l.to, Math.max(e, l.clock.first(l.clock.read(e) + l.min)), k));
  }
  return s;
}
/** Does each piece of a lag get through before it closes, or after it has reopened? Takes it that the opening holds. */
export function inside(m: Model, l: Lag, from: number, to: number): boolean {
  if (l.max === Infinity) return true;
  for (let k = 0; k < l.pieces; k++) {
    const e = leaves(m, l, from, k);
    const s = enters(m, l, to, k);
    if (s <= l.closeClock.last(l.closeClock.read(e) + l.max)) continue;
    if (l.reopens === Infinity || s < l.clock.first(l.clock.read(e) + l.reopens)) return false;
  }
  return true;
}
/** First start of `to` at or after `s` for which every piece comes before the closing or after the reopening; Infinity: none. */
export function admits(m: Model, l: Lag, from: number, s: number): number {
  if (l.max === Infinity) return s;
  for (let again = true; again;) {
    again = false;
    for (let k = 0; k < l.pieces; k++) {
      const e = leaves(m, l, from, k);
      if (enters(m, l, s, k) <= l.closeClock.last(l.closeClock.read(e) + l.max)) continue;
      if (l.reopens === Infinity) return Infinity;
      const back = l.clock.first(l.clock.read(e) + l.reopens);
      if (back === Infinity) return Infinity;
      if (enters(m, l, s, k) >= back) continue;
      s = Math.max(s + 1, startFor(m, l.to, back, k));
      again = true;
    }
  }
  return s;
}

export interface Objective {
  windowsBroken: number;
  lateness: number;
  finish: number;
  trips: number;
  moved: number;
}
/** Soft lags whose closing is broken, counted once each. */
export const brokenOf = (m: Model, start: ArrayLike<number>): number =>
  m.lags.reduce((n, l) => n + Number(l.soft && !inside(m, l, start[l.from], start[l.to])), 0);

/** Trips to the bench: tasks that use the trip's hands, no more than a gap apart. */
export function tripsOf(m: Model, start: ArrayLike<number>): number {
  if (m.trip < 0) return 0;
  const runs: [number, number][] = [];
  for (let i = 0; i < m.n; i++) if (m.uses[i].some((u) => u.r === m.trip)) runs.push([start[i], endOf(m, i, start[i])]);
  runs.sort((a, b) => a[0] - b[0]);
  let trips = 0;
  let until = -Infinity;
  for (const [a, b] of runs) {
    if (a > until + m.gap) trips++;
    until = Math.max(until, b);
  }
  return trips;
}

/** @param trips where they are known already */
export function objectiveOf(m: Model, start: ArrayLike<number>, trips: number | null = null): Objective {
  let [lateness, finish, moved] = [0, 0, 0];
  for (let i = 0; i < m.n; i++) {
    const end = endOf(m, i, start[i]);
    if (end > finish) finish = end;
    if (end > m.due[i]) lateness += m.weight[i] * (end - m.due[i]);
    if (m.prefer[i] >= 0) moved += Math.abs(start[i] - m.prefer[i]);
  }
  return { windowsBroken: brokenOf(m, start), lateness, finish, trips: trips ?? tripsOf(m, start), moved };
}
const EPS = 1e-6;
/** Below 0: a comes before b in the order of the objectives. */
export function compare(m: Model, a: Objective, b: Objective): number {
  return (
    a.windowsBroken - b.windowsBroken ||
    (Math.abs(a.lateness - b.lateness) > EPS ? a.lateness - b.lateness : 0) ||
    Math.ceil(a.finish / m.bucket) - Math.ceil(b.finish / m.bucket) ||
    a.trips - b.trips ||
    a.moved - b.moved
  );
}
