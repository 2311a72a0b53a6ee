/**
 * From an order of the work to a schedule: one block after another, each task at the first moment that its lags, calendars and
 * resources allow (serial generation, as in Kolisch 1996). Tasks tied by closing windows are one block; where a window would be
 * missed, the task before it is begun later and the block laid anew from there (unscheduling, after Franck, Neumann and Schwindt
 * 2001), so that a block never leaves a window broken that waiting could have kept.
 *
 * A wait that holds a place takes it from the end of the first task on without end, until its second task has been laid: what comes
 * later in the order can't take the place away.
 */
import FlatQueue from "flatqueue";
import { admits, endOf, enters, inside, leaves, opens, type Lag, type Model } from "./model";
import { PLENTY, Single, Timeline, type Line } from "./timeline";

/** times a window may push its block later before its other way out is taken: few where it reopens, many where all else breaks it */
const PUSHES = 400;
const PUSHES_REOPENING = 30;

export interface Blocks {
  of: Int32Array;
  tasks: number[][];
  /** blocks that a block comes before */
  next: number[][];
  before: Int32Array;
}

/** Tasks that are laid together: tied by closing lags, and whatever lies between such tasks. */
export function blocksOf(m: Model): Blocks {
  const root = Int32Array.from({ length: m.n }, (_, i) => i);
  const find = (i: number): number => {
    while (root[i] !== i) i = root[i] = root[root[i]];
    return i;
  };
  for (const l of m.lags) if (l.max !== Infinity) root[find(l.from)] = find(l.to);
  // Blocks that lie in a circle become one: strongly connected parts, by Tarjan's walk without recursion.
  const low = new Int32Array(m.n).fill(-1);
  const index = new Int32Array(m.n).fill(-1);
  const on = new Uint8Array(m.n);
  const members: number[][] = Array.from({ length: m.n }, () => []);
  for (let i = 0; i < m.n; i++) members[find(i)].push(i);
  const edges = members.map((list, b) =>
    [...new Set(list.flatMap((i) => m.out[i].map((l) => find(l.to))))].filter((x) => x !== b),
  );
  const stack: number[] = [];
  let clock = 0;
  const part = new Int32Array(m.n).fill(-1);
  for (let b = 0; b < m.n; b++) {
    if (find(b) !== b || index[b] >= 0) continue;
    const path: { b: number; k: number }[] = [{ b, k: 0 }];
    while (path.length) {
      const top = path[path.length - 1];
      if (top.k === 0) {
        index[top.b] = low[top.b] = clock++;
        stack.push(top.b);
        on[top.b] = 1;
      }
      const to = edges[top.b][top.k++];
      if (to !== undefined) {
        if (index[to] < 0) path.push({ b: to, k: 0 });
        else if (on[to]) low[top.b] = Math.min(low[top.b], index[to]);
        continue;
      }
      path.pop();
      const up = path[path.length - 1];
      if (up) low[up.b] = Math.min(low[up.b], low[top.b]);
      if (low[top.b] !== index[top.b]) continue;
      for (let x = -1; x !== top.b;) {
        x = stack.pop()!;
        on[x] = 0;
        part[x] = top.b;
      }
    }
  }
  const number = new Map<number, number>();
  const of = new Int32Array(m.n);
  const tasks: number[][] = [];
  for (const i of m.order) {
    const p = part[find(i)];
    const b = number.get(p) ?? number.set(p, tasks.push([]) - 1).get(p)!;
    tasks[b].push(i);
    of[i] = b;
  }
  const next = tasks.map((list, b) =>
    [...new Set(list.flatMap((i) => m.out[i].map((l) => of[l.to])))].filter((x) => x !== b),
  );
  const before = new Int32Array(tasks.length);
  for (const list of next) for (const b of list) before[b]++;
  return { of, tasks, next, before };
}

/** ways round a window that would be missed */
export const PUSH = 0;
export const REOPEN = 1;
export const SOONER = 2;

/** How a list is to be laid. */
export interface Plan {
  /** smaller first, a block */
  key: Float64Array;
  /**
   * what is done where a window would be missed, by lag: what comes before is pushed later, or the reopening waited
   * for, or whichever is sooner
   */
  reopen: Uint8Array;
  /** earliest starts besides the problem's own */
  floor: Float64Array | null;
}

type Fit = { is: "at"; start: number } | { is: "shut"; lag: Lag; start: number } | { is: "full" } | { is: "never" };
const NEVER: Fit = { is: "never" };
const FULL: Fit = { is: "full" };

