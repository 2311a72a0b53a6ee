/**
 * One machine with heads and tails, work allowed to be interrupted (Jackson's preemptive schedule, after Carlier 1982): always doing
 * what has the longest tail of all that is there gives a finish that no schedule comes below. Closed time of the machine is skipped.
 */
import type { OpenTime } from "../calendar";
import type { Model } from "../model";
import type { Paths } from "./path";

/** @returns max over tasks of (end + tail) of the preemptive schedule */
export function preemptive(open: OpenTime, jobs: { head: number; work: number; tail: number }[]): number {
  const coming = jobs
    .filter((j) => j.work > 0)
    .map((j) => ({ ...j, left: j.work }))
    .sort((a, b) => a.head - b.head);
  let worst = jobs.reduce((w, j) => Math.max(w, j.head + j.work + j.tail), -Infinity);
  const ready: typeof coming = [];
  let at = 0;
  for (let k = 0; k < coming.length || ready.length;) {
    if (!ready.length) at = Math.max(at, coming[k].head);
    while (k < coming.length && coming[k].head <= at) {
      const j = coming[k++];
      let p = ready.length;
      while (p > 0 && ready[p - 1].tail > j.tail) p--;
      ready.splice(p, 0, j);
    }
    const j = ready[ready.length - 1];
    const from = open.next(at);
    const until = k < coming.length ? coming[k].head : Infinity;
    if (from >= until) {
      at = until;
      continue;
    }
    const end = open.end(from, j.left);
    if (end <= until) {
      worst = Math.max(worst, end + j.tail);
      ready.pop();
      at = end;
    } else {
      j.left -= open.before(until) - open.before(from);
      at = until;
    }
  }
  return worst;
}

/** Tasks of which no two can use a resource at once. */
export const unary = (m: Model, r: number): number[] => {
  const list: number[] = [];
  for (let i = 0; i < m.n; i++)
    if (m.work[i] > 0 && m.uses[i].some((u) => u.r === r && 2 * u.amount > m.capacity[r])) list.push(i);
  return list;
};

export function oneMachineBound(m: Model, { head, tail }: Paths): { finish: number; late: number } {
  let [finish, late] = [0, 0];
  for (let r = 0; r < m.capacity.length; r++) {
    const list = unary(m, r);
    if (!list.length || list.some((i) => head[i] === Infinity)) continue;
    finish = Math.max(
      finish,
      preemptive(
        m.closedOf[r],
        list.map((i) => ({ head: head[i], work: m.work[i], tail: tail[i] })),
      ),
    );
    // the same with dues for tails: how late the latest must be
    const dued = list.filter((i) => m.due[i] < Infinity && m.weight[i] > 0);
    if (dued.length)
      late = Math.max(
        late,
        preemptive(
          m.closedOf[r],
          dued.map((i) => ({ head: head[i], work: m.work[i], tail: -m.due[i] })),
        ) * Math.min(...dued.map((i) => m.weight[i])),
      );
  }
  return { finish, late };
}
