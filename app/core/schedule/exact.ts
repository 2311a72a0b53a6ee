/**
 * Small problems to their end: depth first over starts in order of time. The task that can begin first either begins there or later,
 * so that every schedule is met once; what can't become better than the best one known is left (branch and bound, Land and Doig 1960,
 * with the chronological branching of Demeulemeester and Herroelen 1992, but open to every start because trips and moved minutes are
 * not better for being earlier).
 */
import { pushHeads, type Paths } from "./bounds/path";
import {
  admits,
  compare,
  endOf,
  enters,
  inside,
  leaves,
  objectiveOf,
  opens,
  type Lag,
  type Model,
  type Objective,
} from "./model";
import { Timeline } from "./timeline";

export interface ExactResult {
  /** null: nothing (better than what was known) */
  start: Float64Array | null;
  /** all was looked at: what came out, or the known one, is best of all; or nothing can be */
  complete: boolean;
  nodes: number;
}

/**
 * @param best objective of the best schedule known; null: none
 * @param nodes most nodes looked at
 * @param stop asked now and then
 */
export function exact(
  m: Model,
  paths: Paths,
  best: Objective | null,
  nodes: number,
  stop: () => boolean = () => false,
): ExactResult {
  const lines = m.capacity.map((c) => new Timeline(c));
  const start = new Float64Array(m.n).fill(-1);
  const found: { start: Float64Array | null } = { start: null };
  let seen = 0;
  let cut = false;
  const hands = (i: number): boolean => m.trip >= 0 && m.uses[i].some((u) => u.r === m.trip);

  const holds = (l: Lag, sign: number): void => {
    const from = leaves(m, l, start[l.from], 0);
    for (const u of l.holds)
      lines[u.r].add(from, Math.max(from, enters(m, l, start[l.to], l.pieces - 1)), sign * u.amount);
  };
  /** the moment until which something is in the way of task i at s; −1: nothing */
  const inTheWay = (i: number, s: number): number => {
    const e = endOf(m, i, s);
    if (e > s)
      for (const u of m.uses[i]) {
        if (u.amount > m.capacity[u.r]) return Infinity;
        const until = lines[u.r].blocked(s, e, u.amount);
        if (until >= 0) return until;
      }
    return -1;
  };
  /** lays task i at s with the holds that end or begin with it; false: they don't fit */
  const take = (i: number, s: number): boolean => {
    start[i] = s;
    const e = endOf(m, i, s);
    for (const u of m.uses[i]) lines[u.r].add(s, e, u.amount);
    const ends = [...m.into[i].filter((l) => start[l.from] >= 0), ...m.out[i].filter((l) => start[l.to] >= 0)];
    for (let k = 0; k < ends.length; k++) {
      const l = ends[k];
      const from = leaves(m, l, start[l.from], 0);
      const until = enters(m, l, start[l.to], l.pieces - 1);
      const fits =
        (l.from !== i || opens(m, l, s) <= start[l.to]) &&
        (l.soft || inside(m, l, start[l.from], start[l.to])) &&
        l.holds.every((u) => until <= from || lines[u.r].blocked(from, until, u.amount) < 0);
      if (!fits) {
        for (let j = 0; j < k; j++) holds(ends[j], -1);
        for (const u of m.uses[i]) lines[u.r].add(s, e, -u.amount);
        start[i] = -1;
        return false;
      }
      holds(l, 1);
    }
    return true;
  };
  const give = (i: number): void => {
    for (const l of m.into[i]) if (start[l.from] >= 0) holds(l, -1);
    for (const l of m.out[i]) if (start[l.to] >= 0) holds(l, -1);
    const e = endOf(m, i, start[i]);
    for (const u of m.uses[i]) lines[u.r].add(start[i], e, -u.amount);
    start[i] = -1;
  };
  /** Earliest starts of what is still free, by lags and windows; false: it can't go on from here. */
  const push = (lo: Float64Array): boolean => {
    for (let round = 0; round < 2 * m.n + 8; round++) {
      for (const i of m.order) {
        if (start[i] >= 0) {
          lo[i] = start[i];
          continue;
        }
        let s = Math.max(lo[i], m.earliest[i]);
        for (const l of m.into[i]) s = Math.max(s, opens(m, l, lo[l.from]));
        if (!(s <= m.horizon)) return false;
        for (let at = -1; at !== s;) {
          at = s;
          s = m.open[i].slot(s, m.work[i], m.pausable[i]).start;
          for (const l of m.into[i]) if (!l.soft && start[l.from] >= 0) s = admits(m, l, start[l.from], s);
          if (!(s <= m.horizon)) return false;
        }
        lo[i] = s;
      }
      let again = false;
      for (const l of m.lags) {
        if (
          l.soft ||
          l.max === Infinity ||
          l.reopens !== Infinity ||
          start[l.from] >= 0 ||
          inside(m, l, lo[l.from], lo[l.to])
        )
          continue;
        let a = lo[l.from];
        let b = Math.max(a + 1, lo[l.to]);
        while (b - a > 1) {
          const mid = Math.floor((a + b) / 2);
          if (inside(m, l, mid, lo[l.to])) b = mid;
          else a = mid;
        }
        lo[l.from] = b;
        again = true;
      }
      if (!again) return true;
    }
    return true;
  };
  const bound = (lo: Float64Array): Objective => {
    let [lateness, finish, moved, windowsBroken, trips] = [0, 0, 0, 0, 0];
    for (let i = 0; i < m.n; i++) {
      const end = endOf(m, i, lo[i]);
      finish = Math.max(finish, start[i] >= 0 ? end : end + paths.tail[i]);
      if (end > m.due[i]) lateness += m.weight[i] * (end - m.due[i]);
      if (m.prefer[i] >= 0)
        moved += start[i] >= 0 ? Math.abs(start[i] - m.prefer[i]) : Math.max(0, lo[i] - m.prefer[i]);
    }
    for (let r = 0; r < m.capacity.length; r++) {
      let [load, from] = [0, Infinity];
      for (let i = 0; i < m.n; i++)
        if (start[i] < 0)
          for (const u of m.uses[i])
            if (u.r === r) {
              load += u.amount * m.work[i];
              from = Math.min(from, lo[i]);
            }
      if (load > 0)
        finish = Math.max(finish, m.closedOf[r].end(m.closedOf[r].next(from), Math.ceil(load / m.capacity[r])));
    }
    for (const l of m.lags)
      if (
        l.soft &&
        start[l.from] >= 0 &&
        (start[l.to] >= 0
          ? !inside(m, l, start[l.from], start[l.to])
          : admits(m, l, start[l.from], lo[l.to]) === Infinity)
      )
        windowsBroken++;
    if (m.trip >= 0) {
      const runs: [number, number][] = [];
      for (let i = 0; i < m.n; i++) if (start[i] >= 0 && hands(i)) runs.push([start[i], endOf(m, i, start[i])]);
      let free = Infinity;
      for (let i = 0; i < m.n; i++) if (start[i] < 0 && hands(i)) free = Math.min(free, lo[i]);
      runs.sort((x, y) => x[0] - y[0]);
      let until = -Infinity;
      for (const [from, to] of runs) {
        // a gap that work still free can't bridge, because it begins later than the gap allows
        if (from > until + m.gap && (until === -Infinity || until + m.gap < free)) trips++;
        until = Math.max(until, to);
      }
      if (free < Infinity) trips = Math.max(1, trips);
    }
    return { windowsBroken, lateness, finish, trips, moved };
  };

  const down = (lo0: Float64Array): void => {
    const lo = Float64Array.from(lo0);
    for (;;) {
      if (++seen > nodes || ((seen & 255) === 0 && stop())) {
        cut = true;
        return;
      }
      if (!push(lo)) return;
      if (best && compare(m, bound(lo), best) >= 0) return;
      let i = -1;
      for (const j of m.order) if (start[j] < 0 && (i < 0 || lo[j] < lo[i])) i = j;
      if (i < 0) {
        const o = objectiveOf(m, start);
        if (!best || compare(m, o, best) < 0) {
          best = o;
          found.start = Float64Array.from(start);
        }
        return;
      }
      const s = lo[i];
      const until = inTheWay(i, s);
      if (until < 0 && take(i, s)) {
        down(lo);
        give(i);
        if (cut) return;
      }
      if (until === Infinity) return;
      lo[i] = m.open[i].slot(Math.max(s + 1, until), m.work[i], m.pausable[i]).start;
    }
  };

  const lo = Float64Array.from(paths.head);
  pushHeads(m, lo);
  for (const i of m.order) {
    if (m.fixed[i] < 0) continue;
    const s = m.fixed[i];
    const slot = m.open[i].slot(s, m.work[i], m.pausable[i]);
    if (
      slot.start !== s ||
      inTheWay(i, s) >= 0 ||
      m.into[i].some((l) => start[l.from] >= 0 && opens(m, l, start[l.from]) > s) ||
      !take(i, s)
    )
      return { start: null, complete: true, nodes: 0 };
  }
  down(lo);
  return { start: found.start, complete: !cut, nodes: seen };
}
