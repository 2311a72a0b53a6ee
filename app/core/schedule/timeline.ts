/** How much of a resource is taken over time. */

export interface Line {
  clear(): void;
  /** Takes so much over [from, to), `to` finite; a negative amount gives it back. */
  add(from: number, to: number, amount: number): void;
  /** Takes so much from a moment on, without end; a negative amount gives it back. */
  hold(from: number, amount: number): void;
  /**
   * −1: so much is free all over [from, to); else the moment at which the first thing in the way has ended, Infinity: never.
   * @param need what lies in gaps shorter than that may be passed over with it, min
   */
  blocked(from: number, to: number, amount: number, need: number): number;
}

/** Of which there is enough for everything at once. */
export const PLENTY: Line = { clear: () => {}, add: () => {}, hold: () => {}, blocked: () => -1 };

const FIRST = 64;
/** Number of entries ≤ x among the first n of a rising list. */
function upTo(xs: Float64Array, n: number, x: number): number {
  let lo = 0;
  let hi = n;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (xs[mid] <= x) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}
const grown = (xs: Float64Array<ArrayBuffer>): Float64Array<ArrayBuffer> => {
  const more = new Float64Array(xs.length * 2);
  more.set(xs);
  return more;
};

/** Of a capacity of one that nothing holds through a wait: spans that never overlap, in order. */
export class Single implements Line {
  private from = new Float64Array(FIRST);
  private to = new Float64Array(FIRST);
  private n = 0;

  clear(): void {
    this.n = 0;
  }
  add(from: number, to: number, amount: number): void {
    if (to <= from || !amount) return;
    const i = upTo(this.from, this.n, from);
    if (amount < 0) {
      this.from.copyWithin(i - 1, i, this.n);
      this.to.copyWithin(i - 1, i, this.n);
      this.n--;
      return;
    }
    if (this.n === this.from.length) [this.from, this.to] = [grown(this.from), grown(this.to)];
    this.from.copyWithin(i + 1, i, this.n);
    this.to.copyWithin(i + 1, i, this.n);
    this.from[i] = from;
    this.to[i] = to;
    this.n++;
  }
  hold(): void {
    throw new Error("nothing holds it through a wait");
  }
  blocked(from: number, to: number, amount: number, need: number): number {
    if (!amount) return -1;
    let i = upTo(this.from, this.n, from) - 1;
    if (i < 0 || this.to[i] <= from) i++;
    if (i >= this.n || this.from[i] >= to) return -1;
    let end = this.to[i];
    while (i + 1 < this.n && this.from[i + 1] < end + need) end = this.to[++i];
    return end;
  }
  /** Runs of spans no more than a gap apart. */
  runs(gap: number): number {
    let runs = 0;
    let end = -Infinity;
    for (let i = 0; i < this.n; i++) {
      if (this.from[i] > end + gap) runs++;
      end = this.to[i];
    }
    return runs;
  }
}

/** Of any capacity: a step function, kept as segments of one level, neighbours of the same level merged; and what is held without end. */
export class Timeline implements Line {
  private at = new Float64Array(FIRST);
  private level = new Float64Array(FIRST);
  private n = 1;
  /** moments from which something is held, in order, and how much */
  private since: number[] = [];
  private held: number[] = [];
  private all = 0;
  /** never below the highest level: where that leaves room, nothing need be looked at */
  private high = 0;

  constructor(private readonly capacity: number) {
    this.at[0] = -Infinity;
  }

  clear(): void {
    this.n = 1;
    this.level[0] = 0;
    this.since.length = this.held.length = 0;
    this.all = this.high = 0;
  }
  private cut(t: number): number {
    const i = upTo(this.at, this.n, t) - 1;
    if (this.at[i] === t) return i;
    if (this.n === this.at.length) [this.at, this.level] = [grown(this.at), grown(this.level)];
    this.at.copyWithin(i + 2, i + 1, this.n);
    this.level.copyWithin(i + 2, i + 1, this.n);
    this.at[i + 1] = t;
    this.level[i + 1] = this.level[i];
    this.n++;
    return i + 1;
  }
  private join(i: number): void {
    if (i <= 0 || i >= this.n || this.level[i] !== this.level[i - 1]) return;
    this.at.copyWithin(i, i + 1, this.n);
    this.level.copyWithin(i, i + 1, this.n);
    this.n--;
  }
  add(from: number, to: number, amount: number): void {
    if (to <= from || !amount) return;
    const a = this.cut(from);
    const b = this.cut(to);
    for (let i = a; i < b; i++) {
      this.level[i] += amount;
      if (this.level[i] > this.high) this.high = this.level[i];
    }
    this.join(b);
    this.join(a);
  }
  hold(from: number, amount: number): void {
    if (!amount) return;
    this.all += amount;
    const { since, held } = this;
    if (amount < 0) {
      for (let i = 0; i < since.length; i++)
        if (since[i] === from && held[i] === -amount) {
          since.splice(i, 1);
          held.splice(i, 1);
          return;
        }
      throw new Error("nothing is held from then on");
    }
    let i = since.length;
    while (i > 0 && since[i - 1] > from) i--;
    since.splice(i, 0, from);
    held.splice(i, 0, amount);
  }
  blocked(from: number, to: number, amount: number): number {
    const most = this.capacity - amount;
    if (to <= from) return -1;
    if (this.high + this.all <= most) return -1;
    const { at, level, since, held, n } = this;
    let i = upTo(at, n, from) - 1;
    let k = 0;
    let more = 0;
    while (k < since.length && since[k] <= from) more += held[k++];
    // from one change to the next, of either kind
    let shut = false;
    for (let t = from; ;) {
      if (level[i] + more > most) shut = true;
      else if (shut) return t;
      const next = Math.min(i + 1 < n ? at[i + 1] : Infinity, k < since.length ? since[k] : Infinity);
      if (next === Infinity) return shut ? Infinity : -1;
      if (!shut && next >= to) return -1;
      t = next;
      if (i + 1 < n && at[i + 1] === t) i++;
      while (k < since.length && since[k] <= t) more += held[k++];
    }
  }
}
