import { lastAtOrBefore } from "./calendar";

/** How much of a resource is taken over time: a step function, kept as segments of one level, neighbours of the same level merged. */
export class Timeline {
  private at: number[] = [-Infinity];
  private level: number[] = [0];
  /** never below the highest level: where that leaves room, nothing need be looked at */
  private high = 0;

  constructor(private readonly capacity: number) {}

  clear(): void {
    this.at.length = this.level.length = 1;
    this.level[0] = 0;
    this.high = 0;
  }
  private cut(t: number): number {
    const i = lastAtOrBefore(this.at, t);
    if (this.at[i] === t) return i;
    this.at.splice(i + 1, 0, t);
    this.level.splice(i + 1, 0, this.level[i]);
    return i + 1;
  }
  private join(i: number): void {
    if (i > 0 && i < this.at.length && this.level[i] === this.level[i - 1]) {
      this.at.splice(i, 1);
      this.level.splice(i, 1);
    }
  }
  /** Takes so much over [from, to); a negative amount gives it back. */
  add(from: number, to: number, amount: number): void {
    if (to <= from || !amount) return;
    const a = this.cut(from);
    const b = to === Infinity ? this.at.length : this.cut(to);
    for (let i = a; i < b; i++) {
      this.level[i] += amount;
      if (this.level[i] > this.high) this.high = this.level[i];
    }
    this.join(b);
    this.join(a);
  }
  /** −1: so much is free all over [from, to); else the moment at which the first thing in the way has ended. */
  blocked(from: number, to: number, amount: number): number {
    const most = this.capacity - amount;
    if (this.high <= most) return -1;
    for (let i = lastAtOrBefore(this.at, from); i < this.at.length && this.at[i] < to; i++) {
      if (this.level[i] <= most) continue;
      let j = i + 1;
      while (j < this.at.length && this.level[j] > most) j++;
      return j < this.at.length ? this.at[j] : Infinity;
    }
    return -1;
  }
}
