/**
 * Can it be done by a moment? Branching over which of two tasks comes first where only one of them can run at a time, with windows
 * shrunk by lags and edge finding at every node (in the line of Brucker, Jurisch and Sievers 1994). What it refutes is refuted for every
 * problem: closing windows, holds and shared capacities, which it leaves aside, can only ask for more.
 */
import { narrow, propagate, windowsFor, type Windows } from "./bounds/edge";
import type { Paths } from "./bounds/path";
import { endOf, type Model } from "./model";

export interface Refutation {
  /** "refuted": no schedule is done by then. "ordered": an order was found that reaches it, windows and holds aside. "cut": not settled. */
  is: "refuted" | "ordered" | "cut";
  start: Float64Array | null;
  nodes: number;
}

/** @param nodes most nodes looked at */
export function canFinish(
  m: Model,
  paths: Paths,
  finish: number,
  nodes: number,
  stop: () => boolean = () => false,
): Refutation {
  const lists = narrow(m);
  let seen = 0;
  let cut = false;
  let start: Float64Array | null = null;
  const down = (w: Windows, after: number[][]): boolean => {
    if (++seen > nodes || ((seen & 15) === 0 && stop())) {
      cut = true;
      return false;
    }
    // orders that the windows leave no choice about, until none is left
    let pair: [number, number] | null = null;
    for (let again = true; again;) {
      if (!propagate(m, w, after)) return false;
      again = false;
      pair = null;
      let least = Infinity;
      for (const { list } of lists)
        for (let x = 0; x < list.length; x++)
          for (let y = x + 1; y < list.length; y++) {
            const [i, j] = [list[x], list[y]];
            if (after[i].includes(j) || after[j].includes(i)) continue;
            const first = w.last[j] - m.work[j] - endOf(m, i, w.head[i]);
            const second = w.last[i] - m.work[i] - endOf(m, j, w.head[j]);
            if (first < 0 && second < 0) return false;
            if (first < 0 || second < 0) {
              if (first < 0) after[j].push(i);
              else after[i].push(j);
              again = true;
            } else if (endOf(m, i, w.last[i] - m.work[i]) <= w.head[j]) after[i].push(j);
            else if (endOf(m, j, w.last[j] - m.work[j]) <= w.head[i]) after[j].push(i);
            else {
              // the pair with least room either way decides most
              const room = Math.min(first, second) * 1e6 + Math.max(first, second);
              if (room < least) {
                least = room;
                pair = first >= second ? [i, j] : [j, i];
              }
            }
          }
    }
    if (!pair) {
      start = Float64Array.from(w.head);
      return true;
    }
    const [i, j] = pair as [number, number];
    for (const [a, b] of [
      [i, j],
      [j, i],
    ]) {
      const next = after.map((x) => x.slice());
      next[a].push(b);
      if (down({ head: Float64Array.from(w.head), last: Float64Array.from(w.last) }, next)) return true;
      if (cut) return false;
    }
    return false;
  };
  const found = down(
    windowsFor(m, paths, finish),
    Array.from({ length: m.n }, () => []),
  );
  return { is: found ? "ordered" : cut ? "cut" : "refuted", start, nodes: seen };
}