/** Lays lists one after another on the same working space. */
export class Builder {
  readonly blocks: Blocks;
  readonly start: Float64Array;
  private readonly lines: Line[];
  private readonly floor: Float64Array;
  private least: Float64Array | null = null;
  private readonly left: Int32Array;
  private readonly every: number[];
  /** blocks whose turn has come, by key */
  private readonly turn = new FlatQueue<number>();
  /** windows that a task may miss */
  private readonly closing: Lag[][];
  /** what a wait holds of a resource with all else that its first task holds of it, as its holds are listed */
  private readonly holding: number[][];
  /** blocks that found their places taken for good, after a list that led to nothing */
  stuck: number[] = [];
  /** lags that this list has given up on keeping shut: by reopening or, soft, by breaking them */
  private readonly given: Uint8Array;
  private ways: Uint8Array;
  /** where waiting for the reopening would have had the second task begin, by lag; Infinity: no window was missed yet */
  private readonly instead: Float64Array;

  constructor(
    readonly m: Model,
    blocks = blocksOf(m),
  ) {
    this.blocks = blocks;
    this.start = new Float64Array(m.n).fill(-1);
    const asked = new Float64Array(m.capacity.length);
    const holds = new Uint8Array(m.capacity.length);
    for (const list of m.uses) for (const u of list) asked[u.r] += u.amount;
    for (const l of m.lags)
      for (const u of l.holds) {
        asked[u.r] += u.amount;
        holds[u.r] = 1;
      }
    this.lines = m.capacity.map((c, r) =>
      asked[r] <= c ? PLENTY : c === 1 && !holds[r] ? new Single() : new Timeline(c),
    );
    this.floor = new Float64Array(m.n);
    this.left = new Int32Array(blocks.tasks.length);
    this.closing = m.into.map((list) => list.filter((l) => l.max !== Infinity));
    this.holding = m.lags.map((l) =>
      l.holds.map((u) =>
        m.out[l.from].reduce((sum, o) => o.holds.reduce((x, v) => x + (v.r === u.r ? v.amount : 0), sum), 0),
      ),
    );
    this.every = blocks.tasks.map((_t, b) => b);
    this.given = new Uint8Array(m.lags.length);
    this.ways = this.given;
    this.instead = new Float64Array(m.lags.length).fill(Infinity);
  }

  /** @returns the starts (its own space: copy them to keep them), or null where this order leads to nothing */
  lay(plan: Plan): Float64Array | null {
    const { m, blocks, start, left } = this;
    start.fill(-1);
    this.stuck = [];
    this.lines.forEach((l) => l.clear());
    this.ways = plan.reopen;
    for (let k = 0; k < this.given.length; k++) this.given[k] = Number(plan.reopen[k] === REOPEN);
    this.least = plan.floor;
    if (plan.floor) this.floor.set(plan.floor);
    else this.floor.fill(0);
    // What is pinned lies there before all else.
    for (const i of m.order) {
      if (m.fixed[i] < 0) continue;
      const f = this.fit(i, m.fixed[i]);
      if (f.is !== "at" || f.start !== m.fixed[i]) return null;
      this.take(i, f.start);
    }
    left.set(blocks.before);
    return this.fill(this.every, plan.key) ? start : null;
  }

  /** Takes a schedule that is known to hold as what is laid. */
  put(starts: Float64Array): void {
    this.lines.forEach((l) => l.clear());
    this.start.fill(-1);
    for (let i = 0; i < this.m.n; i++) this.take(i, starts[i]);
  }

  /** Trips to the bench of what is laid, or null where they are not kept as spans. */
  trips(): number | null {
    const { trip, gap } = this.m;
    const line = trip < 0 ? null : this.lines[trip];
    return line instanceof Single ? line.runs(gap) : null;
  }

