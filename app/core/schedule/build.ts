/**
 * From an order of the work to a schedule: one block after another, each task at the first moment that its lags, calendars and
 * resources allow (serial generation, as in Kolisch 1996). Tasks tied by closing windows are one block; where a window would be
 * missed, the task before it is begun later and the block laid anew from there (unscheduling, after Franck, Neumann and Schwindt
 * 2001), so that a block never leaves a window broken that waiting could have kept.
 *
 * A wait that holds a place takes it from the end of the first task on without end, until its second task has been laid: what comes
 * later in the order can't take the place away.
 */
import { admits, endOf, enters, inside, leaves, opens, type Lag, type Model } from "./model";
import { Timeline } from "./timeline";

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
  const edges = members.map((list, b) => [...new Set(list.flatMap((i) => m.out[i].map((l) => find(l.to))))].filter((x) => x !== b));
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
      for (let x = -1; x !== top.b; ) {
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
  const next = tasks.map((list, b) => [...new Set(list.flatMap((i) => m.out[i].map((l) => of[l.to])))].filter((x) => x !== b));
  const before = new Int32Array(tasks.length);
  for (const list of next) for (const b of list) before[b]++;
  return { of, tasks, next, before };
}

/** How a list is to be laid. */
export interface Plan {
  /** smaller first, a block */
  key: Float64Array;
  /** lags that wait for the reopening instead of pushing what comes before later; by index */
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
  private readonly lines: Timeline[];
  private readonly floor: Float64Array;
  private least: Float64Array | null = null;
  private readonly left: Int32Array;
  /** blocks that found their places taken for good, after a list that led to nothing */
  stuck: number[] = [];
  /** lags that this list has given up on keeping shut: by reopening or, soft, by breaking them */
  private readonly given: Uint8Array;

  constructor(readonly m: Model, blocks = blocksOf(m)) {
    this.blocks = blocks;
    this.start = new Float64Array(m.n).fill(-1);
    this.lines = m.capacity.map((c) => new Timeline(c));
    this.floor = new Float64Array(m.n);
    this.left = new Int32Array(blocks.tasks.length);
    this.given = new Uint8Array(m.lags.length);
  }

  /** @returns the starts (its own space: copy them to keep them), or null where this order leads to nothing */
  lay(plan: Plan): Float64Array | null {
    const { m, blocks, start, left } = this;
    start.fill(-1);
    this.stuck = [];
    this.lines.forEach((l) => l.clear());
    this.given.set(plan.reopen);
    left.set(blocks.before);
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
    const heap: number[] = [];
    const { key } = plan;
    const push = (b: number): void => {
      let i = heap.push(b) - 1;
      while (i > 0) {
        const up = (i - 1) >> 1;
        if (key[heap[up]] <= key[b]) break;
        heap[i] = heap[up];
        i = up;
      }
      heap[i] = b;
    };
    const pop = (): number => {
      const top = heap[0];
      const b = heap.pop()!;
      if (heap.length) {
        let i = 0;
        for (;;) {
          let c = 2 * i + 1;
          if (c >= heap.length) break;
          if (c + 1 < heap.length && key[heap[c + 1]] < key[heap[c]]) c++;
          if (key[b] <= key[heap[c]]) break;
          heap[i] = heap[c];
          i = c;
        }
        heap[i] = b;
      }
      return top;
    };
    for (let b = 0; b < blocks.tasks.length; b++) if (!left[b]) push(b);
    let waiting: number[] = [];
    let done = 0;
    let progress = false;
    while (done < blocks.tasks.length) {
      if (!heap.length) {
        // All that is left found its place taken: once more after what has been laid since, or never.
        if (!progress || !waiting.length) {
          this.stuck = waiting;
          return null;
        }
        waiting.forEach(push);
        waiting = [];
        progress = false;
        continue;
      }
      const b = pop();
      const f = this.block(blocks.tasks[b]);
      if (f === "never") return null;
      if (f === "full") {
        waiting.push(b);
        continue;
      }
      progress = true;
      done++;
      for (const x of blocks.next[b]) if (!--left[x]) push(x);
    }
    return start;
  }

