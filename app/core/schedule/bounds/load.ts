/**
 * Load of a resource: what must run after a moment needs so many units × minutes, and the resource gives no more than its capacity
 * in its open time (the energy argument of cumulative scheduling). Over all sets “head no earlier than h”.
 */
import type { Model } from "../model";
import type { Paths } from "./path";

export function loadBound(m: Model, { head, tail }: Paths): number {
  let finish = 0;
  for (let r = 0; r < m.capacity.length; r++) {
    const list: { head: number; load: number; tail: number }[] = [];
    for (let i = 0; i < m.n; i++)
      for (const u of m.uses[i])
        if (u.r === r && head[i] < Infinity) list.push({ head: head[i], load: u.amount * m.work[i], tail: tail[i] });
    list.sort((a, b) => b.head - a.head);
    const open = m.closedOf[r];
    let [load, least] = [0, Infinity];
    list.forEach((x, k) => {
      load += x.load;
      least = Math.min(least, x.tail);
      if (k + 1 < list.length && list[k + 1].head === x.head) return;
      if (load > 0) finish = Math.max(finish, open.end(open.next(x.head), Math.ceil(load / m.capacity[r])) + least);
    });
  }
  return finish;
}
