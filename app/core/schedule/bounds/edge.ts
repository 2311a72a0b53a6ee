/**
 * Edge finding (Carlier and Pinson 1989; the sets as in Nuijten 1994): on a resource that does one thing at a time, work that can't
 * come before or among a set of others comes after all of it, and so begins no earlier than the set can be done. Used destructively:
 * a finish for which the windows of the tasks shrink to nothing can't be had.
 *
 * Works in open minutes of the resource, so that closed time costs nothing; windows are earliest start and latest end.
 */
import { endOf, type Model } from "../model";
import { leastSpan, pushHeads, type Paths } from "./path";
import { unary } from "./one-machine";

/** resources with more tasks than this are left to the other bounds: the sets grow with the cube */
const EDGE_MOST = 40;

export interface Windows {
  head: Float64Array;
  /** latest end */
  last: Float64Array;
}

interface Item {
  i: number;
  r: number;
  d: number;
  p: number;
}

/** First start of each item by the sets that it must follow; null: overloaded. The mirror image gives latest ends. */
function push(items: Item[]): Map<number, number> | null {
  const out = new Map<number, number>();
  const byHead = [...items].sort((a, b) => b.r - a.r);
  const limits = [...new Set(items.map((x) => x.d))];
  for (const D of limits) {
    // sets: all with latest end ≤ D and head ≥ that of the one looked at
    let [P, best] = [0, -Infinity];
    const done: { r: number; P: number; best: number }[] = [];
    for (const x of byHead) {
      if (x.d > D) continue;
      P += x.p;
      best = Math.max(best, x.r + P);
      if (best > D) return null;
      done.push({ r: x.r, P, best });
    }
    if (!done.length) continue;
    for (const x of items) {
      if (x.d <= D) continue;
      for (const s of done) {
        // x among or before the set would end it after D
        if (Math.min(s.r, x.r) + s.P + x.p <= D) continue;
        // so it follows the whole of the set
        if (s.best > (out.get(x.i) ?? x.r)) out.set(x.i, s.best);
      }
    }
  }
  return out;
}

const kept = new WeakMap<Model, { r: number; list: number[] }[]>();
/** Resources that do one thing at a time, with what they do. */
export function narrow(m: Model): { r: number; list: number[] }[] {
  const found = kept.get(m);
  if (found) return found;
  const lists = m.capacity
    .map((_c, r) => ({ r, list: unary(m, r) }))
    .filter((x) => x.list.length > 1 && x.list.length <= EDGE_MOST);
  kept.set(m, lists);
  return lists;
}

/**
 * Shrinks windows until nothing more follows.
 * @param after task by task, those that are known to come after it
 * @returns false: nothing fits
 */
export function propagate(m: Model, w: Windows, after: (readonly number[])[] | null = null): boolean {
  const lists = narrow(m);
  for (let round = 0; round < 60; round++) {
    let changed = false;
    // lags, forward and back
    const before = Float64Array.from(w.head);
    pushHeads(m, w.head);
    if (after)
      for (let pass = 0, more = true; more && pass < m.n; pass++) {
        more = false;
        for (let i = 0; i < m.n; i++)
          for (const j of after[i]) {
            const e = endOf(m, i, w.head[i]);
            if (w.head[j] < e) {
              w.head[j] = m.open[j].slot(e, m.work[j], m.pausable[j]).start;
              more = true;
            }
            const latest = w.last[j] - m.work[j];
            if (w.last[i] > latest) {
              w.last[i] = latest;
              more = true;
            }
          }
        if (more) pushHeads(m, w.head);
      }
    for (let k = m.n - 1; k >= 0; k--) {
      const i = m.order[k];
      for (const l of m.out[i]) {
        const latest = w.last[l.to] - Math.max(0, leastSpan(m, l));
        if (latest < w.last[i]) {
          w.last[i] = latest;
          changed = true;
        }
      }
    }
    for (let i = 0; i < m.n; i++) {
      if (endOf(m, i, w.head[i]) > w.last[i]) return false;
      if (w.head[i] !== before[i]) changed = true;
    }
    for (const { r, list } of lists) {
      const open = m.closedOf[r];
      const items = list.map((i): Item => ({ i, r: open.before(w.head[i]), d: open.before(w.last[i]), p: m.work[i] }));
      const later = push(items);
      if (!later) return false;
      for (const [i, r] of later) {
        const t = open.next(open.at(r));
        if (t > w.head[i]) {
          w.head[i] = t;
          changed = true;
        }
      }
      const far = 1e9;
      const earlier = push(items.map((x) => ({ ...x, r: far - x.d, d: far - x.r })));
      if (!earlier) return false;
      for (const [i, r] of earlier) {
        const t = open.at(far - r);
        if (t < w.last[i]) {
          w.last[i] = t;
          changed = true;
        }
      }
    }
    if (!changed) return true;
  }
  return true;
}

/** Windows for a finish that is asked for. */
export function windowsFor(m: Model, p: Paths, finish: number): Windows {
  return { head: Float64Array.from(p.head), last: Float64Array.from({ length: m.n }, (_, i) => finish - p.tail[i]) };
}

/** The least finish that edge finding can't refute, between a known bound and a known answer. */
export function edgeBound(m: Model, p: Paths, low: number, high: number): number {
  if (!narrow(m).length) return low;
  const fits = (finish: number): boolean => propagate(m, windowsFor(m, p, finish));
  let [lo, hi] = [low, high];
  // lo: not refuted below; hi: can be had
  while (lo < hi) {
    const mid = Math.floor((lo + hi) / 2);
    if (fits(mid)) hi = mid;
    else lo = mid + 1;
  }
  return lo;
}