  private block(tasks: number[]): "laid" | "full" | "never" {
    const { m, start, floor, given } = this;
    let pushes = 0;
    let pushed: Lag | null = null;
    for (let k = 0; k < tasks.length; k++) {
      const i = tasks[k];
      if (m.fixed[i] >= 0) continue;
      const f = this.fit(i, floor[i]);
      if (f.is === "at") {
        this.take(i, f.start);
        continue;
      }
      const back = (to: number): void => {
        for (let j = k - 1; j >= to; j--) if (m.fixed[tasks[j]] < 0) this.give(tasks[j]);
      };
      if (f.is !== "shut") {
        back(0);
        if (f.is === "full" || !pushed || given[pushed.index] || (pushed.reopens === Infinity && !pushed.soft)) return f.is;
        // Pushed out of all time for a window that nothing can meet: laid anew with that window's other way out.
        given[pushed.index] = 1;
        pushed = null;
        pushes = 0;
        for (const i of tasks) floor[i] = this.least ? this.least[i] : 0;
        k = -1;
        continue;
      }
      const { lag } = f;
      const at = tasks.indexOf(lag.from);
      if (m.fixed[lag.from] >= 0 || ++pushes > (lag.reopens === Infinity ? PUSHES : PUSHES_REOPENING) || at < 0) {
        // It can't be pushed (any further): its other way out, where it has one.
        if (given[lag.index] || (lag.reopens === Infinity && !lag.soft)) {
          back(0);
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
      back(at);
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
    for (;;) {
      for (const l of m.into[i]) if (start[l.from] >= 0) s = Math.max(s, opens(m, l, start[l.from]));
      if (s === Infinity || s > m.horizon) return NEVER;
      const slot = m.open[i].slot(s, m.work[i], m.pausable[i]);
      s = slot.start;
      const e = slot.end;
      let next = s;
      for (const l of m.into[i]) {
        if (start[l.from] < 0 || l.max === Infinity) continue;
        const a = admits(m, l, start[l.from], s);
        if (a === s) continue;
        if (!this.given[l.index]) return pinned ? (l.soft ? { is: "at", start: s } : NEVER) : { is: "shut", lag: l, start: s };
        if (a !== Infinity) next = Math.max(next, a);
        else if (!l.soft) return NEVER;
      }
      if (next === s) for (const u of m.uses[i]) {
        if (e <= s) break;
        const until = lines[u.r].blocked(s, e, u.amount);
        if (until === Infinity || u.amount > m.capacity[u.r]) return u.amount > m.capacity[u.r] ? NEVER : FULL;
        if (until > next) next = until;
      }
      if (next === s) for (const l of m.out[i]) {
        const to = start[l.to];
        if (to >= 0) {
          // what is pinned behind it
          if (opens(m, l, s) > to) return NEVER;
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
        const from = leaves(m, l, s, 0);
        const until = to >= 0 ? enters(m, l, to, l.pieces - 1) : Infinity;
        for (const u of l.holds) {
          // with all else that this task holds or uses of it by then
          let amount = u.amount;
          for (const o of m.out[i]) if (o !== l) for (const v of o.holds) if (v.r === u.r) amount += v.amount;
          if (from < e) for (const v of m.uses[i]) if (v.r === u.r) amount += v.amount;
          const busy = lines[u.r].blocked(from, until, amount);
          if (busy === Infinity) return amount > m.capacity[u.r] ? NEVER : FULL;
          if (busy >= 0) next = Math.max(next, s + 1, s + busy - from);
        }
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
    for (const l of m.into[i]) {
      if (!l.holds.length || start[l.from] < 0) continue;
      // the hold that ran on without end ends here
      const from = leaves(m, l, start[l.from], 0);
      const until = enters(m, l, s, l.pieces - 1);
      for (const u of l.holds) lines[u.r].add(Math.max(from, until), Infinity, -sign * u.amount);
    }
    for (const l of m.out[i]) {
      if (!l.holds.length) continue;
      const from = leaves(m, l, s, 0);
      const to = start[l.to];
      for (const u of l.holds) lines[u.r].add(from, to >= 0 ? Math.max(from, enters(m, l, to, l.pieces - 1)) : Infinity, sign * u.amount);
    }
  }
  private give(i: number): void {
    this.take(i, this.start[i], -1);
    this.start[i] = -1;
  }
}