  /** Takes blocks out of what is laid. */
  lift(list: number[]): void {
    for (const b of list)
      for (const i of this.blocks.tasks[b]) if (this.m.fixed[i] < 0 && this.start[i] >= 0) this.give(i);
  }
  /** Puts blocks that were lifted back to where they stood. */
  restore(list: number[], was: Float64Array): void {
    this.lift(list);
    for (const b of list) for (const i of this.blocks.tasks[b]) if (this.m.fixed[i] < 0) this.take(i, was[i]);
  }
  /**
   * Lays blocks that were lifted into what the others leave free.
   * @param key smaller first, a block
   * @param reopen as in {@link Plan}
   * @returns false: some found no place; what was laid of them lies there
   */
  insert(list: number[], key: Float64Array, reopen: Uint8Array): boolean {
    const { blocks, left, floor, given } = this;
    this.least = null;
    this.ways = reopen;
    for (const b of list) {
      left[b] = 0;
      for (const i of blocks.tasks[b]) {
        floor[i] = 0;
        for (const l of this.closing[i]) given[l.index] = Number(reopen[l.index] === REOPEN);
      }
    }
    for (const b of list) for (const x of blocks.next[b]) left[x]++;
    return this.fill(list, key);
  }

  private fill(list: number[], key: Float64Array): boolean {
    const { blocks, left, turn } = this;
    turn.clear();
    for (const b of list) if (!left[b]) turn.push(b, key[b]);
    let waiting: number[] = [];
    let done = 0;
    let progress = false;
    while (done < list.length) {
      if (!turn.length) {
        // All that is left found its place taken: once more after what has been laid since, or never.
        if (!progress || !waiting.length) {
          this.stuck = waiting;
          return false;
        }
        for (const b of waiting) turn.push(b, key[b]);
        waiting = [];
        progress = false;
        continue;
      }
      const b = turn.pop() as number;
      const f = this.block(blocks.tasks[b]);
      if (f === "never") return false;
      if (f === "full") {
        waiting.push(b);
        continue;
      }
      progress = true;
      done++;
      for (const x of blocks.next[b]) if (!--left[x]) turn.push(x, key[x]);
    }
    return true;
  }

  /** Takes out again what was laid of a block before its k-th task, down to one of them. */
  private back(tasks: number[], k: number, to: number): void {
    for (let j = k - 1; j >= to; j--) if (this.m.fixed[tasks[j]] < 0) this.give(tasks[j]);
  }
  private anew(tasks: number[]): void {
    for (const i of tasks) this.floor[i] = this.least ? this.least[i] : 0;
  }

  private block(tasks: number[]): "laid" | "full" | "never" {
    const { m, start, floor, given } = this;
    let pushes = 0;
    let pushed: Lag | null = null;
    for (const i of tasks) for (const l of this.closing[i]) this.instead[l.index] = Infinity;
    for (let k = 0; k < tasks.length; k++) {
      const i = tasks[k];
      if (m.fixed[i] >= 0) continue;
      const f = this.fit(i, floor[i]);
      if (f.is === "at") {
        let better: Lag | null = null;
        for (const l of this.closing[i]) if (f.start > this.instead[l.index] && !given[l.index]) better = l;
        if (better) {
          // keeping the window has cost more than its reopening would
          given[better.index] = 1;
          this.back(tasks, k, 0);
          this.anew(tasks);
          pushed = null;
          pushes = 0;
          k = -1;
          continue;
        }
        this.take(i, f.start);
        continue;
      }
      if (f.is !== "shut") {
        this.back(tasks, k, 0);
        if (f.is === "full" || !pushed || given[pushed.index] || (pushed.reopens === Infinity && !pushed.soft))
          return f.is;
        // Pushed out of all time for a window that nothing can meet: laid anew with that window's other way out.
        given[pushed.index] = 1;
        this.anew(tasks);
        pushed = null;
        pushes = 0;
        k = -1;
        continue;
      }
      const { lag } = f;
      const at = tasks.indexOf(lag.from);
      if (
        m.fixed[lag.from] >= 0 ||
        ++pushes > (lag.reopens === Infinity || this.ways[lag.index] === SOONER ? PUSHES : PUSHES_REOPENING) ||
        at < 0
      ) {
        // It can't be pushed (any further): its other way out, where it has one.
        if (given[lag.index] || (lag.reopens === Infinity && !lag.soft)) {
          this.back(tasks, k, 0);
          return "never";
        }
        given[lag.index] = 1;
        pushes = 0;
        k--;
        continue;
      }
      // first later start of the task before, from which the window still holds what comes here
      let lo = start[lag.from];
      let hi = Math.max(lo + 1, f.start);
      while (hi - lo > 1) {
        const mid = Math.floor((lo + hi) / 2);
        if (inside(m, lag, mid, f.start)) hi = mid;
        else lo = mid;
      }
      if (this.ways[lag.index] === SOONER && this.instead[lag.index] === Infinity)
        this.instead[lag.index] = admits(m, lag, start[lag.from], f.start);
      this.back(tasks, k, at);
      pushed = lag;
      floor[lag.from] = hi;
      k = at - 1;
    }
    return "laid";
  }

  private fit(i: number, floor: number): Fit {
    const { m, start, lines } = this;
    const pinned = m.fixed[i] >= 0;
    let s = pinned ? m.fixed[i] : Math.max(floor, m.earliest[i]);
    for (const l of m.into[i]) if (start[l.from] >= 0) s = Math.max(s, opens(m, l, start[l.from]));
    for (;;) {
      if (s === Infinity || s > m.horizon) return NEVER;
      s = m.open[i].first(s, m.work[i], m.pausable[i]);
      const e = m.pausable[i] ? m.open[i].end(s, m.work[i]) : s + m.work[i];
      let next = s;
      for (const l of this.closing[i]) {
        if (start[l.from] < 0) continue;
        const a = admits(m, l, start[l.from], s);
        if (a === s) continue;
        if (!this.given[l.index])
          return pinned ? (l.soft ? { is: "at", start: s } : NEVER) : { is: "shut", lag: l, start: s };
        if (a !== Infinity) next = Math.max(next, a);
        else if (!l.soft) return NEVER;
      }
      if (next === s)
        for (const u of m.uses[i]) {
          if (e <= s) break;
          const until = lines[u.r].blocked(s, e, u.amount, m.work[i]);
          if (until === Infinity || u.amount > m.capacity[u.r]) return u.amount > m.capacity[u.r] ? NEVER : FULL;
          if (until > next) next = until;
        }
      if (next === s) {
        // what stood there until now stands there no longer
        this.endHolds(i, s, 1);
        let full: Fit | null = null;
        for (const l of m.out[i]) {
          const to = start[l.to];
          if (to >= 0) {
            // what is pinned behind it
            if (opens(m, l, s) > to) {
              full = NEVER;
              break;
            }
            if (!l.soft && !inside(m, l, s, to)) {
              let lo = s;
              let hi = to + 1;
              while (hi - lo > 1) {
                const mid = Math.floor((lo + hi) / 2);
                if (inside(m, l, mid, to)) hi = mid;
                else lo = mid;
              }
              next = Math.max(next, hi);
            }
          }
          if (!l.holds.length) continue;
          const from = leaves(m, l, s, 0);
          const until = to >= 0 ? enters(m, l, to, l.pieces - 1) : Infinity;
          for (let h = 0; h < l.holds.length; h++) {
            const u = l.holds[h];
            let amount = this.holding[l.index][h];
            if (from < e) for (const v of m.uses[i]) if (v.r === u.r) amount += v.amount;
            const busy = lines[u.r].blocked(from, until, amount, 0);
            if (busy === Infinity) full = amount > m.capacity[u.r] ? NEVER : FULL;
            else if (busy >= 0) next = Math.max(next, s + 1, s + busy - from);
          }
          if (full) break;
        }
        this.endHolds(i, s, -1);
        if (full) return full;
      }
      if (next === s) return { is: "at", start: s };
      if (pinned) return NEVER;
      s = next;
    }
  }

  private take(i: number, s: number, sign = 1): void {
    const { m, start, lines } = this;
    const e = endOf(m, i, s);
    start[i] = s;
    for (const u of m.uses[i]) lines[u.r].add(s, e, sign * u.amount);
    this.endHolds(i, s, sign);
    for (const l of m.out[i]) {
      if (!l.holds.length) continue;
      const from = leaves(m, l, s, 0);
      const to = start[l.to];
      for (const u of l.holds)
        if (to >= 0) lines[u.r].add(from, enters(m, l, to, l.pieces - 1), sign * u.amount);
        else lines[u.r].hold(from, sign * u.amount);
    }
  }
  /** What was held without end for a task is held until it begins at `s`. @param sign −1: without end again */
  private endHolds(i: number, s: number, sign: number): void {
    const { m, start, lines } = this;
    for (const l of m.into[i]) {
      if (!l.holds.length || start[l.from] < 0) continue;
      const from = leaves(m, l, start[l.from], 0);
      const until = enters(m, l, s, l.pieces - 1);
      for (const u of l.holds) {
        lines[u.r].hold(from, -sign * u.amount);
        lines[u.r].add(from, until, sign * u.amount);
      }
    }
  }
  private give(i: number): void {
    this.take(i, this.start[i], -1);
    this.start[i] = -1;
  }
}
